import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { capacitor, MINUS, PLUS, resistor, wired } from '../testing/wired';
import { PoweredBoard } from './powered-board';
import { Trace, TraceRow } from './trace';
import { isAnalogue, NOT_YET, windowOf } from './trace-window';

/** A trace of one signal with these changes, each a wait and a level. */
const traceOf = (changes: readonly (readonly [waitNs: number, level: number])[]): { trace: Trace; endNs: number } => {
  const row = new TraceRow('x', 0);
  let now = 0;
  for (const [wait, level] of changes) {
    now += wait;
    row.note(now, level, Number.NaN);
  }
  return { trace: { rows: [row] } as unknown as Trace, endNs: now };
};

describe('a window on a trace', () => {
  it('says of each column what a plain search says, whatever the span', () => {
    const changes = fc.array(fc.tuple(fc.integer({ min: 1, max: 50 }), fc.constantFrom(LOW, HIGH, UNKNOWN)), {
      minLength: 1,
      maxLength: 60,
    });
    fc.assert(
      fc.property(
        changes,
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 1, max: 40 }),
        (all, spanNs, columns) => {
          const { trace, endNs } = traceOf(all);
          const row = trace.rows[0] ?? expect.fail();
          const levelAt = (ns: number): number => {
            let level = NOT_YET;
            for (let i = 0; i < row.length; i++) if (row.timeAt(i) <= ns) level = row.levelAt(i);
            return level;
          };
          const { fromNs, toNs, rows } = windowOf(trace, { spanNs, endNs: null, columns }, endNs);
          expect([fromNs, toNs]).toEqual([endNs - spanNs, endNs]);
          const [seen] = rows;
          const step = spanNs / columns;
          for (let c = 0; c < columns; c++) {
            const [from, to] = [fromNs + c * step, fromNs + (c + 1) * step];
            expect(seen?.from[c]).toBe(levelAt(from));
            expect(seen?.to[c]).toBe(levelAt(to));
            let edges = 0;
            for (let i = 1; i < row.length; i++)
              if (row.timeAt(i) > from && row.timeAt(i) <= to && row.levelAt(i) !== row.levelAt(i - 1)) edges++;
            expect(seen?.changes[c]).toBe(Math.min(2, edges));
          }
        },
      ),
    );
  });

  it('shows nothing of what is to come, and a capacitor as a curve', () => {
    const board = wired(
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '10k', 'S1.2', 'C1.1').slice(0, 3),
      ...capacitor(1, '100n', 'R1.2', MINUS),
    );
    const live = new PoweredBoard(board, extractNets(board));
    const trace = new Trace(live, [{ name: 'ramp', net: live.nets.ofPin.get('R1.2') ?? -1 }]);
    live.setSwitch(0, true);
    live.runUntil(2e6);
    const [ramp] = windowOf(trace, { spanNs: 4e6, endNs: 4e6, columns: 40 }, live.timeNs).rows;
    if (!ramp) return expect.fail('no row');
    expect(isAnalogue(ramp)).toBe(true);
    expect([...ramp.to.subarray(25)]).toEqual(Array(15).fill(NOT_YET));
    for (let c = 1; c < 19; c++) {
      expect(ramp.volts[c]).toBeCloseTo(5 * (1 - Math.exp((-(c + 1) * 1e5) / 1e6)), 0);
      expect(ramp.volts[c] as number).toBeGreaterThanOrEqual(ramp.volts[c - 1] as number);
    }
  });
});
