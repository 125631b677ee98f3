import type { Span } from '../finding';
import type { Expr } from '../logic';

/** A name in the sheet, with its span and, in a declaration, its label. */
export interface Signal {
  readonly name: string;
  readonly label?: string;
  readonly at?: Span;
}

/** `in …` and `out …` declare signals; an equation makes the signal on its left. */
export type Statement =
  | { readonly kind: 'in' | 'out'; readonly signals: readonly Signal[] }
  | { readonly kind: 'equation'; readonly target: Signal; readonly expr: Expr };

/** One line of the text: a statement or none, and the comment behind it, `#` included, or none. */
export interface Line {
  readonly statement?: Statement;
  readonly comment?: string;
}

/** A sheet as it was written, line by line; `parseSheet` and `printSheet` are inverse to each other. */
export interface Sheet {
  readonly lines: readonly Line[];
}

/** A signal with the expression that makes it. */
export interface Equation {
  readonly target: Signal;
  readonly expr: Expr;
}

/** What a sheet says, gathered: declarations and equations, in the order written. */
export interface Declarations {
  readonly inputs: readonly Signal[];
  readonly outputs: readonly Signal[];
  readonly equations: readonly Equation[];
}
