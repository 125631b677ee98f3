import { type Board, cutPin, type Nets } from '../board';
import { type Finding, finding } from '../finding';
import { compileCircuit } from './circuit';
import { type LampReading, PoweredBoard, type Start, timingFinding } from './powered-board';
import { labelledSignals, netNamed } from './run';
import { type Parting, partingFinding, SheetWatch, type WatchedSheet } from './sheet-watch';
import type { TimingFault } from './timing-watch';
import { Trace } from './trace';
import { traceCsvOf, vcdOf } from './trace-files';
import { between, edgeBeside, type MarkName, snapped, type TraceMarks } from './trace-marks';
import { type Scope, type TraceWindow, windowOf } from './trace-window';
import { panelOf, rowAtHand, type TableSubject, type WalkedRow } from './walk';

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
  readonly marks: TraceMarks;
  /** The trace as a file, once after it was asked for. */
  readonly file: TraceFile | null;
  /** Where the board first did otherwise than its sheet; null as long as it does the same. */
  readonly parting: Parting | null;
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

/** An LED past its maximum for so long is destroyed, in nanoseconds. */
const BURN_NS = 100e6;
/** Events between two looks at the clock on the wall. */
const EVENTS_A_LOOK = 2000;
/** After a switch is moved time runs on at once for so long, in nanoseconds, if it runs at full speed at least. */
const AT_ONCE_NS = 20e6;
const AT_ONCE_EVENTS = 20_000;

/**
 * A board under power as a person has it before them: time runs at the speed that is asked for, and what is seen is told in whole. Knows no clock: the
 * caller says how much time has passed, and when to stop working.
 */
export class LiveRun {
  private readonly live: PoweredBoard;
  private readonly panel: ReturnType<typeof panelOf> | null;
  private speed: Speed;
  isPaused: boolean;
  private isBehind = false;
  /** When it was touched last, and when something happened last, in nanoseconds. */
  private touchedNs = 0;
  private changedNs = 0;
  private readonly trace: Trace;
  private readonly held: SheetWatch | null;
  private scope: Scope | null;
  private traced: readonly string[] = [];

  /** Lamps that are destroyed, with what did it; and since when others are past their maximum, in nanoseconds. */
  private readonly destroyed: Map<string, number>;
  private readonly overSince = new Map<string, number>();

  constructor(board: Board, nets: Nets, settings: LiveSettings) {
    const { subject, on, start, bounce, speed, isPaused } = settings;
    const circuit = compileCircuit(board);
    this.live = new PoweredBoard(board, nets, { circuit, start, bounce, clocksRun: true });
    this.panel = subject && panelOf(board, circuit, subject.inputs, subject.outputs);
    this.speed = speed;
    this.isPaused = isPaused;
    this.destroyed = new Map(settings.destroyed);
    for (const lamp of this.destroyed.keys()) this.live.burn(lamp);
    this.scope = settings.scope;
    this.trace = new Trace(
      this.live,
      labelledSignals(board).flatMap((name) => {
        const net = netNamed(board, nets, name);
        return net === null ? [] : [{ name, net }];
      }),
    );
    // The sheet's machine begins as the board does, and hears of each press.
    const held = settings.sheet && new SheetWatch(this.live, board, settings.sheet);
    this.held = held?.isByHand ? held : null;
    this.setTraced(settings.traced);
    for (const [ref, position] of settings.dials) this.live.setDial(ref, position);
    this.setSwitches(new Map(on.map((ref) => [ref, true])));
  }

  /** Moves actuators, by name. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    this.live.circuit.switches.forEach(({ ref, hertz }, i) => {
      const on = positions.get(ref);
      if (on === undefined || hertz !== null || this.live.isOn(i) === on) return;
      this.live.setSwitch(i, on);
      this.held?.pressed(i);
    });
    this.follow();
  }

  /** Turns potentiometers, by reference, to positions from 0 to DIAL_END; what follows is worked out as after a switch. */
  setDials(positions: ReadonlyMap<string, number>): void {
    for (const [ref, position] of positions) this.live.setDial(ref, position);
    this.follow();
  }

  /** Works out what follows a touch within moments, unless time is slowed down or stands. */
  private follow(): void {
    this.touchedNs = this.live.timeNs;
    this.changedNs = this.live.timeNs;
    if (this.isPaused || this.speed < 1) return;
    const [end, last] = [this.live.timeNs + AT_ONCE_NS, this.live.events + AT_ONCE_EVENTS];
    while (this.live.nextNs <= end && this.live.events < last) this.toNext();
  }

  /** Traces these pins beside the labelled signals, and no others. */
  setTraced(pins: readonly string[]): void {
    for (const pin of this.traced) if (!pins.includes(pin)) this.trace.remove(pin);
    for (const pin of pins) {
      const net = this.live.nets.ofPin.get(pin);
      if (net !== undefined && !this.traced.includes(pin)) this.trace.add(pin, net);
    }
    this.traced = pins;
  }

  /** Sets a mark at a moment, on the nearest edge of a signal if that is near enough; takes it away where no moment is given. */
  setMark(
    mark: MarkName,
    at: { readonly name: string; readonly timeNs: number; readonly withinNs: number } | null,
  ): void {
    const row = this.trace.rows.find((r) => r.name === at?.name);
    const timeNs = at && Math.max(0, Math.min(at.timeNs, this.live.timeNs));
    this.mark(mark, at && row && timeNs !== null ? snapped(row, timeNs, at.withinNs) : timeNs);
  }

