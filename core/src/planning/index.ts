export { arranged } from './arrange';
export * from './expectation';
export { againstShortest, type WireLength, wireLength } from './length';
export {
  baseOhms,
  LED_OHMS,
  PULL_DOWN_OHMS,
  pullDownFor,
  type Seated,
  type SeatOptions,
  seatAll,
} from './placement';
export { jumpersToLay, type Plan, type PlanOptions, plan } from './plan';
export type { LayoutBoardKind } from './seats';
export { Wirer } from './wirer';
