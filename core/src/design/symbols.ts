import type { Span } from '../finding';
import { rangeOf, wiresOf } from './bus';
import { keywords } from './expression-parser';
import { fittingWord, fittingWords } from './fitting';
import { lex, type Token } from './lexer';
import { parseSheet } from './parser';
import { opensSection, type Sheet } from './sheet';

/** Words with a meaning of their own in some places, which completion offers beside signals. */
export const clauseWords: readonly string[] = ['at rise', 'at fall', 'while', 'clear', 'preset', 'when', 'open', 'dc'];
/** Words that can begin a statement, for completion and hints. */
export const statementWords: readonly string[] = [
  'in',
  'out',
  'table',
  'of',
  'others',
  'never',
  'block',
  'part',
  'wide',
  'pins',
  'holds',
  'end',
  'use',
  'as',
];

/** What may stand behind declared signals, for completion: what they come from or are shown on. */
export const fittingPhrases: readonly string[] = [
  ...fittingWords.in.map((word) => `${fittingWord.in} ${word}`),
  ...fittingWords.out.map((word) => `${fittingWord.out} ${word}`),
];

/** The signals a sheet names outside its blocks and parts, in the order first met: buses by their base, wires one by one. */
export function signalsOf(sheet: Sheet): string[] {
  const names = new Set<string>();
  const add = (name: string): void => {
    const range = rangeOf(name);
    names.add(range ? range.base : name);
    if (range) for (const wire of wiresOf(range)) names.add(wire);
  };
  let inBlock = false;
  for (const { statement: s } of sheet.lines) {
    if (opensSection(s)) inBlock = true;
    else if (s?.kind === 'end') inBlock = false;
    else if (inBlock || !s) continue;
    else if (s.kind === 'in' || s.kind === 'out') for (const { name } of s.signals) add(name);
    else if (s.kind === 'equation') add(s.target.name);
    else if (s.kind === 'table') for (const { name } of s.outputs) add(name);
    else if (s.kind === 'use') for (const { expr } of s.pins) if (expr.kind === 'name') add(expr.name);
  }
  return [...names];
}

/**
 * Where a signal is made, for jumping there: its equation, table, or the use whose output it is; for
 * inputs, their declaration. Null when nothing makes it.
 */
export function definitionOf(text: string, name: string): Span | null {
  const { sheet } = parseSheet(text);
  const base = (written: string): string => rangeOf(written)?.base ?? written;
  const fits = (written: string): boolean =>
    written === name ||
    base(written) === name ||
    (rangeOf(written) !== null && wiresOf(rangeOf(written) as never).includes(name));
  const own = sheet.lines.find(({ statement: s }) => s && opensSection(s) && 'name' in s && s.name.name === name);
  if (own?.statement && 'name' in own.statement) return own.statement.name.at ?? null;
  for (const { statement: s } of sheet.lines) {
    if (s?.kind === 'equation' && fits(s.target.name)) return s.target.at ?? null;
    if (s?.kind === 'table') {
      const output = s.outputs.find((o) => fits(o.name));
      if (output) return output.at ?? null;
    }
    if (s?.kind === 'use') {
      if (name.startsWith(`${s.ref.name}.`) || name === s.ref.name) return s.ref.at ?? null;
      const declared = sheet.lines.some(({ statement: t }) => t?.kind === 'in' && t.signals.some((x) => fits(x.name)));
      const pin = declared ? undefined : s.pins.find((p) => p.expr.kind === 'name' && fits(p.expr.name));
      if (pin) return pin.at ?? null;
    }
  }
  for (const { statement: s } of sheet.lines)
    if (s?.kind === 'in' || s?.kind === 'out') {
      const signal = s.signals.find((x) => fits(x.name));
      if (signal) return signal.at ?? null;
    }
  return null;
}

/** Whether a text can name a signal. */
export function canName(text: string): boolean {
  return /^[0-9]*[A-Za-z_][A-Za-z0-9_]*$/.test(text) && !keywords.has(text);
}

/**
 * A sheet with one signal renamed everywhere outside blocks: its declaration, its equation, and wherever
 * it is read; pins of used parts keep their names. Null when the new name cannot name a signal or is taken.
 */
export function renamed(text: string, from: string, to: string): string | null {
  const { sheet } = parseSheet(text);
  const names = signalsOf(sheet);
  if (!canName(to) || (to !== from && names.includes(to)) || !names.includes(from)) return null;
  const fitted = fittedSpans(sheet);
  // `on` and `from` say what signals are shown on, or come from, only as long as no signal is called so.
  if (fitted.length > 0 && Object.values(fittingWord).some((word) => word === to)) return null;
  const edits = lex(text).filter(
    (t, i, all) =>
      t.kind === 'name' && t.text === from && isSignal(all, i) && !fitted.some((f) => f.from <= t.from && t.to <= f.to),
  );
  let out = '';
  let at = 0;
  for (const t of edits) {
    out += text.slice(at, t.from) + to;
    at = t.to;
  }
  return out + text.slice(at);
}

/**
 * Where lines of tokens look as if they say what their signals come from or are shown on, for colouring and completion: as far as it can be told from
 * the line alone, whatever the rest of the sheet calls `on` or `from`.
 */
export function fittingSpans(tokens: readonly Token[]): Span[] {
  const spans: Span[] = [];
  let kind: string | undefined;
  let isFirst = true;
  tokens.forEach((token, i) => {
    if (isFirst) kind = token.text;
    isFirst = token.kind === 'newline';
    if ((kind !== 'in' && kind !== 'out') || token.kind !== 'name' || token.text !== fittingWord[kind]) return;
    const next = tokens[i + 1];
    if (!fittingWords[kind].some((word) => word === next?.text)) return;
    const end = tokens.findIndex((t, k) => k > i && ['newline', 'comment', 'end'].includes(t.kind));
    spans.push({ from: token.from, to: tokens[end - 1]?.to ?? token.to });
  });
  return spans;
}

/** Where a sheet says what signals come from or are shown on: these words name no signals. */
function fittedSpans({ lines }: Sheet): Span[] {
  return lines.flatMap(({ statement: s }) => (s?.kind === 'in' || s?.kind === 'out' ? (s.fitted?.at ?? []) : []));
}

/** Whether the name at a place in the tokens is a signal of the sheet itself. */
function isSignal(tokens: readonly Token[], i: number): boolean {
  let start = i;
  while (start > 0 && tokens[start - 1]?.kind !== 'newline') start--;
  if (isInBlock(tokens, start)) return false;
  const [first, second] = [tokens[start], tokens[start + 1]];
  if (first?.text !== 'use' || second?.kind === '=') return true;
  // In `use PART as REF (pin = expression)`: neither part nor reference, nor a name before an equals sign.
  const open = tokens.findIndex((t, k) => k >= start && t.kind === '(');
  return i > open && tokens[i + 1]?.kind !== '=';
}

function isInBlock(tokens: readonly Token[], start: number): boolean {
  let inside = false;
  for (let k = 0; k < start; k++) {
    if (k > 0 && tokens[k - 1]?.kind !== 'newline') continue;
    const next = tokens[k + 1]?.kind;
    const word = tokens[k]?.text;
    if ((word === 'block' || word === 'part') && next === 'name') inside = true;
    if (word === 'end' && next !== '=' && next !== 'name') inside = false;
  }
  return inside;
}
