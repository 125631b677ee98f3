import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arranged, plainTrace, type TraceSetup, withForm, withNumber, withPin, withRowMoved } from './trace-setup';

const all = ['CK', 'Q3', 'Q2', 'Q1', 'Q0', 'R', 'U1.3'];
const names = fc.constantFrom(...all);

/** Whatever a person may do to a trace, one after the other. */
const doings = fc.array(
  fc.oneof(
    fc.tuple(names, fc.integer({ min: -9, max: 9 })).map(([name, by]) => (s: TraceSetup) => {
      const row = arranged(all, s).find((r) => r.name === name || r.number?.of.includes(name));
      return row ? withRowMoved(s, all, row.name, by) : s;
    }),
    fc.uniqueArray(names, { minLength: 1, maxLength: 4 }).map((of) => (s: TraceSetup) => withNumber(s, of)),
    names.map((name) => (s: TraceSetup) => withPin(s, name)),
    names.map((name) => (s: TraceSetup) => {
      const number = s.numbers.find((n) => n.of.includes(name));
      return number ? withForm(s, number.name, null) : s;
    }),
  ),
  { maxLength: 12 },
);

describe('an arranged trace', () => {
  it('shows every signal exactly once, by itself or in a number, whatever was done to it', () => {
    fc.assert(
      fc.property(doings, (list) => {
        const setup = list.reduce((s, act) => act(s), plainTrace);
        const shown = arranged(all, setup).flatMap(({ name, number }) => number?.of ?? [name]);
        expect([...shown].sort()).toEqual([...all].sort());
        // Of signals that are gone nothing is shown, and the rest stays in its order.
        const fewer = all.slice(2);
        const left = arranged(fewer, setup).flatMap(({ name, number }) => number?.of ?? [name]);
        expect([...left].sort()).toEqual([...fewer].sort());
      }),
    );
  });

  it('has a moved row so many places on, and the others as they were among themselves', () => {
    fc.assert(
      fc.property(doings, names, fc.integer({ min: -9, max: 9 }), (list, name, by) => {
        const setup = list.reduce((s, act) => act(s), plainTrace);
        const before = arranged(all, setup).map((r) => r.name);
        const from = before.indexOf(name);
        if (from < 0) return;
        const after = arranged(all, withRowMoved(setup, all, name, by)).map((r) => r.name);
        expect(after.indexOf(name)).toBe(Math.max(0, Math.min(before.length - 1, from + by)));
        expect(after.filter((n) => n !== name)).toEqual(before.filter((n) => n !== name));
      }),
    );
  });

  it('names a number by what its signals share, and takes it apart again', () => {
    const setup = withNumber(plainTrace, ['Q3', 'Q2', 'Q1', 'Q0']);
    expect(setup.numbers).toMatchObject([{ name: 'Q3:0', form: 'binary' }]);
    expect(arranged(all, setup).map((r) => r.name)).toEqual(['CK', 'Q3:0', 'R', 'U1.3']);
    expect(withNumber(plainTrace, ['CK', 'R']).numbers[0]?.name).toBe('CK…R');
    expect(withForm(setup, 'Q3:0', 'hex').numbers[0]?.form).toBe('hex');
    expect(withForm(setup, 'Q3:0', null).numbers).toEqual([]);
    expect(withNumber(plainTrace, ['Q3'])).toEqual(plainTrace);
  });
});
