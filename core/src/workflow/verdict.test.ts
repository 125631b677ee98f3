import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { verdictOf } from './verdict';

const levels = fc.constantFrom(LOW, HIGH, UNKNOWN);

describe('the verdict of a walk', () => {
  it('lists the rows in which some output that is wanted is not what is wanted, and no others', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(levels, levels)),
        fc.array(fc.tuple(fc.constantFrom(0, 1, null), fc.constantFrom(0, 1, null)), { minLength: 8 }),
        (seen, table) => {
          const rows = seen.map((s, row) => ({ row, seen: s, settled: true }));
          const wanted = (row: number) => table[row % table.length] as (0 | 1 | null)[];
          const wrong = rows.filter(({ row, seen: s }) => wanted(row).some((w, o) => w !== null && s[o] !== w));
          expect(verdictOf(rows, wanted)).toEqual({ seen: rows.length, differing: wrong.map((r) => r.row) });
        },
      ),
    );
  });

  it('says nothing of agreement where nothing is wanted', () => {
    expect(verdictOf([{ row: 0, seen: [HIGH], settled: true }], null)).toEqual({ seen: 1, differing: null });
  });
});
