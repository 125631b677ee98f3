import { type Behaviour, type Expr, type Notation, printExpr } from '../logic';
import { levelsInRow } from './compare';
import type { Design } from './design';

/** Why a signal is what it is in a row: its expression, then the same with values, worked out step by step. */
export interface Reason {
  readonly signal: string;
  readonly value: 0 | 1;
  /** The expression first, its value last; each line is the one before with its innermost gates worked out. */
  readonly steps: readonly string[];
}

/**
 * The reasons of a signal's value in a row, the signal itself first, then the signals between that it
 * reads. Null when the design stores something, or no equation makes the signal.
 */
export function whyInRow(
  design: Design,
  signal: string,
  row: number,
  notation: Notation = 'textbook',
): Reason[] | null {
  const { behaviour } = design;
  if (!behaviour || behaviour.stored.length > 0) return null;
  const exprs = new Map(design.equations.map((e) => [e.target.name, e.expr]));
  const levels = levelsOfSignals(behaviour, exprs, row);
  const reasons: Reason[] = [];
  const seen = new Set<string>();
  const todo = [signal];
  for (let name = todo.shift(); name !== undefined; name = todo.shift()) {
    const expr = exprs.get(name);
    if (!expr || seen.has(name)) continue;
    seen.add(name);
    const value = levels.get(name);
    if (value === undefined) continue;
    reasons.push({ signal: name, value, steps: stepsOf(expr, levels, notation) });
    todo.push(...namesOf(expr).filter((n) => exprs.has(n)));
  }
  return reasons.length > 0 ? reasons : null;
}

/** Levels by signal name: inputs, and every signal worked out from its expression. */
function levelsOfSignals(
  behaviour: Behaviour,
  exprs: ReadonlyMap<string, Expr>,
  row: number,
): ReadonlyMap<string, 0 | 1> {
  const levels = new Map(levelsInRow(behaviour, row));
  const settle = (name: string, depth: number): void => {
    const expr = exprs.get(name);
    if (levels.has(name) || !expr || depth > 2000) return;
    for (const n of namesOf(expr)) settle(n, depth + 1);
    const value = settledValue(expr, levels);
    if (value !== null) levels.set(name, value);
  };
  for (const name of exprs.keys()) settle(name, 0);
  return levels;
}

const namesOf = (e: Expr): string[] =>
  e.kind === 'name' ? [e.name] : e.kind === 'not' ? namesOf(e.of) : e.kind === 'gate' ? e.of.flatMap(namesOf) : [];

function stepsOf(expr: Expr, levels: ReadonlyMap<string, 0 | 1>, notation: Notation): string[] {
  const steps = [printExpr(expr, notation)];
  let now = withValues(expr, levels);
  steps.push(printExpr(now, notation));
  while (now.kind !== 'const') {
    const next = workedOut(now);
    if (next === now) break;
    now = next;
    steps.push(printExpr(now, notation));
  }
  return steps.filter((s, i) => s !== steps[i - 1]);
}

function withValues(e: Expr, levels: ReadonlyMap<string, 0 | 1>): Expr {
  if (e.kind === 'name') {
    const value = levels.get(e.name);
    return value === undefined ? e : { kind: 'const', value };
  }
  if (e.kind === 'not') return { ...e, of: withValues(e.of, levels) };
  return e.kind === 'gate' ? { ...e, of: e.of.map((x) => withValues(x, levels)) } : e;
}

/** One step: every gate whose operands are all known becomes its value. */
function workedOut(e: Expr): Expr {
  if (e.kind === 'not') {
    const of = workedOut(e.of);
    return of === e.of ? (of.kind === 'const' ? { kind: 'const', value: of.value === 1 ? 0 : 1 } : e) : { ...e, of };
  }
  if (e.kind !== 'gate') return e;
  if (e.of.every((x) => x.kind === 'const'))
    return {
      kind: 'const',
      value: gateValue(
        e,
        e.of.map((x) => x.kind === 'const' && x.value === 1),
      ),
    };
  const of = e.of.map(workedOut);
  return of.every((x, i) => x === e.of[i]) ? e : { ...e, of };
}

function gateValue({ gate }: Extract<Expr, { kind: 'gate' }>, values: readonly boolean[]): 0 | 1 {
  const ones = values.filter(Boolean).length;
  const plain = { and: ones === values.length, or: ones > 0, xor: ones % 2 === 1 };
  const value = gate === 'nand' ? !plain.and : gate === 'nor' ? !plain.or : gate === 'xnor' ? !plain.xor : plain[gate];
  return value ? 1 : 0;
}

function settledValue(e: Expr, levels: ReadonlyMap<string, 0 | 1>): 0 | 1 | null {
  let now = withValues(e, levels);
  for (let next = workedOut(now); next !== now; next = workedOut(now)) now = next;
  return now.kind === 'const' ? now.value : null;
}
