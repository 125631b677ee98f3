export * from './expectation';
export { type FloorKind, LED_OHMS, PULL_DOWN_OHMS, seatAll } from './floor';
export { plan } from './plan';
export { Wirer } from './wirer';
