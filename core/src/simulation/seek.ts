import { readExpression } from '../design';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { type Expr, eachName, HIGH, LOW, UNKNOWN } from '../logic';
import type { TraceRow } from './trace';

/** What is looked for in time: so many edges of a signal to a level (null: to either), or that an expression becomes true. */
export type Sought =
  | { readonly kind: 'edges'; readonly name: string; readonly to: 0 | 1 | null; readonly count: number }
  | { readonly kind: 'true'; readonly text: string };

/** The level of an expression: HIGH or LOW where its signals decide that, whatever the unknown ones are; else UNKNOWN. */
export function levelOfExpr(e: Expr, levelOf: (name: string) => number): number {
  if (e.kind === 'const') return e.value === 1 ? HIGH : LOW;
  if (e.kind === 'name') return levelOf(e.name);
  if (e.kind === 'not') return inverse(levelOfExpr(e.of, levelOf));
  const levels = e.of.map((x) => levelOfExpr(x, levelOf));
  switch (e.gate) {
    case 'and':
      return allHigh(levels);
    case 'nand':
      return inverse(allHigh(levels));
    case 'or':
      return inverse(allHigh(levels.map(inverse)));
    case 'nor':
      return allHigh(levels.map(inverse));
    case 'xor':
      return odd(levels);
    case 'xnor':
      return inverse(odd(levels));
  }
}

const isKnown = (level: number): boolean => level === HIGH || level === LOW;
const inverse = (level: number): number => (level === HIGH ? LOW : level === LOW ? HIGH : UNKNOWN);
const allHigh = (levels: readonly number[]): number =>
  levels.includes(LOW) ? LOW : levels.every((level) => level === HIGH) ? HIGH : UNKNOWN;
const odd = (levels: readonly number[]): number =>
  levels.every(isKnown) ? (levels.filter((level) => level === HIGH).length % 2 === 1 ? HIGH : LOW) : UNKNOWN;

/** An expression over the signals of a trace, or why it is none: its mistakes, or names that are not traced. */
export function readSought(
  text: string,
  rows: readonly TraceRow[],
): { readonly expr: Expr | null; readonly findings: readonly Finding[] } {
  const read = readExpression(text);
  if (!read.expr) return read;
  const unknown = new Set<string>();
  eachName(read.expr, (name) => {
    if (!rows.some((row) => row.name === name)) unknown.add(name);
  });
  if (unknown.size === 0) return read;
  return { expr: null, findings: [...unknown].map((name) => finding('trace-no-signal', [], { name })) };
}

const lastLevel = (row: TraceRow | undefined): number =>
  row && row.length > 0 ? row.levelAt(row.length - 1) : UNKNOWN;

/** Whether what is sought comes about now; asked after each moment of a run. `rows` are those of the trace. */
export function watcherOf(sought: Sought, rows: readonly TraceRow[]): (() => boolean) | null {
  if (sought.kind === 'true') {
    const { expr } = readSought(sought.text, rows);
    if (!expr) return null;
    const byName = new Map(rows.map((row) => [row.name, row]));
    const isTrue = (): boolean => levelOfExpr(expr, (name) => lastLevel(byName.get(name))) === HIGH;
    let before = isTrue();
    return () => {
      const was = before;
      before = isTrue();
      return before && !was;
    };
  }
  const row = rows.find(({ name }) => name === sought.name);
  if (!row) return null;
  let [known, left] = [lastLevel(row), sought.count];
  return () => {
    const level = lastLevel(row);
    if (!isKnown(level) || level === known) return false;
    const isEdge = isKnown(known) && (sought.to === null || level === sought.to);
    known = level;
    if (isEdge) left--;
    return isEdge && left === 0;
  };
}

/** The next moment of a trace after another at which an expression becomes true, or the last one before it; null where there is none. */
export function whenTrue(
  rows: readonly TraceRow[],
  expr: Expr,
  { fromNs, isForward }: { readonly fromNs: number; readonly isForward: boolean },
): number | null {
  const names = new Set<string>();
  eachName(expr, (name) => names.add(name));
  const used = rows.filter((row) => names.has(row.name));
  const at = used.map((row) => row.indexAt(fromNs));
  const levels = new Map(used.map((row, r) => [row.name, r]));
  const isTrue = (): boolean =>
    levelOfExpr(expr, (name) => {
      const r = levels.get(name) ?? -1;
      const i = at[r] ?? -1;
      return i < 0 ? UNKNOWN : (used[r]?.levelAt(i) ?? UNKNOWN);
    }) === HIGH;
  return isForward ? firstAfter(used, at, isTrue) : lastBefore(used, at, { fromNs, isTrue });
}

/** Goes forward over the moments of some rows from the changes `at` which they stand, which it moves on. */
function firstAfter(rows: readonly TraceRow[], at: number[], isTrue: () => boolean): number | null {
  for (let before = isTrue(); ; ) {
    let next = Infinity;
    rows.forEach((row, r) => {
      const i = elementAt(at, r) + 1;
      if (i < row.length) next = Math.min(next, row.timeAt(i));
    });
    if (next === Infinity) return null;
    rows.forEach((row, r) => {
      const i = elementAt(at, r) + 1;
      if (i < row.length && row.timeAt(i) === next) at[r] = i;
    });
    const now = isTrue();
    if (now && !before) return next;
    before = now;
  }
}

/** The same back in time, for moments before `fromNs`. */
function lastBefore(
  rows: readonly TraceRow[],
  at: number[],
  { fromNs, isTrue }: { readonly fromNs: number; readonly isTrue: () => boolean },
): number | null {
  for (let now = isTrue(); ; ) {
    let last = -Infinity;
    rows.forEach((row, r) => {
      const i = elementAt(at, r);
      if (i >= 0) last = Math.max(last, row.timeAt(i));
    });
    if (last === -Infinity) return null;
    rows.forEach((row, r) => {
      const i = elementAt(at, r);
      if (i >= 0 && row.timeAt(i) === last) at[r] = i - 1;
    });
    const before = isTrue();
    if (now && !before && last < fromNs) return last;
    now = before;
  }
}
