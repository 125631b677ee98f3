export { type Circuit, compileCircuit, NONE, type TwoLeads } from './circuit';
export { type LedState, MAX_EVENTS, type NetLevel, type Settled, Simulator } from './simulator';
export * from './walk';
export { DRIVEN, FLOATING, SUPPLIED, WEAK } from './wiring';
