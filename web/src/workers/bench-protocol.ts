import type { Board, LiveSettings, LiveState, Scope } from '@saddlebag/core';

/** How the bench has a board run: somewhere, which tells what is seen. */
export interface BenchRunner {
  /** Powers a board up; one that ran before is gone. */
  start(board: Board, settings: LiveSettings): void;
  setSwitches(positions: ReadonlyMap<string, boolean>): void;
  setPace(speed: number, isPaused: boolean): void;
  setScope(scope: Scope): void;
  /** Traces these pins beside what is labelled. */
  setTraced(pins: readonly string[]): void;
  step(): void;
  /** Power off. */
  stop(): void;
}

/** Makes a runner that tells a bench what is seen. */
export type RunnerFor = (tell: (state: LiveState) => void) => BenchRunner;
