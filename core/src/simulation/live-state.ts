import { cutPin } from '../board';
import { type Finding, finding } from '../finding';
import type { Passage } from './passage';
import type { PassingState } from './passing-states';
import { type LampReading, type Start, timingFinding } from './powered-board';
import type { Sought } from './seek';
import { type Parting, partingFinding, type WatchedSheet } from './sheet-watch';
import type { TimingFault } from './timing-watch';
import type { TraceMarks } from './trace-marks';
import type { Scope, TraceColumns, TraceWindow } from './trace-window';
import type { TableSubject, WalkedRow } from './walk';

/** How time runs on a live board: seconds of the board in a second of the person's; Infinity is as fast as it goes. */
export type Speed = number;

/** How a live board begins: what its table is about (`null`: it has none), which actuators are on, what is stored, how fast time runs. */
export interface LiveSettings {
  readonly subject: TableSubject | null;
  readonly on: readonly string[];
  /** Where potentiometers stand that are not in the middle, from 0 to DIAL_END, by reference. */
  readonly dials: ReadonlyMap<string, number>;
  readonly start: Start;
  readonly bounce: number | null;
  readonly speed: Speed;
  readonly isPaused: boolean;
  /** What is traced is looked at in this span; null, and nothing is traced. */
  readonly scope: Scope | null;
  /** What is traced beside the labelled signals: pins, by name. */
  readonly traced: readonly string[];
  /** Rows that are shown as one number, each by its name with its signals, most significant first. */
  readonly numbers?: Numbers;
  /** Marks that stood in the trace before: each is set when time reaches it. */
  readonly marks?: { readonly a: number | null; readonly b: number | null };
  /** The sheet that the board is held to; null where there is none, or where a clock runs by itself. */
  readonly sheet: WatchedSheet | null;
  /** Lamps that were destroyed before, by name, with the milliamperes that did it. */
  readonly destroyed: ReadonlyMap<string, number>;
}

/** All that is seen of a live board at one moment. Arrays go by net. */
export interface LiveState {
  readonly timeNs: number;
  readonly events: number;
  /** How long it took until nothing happened any more, after the power came on or a switch was moved. */
  readonly settleNs: number;
  /** Whether anything is going to happen by itself. */
  readonly isMoving: boolean;
  readonly isShorted: boolean;
  readonly supplyMa: number;
  /** The volts of the supply: fewer than it is set to where its limit holds it. */
  readonly supplyV: number;
  /** LOW, HIGH or UNKNOWN. */
  readonly levels: Uint8Array;
  /** NaN where nobody knows. */
  readonly volts: Float32Array;
  /** How often a second it changes to and fro, 0 where it does not. */
  readonly hertz: Float32Array;
  readonly lamps: ReadonlyMap<string, LampReading>;
  /** Lamps that are destroyed, by name, with the milliamperes that did it. */
  readonly destroyed: ReadonlyMap<string, number>;
  /** Outputs past the absolute maximum of their chips, in milliamperes. */
  readonly overloads: readonly { readonly pin: string; readonly ma: number; readonly mostMa: number }[];
  /** Inputs that did not keep the times of their data sheets. */
  readonly timing: readonly TimingFault[];
  /** Clock modules that are high just now. */
  readonly clocksOn: readonly string[];
  /** The row that the switches stand at, where the board rests. */
  readonly row: WalkedRow | null;
  /** All labelled signals in the span that is looked at. */
  readonly trace: TraceWindow | null;
  /** What the sheet wants of its outputs in the same span, once the board has done otherwise. */
  readonly wanted: readonly TraceColumns[];
  readonly marks: TraceMarks;
  /** The trace as a file, once after it was asked for. */
  readonly file: TraceFile | null;
  /** What the run itself has changed of what a person sets: whoever shows that follows it when `serial` is another. */
  readonly hand: Hand;
  /** What was found in time last, and what is being looked for. */
  readonly search: Search;
  /** Where the board first did otherwise than its sheet; null as long as it does the same. */
  readonly parting: Parting | null;
  /** Of each number in the trace the states that it passed through last. */
  readonly passing: ReadonlyMap<string, readonly PassingState[]>;
  /** How the last change has gone through the chips. */
  readonly passage: Passage;
  /** An output that nobody knows since it hangs on itself: it may rest, or run; null where there is none, or time has not got so far. */
  readonly unknownLoop: string | null;
  /** Whether time runs slower than it was asked to, since so much happens. */
  readonly isBehind: boolean;
}

/** A trace written for other programs: as a value change dump, or as a table. */
export interface TraceFile {
  readonly kind: 'vcd' | 'csv';
  readonly text: string;
}

/** Numbers of a trace: their signals by their names. */
export type Numbers = ReadonlyMap<string, readonly string[]>;

/** How switches and potentiometers stand, and whether time stands, after time was wound back, pulses were given or something was found. */
export interface Hand {
  readonly serial: number;
  readonly on: readonly string[];
  readonly dials: ReadonlyMap<string, number>;
  readonly isPaused: boolean;
}

/** What a person does with time itself: winds it back, has edges given or awaited, looks for when an expression is true. */
export type TimeCommand =
  | { readonly kind: 'back' }
  | { readonly kind: 'wind'; readonly timeNs: number }
  | { readonly kind: 'run-on'; readonly forNs: number }
  | { readonly kind: 'seek'; readonly sought: Sought; readonly stops: boolean }
  | { readonly kind: 'find'; readonly text: string; readonly isForward: boolean }
  | { readonly kind: 'stop-seeking' };

/** Looking for something in time. */
export interface Search {
  /** Counts what was found; `atNs` is when the last of it is. */
  readonly serial: number;
  readonly atNs: number | null;
  /** Whether time runs on until it comes, as fast as it goes, or time is being wound back; and why it was not found. */
  readonly isOn: boolean;
  /** Whether something is waited for while time goes on as it does. */
  readonly isWaiting: boolean;
  /** How much of the way is gone where time runs to a moment that is known, from 0 to 1; null elsewhere. */
  readonly share: number | null;
  readonly findings: readonly Finding[];
}

/** The findings of a live board: lamps that are destroyed, outputs past their maximum, and times that data sheets do not allow. */
export function liveFindings({
  destroyed,
  overloads,
  timing,
  parting,
}: Pick<LiveState, 'destroyed' | 'overloads' | 'timing' | 'parting'>): Finding[] {
  return [
    ...[...destroyed].map(([lamp, ma]) =>
      finding('lamp-destroyed', [{ kind: 'part', ref: cutPin(lamp).ref }], { lamp, ma: ma.toFixed(0) }, `new ${lamp}`),
    ),
    ...overloads.map(({ pin, ma, mostMa }) =>
      finding('output-over-maximum', [{ kind: 'pin', pin }], { pin, ma: ma.toFixed(0), most: mostMa }),
    ),
    ...timing.map(timingFinding),
    ...(parting ? [partingFinding(parting)] : []),
  ];
}
