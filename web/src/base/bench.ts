import {
  type Board,
  checkWalk,
  cutPin,
  DIAL_MIDDLE,
  HIGH,
  type KeptMarks,
  type LampReading,
  type LedState,
  type LiveState,
  LOW,
  type MarkName,
  type Nets,
  type Numbers,
  type Scope,
  type Start,
  type TableSubject,
  type TimeCommand,
  type TraceFile,
  UNKNOWN,
  type WalkedRow,
  type WatchedSheet,
} from '@saddlebag/core';
import type { BenchRunner, MarkPlace, RunnerFor } from '../workers/bench-protocol';

/** What the screens see of a powered board; a new object after every change. */
export interface BenchState {
  readonly on: boolean;
  /** Rows walked on the board as it is, by row number. */
  readonly walked: ReadonlyMap<number, WalkedRow>;
  readonly walking: boolean;
  /** The board as it was seen last; null without power, and until it has been seen. */
  readonly seen: LiveState | null;
  readonly pace: Pace;
  /** The span of time in which the trace is looked at. */
  readonly scope: Scope;
  /** Pins that are traced beside the labelled signals. */
  readonly traced: readonly string[];
  /** Pins whose wires are lit. */
  readonly lit: readonly string[];
  /** What stands beside the board; one that stores something has no table. */
  readonly shows: 'table' | 'trace';
  /** Changes only when the board looks otherwise: its drawing listens to this, since time alone changes nothing of it. */
  readonly picture: number;
  readonly version: number;
}

/** How time runs: seconds of the board in one of the person's, whether it stands, and what is stored when the power comes on. */
export interface Pace {
  readonly speed: number;
  readonly isPaused: boolean;
  readonly start: Start;
  /** Contacts bounce. */
  readonly bounces: boolean;
}

/** What the table on the bench is about; `key` changes when it does, `stores` where no table can tell it. */
export interface BenchSubject extends TableSubject {
  readonly key: string;
  readonly stores: boolean;
  /** What the board is held to while it runs; null where there is no design. */
  readonly sheet: WatchedSheet | null;
}

const off: BenchState = {
  on: false,
  walked: new Map(),
  walking: false,
  seen: null,
  pace: { speed: 1, isPaused: false, start: 'unknown', bounces: false },
  scope: { spanNs: 10e9, endNs: null, columns: 240 },
  traced: [],
  lit: [],
  shows: 'table',
  picture: 0,
  version: 0,
};

/** So many seconds of the person's lie across a trace when a speed is chosen. */
const SPAN_S = 10;
/** Whether a person sees what passes between gates: time stands, or runs a thousand times slower at least. */
export const isSlow = ({ speed, isPaused }: Pick<Pace, 'speed' | 'isPaused'>): boolean => isPaused || speed < 1e-3;

/** The share of the span in sight that follows what was found in time. */
const FOUND_AT = 0.4;
/** The seed of contacts that bounce: the same presses, the same bounces. */
const BOUNCE_SEED = 1;

/**
 * The power switch of a job: has the board run while the power is on, and keeps what was seen of it last. A change
 * of the board powers it up anew, with the switches as they stood; what was walked before is forgotten. Every row that the switches
 * are set to while the power is on counts as walked.
 */
export class PowerBench {
  private state: BenchState = off;
  private readonly listeners = new Set<() => void>();
  private wired: { readonly board: Board; readonly nets: Nets } | null = null;
  private subject: BenchSubject | null = null;
  private readonly runner: BenchRunner;
  private readonly switchedOn = new Set<string>();
  /** Where potentiometers stand, by reference; those never turned stand in the middle. */
  private readonly dials = new Map<string, number>();
  /** The board as it was when its picture changed last. */
  private pictured: LiveState | null = null;
  /** Lamps that are destroyed, with the milliamperes that did it: so they stay until they are replaced. */
  private destroyed: ReadonlyMap<string, number> = new Map();