  /** Moves a mark to the next edge of a signal, or the last one before it; one that is not set comes to the signal's last edge. */
  moveMark(mark: MarkName, name: string, isForward: boolean): void {
    const row = this.trace.rows.find((r) => r.name === name);
    const from = this.marks[mark];
    const next = row && edgeBeside(row, from ?? this.live.timeNs, from !== null && isForward);
    if (next != null) this.mark(mark, next);
  }

  private mark(mark: MarkName, timeNs: number | null): void {
    const a = mark === 'a' ? timeNs : this.marks.a;
    const b = mark === 'b' ? timeNs : this.marks.b;
    // What has been does not change: it is measured once.
    const measured =
      a === null || b === null ? [] : this.trace.rows.map((row) => [row.name, between(row, a, b)] as const);
    this.marks = { a, b, between: Object.fromEntries(measured) };
  }

  private marks: TraceMarks = { a: null, b: null, between: {} };

  /** Looks at another span of what is traced. */
  setScope(scope: Scope | null): void {
    this.scope = scope;
  }

  /** Changes how time runs. */
  setPace(speed: Speed, isPaused: boolean): void {
    this.speed = speed;
    this.isPaused = isPaused;
    this.isBehind = false;
  }

  /** Goes on to the next moment in which something happens. */
  step(): void {
    if (this.live.nextNs < Infinity) this.toNext();
  }

  private toNext(): void {
    this.live.runUntil(this.live.nextNs);
    this.changedNs = this.live.timeNs;
  }

  /** Whether time passes, whatever happens in it. */
  get isPassing(): boolean {
    return !this.isPaused && this.speed < Infinity;
  }

  /** Whether there is anything to go on with. */
  get isGoing(): boolean {
    return !this.isPaused && this.live.isMoving;
  }

  /** Lets so many milliseconds of the person's time pass, and works on that until `isEnough` says so. */
  advance(ms: number, isEnough: () => boolean): void {
    const { live } = this;
    const end = this.speed === Infinity ? Infinity : live.timeNs + ms * 1e6 * this.speed;
    while (live.nextNs <= end && live.nextNs < Infinity) {
      this.changedNs = live.nextNs;
      live.runUntil(end === Infinity ? live.nextNs : end, EVENTS_A_LOOK);
      if (isEnough()) break;
    }
    this.isBehind = live.nextNs <= end && end < Infinity;
    if (!this.isBehind && end < Infinity) live.runUntil(end);
  }

  /** Destroys lamps that have been past their maximum for long enough, or are while the board rests. */
  private burn(): void {
    const { live } = this;
    const isResting = !live.isMoving;
    live.circuit.leds.forEach(({ ref }, i) => {
      const { state, ma } = live.lamp(i);
      if (state !== 'over') {
        this.overSince.delete(ref);
        return;
      }
      const since = this.overSince.get(ref) ?? live.timeNs;
      this.overSince.set(ref, since);
      if (!isResting && live.timeNs - since < BURN_NS) return;
      this.destroyed.set(ref, ma);
      live.burn(ref);
    });
  }

  /** Writes the trace as a file of a kind, which the next state carries. */
  writeTrace(kind: TraceFile['kind']): void {
    const text = kind === 'vcd' ? vcdOf(this.trace, this.live.timeNs) : traceCsvOf(this.trace);
    this.file = { kind, text };
  }

  private file: TraceFile | null = null;

  private takeFile(): TraceFile | null {
    const { file } = this;
    this.file = null;
    return file;
  }

  private parting(isMoving: boolean): Parting | null {
    if (!isMoving) this.held?.look();
    return this.held?.parting ?? null;
  }

  /** What is seen now. */
  state(): LiveState {
    const { live } = this;
    this.burn();
    const count = live.nets.nets.length;
    const [levels, volts, hertz] = [new Uint8Array(count), new Float32Array(count), new Float32Array(count)];
    for (let net = 0; net < count; net++) {
      levels[net] = live.levelOf(net);
      volts[net] = live.voltsOf(net) ?? Number.NaN;
      hertz[net] = live.hertzOf(net);
    }
    const isMoving = live.isMoving;
    return {
      timeNs: live.timeNs,
      events: live.events,
      settleNs: Math.max(0, this.changedNs - this.touchedNs),
      isMoving,
      isShorted: live.shorted,
      supplyMa: live.supplyMa,
      levels,
      volts,
      hertz,
      lamps: new Map(live.circuit.leds.map(({ ref }, i) => [ref, live.lamp(i)])),
      destroyed: new Map(this.destroyed),
      overloads: live.overloadedOutputs(),
      timing: live.timingFaults,
      clocksOn: live.circuit.switches.flatMap(({ ref, hertz: rate }, i) =>
        rate !== null && live.isOn(i) ? [ref] : [],
      ),
      row: this.panel && !isMoving ? rowAtHand(live, this.panel, true) : null,
      file: this.takeFile(),
      parting: this.parting(isMoving),
      marks: this.marks,
      trace: this.scope ? windowOf(this.trace, this.scope, live.timeNs) : null,
      unknownLoop: isMoving ? null : live.unknownLoop,
      isBehind: this.isBehind,
    };
  }
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
