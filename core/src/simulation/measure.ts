import { type Board, extractNets, type Nets } from '../board';
import { type Finding, finding } from '../finding';
import { type LampReading, PoweredBoard } from './powered-board';
import { placeNamed } from './walk';

/** Switches to set, by the signal that they give or by their own name, in the order in which they are moved. */
export type SwitchSettings = readonly (readonly [name: string, on: boolean])[];

/** A pin as a meter and a logic probe find it. Volts are null where nothing holds them, or nobody knows them. */
export interface PinReading {
  readonly volts: number | null;
  readonly level: '0' | '1' | '?';
}

/** A board measured at rest: each lead of each part, each lamp, and what the supplies give. */
export interface Measured {
  /** Nanoseconds since power up, of gate delays alone. */
  readonly timeNs: number;
  readonly supplyMa: number;
  readonly pins: Readonly<Record<string, PinReading>>;
  readonly lamps: Readonly<Record<string, LampReading>>;
}

/**
 * Powers a board up with its switches off, moves switches one after the other as they are given, each when the board has come to rest, and measures.
 * A board at rest stays as it is: `atNs` says when to measure, but not before it has come to rest. `unknown` are names that no switch of
 * the board has; nothing is measured then.
 */
export function measure(
  board: Board,
  settings: SwitchSettings,
  { atNs = 0, nets = extractNets(board) }: { readonly atNs?: number; readonly nets?: Nets } = {},
): { readonly measured: Measured | null; readonly unknown: readonly string[]; readonly findings: readonly Finding[] } {
  const live = new PoweredBoard(board, nets);
  const { switches, leds } = live.circuit;
  const indexOf = (called: string | undefined): number => switches.findIndex(({ ref }) => ref === called);
  const switchOf = (name: string): number => Math.max(indexOf(name), indexOf(placeNamed(board, 'give', name)?.called));
  const unknown = settings.flatMap(([name]) => (switchOf(name) < 0 ? [name] : []));
  if (unknown.length > 0) return { measured: null, unknown, findings: [] };
  let settled = live.settle();
  for (const [name, on] of settings) {
    live.setSwitch(switchOf(name), on);
    settled = live.settle();
  }
  const { point } = live;
  const readPin = (pin: string): PinReading => ({
    volts: point.isKnown(pin) ? rounded(point.voltsAt(pin)) : null,
    level: point.levelAt(pin),
  });
  const readLamp = (index: number): LampReading => {
    const { ma, state } = live.lamp(index);
    return { ma: rounded(ma) ?? 0, state };
  };
  const timed = live.timedParts();
  return {
    measured: {
      timeNs: Math.max(atNs, settled.timeNs),
      supplyMa: rounded(point.supplyMa) ?? 0,
      pins: Object.fromEntries(live.pins().map((pin) => [pin, readPin(pin)])),
      lamps: Object.fromEntries(leds.map(({ ref }, i) => [ref, readLamp(i)])),
    },
    unknown,
    findings: [
      ...(point.isShorted ? [finding('measure-shorted', [], {})] : []),
      ...(timed.length > 0 ? [finding('measure-timed', [], { refs: timed.join(', ') })] : []),
    ],
  };
}

/** To microvolts and nanoamperes: what lies below is the arithmetic's. */
const rounded = (value: number | null): number | null => (value === null ? null : Math.round(value * 1e6) / 1e6 + 0);
