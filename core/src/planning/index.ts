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
  timingsOf,
} from './placement';
export { jumpersToLay, type Plan, type PlanOptions, plan } from './plan';
export { runningValues } from './pulse-values';
export type { LayoutBoardKind, Timing } from './seats';
export { timerLeads, timerNets, timerPinsOf } from './timer';
export { Wirer } from './wirer';
