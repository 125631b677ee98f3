export { inspect } from './inspect';
export { matched } from './matched';
export { isBuiltOtherwise } from './otherwise';
export { type Recovered, recover } from './recover';
export { type FoundResistor, resistorsOf } from './resistor-values';
export { rules } from './rules';
export { CAPACITOR_REACH } from './rules/no-capacitor';
