import type { Board, Nets } from '../board';
import { LiveBoard } from './live-board';
import { LiveMarks } from './live-marks';
import type { LiveSettings, LiveState, Numbers, Speed, TimeCommand, TraceFile } from './live-state';
import { lastPassing, type PassingState } from './passing-states';
import type { PoweredBoard } from './powered-board';
import { TimeInHand } from './time-in-hand';
import { traceCsvOf, vcdOf } from './trace-files';
import type { MarkName } from './trace-marks';
import { type Scope, type TraceColumns, windowOf } from './trace-window';
import { panelOf, rowAtHand } from './walk';

/**
 * A board under power as a person has it before them: time runs as it is asked to, and what is seen is told in whole. Knows no clock: the caller says
 * how much time has passed, and when to stop working.
 */
export class LiveRun {
  private readonly at: LiveBoard;
  private readonly time: TimeInHand;
  private readonly marks: LiveMarks;
  private readonly panel: ReturnType<typeof panelOf> | null;
  private scope: Scope | null;
  private numbers: Numbers;
  private file: TraceFile | null = null;

  constructor(board: Board, nets: Nets, settings: LiveSettings) {
    const { subject, speed, isPaused } = settings;
    this.at = new LiveBoard(board, nets, settings);
    this.marks = new LiveMarks(() => this.at.trace, settings.marks);
    this.time = new TimeInHand(this.at, this.marks, speed, isPaused);
    this.panel = subject && panelOf(board, this.at.circuit, subject.inputs, subject.outputs);
    this.scope = settings.scope;
    this.numbers = settings.numbers ?? new Map();
  }

  /** Moves actuators, by name. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    if (this.time.isGoingBack) return;
    this.at.touch({ kind: 'switches', positions });
    this.time.follow();
  }

  /** Turns potentiometers, by reference, to positions from 0 to DIAL_END; what follows is worked out as after a switch. */
  setDials(positions: ReadonlyMap<string, number>): void {
    if (this.time.isGoingBack) return;
    this.at.touch({ kind: 'dials', positions });
    this.time.follow();
  }

  /** Traces these pins beside the labelled signals, and no others. */
  setTraced(pins: readonly string[]): void {
    this.at.setTraced(pins);
  }

  /** Shows several rows as one number, whose passing states are told. */
  setNumbers(numbers: Numbers): void {
    this.numbers = numbers;
  }

  /** Sets a mark at a moment, on the nearest edge of a signal if that is near enough; takes it away where no moment is given. */
  setMark(
    mark: MarkName,
    at: { readonly name: string; readonly timeNs: number; readonly withinNs: number } | null,
  ): void {
    this.marks.place(mark, at, this.at.live.timeNs);
  }

  /** Moves a mark to the next edge of a signal, or the last one before it; one that is not set comes to the signal's last edge. */
  moveMark(mark: MarkName, name: string, isForward: boolean): void {
    this.marks.move(mark, name, isForward, this.at.live.timeNs);
  }

  /** Looks at another span of what is traced. */
  setScope(scope: Scope | null): void {
    this.scope = scope;
  }

  /** Changes how time runs. */
  setPace(speed: Speed, isPaused: boolean): void {
    this.time.setPace(speed, isPaused);
  }

  /** Goes on to the next moment in which something happens. */
  step(): void {
    this.time.step();
  }

  /** Does what a person asks of time. */
  inTime(command: TimeCommand): void {
    this.time.take(command);
  }

  /** Whether time stands. */
  get isPaused(): boolean {
    return this.time.isPaused;
  }

  /** Whether time passes, whatever happens in it. */
  get isPassing(): boolean {
    return this.time.isPassing;
  }

  /** Whether there is anything to go on with. */
  get isGoing(): boolean {
    return this.time.isGoing;
  }

  /** Lets so many milliseconds of the person's time pass, and works on that until `isEnough` says so. */
  advance(ms: number, isEnough: () => boolean): void {
    this.time.advance(ms, isEnough);
  }

  /** Writes the trace as a file of a kind, which the next state carries. */
  writeTrace(kind: TraceFile['kind']): void {
    const { trace, live } = this.at;
    this.file = { kind, text: kind === 'vcd' ? vcdOf(trace, live.timeNs) : traceCsvOf(trace) };
  }

  private takeFile(): TraceFile | null {
    const { file } = this;
    this.file = null;
    return file;
  }

  private passingStates(): ReadonlyMap<string, readonly PassingState[]> {
    const rowNamed = new Map(this.at.trace.rows.map((row) => [row.name, row]));
    return new Map(
      [...this.numbers].map(([name, of]) => [name, lastPassing(of.flatMap((one) => rowNamed.get(one) ?? []))]),
    );
  }

  private wantedColumns(): readonly TraceColumns[] {
    const { sheetWatch, live } = this.at;
    if (!this.scope || !sheetWatch?.parting) return [];
    return windowOf({ rows: sheetWatch.wanted }, this.scope, live.timeNs).rows;
  }

  /** What is seen now. */
  state(): LiveState {
    const { at, time } = this;
    const { live } = at;
    if (!time.isGoingBack) at.burn();
    this.marks.reach(live.timeNs);
    const isMoving = live.isMoving;
    if (!isMoving) at.sheetWatch?.look();
    const switchesOn = at.circuit.switches.filter((_, i) => live.isOn(i));
    return {
      timeNs: live.timeNs,
      events: live.events,
      settleNs: Math.max(0, at.changedNs - at.touchedNs),
      isMoving,
      isShorted: live.shorted,
      supplyMa: live.supplyMa,
      supplyV: live.supplyV,
      ...seenOfNets(live),
      lamps: new Map(live.circuit.leds.map(({ ref }, i) => [ref, live.lamp(i)])),
      destroyed: new Map(at.destroyed),
      overloads: live.overloadedOutputs(),
      timing: live.timingFaults,
      clocksOn: switchesOn.filter(({ isByHand }) => !isByHand).map(({ ref }) => ref),
      row: this.panel && !isMoving ? rowAtHand(live, this.panel, true) : null,
      file: this.takeFile(),
      hand: {
        serial: time.handSerial,
        on: switchesOn.filter(({ isByHand }) => isByHand).map(({ ref }) => ref),
        dials: new Map(at.dials),
        isPaused: time.isPaused,
      },
      search: time.found,
      parting: at.sheetWatch?.parting ?? null,
      passage: at.passing.passage,
      passing: this.passingStates(),
      marks: this.marks.marks,
      trace: this.scope ? windowOf(at.trace, this.scope, live.timeNs) : null,
      wanted: this.wantedColumns(),
      unknownLoop: isMoving ? null : live.unknownLoop,
      isBehind: time.isBehind,
    };
  }
}

/** Level, volts and frequency of every net, by net. */
function seenOfNets(live: PoweredBoard): Pick<LiveState, 'levels' | 'volts' | 'hertz'> {
  const count = live.nets.nets.length;
  const [levels, volts, hertz] = [new Uint8Array(count), new Float32Array(count), new Float32Array(count)];
  for (let net = 0; net < count; net++) {
    levels[net] = live.levelOf(net);
    volts[net] = live.voltsOf(net) ?? Number.NaN;
    hertz[net] = live.hertzOf(net);
  }
  return { levels, volts, hertz };
}
