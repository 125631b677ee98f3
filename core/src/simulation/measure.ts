import { type Board, extractNets, type Nets } from '../board';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { cutFinding, type LampReading, MOST_RUN_EVENTS, PoweredBoard, type Start } from './powered-board';
import { placeNamed } from './walk';

/** Switches to set, by the signal that they give or by their own name, in the order in which they are moved. */
export type SwitchSettings = readonly (readonly [name: string, on: boolean])[];

/** A pin as a meter and a logic probe find it. Volts are null where nothing holds them, or nobody knows them. */
export interface PinReading {
  readonly volts: number | null;
  readonly level: '0' | '1' | '?';
}

/** A board measured: each lead of each part, each lamp, and what the supplies give. */
export interface Measured {
  /** Nanoseconds since power up. */
  readonly timeNs: number;
  readonly supplyMa: number;
  readonly pins: Readonly<Record<string, PinReading>>;
  readonly lamps: Readonly<Record<string, LampReading>>;
}

/** How a board is measured: when, in nanoseconds since power up (`null`: when it has come to rest), and how it starts. */
export interface MeasureOptions {
  readonly atNs?: number | null;
  readonly nets?: Nets;
  readonly start?: Start;
  /** Potentiometers to turn before the switches are moved: positions from 0 to DIAL_END, by reference. */
  readonly dials?: ReadonlyMap<string, number>;
  /** Events after which waiting for a time ends early; a finding tells so. */
  readonly mostEvents?: number;
}

/** A board that does not rest gets so long after each switch that is moved, in nanoseconds. */
const PATIENCE_NS = 1e6;

/**
 * Powers a board up with its switches off, moves switches one after the other as they are given, each when the board has come to rest or
 * a millisecond has passed, and measures: when it has come to rest, or at `atNs`, but not before the switches have been moved. With a time, clock modules run. `unknown`
 * are names that no switch of the board has; nothing is measured then.
 */
export function measure(
  board: Board,
  settings: SwitchSettings,
  {
    atNs = null,
    nets = extractNets(board),
    start = 'unknown',
    mostEvents = MOST_RUN_EVENTS,
    dials = new Map(),
  }: MeasureOptions = {},
): { readonly measured: Measured | null; readonly unknown: readonly string[]; readonly findings: readonly Finding[] } {
  const live = new PoweredBoard(board, nets, { start, clocksRun: atNs !== null });
  const { switches, unknown } = switchesNamed(
    board,
    live,
    settings.map(([name]) => name),
  );
  const strange = [...unknown, ...turned(live, dials)];
  if (strange.length > 0) return { measured: null, unknown: strange, findings: [] };
  const move = (rest: () => void): void => {
    settings.forEach(([, on], i) => {
      live.setSwitch(elementAt(switches, i), on);
      rest();
    });
  };
  let isAtRest = true;
  if (atNs === null) {
    isAtRest = live.settle().settled;
    move(() => {
      isAtRest = live.settle().settled;
    });
  } else {
    move(() => live.runUntil(Math.min(live.timeNs + PATIENCE_NS, atNs), mostEvents));
    live.runUntil(Math.max(atNs, live.timeNs), mostEvents);
  }
  const { point } = live;
  return {
    measured: measuredOf(live),
    unknown,
    findings: [
      ...(point.isShorted ? [shortedFinding(live)] : []),
      ...(isAtRest ? [] : [finding('measure-running', [], {})]),
      ...(atNs !== null && live.timeNs < atNs ? [cutFinding(live)] : []),
    ],
  };
}

/** The actuators that go by some names: the signal that they give, or their own. */
export function switchesNamed(
  board: Board,
  { circuit: { switches } }: PoweredBoard,
  names: readonly string[],
): { readonly switches: readonly number[]; readonly unknown: readonly string[] } {
  const indexOf = (called: string | undefined): number => switches.findIndex(({ ref }) => ref === called);
  const found = names.map((name) => Math.max(indexOf(name), indexOf(placeNamed(board, 'give', name)?.called)));
  return { switches: found, unknown: names.filter((_, i) => elementAt(found, i) < 0) };
}

/** Turns the potentiometers of a board; gives the names that none of its own has. */
export function turned(live: PoweredBoard, dials: ReadonlyMap<string, number>): string[] {
  const own = new Set(live.dials);
  for (const [ref, position] of dials) live.setDial(ref, position);
  return [...dials.keys()].filter((ref) => !own.has(ref));
}

function measuredOf(live: PoweredBoard): Measured {
  const { point } = live;
  const readPin = (pin: string): PinReading => ({
    volts: point.isKnown(pin) ? rounded(point.voltsAt(pin)) : null,
    level: point.levelAt(pin),
  });
  const readLamp = (index: number): LampReading => {
    const { ma, state } = live.lamp(index);
    return { ma: rounded(ma) ?? 0, state };
  };
  return {
    timeNs: live.timeNs,
    supplyMa: rounded(point.supplyMa) ?? 0,
    pins: Object.fromEntries(live.pins().map((pin) => [pin, readPin(pin)])),
    lamps: Object.fromEntries(live.circuit.leds.map(({ ref }, i) => [ref, readLamp(i)])),
  };
}

/** To microvolts and nanoamperes: what lies below is the arithmetic's. */
const rounded = (value: number | null): number | null => (value === null ? null : Math.round(value * 1e6) / 1e6 + 0);

/** That supply and ground are joined, with what is left of the supply. */
export const shortedFinding = (live: PoweredBoard): Finding =>
  finding('measure-shorted', [], { most: live.supplyMa, volts: live.supplyV.toFixed(2) });