  /** Boards are run by what `runnerFor` makes. */
  constructor(runnerFor: RunnerFor) {
    this.runner = runnerFor((seen) => {
      if (!this.state.on) return;
      this.destroyed = seen.destroyed;
      if (seen.file) this.takeFile?.(seen.file.text);
      this.followRun(seen);
      const isAlike = looksAlike(this.pictured, seen);
      if (!isAlike) this.pictured = seen;
      const picture = this.state.picture + (isAlike ? 0 : 1);
      this.set({ seen, picture, walked: this.withRow(seen.row) });
    });
  }

  /** Takes over what the run has changed by itself: switches when time was wound back, or pulses given; time that stands; where to look. */
  private followRun({ hand, search }: LiveState): void {
    if (hand.serial !== this.handSerial) {
      this.handSerial = hand.serial;
      this.switchedOn.clear();
      for (const ref of hand.on) this.switchedOn.add(ref);
      for (const [ref, position] of hand.dials) this.dials.set(ref, position);
      this.state = {
        ...this.state,
        pace: { ...this.state.pace, isPaused: hand.isPaused },
        picture: this.state.picture + 1,
      };
    }
    if (search.serial === this.foundSerial || search.atNs === null) return;
    this.foundSerial = search.serial;
    // What was found stands a little right of the middle: what went before is seen with it.
    this.setScope({ endNs: search.atNs + FOUND_AT * this.state.scope.spanNs });
  }

  private handSerial = 0;
  private foundSerial = 0;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly snapshot = (): BenchState => this.state;

  /** Tells the bench which board lies on it and what its table is about; the same again changes nothing. */
  lay(board: Board, nets: Nets, subject: BenchSubject): void {
    const same = this.wired?.board === board;
    const isSameSheet = this.subject?.sheet?.behaviour === subject.sheet?.behaviour;
    if (same && this.subject?.key === subject.key && isSameSheet) return;
    this.subject = subject;
    this.wired = { board, nets };
    // A part that was pulled out takes its damage with it.
    this.destroyed = new Map([...this.destroyed].filter(([lamp]) => board.parts[cutPin(lamp).ref] !== undefined));
    if (!this.state.on && this.state.walked.size === 0) return;
    this.set({ walked: new Map(), walking: false, seen: null, picture: this.state.picture + 1 });
    if (this.state.on) this.build();
  }

  powerOn(): void {
    this.set({ on: true, picture: this.state.picture + 1 });
    this.build();
  }

  powerOff(): void {
    this.runner.stop();
    this.set({ on: false, seen: null, picture: this.state.picture + 1 });
  }

  /** Ends what runs; for when the job is left. */
  close(): void {
    this.runner.stop();
  }

  /** Puts a switch on or off by its reference; it stays so when the power goes. */
  flip(ref: string): void {
    this.setSwitches(new Map([[ref, !this.switchedOn.has(ref)]]));
  }

  /** Sets several switches at once. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    for (const [ref, on] of positions) {
      if (on) this.switchedOn.add(ref);
      else this.switchedOn.delete(ref);
    }
    this.set({ picture: this.state.picture + 1 });
    if (this.state.on) this.runner.setSwitches(positions);
  }

  /** Turns a potentiometer to a position from 0 to DIAL_END; it stays so when the power goes. */
  turn(ref: string, position: number): void {
    this.dials.set(ref, position);
    this.set({ picture: this.state.picture + 1 });
    if (this.state.on) this.runner.setDials(new Map([[ref, position]]));
  }

  /** Where a potentiometer stands. */
  dialAt(ref: string): number {
    return this.dials.get(ref) ?? DIAL_MIDDLE;
  }

  /** Puts a new lamp in the place of one that is destroyed, by its name. */
  replaceLamp(lamp: string): void {
    this.destroyed = new Map([...this.destroyed].filter(([name]) => name !== lamp));
    if (this.state.on) this.build();
  }

