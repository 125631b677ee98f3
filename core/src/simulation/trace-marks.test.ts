import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { TraceRow } from './trace';
import { between, edgeBeside, snapped } from './trace-marks';

/** A signal that changes after each wait; the same level again is no edge. */
const rowOf = (changes: readonly (readonly [waitNs: number, level: number])[]): { row: TraceRow; endNs: number } => {
  const row = new TraceRow('x', 0);
  row.note(0, LOW, 0);
  let now = 0;
  for (const [wait, level] of changes) {
    now += wait;
    row.note(now, level, level === UNKNOWN ? Number.NaN : 5 * level);
  }
  return { row, endNs: now };
};

const changes = fc.array(fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constantFrom(LOW, HIGH, UNKNOWN)), {
  minLength: 1,
  maxLength: 30,
});

describe('marks in a trace', () => {
  it('stand on edges, and measure between them what a plain count finds', () => {
    fc.assert(
      fc.property(changes, fc.integer({ min: 0, max: 1200 }), fc.integer({ min: 0, max: 1200 }), (all, a, b) => {
        const { row, endNs } = rowOf(all);
        const levels = Array.from({ length: endNs + 1300 }, () => LOW as number);
        let [now, level] = [0, LOW as number];
        const edges: number[] = [];
        for (const [wait, next] of all) {
          levels.fill(level, now, now + wait);
          now += wait;
          if (next !== level) edges.push(now);
          level = next;
        }
        levels.fill(level, now);
        const [from, to] = [Math.min(a, b), Math.max(a, b)];
        const { edges: counted, highShare, voltsAt } = between(row, a, b);
        expect(counted).toBe(edges.filter((t) => t > from && t <= to).length);
        const high = levels.slice(from, to).filter((l) => l === HIGH).length;
        if (to > from) expect(highShare).toBeCloseTo(high / (to - from), 9);
        expect(voltsAt[0]).toBe(levels[a] === UNKNOWN ? null : 5 * (levels[a] ?? 0));
        expect(edgeBeside(row, a, true)).toBe(edges.find((t) => t > a) ?? null);
        expect(edgeBeside(row, a, false)).toBe(edges.findLast((t) => t < a) ?? null);
        const near = edges.filter((t) => Math.abs(t - a) <= 5);
        const least = Math.min(...near.map((t) => Math.abs(t - a)));
        expect(Math.abs(snapped(row, a, 5) - a)).toBe(near.length > 0 ? least : 0);
      }),
    );
  });
});
