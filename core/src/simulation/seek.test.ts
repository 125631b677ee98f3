import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readExpression } from '../design';
import { type Expr, HIGH, LOW, UNKNOWN } from '../logic';
import { levelOfExpr, readSought, whenTrue } from './seek';
import { TraceRow } from './trace';

const names = ['K', 'E', 'G'];
const exprs: fc.Arbitrary<Expr> = fc.letrec<{ e: Expr }>((tie) => ({
  e: fc.oneof(
    { maxDepth: 3 },
    fc.constantFrom(...names).map((name): Expr => ({ kind: 'name', name })),
    fc.constantFrom(0 as const, 1 as const).map((value): Expr => ({ kind: 'const', value })),
    tie('e').map((of): Expr => ({ kind: 'not', of })),
    fc
      .tuple(
        fc.constantFrom('and', 'or', 'xor', 'nand', 'nor', 'xnor'),
        fc.array(tie('e'), { minLength: 2, maxLength: 3 }),
      )
      .map(([gate, of]): Expr => ({ kind: 'gate', gate, of, infix: false })),
  ),
})).e;

const plainly: Readonly<Record<string, (bits: readonly boolean[]) => boolean>> = {
  and: (bits) => bits.every(Boolean),
  or: (bits) => bits.some(Boolean),
  xor: (bits) => bits.filter(Boolean).length % 2 === 1,
  nand: (bits) => !bits.every(Boolean),
  nor: (bits) => !bits.some(Boolean),
  xnor: (bits) => bits.filter(Boolean).length % 2 === 0,
};
function value(e: Expr, of: Readonly<Record<string, boolean>>): boolean {
  if (e.kind === 'const') return e.value === 1;
  if (e.kind === 'name') return of[e.name] ?? false;
  if (e.kind === 'not') return !value(e.of, of);
  return plainly[e.gate]?.(e.of.map((x) => value(x, of))) ?? false;
}

describe('the level of an expression', () => {
  it('is that of Boolean algebra where all is known, and never contradicts it where some is not', () => {
    const levels = fc.array(fc.constantFrom(LOW, HIGH, UNKNOWN), { minLength: 3, maxLength: 3 });
    fc.assert(
      fc.property(exprs, levels, (e, at) => {
        const level = levelOfExpr(e, (name) => at[names.indexOf(name)] ?? UNKNOWN);
        for (let row = 0; row < 8; row++) {
          const bits = names.map((_, i) => ((row >> i) & 1) === 1);
          if (bits.some((bit, i) => at[i] !== UNKNOWN && (at[i] === HIGH) !== bit)) continue;
          const plain = value(e, Object.fromEntries(names.map((name, i) => [name, bits[i] ?? false])));
          if (level !== UNKNOWN) expect(level === HIGH).toBe(plain);
          if (!at.includes(UNKNOWN)) expect(level).toBe(plain ? HIGH : LOW);
        }
      }),
    );
  });
});

describe('when an expression becomes true', () => {
  const changes = fc.array(
    fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 0, max: 9 }), fc.constantFrom(LOW, HIGH, UNKNOWN)),
    { maxLength: 40 },
  );

  it('is the moment that a plain look at every moment finds, forwards and back', () => {
    fc.assert(
      fc.property(exprs, changes, fc.integer({ min: 0, max: 200 }), (expr, all, fromNs) => {
        const rows = names.map((name, net) => new TraceRow(name, net));
        for (const row of rows) row.note(0, LOW, 0);
        let now = 0;
        for (const [r, wait, level] of all) {
          now += wait;
          rows[r]?.note(now, level, level === UNKNOWN ? Number.NaN : 5 * level);
        }
        const levelAt = (r: number, ns: number): number => {
          const row = rows[r] as TraceRow;
          let level: number = UNKNOWN;
          for (let i = 0; i < row.length; i++) if (row.timeAt(i) <= ns) level = row.levelAt(i);
          return level;
        };
        const isTrue = (ns: number): boolean =>
          ns >= 0 && levelOfExpr(expr, (name) => levelAt(names.indexOf(name), ns)) === HIGH;
        const becomes = Array.from({ length: now + 1 }, (_, t) => t).filter((t) => isTrue(t) && !isTrue(t - 1));
        // What is true from the first moment on, whatever the signals are, never becomes so.
        const isConstant = isTrue(0) && levelOfExpr(expr, () => UNKNOWN) === HIGH;
        const moments = isConstant ? becomes.filter((t) => t > 0) : becomes;
        expect(whenTrue(rows, expr, { fromNs, isForward: true })).toBe(moments.find((t) => t > fromNs) ?? null);
        expect(whenTrue(rows, expr, { fromNs, isForward: false })).toBe(moments.findLast((t) => t < fromNs) ?? null);
      }),
    );
  });

  it('is written as on the sheet; a mistake, or a name that is not traced, is told', () => {
    const rows = [new TraceRow('Q3', 0), new TraceRow('Q1', 1)];
    expect(readSought('Q3 & ~Q1', rows).expr).toMatchObject({ kind: 'gate', gate: 'and' });
    expect(readSought("Q3·Q1'", rows).findings).toEqual([]);
    expect(readSought('Q3 & Q7', rows).findings).toMatchObject([{ code: 'trace-no-signal', facts: { name: 'Q7' } }]);
    expect(readSought('Q3 &', rows).findings).toHaveLength(1);
    expect(readExpression('').expr).toBeNull();
  });
});
