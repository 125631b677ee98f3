export { rangeOf, wiresOf } from './bus';
export * from './design';
export { type Library, noLibrary } from './elaborate';
export { keywords } from './expression-parser';
export { lex, type Token, type TokenKind } from './lexer';
export {
  type Cell,
  type Gate,
  isGatesAlone,
  type Netlist,
  netlistOf,
  networkOf,
  type PartCell,
  type StoredCell,
  type WireCell,
} from './netlist';
export { MAX_SHEET_LENGTH, parseSheet } from './parser';
export { printSheet, printStatement } from './printer';
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
