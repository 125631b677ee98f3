import { type Board, extractNets, LiveRun, type LiveSettings, type LiveState } from '@saddlebag/core';
import type { BenchRunner } from './bench-protocol';

/** The most real time that is worked off at once, in milliseconds: a tab that slept does not catch up. */
const MOST_MS = 100;
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

  constructor(
    private readonly tell: (state: LiveState) => void,
    private readonly isWanted: () => boolean = () => true,
  ) {}

  start(board: Board, settings: LiveSettings): void {
    this.run = new LiveRun(board, extractNets(board), settings);
    this.show();
  }

  setSwitches(positions: ReadonlyMap<string, boolean>): void {
    this.run?.setSwitches(positions);
    this.show();
  }

  setPace(speed: number, isPaused: boolean): void {
    this.run?.setPace(speed, isPaused);
    this.show();
  }

  step(): void {
    this.run?.step();
    this.show();
  }

  stop(): void {
    this.run = null;
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private show(): void {
    if (!this.run) return;
    this.tell(this.run.state());
    if (!this.run.isGoing || this.timer !== undefined) return;
    this.workedAt = performance.now();
    this.timer = setTimeout(this.tick, FRAME_MS);
  }

  private readonly tick = (): void => {
    this.timer = undefined;
    const { run } = this;
    if (!run) return;
    const now = performance.now();
    run.advance(Math.min(MOST_MS, now - this.workedAt), () => performance.now() - now > WORK_MS);
    this.workedAt = now;
    if (this.isWanted()) this.tell(run.state());
    if (run.isGoing) this.timer = setTimeout(this.tick, FRAME_MS);
    else this.tell(run.state());
  };
}
