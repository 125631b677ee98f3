export { BoardVolts, type Drive, OperatingPoint, type ReadLevel, type Standing } from './board-volts';
export * from './devices';
export { pinLimitsOf, readShares } from './pin-limits';
