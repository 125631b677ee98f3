export { BoardVolts, type Standing } from './board-volts';
export * from './devices';
export type { Drive } from './island';
export { pinLimitsOf, readShares } from './pin-limits';
export { OperatingPoint, type ReadLevel } from './point-of-board';
