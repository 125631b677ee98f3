import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { type Trace, TraceRow } from './trace';
import { numberAtEnd, numberOf, numberWords } from './trace-number';
import { windowOf } from './trace-window';

describe('several signals as one number', () => {
  const changes = fc.array(
    fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 1, max: 9 }), fc.constantFrom(LOW, HIGH, UNKNOWN)),
    { maxLength: 40 },
  );

  it('is at the end of each column what the signals are there, and says where it is unknown or too quick to show', () => {
    fc.assert(
      fc.property(changes, fc.integer({ min: 1, max: 12 }), (all, step) => {
        const rows = ['Q2', 'Q1', 'Q0'].map((name, net) => new TraceRow(name, net));
        for (const row of rows) row.note(0, LOW, 0);
        let now = 0;
        for (const [r, wait, level] of all) {
          now += wait;
          rows[r]?.note(now, level, 0);
        }
        const columns = 20;
        const scope = { spanNs: columns * step, endNs: columns * step, columns };
        const trace = { rows } as unknown as Trace;
        const seen = windowOf(trace, scope, columns * step).rows;
        const stretches = numberOf(seen);
        const ends = rows.map((row) => row.levelAt(row.indexAt(columns * step)));
        const isSure = ends.every((level) => level === HIGH || level === LOW);
        const atEnd = BigInt(ends.reduce((sum, level) => 2 * sum + (level === HIGH ? 1 : 0), 0));
        expect(numberAtEnd(seen)).toBe(isSure ? atEnd : null);
        expect(stretches[0]?.from).toBe(0);
        expect(stretches[stretches.length - 1]?.to).toBe(columns);
        stretches.forEach(({ from, to, value, isBusy }, i) => {
          if (i > 0) expect(from).toBe(stretches[i - 1]?.to);
          for (let c = from; c < to; c++) {
            const levels = rows.map((row) => row.levelAt(row.indexAt((c + 1) * step)));
            const isKnown = levels.every((level) => level === HIGH || level === LOW);
            const plain = BigInt(levels.reduce((sum, level) => 2 * sum + (level === HIGH ? 1 : 0), 0));
            if (!isBusy) expect(value).toBe(isKnown ? plain : null);
          }
        });
      }),
    );
  });

  it('is written in four forms, each of which says the same number', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 32 }), fc.bigInt({ min: 0n, max: 2n ** 32n - 1n }), (bits, any) => {
        const value = BigInt.asUintN(bits, any);
        const words = (form: 'binary' | 'decimal' | 'hex' | 'signed') => numberWords(value, bits, form);
        expect(words('binary')).toHaveLength(bits);
        expect([BigInt(`0b${words('binary')}`), BigInt(words('decimal')), BigInt(`0x${words('hex')}`)]).toEqual(
          Array(3).fill(value),
        );
        expect(BigInt.asUintN(bits, BigInt(words('signed')))).toBe(value);
      }),
    );
    expect(numberWords(13n, 4, 'signed')).toBe('-3');
  });
});
