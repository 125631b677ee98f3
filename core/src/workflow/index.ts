export { fastSwitch, TIMES_FASTER } from './fast-switch';
export { type GuideStep, type NextStep, nextStepOf, type Tested } from './guide';
export { hazardsOf, targetWords } from './hazards';
export { layOutJob } from './lay-out';
export { MAX_MEASURED, readBack } from './read-back';
export {
  countChips,
  type Extras,
  inspectJob,
  isOutdated,
  type Layout,
  layOut,
  layoutBoardKindOf,
  noExtras,
  type Packed,
  packJob,
  placeText,
} from './stages';
export { type FamilySwap, familyWords, swapFamily } from './swap-family';
export {
  chargeCurve,
  rhythmSwitched,
  type Suggestion,
  spreadOf,
  suggested,
  type Wanted,
} from './timer-values';
export type { Trial } from './trial';
export { canTry, tryPart } from './try-part';
export { broughtUpTo, hasFixed, laidAround, type Update } from './update';
export { type Verdict, verdictOf } from './verdict';
