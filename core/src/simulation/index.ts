export { compileSweep } from './board-sweep';
export { type Circuit, compileCircuit } from './circuit';
export { LiveRun } from './live-run';
export {
  type LiveSettings,
  type LiveState,
  liveFindings,
  type Numbers,
  type Speed,
  type TimeCommand,
  type TraceFile,
} from './live-state';
export { type LongestPath, longestPath } from './longest-path';
export { type Measured, measure, type PinReading, type SwitchSettings } from './measure';
export { levelShown, type Panel } from './panel';
export type { Passage } from './passage';
export type { PassingState } from './passing-states';
export {
  type LampReading,
  type LedState,
  PoweredBoard,
  type PowerOptions,
  type Settled,
  type Start,
  type Unclear,
} from './powered-board';
export { pulseParts } from './pulses';
export { type Move, type Run, type RunSettings, runBoard, type SignalReport } from './run';
export type { Parting, WatchedSheet } from './sheet-watch';
export { MOST_PULSES } from './time-in-hand';
export {
  type PlannedTour,
  plannedTour,
  shownWord,
  type Tour,
  tourBoard,
} from './tour';
export type { TourDifference, TourStep } from './tour-step';
export { levelLetter, Trace, TraceRow } from './trace';
export { traceCsvOf, vcdOf } from './trace-files';
export type { Between, MarkName, TraceMarks } from './trace-marks';
export { type NumberStretch, numberAtEnd, numberOf, numberWords } from './trace-number';
export { isAnalogue, NOT_YET, type Scope, type TraceColumns, type TraceWindow, windowOf } from './trace-window';
export * from './walk';
export { hertzWords, timeWords } from './words';
