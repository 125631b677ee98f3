import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findChip, readDesign } from '../catalogue';
import { cellAt, tableOf } from '../logic';
import { tryPart } from '../workflow/try-part';
import { applyEdit } from './edit';
import { newJob } from './job';
import {
  compareTables,
  emptyTable,
  MAX_OWN_INPUTS,
  type OwnMark,
  type OwnTable,
  ownMark,
  tableFits,
  withMark,
} from './own-table';

const tableFrom = (sheet: string) => tableOf(readDesign(sheet).design.behaviour ?? expect.fail('not read'));
const table = tableFrom('in A B C\nout Y Z S\nY = A & B dc C & A\nZ = A ^ C when B\nS = ~C');
const empty = emptyTable(['A', 'B', 'C'], ['Y', 'Z', 'S']) ?? expect.fail('no table');

/** The table filled in as the sheet has it. */
const perfect: OwnTable = empty.outputs.reduce(
  (own, _, o) =>
    Array.from({ length: 8 }, (_, r) => r).reduce(
      (t, r) => withMark(t, o, r, cellAt(table, o, r) === 'Z' ? '-' : (cellAt(table, o, r) as OwnMark)),
      own,
    ),
  empty,
);

describe('a table that a person fills in', () => {
  it('is open at first, and right throughout when it says what the sheet has', () => {
    expect(compareTables(empty, table)).toEqual({ right: 0, wrong: 0, open: 24, first: null });
    expect(compareTables(perfect, table)).toEqual({ right: 24, wrong: 0, open: 0, first: null });
  });

  it('with any mark changed: right, wrong and open add up, and the first wrong cell is the first', () => {
    const cells = fc.tuple(fc.nat(2), fc.nat(7), fc.constantFrom<OwnMark>('0', '1', '-', '.'));
    fc.assert(
      fc.property(fc.array(cells, { maxLength: 12 }), (changes) => {
        const own = changes.reduce((t, [o, r, mark]) => withMark(t, o, r, mark), perfect);
        const { right, wrong, open, first } = compareTables(own, table);
        expect(right + wrong + open).toBe(24);
        const states = Array.from({ length: 24 }, (_, k) => {
          const [row, output] = [Math.floor(k / 3), k % 3];
          const [mark, is] = [ownMark(own, output, row), cellAt(table, output, row)];
          if (mark === '.') return 'open';
          // Where the level does not matter anything is right; where nothing drives, only that it is off.
          return is === '-' || mark === (is === 'Z' ? '-' : is) ? 'right' : 'wrong';
        });
        expect([right, wrong]).toEqual(['right', 'wrong'].map((s) => states.filter((x) => x === s).length));
        const k = states.indexOf('wrong');
        expect(first).toEqual(k < 0 ? null : { row: Math.floor(k / 3), output: k % 3 });
      }),
    );
  });

  it('belongs to inputs and outputs in their order, and has a bound', () => {
    expect(tableFits(empty, ['A', 'B', 'C'], ['Y', 'Z', 'S'])).toBe(true);
    expect(tableFits(empty, ['B', 'A', 'C'], ['Y', 'Z', 'S'])).toBe(false);
    expect(
      emptyTable(
        Array.from({ length: MAX_OWN_INPUTS + 1 }, (_, i) => `I${i}`),
        ['Y'],
      ),
    ).toBeNull();
    expect(withMark(empty, 0, 99, '1')).toEqual(empty);
  });

  it('is an edit like any other: undone, and put away', () => {
    const job = newJob('x', 'in A\nout Y\nY = ~A');
    const own = emptyTable(['A'], ['Y']);
    const begun = applyEdit(job, { kind: 'fill-table', table: own });
    if (!begun.ok) expect.fail('refused');
    expect(begun.job.ownTable).toEqual(own);
    const back = applyEdit(begun.job, begun.inverse);
    expect(back.ok && back.job).toEqual(job);
    const away = applyEdit(begun.job, { kind: 'fill-table', table: null });
    expect(away.ok && away.job).toEqual(job);
  });

  it('comes with a chip that is tried, where it stores nothing and is small enough', () => {
    const given = (id: string, units: number[] = []) => tryPart(findChip(id) ?? expect.fail(id), units)?.ownTable;
    expect(given('7400', [1])?.inputs).toEqual(['1A', '1B']);
    expect(given('7474')).toBeUndefined();
    expect(given('74181')).toBeUndefined();
  });
});
