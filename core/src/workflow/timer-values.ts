import { type Board, byNumber, extractNets, type Nets, pinOf, type SeatedPart } from '../board';
import { E12, E24, families, familyOf, oneShotLaw, type PartType, timerPulse, typeOf, valuesOf } from '../catalogue';
import { BoardVolts, thresholdsAt, tolerances } from '../electrical';
import type { LooseValues } from '../packing';

/** What a timer does: runs by itself, or gives one pulse when it is started. */
export type TimerKind = 'astable' | 'pulse' | 'schmitt';

/** The parts that a timer's time hangs on: ohms of its resistors (for an astable 555 that to supply, then that to the capacitor), farads. */
export interface TimerValues {
  readonly ohms: readonly number[];
  readonly farads: number;
}

/**
 * How long a timer is high and low, for each ohm and farad: high for `high[i]` times resistor `i` times the capacitor, summed, and low likewise; of a pulse
 * `low` is empty.
 */
export interface TimerLaw {
  readonly high: readonly number[];
  readonly low: readonly number[];
  /** Ohms that are added to the first resistor inside the chip. */
  readonly plusOhms: number;
}

/** A timer, one-shot or Schmitt oscillator on a board, by its output pin, with the parts that set it. */
export interface FoundTimer {
  readonly pin: string;
  readonly kind: TimerKind;
  readonly resistors: readonly string[];
  readonly capacitor: string;
  readonly values: TimerValues;
  readonly law: TimerLaw;
  /** The volts of its board. */
  readonly supplyV: number;
  /** Capacitors that a contact puts beside the own one. */
  readonly switched: readonly SwitchedCapacitor[];
}

/** A second capacitor of a timer, and the part whose contact puts it beside the first. */
export interface SwitchedCapacitor {
  readonly ref: string;
  readonly by: string;
  readonly farads: number;
}

/** Times of a timer in seconds; `lowS` is null of a pulse. */
export interface Rhythm {
  readonly highS: number;
  readonly lowS: number | null;
}

/** How long a timer is high and low with some parts. */
export function rhythmOf({ high, low, plusOhms }: TimerLaw, { ohms, farads }: TimerValues): Rhythm {
  const time = (factors: readonly number[]): number =>
    farads * factors.reduce((sum, factor, i) => sum + factor * ((ohms[i] ?? 0) + (i === 0 ? plusOhms : 0)), 0);
  return { highS: time(high), lowS: low.length === 0 ? null : time(low) };
}

/** The same where every part is as far below its value as it may be, and as far above. */
export function spreadOf(timer: FoundTimer, board: Board): readonly [least: Rhythm, most: Rhythm] {
  const partAt = (ref: string): number => tolerances[board.parts[ref]?.part ?? ''] ?? tolerances.resistor;
  const at = (sign: 1 | -1): Rhythm =>
    rhythmOf(timer.law, {
      ohms: timer.values.ohms.map((ohms, i) => ohms * (1 + sign * partAt(timer.resistors[i] ?? ''))),
      farads: timer.values.farads * (1 + sign * partAt(timer.capacitor)),
    });
  return [at(-1), at(1)];
}

/** How long a timer is high and low while all its switched capacitors lie beside its own; null where it has none. */
export function rhythmSwitched({ law, values, switched }: FoundTimer): Rhythm | null {
  if (switched.length === 0) return null;
  return rhythmOf(law, { ...values, farads: switched.reduce((sum, { farads }) => sum + farads, values.farads) });
}

/** Every timer of a board whose time hangs on parts that are there, in the order of their pins. */
export function timersOf(board: Board, nets: Nets = extractNets(board)): FoundTimer[] {
  const seen = new Around(board, nets);
  const chips = Object.values(board.parts).sort((a, b) => byNumber(a.ref, b.ref));
  return chips.flatMap((part) => {
    const type = typeOf(part);
    if (type?.kind !== 'chip') return [];
    const found = [
      ...timers555(seen, part, type),
      ...oneShots(seen, part, type),
      ...schmittOscillators(seen, part, type),
    ];
    return found.map((one) => ({
      ...one,
      supplyV: seen.volts.supplyV,
      switched: seen.switchedBeside(one.capacitor),
    }));
  });
}

