import type { Board, Nets } from '../board';
import { compileCircuit } from './circuit';
import { type LampReading, PoweredBoard, type Start } from './powered-board';
import { panelOf, rowAtHand, type TableSubject, type WalkedRow } from './walk';

/** How time runs on a live board: seconds of the board in a second of the person's; Infinity is as fast as it goes. */
export type Speed = number;

/** How a live board begins: what its table is about (`null`: it has none), which actuators are on, what is stored, how fast time runs. */
export interface LiveSettings {
  readonly subject: TableSubject | null;
  readonly on: readonly string[];
  readonly start: Start;
  readonly bounce: number | null;
  readonly speed: Speed;
  readonly isPaused: boolean;
}

/** All that is seen of a live board at one moment. Arrays go by net. */
export interface LiveState {
  readonly timeNs: number;
  readonly events: number;
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
  /** Clock modules that are high just now. */
  readonly clocksOn: readonly string[];
  /** The row that the switches stand at, where the board rests. */
  readonly row: WalkedRow | null;
  /** An output that nobody knows since it hangs on itself: it may rest, or run; null where there is none, or time has not got so far. */
  readonly unknownLoop: string | null;
  /** Whether time runs slower than it was asked to, since so much happens. */
  readonly isBehind: boolean;
}

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

  constructor(board: Board, nets: Nets, { subject, on, start, bounce, speed, isPaused }: LiveSettings) {
    const circuit = compileCircuit(board);
    this.live = new PoweredBoard(board, nets, { circuit, start, bounce, clocksRun: true });
    this.panel = subject && panelOf(board, circuit, subject.inputs, subject.outputs);
    this.speed = speed;
    this.isPaused = isPaused;
    this.setSwitches(new Map(on.map((ref) => [ref, true])));
  }

  /** Moves actuators, by name. What follows within moments is worked out at once, unless time is slowed down or stands. */
  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    this.live.circuit.switches.forEach(({ ref, hertz }, i) => {
      const on = positions.get(ref);
      if (on !== undefined && hertz === null) this.live.setSwitch(i, on);
    });
    if (this.isPaused || this.speed < 1) return;
    const [end, last] = [this.live.timeNs + AT_ONCE_NS, this.live.events + AT_ONCE_EVENTS];
    while (this.live.nextNs <= end && this.live.events < last) this.live.runUntil(this.live.nextNs);
  }

  /** Changes how time runs. */
  setPace(speed: Speed, isPaused: boolean): void {
    this.speed = speed;
    this.isPaused = isPaused;
    this.isBehind = false;
  }

  /** Goes on to the next moment in which something happens. */
  step(): void {
    if (this.live.nextNs < Infinity) this.live.runUntil(this.live.nextNs);
  }

  /** Whether there is anything to go on with. */
  get isGoing(): boolean {
    return !this.isPaused && this.live.isMoving;
  }

  /** Lets so many milliseconds of the person's time pass, and works on that until `isEnough` says so. */
  advance(ms: number, isEnough: () => boolean): void {
    const { live } = this;
    const end = this.speed === Infinity ? Infinity : live.timeNs + ms * 1e6 * this.speed;
    while (live.nextNs <= end) {
      live.runUntil(end === Infinity ? live.nextNs : end, EVENTS_A_LOOK);
      if (isEnough()) break;
    }
    this.isBehind = live.nextNs <= end && end < Infinity;
    if (!this.isBehind && end < Infinity) live.runUntil(end);
  }

  /** What is seen now. */
  state(): LiveState {
    const { live } = this;
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
      isMoving,
      isShorted: live.shorted,
      supplyMa: live.supplyMa,
      levels,
      volts,
      hertz,
      lamps: new Map(live.circuit.leds.map(({ ref }, i) => [ref, live.lamp(i)])),
      clocksOn: live.circuit.switches.flatMap(({ ref, hertz: rate }, i) =>
        rate !== null && live.isOn(i) ? [ref] : [],
      ),
      row: this.panel && !isMoving ? rowAtHand(live, this.panel, true) : null,
      unknownLoop: isMoving ? null : live.unknownLoop,
      isBehind: this.isBehind,
    };
  }
}
