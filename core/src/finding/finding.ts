import { type FactsOf, type FindingCode, sentences } from './sentences';

/**
 * A stretch of a text, as UTF-16 offsets from 0; `from` is included, `to` is not.
 */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** `error`: must be mended. `warning`: should be. `note`: good to know. */
export type Severity = 'error' | 'warning' | 'note';

/**
 * Where a finding stands: in the sheet, at a hole (`b1.e17`), a pin (`U1.8`), a part (`U1`), a
 * jumper (`w12`), a net of the design, or a field of a file (`board.parts.U1.at`).
 */
export type Place =
  | { readonly kind: 'text'; readonly span: Span }
  | { readonly kind: 'hole'; readonly hole: string }
  | { readonly kind: 'pin'; readonly pin: string }
  | { readonly kind: 'part'; readonly ref: string }
  | { readonly kind: 'jumper'; readonly id: string }
  | { readonly kind: 'signal'; readonly name: string }
  | { readonly kind: 'field'; readonly path: string };

/** What the sentence of a finding needs besides its places: names and numbers, with units in their keys. */
export type Facts = Readonly<Record<string, string | number>>;

/**
 * Something the person should know: a code, a severity, its places (the first is the one to show)
 * and the facts its sentence needs. Rooms return findings; they never throw for bad input.
 */
export interface Finding {
  readonly code: FindingCode;
  readonly severity: Severity;
  readonly places: readonly Place[];
  readonly facts: Facts;
  /** What typing on the board would mend it: `U1.8 > U3.2`, `rotate D1`. */
  readonly fix?: string;
}

/**
 * Makes a finding. The facts demanded by the code's sentence are checked by the compiler; the
 * severity is the one that `sentences` gives the code.
 */
export function finding<C extends FindingCode>(
  code: C,
  places: readonly Place[],
  facts: FactsOf<C>,
  fix?: string,
): Finding {
  const { severity } = sentences[code];
  return { code, severity, places, facts: facts as Facts, ...(fix !== undefined && { fix }) };
}

/** The place of a span of the sheet. */
export function atText(span: Span): Place {
  return { kind: 'text', span: { from: span.from, to: span.to } };
}

/** The most characters of a fact that are told. */
const MOST = 400;

const fill = (template: string, facts: Facts): string =>
  template.replace(/\{(\w+)\}/g, (_, key: string) => {
    const fact = String(facts[key]);
    return fact.length <= MOST ? fact : `${fact.slice(0, MOST - 1)}…`;
  });

/** What is wrong, in one sentence. */
export function says(f: Finding): string {
  // What is found may be the end of the line, which begins a sentence as any other words do.
  return fill(sentences[f.code].says, f.facts).replace(/^the /, 'The ');
}

/** What to do about it, in one sentence. */
export function remedy(f: Finding): string {
  return fill(sentences[f.code].todo, f.facts);
}

/** True when a finding must be mended before the work can go on. */
export function isError(f: Finding): boolean {
  return f.severity === 'error';
}
