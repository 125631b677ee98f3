import type { Board } from '../board';
import { E12, type FamilyId, familyOf, oneShotLaw, timerPulse, typeOf, valuesOf } from '../catalogue';
import type { FittedSignals, WantedPulses } from '../design';
import { inputUaOf, pinLimitsOf } from '../electrical';
import { elementAt } from '../element-at';
import { drivenBy, looseNets, type Package, type Packing, type UnitUse } from '../packing';
import { pulseValues, runningValues } from './pulse-values';
import { type LayoutBoardKind, Seats, type Timing } from './seats';
import { type Shown, shownOn } from './shown';

/** The most breadboards that a plan uses. */
export const MAX_BOARDS = 40;

/**
 * Ohms: LED series resistor (3.1 mA at 5 V, within the 4 mA at which HC levels are guaranteed), pull-down,
 * and pull-up of an open-collector output (enough for its LED, 5 mA to sink).
 */
export const LED_OHMS = 1000;
/** The same for an LED on a net that has little to give, such as one that only a pull-up resistor lifts: 0.7 mA, so that the net stays high to an HC input, some 4.3 V. */
const WEAK_LED_OHMS = 3300;
/** Ohms of the resistor that holds a switch's signal low while it is open. */
export const PULL_DOWN_OHMS = 10_000;
/** With less the switch would burn over 10 mA while it is on: as on benches for TTL, a change-over switch takes its place. */
const LEAST_PULL_DOWN_OHMS = 470;
/** Ohms of the resistor that lifts an open-collector output: 5 mA to sink at 5 V. */
export const PULL_UP_OHMS = 1000;
/** Ohms before the segments of a display that open-collector outputs pull low: some 9 mA at 5 V, as decoders sink them. */
const SUNK_SEGMENT_OHMS = 330;
/** Ohms before the base of the transistor that switches a buzzer, at least: 3 mA from outputs that give as much. */
const BASE_OHMS = 1200;
/** A base under current is so many volts over ground. */
const BASE_V = 0.7;

/** Free columns left beside a chip, for wires that cross the channel: as many as cost no further board. */
const GAPS = [5, 4, 3, 2] as const;
/** A board with its parts seated, and what pins are to be joined to where no label says it (see `Seats`). */
export interface Seated {
  readonly board: Board;
  readonly joins: ReadonlyMap<string, string>;
}

/** What parts are seated on, and what the sheet says that signals come from and are shown on. */
export interface SeatOptions {
  readonly kind?: LayoutBoardKind;
  readonly fittings?: readonly FittedSignals[];
  readonly pulses?: readonly WantedPulses[];
}

/**
 * Seats everything of a packing from left to right as signals flow: supply, a switch with its
 * pull-down for each input, the chips over the channel, an LED with its resistor for each output; or what the sheet asks for in their place.
 * Goes on to a further board when one is full; null when MAX_BOARDS are not enough.
 */
export function seatAll(packing: Packing, { kind = 'full', ...wanted }: SeatOptions = {}): Seated | null {
  const tries = GAPS.map((gap) => seatWith(packing, new Seats(gap, kind), gap, wanted));
  const least = Math.min(...tries.map((seats) => seats.board));
  const seats = tries.find((t) => t.board === least);
  if (!seats || least > MAX_BOARDS) return null;
  return { board: { breadboards: seats.breadboards(), parts: seats.parts, jumpers: {} }, joins: seats.joins };
}

function seatWith(
  packing: Packing,
  seats: Seats,
  gap: number,
  { fittings = [], pulses = [] }: Omit<SeatOptions, 'kind'>,
): Seats {
  const fittingOf = new Map(fittings.flatMap((f) => f.signals.map((name) => [name, f] as const)));
  seats.addSupply();
  for (const name of packing.inputs) {
    const fitting = fittingOf.get(name)?.fitting;
    if (fitting?.kind === 'clock') seats.addClock(name, fitting.hertz);
    else if (fitting?.kind === 'timer') seats.addTimer(name, runningValues(fitting.hertz));
    else if (fitting?.kind === 'button') seats.addButton(name, pullDownFor(packing, name));
    else if (pullDownFor(packing, name) < LEAST_PULL_DOWN_OHMS) seats.addChangeOver(name);
    else seats.addSwitch(name, pullDownFor(packing, name));
  }
  seats.skip(gap);
  const timed = new Set<string>();
  for (const { units, ...chip } of packing.packages) {
    const timings = timingsOf({ ...chip, units }, pulses, looseNets(packing));
    seats.addChip(chip, timings);
    for (const timing of timings) if (timing.far === null) timed.add(timing.net);
  }
  // What charges a timer's capacitor lifts its net as well.
  const open = openNets(packing).filter((net) => !timed.has(net));
  const shown = shownOn(packing.outputs, fittings, (net) => open.includes(net));
  // What a pull-up lifts, or what drives a buzzer too, has little left for lamps.
  const weak = new Set([...open, ...shown.flatMap((one) => (one.kind === 'buzzer' ? [one.output.net] : []))]);
  for (const one of shown) seatShown(one, seats, packing, { open, weak });
  // Segments that light when low lift their nets themselves, where nothing else reads them.
  const digits = shown.flatMap((one) => (one.kind === 'digits' ? one.digits.filter((d) => d.low) : []));
  const lifted = new Set(digits.flatMap(({ signals }) => signals.map((s) => s.net)));
  const read = new Set(packing.packages.flatMap((p) => p.units.flatMap((u) => u?.inputs ?? [])));
  for (const net of open) if (!lifted.has(net) || read.has(net)) seats.addPullUp(net, PULL_UP_OHMS);
  return seats;
}

