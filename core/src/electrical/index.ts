export * from './devices';
export { pinLimitsOf, readShares } from './pin-limits';
