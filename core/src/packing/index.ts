export { blockNumbers } from './blocks';
export * from './by-hand';
export { whatIsWrong } from './check';
export * from './drawer';
export { type Added, againstRules, type Held, heldKey, holdsNothing, nothingHeld, type PinnedGate } from './held';
export { noRules, pack, type Rules } from './pack';
export * from './packing';
export { isPlain } from './unit-gates';
export { choosable } from './units';
export {
  anySupplies,
  missingFrom,
  type PackProgress,
  packWay,
  pathOf,
  pinsOf,
  type Supplies,
  sureness,
  ways,
} from './ways';