/**
 * The parts that a package's one-shots get for the pulses that the sheet wants, with the pins that they go to. One whose outputs lead nowhere, as `loose` nets do,
 * gets none.
 */
export function timingsOf(
  { units, ...chip }: Package,
  pulses: readonly WantedPulses[],
  loose: ReadonlySet<string>,
): Timing[] {
  const type = typeOf(chip);
  let n = 0;
  const secondsOf = (use: UnitUse | null | undefined): number | undefined =>
    pulses.find((p) => p.ref === use?.gate)?.seconds[n++];
  const pin = (name: string): string => type?.pins.find((p) => p.name === name)?.id ?? '';
  const oneShots = (type?.units ?? []).flatMap((unit, u) =>
    unit.timers.flatMap(({ law }): Timing[] => {
      const use = units[u];
      const seconds = secondsOf(use);
      if (seconds === undefined || !use || drivenBy(use).every((net) => loose.has(net))) return [];
      const values = pulseValues(seconds, oneShotLaw(law, familyOf(chip)));
      return [{ charged: pin(law.resistor), far: pin(law.capacitor), seconds, ...values }];
    }),
  );
  const timers = (type?.chip?.dividers ?? []).flatMap(({ pulse }): Timing[] => {
    const charged = pin(pulse?.empties ?? '');
    const u = type?.units.findIndex((unit) => unit.outputs.includes(charged)) ?? -1;
    const use = units[u];
    const seconds = pulse && secondsOf(use);
    const net = use && drivenBy(use)[type?.units[u]?.outputs.indexOf(charged) ?? -1];
    if (seconds === undefined || typeof net !== 'string') return [];
    return [{ charged, far: null, net, seconds, ...pulseValues(seconds, timerPulse) }];
  });
  return [...oneShots, ...timers];
}

function seatShown(
  shown: Shown,
  seats: Seats,
  packing: Packing,
  { open, weak }: { readonly open: readonly string[]; readonly weak: ReadonlySet<string> },
): void {
  if (shown.kind === 'digits')
    seats.addDigits(
      shown.digits.map((d) => ({
        ...d,
        ohms: d.low && d.signals.every((s) => open.includes(s.net)) ? SUNK_SEGMENT_OHMS : LED_OHMS,
      })),
    );
  else if (shown.kind === 'bar')
    seats.addBar(
      shown.outputs.map((o) => o.name),
      LED_OHMS,
    );
  else if (shown.kind === 'buzzer') seats.addBuzzer(shown.output, baseOhms(packing, shown.output.net));
  else seats.addLed(shown.output.name, weak.has(shown.output.net) ? WEAK_LED_OHMS : LED_OHMS, shown.colour);
}

/** The family of a package whose number names none: a part of one's own has the levels of HC. */
const familyOfUnnumbered = ({ own }: Pick<Package, 'own'>): FamilyId => (own === undefined ? '74' : 'HC');

/** Ohms before the base of a buzzer's transistor: as many as leave the chip that drives it within what it surely gives when high. */
export function baseOhms({ packages }: Packing, net: string): number {
  const driver = packages.find(({ units }) => units.some((use) => use && drivenBy(use).includes(net)));
  if (!driver) return BASE_OHMS;
  const { outputHighV, outputMa } = pinLimitsOf(driver.part, familyOfUnnumbered(driver));
  const least = Math.max(BASE_OHMS, ((outputHighV - BASE_V) / outputMa.high) * 1000);
  return valuesOf(E12, { least, most: 10 * least })[0] ?? BASE_OHMS;
}

/** The pull-down of a switch: as large as leaves what its inputs give surely low, up to PULL_DOWN_OHMS. */
export function pullDownFor({ packages }: Packing, signal: string): number {
  const read = packages.flatMap(({ units, ...named }) => {
    const type = typeOf(named);
    const otherwise = familyOfUnnumbered(named);
    const { inputLowV } = pinLimitsOf(named.part, otherwise);
    return units.flatMap((use, u) =>
      (use?.inputs ?? []).flatMap((net, i) => {
        const id = type?.units[u]?.inputs[i];
        const name = type?.pins.find((p) => p.id === id)?.name ?? '';
        return net === signal ? [{ ua: inputUaOf(named.part, name, otherwise).low, volts: inputLowV }] : [];
      }),
    );
  });
  const ua = read.reduce((sum, r) => sum + r.ua, 0);
  const most = ua === 0 ? PULL_DOWN_OHMS : (0.9e6 * Math.min(...read.map((r) => r.volts))) / ua;
  if (most >= PULL_DOWN_OHMS) return PULL_DOWN_OHMS;
  return valuesOf(E12, { least: 10, most: PULL_DOWN_OHMS }).findLast((ohms) => ohms <= most) ?? 10;
}

/** Nets that only open-collector outputs drive: each needs a pull-up resistor. */
function openNets(packing: Packing): string[] {
  const nets = packing.packages.flatMap(({ units, ...named }) =>
    (typeOf(named)?.units ?? []).flatMap((unit, i) => {
      const use = units[i];
      // A pin that is input and output at once is pulled up inside the chip.
      const open = (k: number): boolean =>
        unit.drives[k] === 'open-collector' && !unit.inputs.includes(elementAt(unit.outputs, k));
      return use ? drivenBy(use).filter((_, k) => open(k)) : [];
    }),
  );
  const read = new Set([
    ...packing.outputs.map((o) => o.net),
    ...packing.packages.flatMap((p) => p.units.flatMap((u) => u?.inputs ?? [])),
  ]);
  return [...new Set(nets)].filter((net) => read.has(net));
}
