import {
  type Board,
  extractNets,
  LiveRun,
  type LiveSettings,
  type LiveState,
  type MarkName,
  type Numbers,
  type Scope,
  type TimeCommand,
  type TraceFile,
} from '@saddlebag/core';
import type { BenchRunner, MarkPlace } from './bench-protocol';

/** The most real time that is worked off at once while something moves, in milliseconds: a tab that slept does not catch up. */
const MOST_MS = 100;
/** Pause between two pictures while nothing moves: time passes all the same. */
const REST_MS = 100;
/** Work between two looks at the messages that have come in, in milliseconds. */
const WORK_MS = 12;
/** Pause between two pictures, in milliseconds. */
const FRAME_MS = 16;

/**
 * Runs a board here, wherever that is: in a worker, or in place. Tells what is seen after every command and once a frame while
 * something moves; `isWanted` says whether the last picture has been taken.
 */
export class LocalRunner implements BenchRunner {
  private run: LiveRun | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private workedAt = 0;

  /** `isWanted` says whether the last picture has been taken; with `showsRest` pictures go on while nothing moves. */
  constructor(
    private readonly tell: (state: LiveState) => void,
    private readonly isWanted: () => boolean = () => true,
    private readonly showsRest = false,
  ) {}

  start(board: Board, settings: LiveSettings): void {
    this.run = new LiveRun(board, extractNets(board), settings);
    this.workedAt = performance.now();
    this.show();
  }

  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    this.catchUp();
    this.run?.setSwitches(positions);
    this.show();
  }

  setDials(positions: ReadonlyMap<string, number>): void {
    this.catchUp();
    this.run?.setDials(positions);
    this.show();
  }

  setPace(speed: number, isPaused: boolean): void {
    this.catchUp();
    this.run?.setPace(speed, isPaused);
    this.show();
  }

  setTraced(pins: readonly string[]): void {
    this.run?.setTraced(pins);
    this.show();
  }

  setNumbers(numbers: Numbers): void {
    this.run?.setNumbers(numbers);
    this.show();
  }

  setScope(scope: Scope): void {
    this.run?.setScope(scope);
    this.show();
  }

  setMark(mark: MarkName, at: MarkPlace | null): void {
    this.run?.setMark(mark, at);
    this.show();
  }

  moveMark(mark: MarkName, name: string, isForward: boolean): void {
    this.run?.moveMark(mark, name, isForward);
    this.show();
  }

  writeTrace(kind: TraceFile['kind']): void {
    this.run?.writeTrace(kind);
    this.show();
  }

  step(): void {
    this.run?.step();
    this.show();
  }

  inTime(command: TimeCommand): void {
    this.catchUp();
    this.run?.inTime(command);
    this.show();
  }

  stop(): void {
    this.run = null;
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  /** Lets the time pass that has gone by while nothing moved. */
  private catchUp(): void {
    const now = performance.now();
    if (this.run?.isPassing && !this.run.isGoing) this.run.advance(now - this.workedAt, () => true);
    this.workedAt = now;
  }

  private show(): void {
    if (!this.run) return;
    this.tell(this.run.state());
    this.goOn();
  }

  private goOn(): void {
    const { run } = this;
    if (!run || this.timer !== undefined) return;
    if (run.isGoing) this.timer = setTimeout(this.tick, FRAME_MS);
    else if (this.showsRest && run.isPassing) this.timer = setTimeout(this.tick, REST_MS);
  }

  private readonly tick = (): void => {
    this.timer = undefined;
    const { run } = this;
    if (!run) return;
    const now = performance.now();
    const passed = now - this.workedAt;
    run.advance(run.isGoing ? Math.min(MOST_MS, passed) : passed, () => performance.now() - now > WORK_MS);
    this.workedAt = now;
    if (this.isWanted() || !run.isGoing) this.tell(run.state());
    this.goOn();
  };
}
