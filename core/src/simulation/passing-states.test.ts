import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIGH, LOW } from '../logic';
import { lastPassing } from './passing-states';
import { TraceRow } from './trace';

/** Rows that together show these numbers, each for so long. */
function showing(bits: number, states: readonly (readonly [value: number, ns: number])[]): TraceRow[] {
  const rows = Array.from({ length: bits }, (_, i) => new TraceRow(`Q${bits - 1 - i}`, i));
  let now = 0;
  for (const [value, ns] of states) {
    rows.forEach((row, i) => {
      row.note(now, ((value >> (bits - 1 - i)) & 1) === 1 ? HIGH : LOW, 0);
    });
    now += ns;
  }
  return rows;
}

describe('states that pass', () => {
  it('are those between the last two numbers that lasted, in their order, with their lengths', () => {
    const number = fc.integer({ min: 0, max: 15 });
    const short = fc.tuple(number, fc.integer({ min: 1, max: 900 }));
    const long = fc.tuple(number, fc.integer({ min: 1000, max: 5000 }));
    const runs = fc.array(fc.tuple(long, fc.array(short, { maxLength: 4 })), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(runs, long, (list, last) => {
        const all = [...list.flatMap(([lasting, passing]) => [lasting, ...passing]), last];
        // The same number twice in a row is one state.
        const merged: [number, number][] = [];
        for (const [value, ns] of all) {
          const before = merged[merged.length - 1];
          if (before?.[0] === value) before[1] += ns;
          else merged.push([value, ns]);
        }
        const burst: [number, number][] = [];
        for (let i = merged.length - 2; i >= 0; i--) {
          const [value, ns] = merged[i] as [number, number];
          if (ns < 1000) burst.unshift([value, ns]);
          else if (burst.length > 0) break;
        }
        const found = lastPassing(showing(4, all)).map(({ value, ns }) => [Number(value), ns]);
        expect(found).toEqual(burst.slice(-8));
      }),
    );
  });

  it('of a counter cut at ten are eight, while one falls, and ten, until the clear bites', () => {
    const rows = showing(4, [
      [9, 1e6],
      [8, 9],
      [10, 26],
      [0, 1e6],
    ]);
    expect(lastPassing(rows)).toEqual([
      { value: 8n, ns: 9 },
      { value: 10n, ns: 26 },
    ]);
    expect(
      lastPassing(
        showing(4, [
          [3, 1e6],
          [4, 1e6],
        ]),
      ),
    ).toEqual([]);
    expect(lastPassing([])).toEqual([]);
  });
});
