export { rangeOf, wiresOf } from './bus';
export * from './compare';
export { MAX_CONTENTS_LENGTH, memoryFromFile, type WantedMemory } from './contents-file';
export { printCsv } from './csv';
export * from './design';
export { draftOf, editDraftGate, withoutDraft } from './draft';
export { elaborate, type Library, type LibraryPart, noLibrary } from './elaborate';
export { keywords, readExpression } from './expression-parser';
export {
  DISPLAY_SIGNALS,
  type FittedSignals,
  type Fitting,
  fittingWord,
  fittingWords,
  type LedColour,
  lampColours,
  MOST_HERTZ,
  PULSE_S,
  printFitting,
  printHertz,
  printSeconds,
  type WantedPulses,
} from './fitting';
export { formatted } from './format';
export { editGate, type GateEdit, type GateEdited } from './gate-edit';
export { lex, type Token, type TokenKind } from './lexer';
export { editLines, type LineEdit, lineMaking, notationOf } from './line-edit';
export {
  type Cell,
  type Gate,
  hasDesign,
  type Netlist,
  netlistOf,
  networkOf,
  type PartCell,
  type StoredCell,
  type WireCell,
} from './netlist';
export { type LogicRole, MAX_OWN_TEXT, type OwnPart, ownPartsOf, pinRolesOf } from './own-part';
export { MAX_SHEET_LENGTH, parseSheet } from './parser';
export { withPart } from './part-in-sheet';
export { printSheet, printStatement } from './printer';
export { type Registered, registered } from './registered';
export { withRemedies } from './remedies';
export * from './restate';
export type {
  Clauses,
  Declarations,
  Equation,
  Line,
  PinJoin,
  Sheet,
  Signal,
  Statement,
  Storage,
  UsedPart,
} from './sheet';
export * from './symbols';
export { tableFromCsv, tableToCsv } from './table-csv';
export { canSetCells, settable, withCell, withCells } from './table-edit';
export { fromVerilog } from './verilog-in';
export { toVerilog } from './verilog-out';
export * from './why';
export { withProduct } from './with-product';