  /** Changes how time runs. What is stored at power up, and whether contacts bounce, holds from the next power up, which this makes. */
  setPace(change: Partial<Pace>): void {
    const pace = { ...this.state.pace, ...change };
    // What is lit in slow motion goes out with it.
    const lights = isSlow(pace) === isSlow(this.state.pace) ? {} : { lit: [], picture: this.state.picture + 1 };
    this.set({ pace, ...lights });
    if (!this.state.on) return;
    if ('start' in change || 'bounces' in change) this.build();
    else this.runner.setPace(pace.speed, pace.isPaused);
  }

  /** Has time run at another speed, with a span of the trace that fits it. */
  setSpeed(speed: number): void {
    if (speed === this.state.pace.speed) return;
    this.setPace({ speed });
    this.setScope({ spanNs: SPAN_S * 1e9 * (Number.isFinite(speed) ? speed : 1), endNs: null });
  }

  /** Looks at another span of what is traced: longer or shorter, or further back; `endNs` null follows time. */
  setScope(change: Partial<Scope>): void {
    const scope = { ...this.state.scope, ...change };
    this.set({ scope });
    if (this.state.on) this.runner.setScope(scope);
  }

  /** Shows the table or the trace beside the board. */
  show(shows: BenchState['shows']): void {
    this.set({ shows });
  }

  /** Traces these pins beside the labelled signals. */
  setTraced(traced: readonly string[]): void {
    if (traced.join() === this.state.traced.join()) return;
    this.set({ traced });
    if (this.state.on) this.runner.setTraced(traced);
  }

  /** Shows rows of the trace as numbers: their signals by their names. */
  setNumbers(numbers: Numbers): void {
    this.numbers = numbers;
    if (this.state.on) this.runner.setNumbers(numbers);
  }

  private numbers: Numbers = new Map();
  private marks: KeptMarks = { a: null, b: null };
  private hasMarked = false;

  /** Marks that stood in the trace before: they come again after the next power up. */
  keepMarks(marks: KeptMarks): void {
    this.marks = marks;
  }

  /** Whether a person has set or taken away marks since this was asked last. */
  takeMarked(): boolean {
    const { hasMarked } = this;
    this.hasMarked = false;
    return hasMarked;
  }

  /** Sets a mark of the trace at a moment, or on an edge that is near; takes it away without one. */
  setMark(mark: MarkName, at: MarkPlace | null): void {
    this.hasMarked = true;
    this.runner.setMark(mark, at);
  }

  /** Moves a mark of the trace to the next edge of a signal, or to the one before. */
  moveMark(mark: MarkName, name: string, isForward: boolean): void {
    this.hasMarked = true;
    this.runner.moveMark(mark, name, isForward);
  }

  /** Has the trace written as a file; `take` gets its text. */
  writeTrace(kind: TraceFile['kind'], take: (text: string) => void): void {
    this.takeFile = take;
    this.runner.writeTrace(kind);
  }

  private takeFile: ((text: string) => void) | null = null;

  /** Goes on to the next moment in which something happens; time stands then. */
  step(): void {
    if (!this.state.pace.isPaused) this.setPace({ isPaused: true });
    this.runner.step();
  }

  /** Lights the wires at these pins, and no others. */
  light(lit: readonly string[]): void {
    this.set({ lit, picture: this.state.picture + 1 });
  }

  /** Pins whose wires are lit: those asked for, and in slow motion those that a change has come through. */
  litPins(): readonly string[] {
    const { lit, seen, pace } = this.state;
    return seen && isSlow(pace) ? [...lit, ...seen.passage.steps.map((s) => s.pin)] : lit;
  }

  /** Winds time back, or looks for something in it. Nothing without power. */
  inTime(command: TimeCommand): void {
    if (this.state.on) this.runner.inTime(command);
  }

  isOn(ref: string): boolean {
    return this.switchedOn.has(ref) || this.state.seen?.clocksOn.includes(ref) === true;
  }