/** A part between two nets, with its value in ohms or farads. */
interface Between {
  readonly ref: string;
  readonly value: number;
}

/** What lies around the pins of a board. */
class Around {
  readonly volts: BoardVolts;

  constructor(
    private readonly board: Board,
    private readonly nets: Nets,
  ) {
    this.volts = new BoardVolts(board, nets);
  }

  netOf(part: SeatedPart, type: PartType, name: string): number {
    const id = type.pins.find((p) => p.name === name)?.id;
    return (id === undefined ? undefined : this.nets.ofPin.get(pinOf(part.ref, id))) ?? -1;
  }

  netAt(pin: string): number {
    return this.nets.ofPin.get(pin) ?? -1;
  }

  isSupply(net: number): boolean {
    return (this.volts.fixed.get(net) ?? 0) > 0;
  }

  isGround(net: number): boolean {
    return this.volts.fixed.get(net) === 0;
  }

  /** Capacitors that have one end on a net of a capacitor, and the other beyond a contact on its other net. */
  switchedBeside(ref: string): SwitchedCapacitor[] {
    const own = this.ends(ref);
    return Object.values(this.board.parts).flatMap((part) => {
      if (typeOf(part)?.kind !== 'capacitor' || part.ref === ref) return [];
      const ends = this.ends(part.ref);
      return own.flatMap((near, i): SwitchedCapacitor[] => {
        const far = own[1 - i] ?? -1;
        const loose = ends.find((net) => net !== near) ?? -1;
        const by = ends.includes(near) && loose !== far ? this.contactBetween(loose, far) : null;
        return by === null ? [] : [{ ref: part.ref, by, farads: faradsOf(part) }];
      });
    });
  }

  private ends(ref: string): number[] {
    return ['1', '2'].map((pin) => this.netAt(pinOf(ref, pin)));
  }

  /** The part whose contact joins two nets when it is closed. */
  private contactBetween(a: number, b: number): string | null {
    for (const part of Object.values(this.board.parts))
      for (const contact of typeOf(part)?.inner?.contacts ?? []) {
        const nets = [contact.a, contact.b].map((pin) => this.netAt(pinOf(part.ref, pin)));
        if (a >= 0 && b >= 0 && nets.includes(a) && nets.includes(b)) return part.ref;
      }
    return null;
  }

  /** The one resistor, or capacitor, between a net and others; null where there is none, or more than one. */
  only(kind: 'resistor' | 'capacitor', net: number, isOther: (net: number) => boolean): Between | null {
    const found = Object.values(this.board.parts).filter((part) => {
      if (net < 0 || typeOf(part)?.kind !== kind) return false;
      const [a, b] = [this.netAt(pinOf(part.ref, '1')), this.netAt(pinOf(part.ref, '2'))];
      return (a === net && isOther(b)) || (b === net && isOther(a));
    });
    const [part] = found;
    if (!part || found.length > 1) return null;
    return { ref: part.ref, value: kind === 'resistor' ? (part.value ?? 1000) : faradsOf(part) };
  }
}

/** The farads of a capacitor, to six places: what is multiplied out of nanofarads is the value of the series again. */
const faradsOf = (part: SeatedPart): number => Number(((part.value ?? 100) * 1e-9).toPrecision(6));

/** A timer before the rest of its board is looked at. */
type Unsupplied = Omit<FoundTimer, 'supplyV' | 'switched'>;

