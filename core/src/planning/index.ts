export * from './expectation';
export { LED_OHMS, PULL_DOWN_OHMS } from './floor';
export { plan } from './plan';
