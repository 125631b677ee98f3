import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SparseMatrix } from './sparse';

describe('a sparse matrix', () => {
  const anyNetwork = fc
    .integer({ min: 1, max: 14 })
    .chain((n) =>
      fc.tuple(
        fc.constant(n),
        fc.array(fc.uniqueArray(fc.nat(n - 1), { minLength: 1, maxLength: 4 }), { maxLength: 20 }),
      ),
    );

  it('solves what it is given: the matrix times the solution is the right side', () => {
    fc.assert(
      fc.property(
        anyNetwork,
        fc.array(fc.double({ min: -9, max: 9, noNaN: true }), { minLength: 14, maxLength: 14 }),
        ([n, groups], right) => {
          const m = new SparseMatrix(n, groups);
          const dense = Array.from({ length: n }, () => new Float64Array(n));
          const put = (i: number, j: number, v: number): void => {
            m.add(i, j, v);
            (dense[i] ?? expect.fail())[j] = (dense[i]?.[j] ?? 0) + v;
          };
          for (const twice of [1, 2]) {
            m.clear();
            for (const row of dense) row.fill(0);
            // Not symmetric, and with a diagonal that outweighs its row.
            for (const group of groups)
              for (const i of group)
                for (const j of group) if (i !== j) put(i, j, -(1 + ((i * 7 + j * 3) % 5)) / twice);
            for (let i = 0; i < n; i++)
              put(i, i, 1 + 2 * (dense[i] ?? expect.fail()).reduce((s, v) => s + Math.abs(v), 0));
            const x = Float64Array.from(right.slice(0, n));
            expect(m.factor()).toBe(true);
            m.solve(x);
            dense.forEach((row, i) => {
              expect(row.reduce((s, v, j) => s + v * (x[j] ?? 0), 0)).toBeCloseTo(right[i] ?? 0, 8);
            });
          }
        },
      ),
      { seed: 16, numRuns: 150 },
    );
  });

  it('of a chain keeps no more entries than the chain has', () => {
    const n = 300;
    const chain = Array.from({ length: n - 1 }, (_, i) => [i, i + 1]);
    expect(new SparseMatrix(n, chain).values.length).toBe(n + 2 * (n - 1));
  });

  it('says when a pivot vanishes', () => {
    const m = new SparseMatrix(2, [[0, 1]]);
    m.add(0, 1, 1);
    m.add(1, 0, 1);
    expect(m.factor()).toBe(false);
  });
});