const timer = (
  pin: string,
  kind: TimerKind,
  {
    resistors,
    capacitor,
    law,
  }: { readonly resistors: readonly Between[]; readonly capacitor: Between; readonly law: TimerLaw },
): Unsupplied => ({
  pin,
  kind,
  resistors: resistors.map((r) => r.ref),
  capacitor: capacitor.ref,
  values: { ohms: resistors.map((r) => r.value), farads: capacitor.value },
  law,
});

/** Between a third of the supply and two thirds. Source: NE555 data sheet, astable operation. */
const HALF_WAY = Math.LN2;

/** The timers of a 555 or 556 in their two ways of use; nothing pulls at their control pins. */
function timers555(seen: Around, part: SeatedPart, type: PartType): Unsupplied[] {
  return ['', '1', '2'].flatMap((unit): Unsupplied[] => {
    const pinNamed = (name: string): string | undefined => type.pins.find((p) => p.name === `${unit}${name}`)?.id;
    const [out] = [pinNamed('OUT')];
    const net = (name: string): number => seen.netOf(part, type, `${unit}${name}`);
    const [threshold, trigger, discharge, control] = [net('THRES'), net('TRIG'), net('DISCH'), net('CONT')];
    const isPulled = seen.only('resistor', control, () => true) !== null;
    if (out === undefined || threshold < 0 || isPulled) return [];
    const pin = pinOf(part.ref, out);
    const capacitor = seen.only('capacitor', threshold, (n) => seen.isGround(n));
    if (!capacitor) return [];
    if (threshold === discharge) {
      const charge = seen.only('resistor', threshold, (n) => seen.isSupply(n));
      const law = { high: [timerPulse.factor], low: [], plusOhms: 0 };
      return charge && trigger !== threshold ? [timer(pin, 'pulse', { resistors: [charge], capacitor, law })] : [];
    }
    const [above, below] = [
      seen.only('resistor', discharge, (n) => seen.isSupply(n)),
      seen.only('resistor', discharge, (n) => n === threshold),
    ];
    const law = { high: [HALF_WAY, HALF_WAY], low: [0, HALF_WAY], plusOhms: 0 };
    return above && below && trigger === threshold
      ? [timer(pin, 'astable', { resistors: [above, below], capacitor, law })]
      : [];
  });
}

function oneShots(seen: Around, part: SeatedPart, type: PartType): Unsupplied[] {
  return type.units.flatMap(({ outputs, timers }) =>
    timers.flatMap(({ law }): Unsupplied[] => {
      const net = seen.netOf(part, type, law.resistor);
      const resistor = seen.only('resistor', net, (n) => seen.isSupply(n));
      const far = seen.netOf(part, type, law.capacitor);
      const capacitor = seen.only('capacitor', net, (n) => n === far);
      const pin = outputs[0];
      if (!resistor || !capacitor || pin === undefined) return [];
      const { factor, plusOhms } = oneShotLaw(law, familyOf(part));
      return [
        timer(pinOf(part.ref, pin), 'pulse', {
          resistors: [resistor],
          capacitor,
          law: { high: [factor], low: [], plusOhms },
        }),
      ];
    }),
  );
}

/** Schmitt inverters of CMOS with a resistor back to their input: those of TTL draw too much current for a formula. */
function schmittOscillators(seen: Around, part: SeatedPart, type: PartType): Unsupplied[] {
  const family = familyOf(part);
  if (type.chip?.schmitt !== true || families[family].technology === 'TTL') return [];
  const supplyV = seen.volts.supplyV;
  const { low: fallsV, high: risesV } = thresholdsAt(family, supplyV, true);
  return type.units.flatMap(({ inputs, outputs }): Unsupplied[] => {
    const [input, output] = [inputs[0], outputs[0]];
    if (input === undefined || output === undefined || inputs.length > 1) return [];
    const [from, pin] = [seen.netAt(pinOf(part.ref, input)), pinOf(part.ref, output)];
    const to = seen.netAt(pin);
    const resistor = seen.only('resistor', from, (n) => n === to && n !== from);
    const capacitor = seen.only('capacitor', from, (n) => seen.isGround(n));
    if (!resistor || !capacitor) return [];
    const high = Math.log((supplyV - fallsV) / (supplyV - risesV));
    const law = { high: [high], low: [Math.log(risesV / fallsV)], plusOhms: 0 };
    return [timer(pin, 'schmitt', { resistors: [resistor], capacitor, law })];
  });
}

