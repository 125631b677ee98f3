export { whatIsWrong } from './check';
export * from './drawer';
export { pack } from './pack';
export * from './packing';
export { isPlain } from './unit-gates';
export { choosable } from './units';
export {
  anySupplies,
  missingFrom,
  packWay,
  pathOf,
  pinsOf,
  type Supplies,
  sureness,
  ways,
} from './ways';
