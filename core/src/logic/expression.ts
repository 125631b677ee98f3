import type { Span } from '../finding';

/** The gate functions of any number of inputs; `xor` is odd parity and `xnor` its complement. */
export type Connective = 'and' | 'or' | 'xor' | 'nand' | 'nor' | 'xnor';

/** Every kind of gate: a connective, or an inverter. */
export type GateKind = Connective | 'not';

/**
 * A Boolean expression. `at` is its span in the text it was read from, absent when it was made.
 * `infix` marks a connective written between its operands rather than as a function call; only
 * and, or and xor have an infix form. Operands of a connective keep the order they were written in.
 */
export type Expr =
  | { readonly kind: 'const'; readonly value: 0 | 1; readonly at?: Span }
  | { readonly kind: 'name'; readonly name: string; readonly at?: Span }
  | { readonly kind: 'not'; readonly of: Expr; readonly at?: Span }
  | {
      readonly kind: 'gate';
      readonly gate: Connective;
      readonly of: readonly Expr[];
      readonly infix: boolean;
      readonly at?: Span;
    };

/** How an expression is written out: `K & ~E`, or as in textbooks `K·E'`. */
export type Notation = 'ascii' | 'textbook';

const marks = {
  ascii: { and: ' & ', or: ' | ', xor: ' ^ ' },
  textbook: { and: '·', or: ' + ', xor: ' ⊕ ' },
} as const;

const binding = { or: 1, xor: 2, and: 3 } as const;
type Infix = keyof typeof binding;

const isInfix = (e: Expr): e is Extract<Expr, { kind: 'gate' }> & { gate: Infix } =>
  e.kind === 'gate' && e.infix && e.gate in binding;

/**
 * Writes an expression so that the sheet's parser reads the same expression back: brackets stand
 * wherever an operand is itself an infix connective that does not bind tighter.
 */
export function printExpr(e: Expr, notation: Notation = 'ascii'): string {
  return print(e, 0, notation);
}

function print(e: Expr, outer: number, notation: Notation): string {
  if (e.kind === 'const') return String(e.value);
  if (e.kind === 'name') return e.name;
  if (e.kind === 'not') {
    const inner = print(e.of, 4, notation);
    return notation === 'ascii' ? `~${inner}` : `${inner}'`;
  }
  if (!isInfix(e)) return `${e.gate}(${e.of.map((x) => print(x, 0, notation)).join(', ')})`;
  const level = binding[e.gate];
  const text = e.of.map((x) => print(x, level, notation)).join(marks[notation][e.gate]);
  return outer >= level ? `(${text})` : text;
}

/** Calls `visit` with each name in the expression, in the order written. */
export function eachName(e: Expr, visit: (name: string, at: Span | undefined) => void): void {
  if (e.kind === 'name') visit(e.name, e.at);
  else if (e.kind === 'not') eachName(e.of, visit);
  else if (e.kind === 'gate') for (const x of e.of) eachName(x, visit);
}

/** The kind whose output is the complement of the given connective's. */
export const complement: Readonly<Record<Connective, Connective>> = {
  and: 'nand',
  nand: 'and',
  or: 'nor',
  nor: 'or',
  xor: 'xnor',
  xnor: 'xor',
};
