export { inspect } from './inspect';
export { matched } from './matched';
export { rules } from './rules';