  /** The level of a net, LOW, HIGH or UNKNOWN, while the power is on; null when it is off. */
  levelOf(net: number): number | null {
    return this.state.seen?.levels[net] ?? null;
  }

  /** What an LED does; dark without power. */
  led(ref: string): LedState {
    return this.lamp(ref)?.state ?? 'dark';
  }

  /** What a meter and a logic probe show on a net, and how often a second it changes; null without power. */
  probe(
    net: number,
  ): { readonly volts: number | null; readonly level: '0' | '1' | '?'; readonly hertz: number } | null {
    const { seen } = this.state;
    const volts = seen?.volts[net];
    if (!seen || volts === undefined) return null;
    const level = seen.levels[net];
    return {
      volts: Number.isNaN(volts) ? null : volts,
      level: level === LOW ? '0' : level === HIGH ? '1' : '?',
      hertz: seen.hertz[net] ?? 0,
    };
  }

  /** A lamp with its current, by its name; null for none of that name, or without power. */
  lamp(ref: string): LampReading | null {
    return this.state.seen?.lamps.get(ref) ?? null;
  }

  startWalk(): void {
    this.set({ walking: true, walked: new Map() });
  }

  /** Notes rows walked on a board; rows of a board that has changed since count no longer. */
  addWalked(board: Board, rows: readonly WalkedRow[]): void {
    if (board !== this.wired?.board) return;
    const walked = new Map(this.state.walked);
    for (const row of rows) walked.set(row.row, row);
    this.set({ walked });
  }

  endWalk(): void {
    this.set({ walking: false });
  }

  private build(): void {
    this.pictured = null;
    this.handSerial = 0;
    this.foundSerial = 0;
    const { wired, subject } = this;
    const { speed, isPaused, start, bounces } = this.state.pace;
    if (!wired) return;
    const hasTable = subject && !subject.stores && checkWalk(subject.inputs.length).length === 0;
    this.runner.start(wired.board, {
      subject: hasTable ? { inputs: subject.inputs, outputs: subject.outputs } : null,
      on: [...this.switchedOn],
      dials: this.dials,
      start,
      bounce: bounces ? BOUNCE_SEED : null,
      speed,
      isPaused,
      scope: this.state.scope,
      traced: this.state.traced,
      numbers: this.numbers,
      marks: this.marks,
      sheet: subject?.sheet ?? null,
      destroyed: this.destroyed,
    });
  }

  /** The rows seen, with that which the switches stand at just now. */
  private withRow(row: WalkedRow | null): ReadonlyMap<number, WalkedRow> {
    const { walked } = this.state;
    const before = row && walked.get(row.row);
    const isKnown = before?.seen.join() === row?.seen.join() && before?.unclear?.pin === row?.unclear?.pin;
    return !row || (before && isKnown) ? walked : new Map(walked).set(row.row, row);
  }

  private set(change: Partial<BenchState>): void {
    this.state = { ...this.state, ...change, version: this.state.version + 1 };
    for (const listener of this.listeners) listener();
  }
}

/** Volts that are shown to a tenth look alike when they are nearer to each other than this. */
const ALIKE_V = 0.05;

/** Whether a board looks the same: its levels, its lamps, its clocks, and volts where they are shown. */
function looksAlike(before: LiveState | null, now: LiveState): boolean {
  if (!before || before.levels.length !== now.levels.length || before.isShorted !== now.isShorted) return false;
  if (before.clocksOn.join() !== now.clocksOn.join()) return false;
  for (const [ref, lamp] of now.lamps) if (before.lamps.get(ref)?.state !== lamp.state) return false;
  return now.levels.every((level, net) => {
    if (before.levels[net] !== level) return false;
    const [v, w] = [before.volts[net] ?? Number.NaN, now.volts[net] ?? Number.NaN];
    return level !== UNKNOWN || Object.is(v, w) || Math.abs(v - w) < ALIKE_V;
  });
}
