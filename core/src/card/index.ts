export { type BuildCard, boardAfter, buildCard, type PartsLine, type PinList, type Stage, shownValue } from './card';
export { type LeadStep, leadOn, type NextStep, type Tested } from './lead';
export type { Trial } from './trial';
export { broughtUpTo, hasFixed, laidAround, type Update } from './update';