/** What is wanted of a timer: so many times a second, for such a share of the time high; or a pulse of so many seconds. */
export type Wanted = { readonly hertz: number; readonly highShare: number | null } | { readonly pulseS: number };

/** Parts that come near to what is wanted. `error` is how far off they are, as a share. */
export interface Suggestion {
  readonly values: TimerValues;
  readonly rhythm: Rhythm;
  readonly error: number;
  /** Whether all its parts are in the drawer. */
  readonly isInDrawer: boolean;
}

/** Resistors that timers are used with, in ohms. Source: NE555 data sheet, 1 kΩ to some megohms. */
const OHMS = { least: 1000, most: 2e6 } as const;
/** Capacitors that timers are built with, in farads. */
export const FARADS = { least: 1e-9, most: 1e-3 } as const;
const MOST_SUGGESTED = 3;

/**
 * Parts of the series E24 (capacitors of E12) that come nearest to what is wanted, the best first, each with another capacitor; the capacitor that is there
 * comes first where it does nearly as well. What can be had of the drawer alone comes before all others. Empty where nothing comes within a third.
 */
export function suggested(found: FoundTimer, wanted: Wanted, drawer: LooseValues = EMPTY_DRAWER): Suggestion[] {
  const capacitors = valuesOf(E12, FARADS).map((f) => Number(f.toPrecision(3)));
  const shop = { ohms: OHM_VALUES, farads: [...new Set([found.values.farads, ...capacitors])] };
  const own = ranked(found, wanted, drawer).map((s) => ({ ...s, isInDrawer: true }));
  const seen = new Set(own.map(({ values }) => JSON.stringify(values)));
  const others = ranked(found, wanted, shop).filter(({ values }) => !seen.has(JSON.stringify(values)));
  return [...own, ...others].slice(0, MOST_SUGGESTED);
}

const EMPTY_DRAWER: LooseValues = { ohms: [], farads: [] };

/** What can be made of some parts, the best first. */
function ranked(found: FoundTimer, wanted: Wanted, parts: LooseValues): Suggestion[] {
  const own = found.values.farads;
  const all = parts.farads.flatMap((farads) => bestWith(found, wanted, farads, parts.ohms) ?? []);
  const near = all.filter(({ error }) => error < 1 / 3);
  // Few sizes of capacitor lie in a drawer: those of the first half of a decade that are most common come before the others.
  const rank = ({ values, error }: Suggestion): number =>
    error - (values.farads === own ? 0.02 : isCommon(values.farads) ? 0.005 : 0);
  return near.sort((a, b) => rank(a) - rank(b));
}

/** Capacitors that every drawer has: 1, 2.2 and 4.7 of each decade (E3). */
const isCommon = (farads: number): boolean => {
  const digits = Number(farads.toExponential(1).slice(0, 3));
  return [1, 2.2, 4.7].includes(digits);
};

const OHM_VALUES = [...new Set(valuesOf(E24, OHMS).map((ohms) => Number(ohms.toPrecision(3))))].sort((a, b) => a - b);

/** The two of some values, in order, beside an ideal one. */
function beside(ideal: number, values: readonly number[]): readonly number[] {
  const at = values.findIndex((ohms) => ohms >= ideal);
  if (at < 0) return values.slice(-1);
  return values.slice(Math.max(0, at - 1), at + 1);
}

