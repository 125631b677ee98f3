export * from './design';
export { lex, type Token, type TokenKind } from './lexer';
export { type Gate, type Netlist, netlistOf, networkOf } from './netlist';
export { keywords, MAX_SHEET_LENGTH, parseSheet } from './parser';
export { printSheet } from './printer';
export type { Declarations, Equation, Line, Sheet, Signal, Statement } from './sheet';
