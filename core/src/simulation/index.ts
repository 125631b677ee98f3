export { type Circuit, compileCircuit, NONE, type TwoLeads } from './circuit';
export { type Measured, measure, type PinReading, type SwitchSettings } from './measure';
export { type LampReading, PoweredBoard, type Unclear } from './powered-board';
export { type LedState, MAX_EVENTS, type NetLevel, type Settled, Simulator } from './simulator';
export * from './walk';
export { DRIVEN, FLOATING, SUPPLIED, WEAK } from './wiring';
