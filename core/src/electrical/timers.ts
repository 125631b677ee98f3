import { type Board, byNumber, extractNets, type Nets, pinOf, type SeatedPart } from '../board';
import { families, familyOf, oneShotLaw, type PartType, timerPulse, typeOf } from '../catalogue';
import { BoardVolts } from './board-volts';
import { thresholdsAt } from './pin-models';

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

/** Every timer of a board whose time hangs on parts that are there, in the order of their pins. */
export function timersOf(board: Board, nets: Nets = extractNets(board)): FoundTimer[] {
  const chips = Object.values(board.parts).flatMap((part) => {
    const type = typeOf(part);
    return type && canTime(type) ? [{ part, type }] : [];
  });
  if (chips.length === 0) return [];
  const seen = new Around(board, nets);
  chips.sort((a, b) => byNumber(a.part.ref, b.part.ref));
  return chips.flatMap(({ part, type }) => {
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

/** Whether a part is a chip that times something with parts at its pins. */
const canTime = ({ chip, units }: PartType): boolean =>
  chip?.schmitt === true || chip?.dividers !== undefined || units.some(({ timers }) => timers.length > 0);

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
/** The law of a 555 that runs by itself: of the resistor to supply, then of that between the two. */
export const astableLaw: TimerLaw = { high: [HALF_WAY, HALF_WAY], low: [0, HALF_WAY], plusOhms: 0 };

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
    return above && below && trigger === threshold
      ? [timer(pin, 'astable', { resistors: [above, below], capacitor, law: astableLaw })]
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
