export { arranged } from './arrange';
export * from './expectation';
export { againstShortest, type WireLength, wireLength } from './length';
export { LED_OHMS, type PlacementKind, PULL_DOWN_OHMS, seatAll } from './placement';
export { jumpersToLay, type Plan, type PlanOptions, plan } from './plan';
export { Wirer } from './wirer';
