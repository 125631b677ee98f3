export { arranged } from './arrange';
export * from './expectation';
export { type FloorKind, LED_OHMS, PULL_DOWN_OHMS, seatAll } from './floor';
export { type WireLength, wireLength } from './length';
export { jumpersToLay, type Plan, type PlanOptions, plan } from './plan';
export { Wirer } from './wirer';
