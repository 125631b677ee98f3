export { BoardVolts, LEAST_SUPPLY_V, type Standing } from './board-volts';
export { ChargedIsland, type Watch } from './charge';
export * from './devices';
export { DIAL_END, DIAL_MIDDLE, type Drive, type IslandModel, type IslandPoint, jointClosings } from './island';
export { inputUaOf, type PinLimits, pinLimitsOf } from './pin-limits';
export { READS, readingOf, type Thresholds, thresholdsAt } from './pin-models';
export {
  OperatingPoint,
  type PinReader,
  type ReadLevel,
  type SeatedChip,
  thresholdsOf,
} from './point-of-board';
export {
  fullMaThrough,
  type IslandStanding,
  outputMaIn,
  standingsOf,
  type UnclearReading,
  unclearIn,
} from './standings';
export { SteppedIsland } from './stepping';
export { shareAtLimit } from './supply-limit';
export {
  astableLaw,
  type FoundTimer,
  type Rhythm,
  rhythmOf,
  type SwitchedCapacitor,
  type TimerKind,
  type TimerLaw,
  type TimerValues,
  timersOf,
} from './timers';
