import type { Board, LiveSettings, LiveState, MarkName, Numbers, Scope, TimeCommand, TraceFile } from '@saddlebag/core';

/** Where a mark is set: at a moment, or on an edge of a signal that is so near. */
export interface MarkPlace {
  readonly name: string;
  readonly timeNs: number;
  readonly withinNs: number;
}

/** How the bench has a board run: somewhere, which tells what is seen. */
export interface BenchRunner {
  /** Powers a board up; one that ran before is gone. */
  start(board: Board, settings: LiveSettings): void;
  setSwitches(positions: ReadonlyMap<string, boolean>): void;
  setDials(positions: ReadonlyMap<string, number>): void;
  setPace(speed: number, isPaused: boolean): void;
  setScope(scope: Scope): void;
  /** Traces these pins beside what is labelled. */
  setTraced(pins: readonly string[]): void;
  /** Shows rows as numbers, whose passing states are told. */
  setNumbers(numbers: Numbers): void;
  /** Sets a mark of the trace, or takes it away; moves one from edge to edge. */
  setMark(mark: MarkName, at: MarkPlace | null): void;
  moveMark(mark: MarkName, name: string, isForward: boolean): void;
  /** Writes the trace as a file, which comes with what is seen next. */
  writeTrace(kind: TraceFile['kind']): void;
  step(): void;
  /** Winds time back, or looks for something in it. */
  inTime(command: TimeCommand): void;
  /** Power off. */
  stop(): void;
}

/** Makes a runner that tells a bench what is seen. */
export type RunnerFor = (tell: (state: LiveState) => void) => BenchRunner;
