export { arranged } from './arrange';
export * from './expectation';
export { againstShortest, type WireLength, wireLength } from './length';
export { type LayoutBoardKind, LED_OHMS, PULL_DOWN_OHMS, pullDownFor, seatAll } from './placement';
export { jumpersToLay, type Plan, type PlanOptions, plan } from './plan';
export { Wirer } from './wirer';
