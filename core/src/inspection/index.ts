export { inspect } from './inspect';
export { matched } from './matched';
export { isBuiltOtherwise } from './otherwise';
export { type Recovered, recover } from './recover';
export { rules } from './rules';
export { CAPACITOR_REACH } from './rules/no-capacitor';
