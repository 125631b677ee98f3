import type { Span } from '../finding';
import type { Expr } from '../logic';
import type { FittedSignals, WantedPulses, WrittenFitting } from './fitting';

/**
 * A name in the sheet, with its span and, in a declaration, its label. A bus is named with its range,
 * `A[3:0]`, or one of its wires, `A[2]`.
 */
export interface Signal {
  readonly name: string;
  readonly label?: string;
  readonly at?: Span;
  /** Of an output that is an input too: the signal that drives it from inside. */
  readonly drivenBy?: string;
}

/** When a stored signal takes its value: `at rise CK`, `at fall CK`, or while an expression is high. */
export type Storage =
  | { readonly kind: 'rise' | 'fall'; readonly clock: Expr }
  | { readonly kind: 'while'; readonly enable: Expr };

/** `clear …` and `preset …`: what forces a stored signal while it is high, whatever its clock does. */
export interface Force {
  readonly to: 0 | 1;
  readonly when: Expr;
}

/**
 * What stands behind an equation's expression. `forces` in the order written: the first that is high
 * wins. `when` makes a three-state output, `open` an open-collector one; `dontCare` says where the
 * value does not matter.
 */
export interface Clauses {
  readonly storage?: Storage;
  readonly forces?: readonly Force[];
  readonly when?: Expr;
  readonly open?: true;
  readonly dontCare?: Expr;
}

/** A pin of a used part or block, and what it is joined to. */
export interface PinJoin {
  readonly pin: string;
  readonly expr: Expr;
  readonly at?: Span;
}

/** A statement; the language is told in docs/sheet.md. */
export type Statement =
  | { readonly kind: 'in' | 'out'; readonly signals: readonly Signal[]; readonly fitted?: WrittenFitting }
  | { readonly kind: 'equation'; readonly target: Signal; readonly expr: Expr; readonly clauses?: Clauses }
  | { readonly kind: 'never'; readonly expr: Expr }
  | {
      readonly kind: 'table';
      readonly outputs: readonly Signal[];
      readonly inputs: readonly Signal[];
      /** The cells of one output for rows 0 up, of `0`, `1` and `-`; absent when rows follow. */
      readonly cells?: string;
      readonly at?: Span;
    }
  /** A row of the table above: its inputs (null for `others`) and its outputs, of `0`, `1` and `-`. */
  | { readonly kind: 'row'; readonly inputs: string | null; readonly outputs: string; readonly at?: Span }
  | { readonly kind: 'block'; readonly name: Signal }
  /** The head of a part of one's own; its title is the label. `of`: the memory of the catalogue that it is, with contents of its own. */
  | { readonly kind: 'part'; readonly name: Signal; readonly of?: Signal }
  /** Words of a memory in hexadecimal, from where the line before ended. */
  | { readonly kind: 'holds'; readonly words: readonly string[]; readonly at?: Span }
  | { readonly kind: 'pins'; readonly names: readonly Signal[]; readonly wide: boolean }
  | { readonly kind: 'end'; readonly at?: Span }
  | {
      readonly kind: 'use';
      readonly part: Signal;
      readonly ref: Signal;
      readonly pins: readonly PinJoin[];
      /** How long its pulses last, in seconds, in the order of its one-shots. */
      readonly pulses?: readonly number[];
    };

/** Whether a statement begins a section with names of its own, up to `end`. */
export function opensSection(s: Statement | undefined): boolean {
  return s?.kind === 'block' || s?.kind === 'part';
}

/** One line of the text: a statement or none, and the comment behind it, `#` included, or none. */
export interface Line {
  readonly statement?: Statement;
  readonly comment?: string;
}

/** A sheet as it was written, line by line; `parseSheet` and `printSheet` are inverse to each other. */
export interface Sheet {
  readonly lines: readonly Line[];
}

/**
 * One signal with what makes it, after buses, tables and blocks have been written out. Several
 * equations may make one signal if all of them are three-state or all open-collector.
 */
export interface Equation extends Clauses {
  readonly target: Signal;
  readonly expr: Expr;
}

/**
 * A part used by its number, kept whole: its inputs as expressions, and the signal that each of its
 * outputs makes (`C1.QA`, or the name it was given).
 */
export interface UsedPart {
  readonly ref: string;
  readonly part: string;
  /** The definition of a part that the sheet defines itself. */
  readonly own?: string;
  readonly inputs: readonly { readonly pin: string; readonly expr: Expr }[];
  readonly outputs: readonly { readonly pin: string; readonly signal: string }[];
  readonly at: Span;
}

/** What a sheet says, written out: declarations, equations and parts, in the order written. */
export interface Declarations {
  readonly inputs: readonly Signal[];
  readonly outputs: readonly Signal[];
  readonly equations: readonly Equation[];
  readonly parts: readonly UsedPart[];
  /** Rows that never occur. */
  readonly never: readonly Expr[];
  /** What inputs come from and outputs are shown on, where the sheet says it. */
  readonly fittings: readonly FittedSignals[];
  /** How long the pulses of one-shots last, where the sheet says it. */
  readonly pulses: readonly WantedPulses[];
}
