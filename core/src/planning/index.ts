export * from './expectation';
export { type FloorKind, LED_OHMS, PULL_DOWN_OHMS } from './floor';
export { plan } from './plan';