function bestWith(found: FoundTimer, wanted: Wanted, farads: number, series: readonly number[]): Suggestion | null {
  const { law, kind } = found;
  const candidates = kind === 'astable' ? astable(wanted, farads, series) : singles(law, wanted, farads, series);
  let best: Suggestion | null = null;
  for (const ohms of candidates) {
    const values = { ohms, farads };
    const rhythm = rhythmOf(law, values);
    const error = errorOf(rhythm, wanted);
    if (!best || error < best.error) best = { values, rhythm, error, isInDrawer: false };
  }
  return best;
}

/** Resistors for an astable timer: the one to the capacitor from the time that it is low, the other from what is left. */
function astable(wanted: Wanted, farads: number, series: readonly number[]): (readonly number[])[] {
  if (!('hertz' in wanted)) return [];
  const { hertz, highShare } = wanted;
  const total = 1 / (hertz * HALF_WAY * farads);
  // A wanted share may take any of them; without one both resistors are about alike.
  const below = highShare === null ? beside((total - OHMS.least) / 2, series) : series;
  return below.flatMap((b) => beside(total - 2 * b, series).map((a) => [a, b]));
}

function singles(law: TimerLaw, wanted: Wanted, farads: number, series: readonly number[]): (readonly number[])[] {
  const { highS, lowS } = rhythmOf({ ...law, plusOhms: 0 }, { ohms: [1], farads });
  const seconds = 'hertz' in wanted ? 1 / wanted.hertz : wanted.pulseS;
  return beside(seconds / (highS + (lowS ?? 0)) - law.plusOhms, series).map((ohms) => [ohms]);
}

/** How far off a rhythm is: of its rate or length, and half as much of its share where one is wanted. */
function errorOf({ highS, lowS }: Rhythm, wanted: Wanted): number {
  if (!('hertz' in wanted)) return Math.abs(highS / wanted.pulseS - 1);
  const period = highS + (lowS ?? 0);
  const rate = Math.abs(period * wanted.hertz - 1);
  return wanted.highShare === null ? rate : rate + Math.abs(highS / period - wanted.highShare) / 2;
}

/** The volts of a timer's capacitor: seconds and volts, from the beginning of a time that it is high, over two periods or one pulse. */
export function chargeCurve({ kind, law, values, supplyV }: FoundTimer): { readonly s: number; readonly v: number }[] {
  const { highS, lowS } = rhythmOf(law, values);
  // Times and volts belong together: a capacitor that is charged from `from` to `to` towards the supply in `highS`.
  const rate = law.high.reduce((sum, factor) => Math.max(sum, factor), 0);
  const [low, high] =
    kind === 'pulse'
      ? [0, supplyV * (1 - Math.exp(-rate))]
      : kind === 'astable'
        ? [supplyV / 3, (2 * supplyV) / 3]
        : switchingOf(law, supplyV);
  const points: { s: number; v: number }[] = [];
  for (let period = 0; period < (lowS === null ? 1 : 2); period++) {
    const start = period * (highS + (lowS ?? 0));
    for (let i = 0; i <= STEPS; i++) {
      const share = i / STEPS;
      points.push({
        s: start + share * highS,
        v: supplyV - (supplyV - low) * ((supplyV - high) / (supplyV - low)) ** share,
      });
    }
    for (let i = 1; lowS !== null && i <= STEPS; i++) {
      const share = i / STEPS;
      points.push({ s: start + highS + share * lowS, v: high * (low / high) ** share });
    }
  }
  return points;
}

/** Points of a curve from one turn to the next. */
const STEPS = 40;

/** Between which volts a Schmitt input switches, from how long it takes up and down. */
function switchingOf({ high, low }: TimerLaw, supplyV: number): readonly [number, number] {
  // high = ln((V - f) / (V - r)), low = ln(r / f).
  const [up, down] = [Math.exp(high[0] ?? 0), Math.exp(low[0] ?? 0)];
  const falls = (supplyV * (up - 1)) / (up * down - 1);
  return [falls, falls * down];
}
