export { type Clip, clipOf, pasted } from './clipboard';
export { type Command, type CommandWord, commandKinds, readCommand } from './commands';
export { type Differences, differences, type LineDifference } from './differences';
export { type Applied, applyEdit, type Edit, MAX_BREADBOARDS, saysEdit } from './edit';
export { clearSeat, freeSeat } from './free-seat';
export { type History, perform, redo, startHistory, undo } from './history';
export { currentPacking, type Job, newJob, rulesOf, type Silenced } from './job';
export { writeHistory } from './kept-history';
export { rotatedInPlace } from './move';
export { nudged, thingsOn } from './nudge';
export {
  compareTables,
  emptyTable,
  isRight,
  MAX_OWN_INPUTS,
  type Marked,
  type OwnMark,
  type OwnTable,
  ownMark,
  tableFits,
  withMark,
} from './own-table';
export { type Shift, shifted } from './shift';
export {
  arranged,
  type KeptMarks,
  MOST_TRACED,
  type NumberForm,
  numberForms,
  plainTrace,
  type TraceNumber,
  type TraceRowShown,
  type TraceSetup,
  withForm,
  withNumber,
  withPin,
  withRowMoved,
} from './trace-setup';
export { FILE_VERSION, writeJobFile } from './write';
