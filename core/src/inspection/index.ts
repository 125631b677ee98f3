export { inspect } from './inspect';
export { rules } from './rules';
