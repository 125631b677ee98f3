import { describe, expect, it } from 'vitest';
import { highsSolver, progressOf } from './solver';

describe('the solver', () => {
  it('tells bound and best while it works, the bound from below, and ends with the proved one', async () => {
    const n = 24;
    const columns = Array.from({ length: n }, (_, i) => `x${i}`);
    const rows = Array.from({ length: 30 }, (_, r) => {
      const terms = columns
        .filter((_, i) => (i * i + 3 * i * r + r) % 7 < 3)
        .map((x, i) => `${1 + ((i * r) % 4)} ${x}`);
      return ` r${r}: ${terms.join(' + ')} >= 7`;
    });
    const cost = columns.map((x, i) => `${1 + ((i * 7) % 5)} ${x}`).join(' + ');
    const lp = ['Minimize', ` cost: ${cost}`, 'Subject To', ...rows, 'General', ...columns.map((x) => ` ${x}`), 'End'];
    const heard: (number | null)[] = [];
    const answer = await highsSolver()(lp.join('\n'), 10, ({ bound }) => heard.push(bound));
    expect(answer.status).toBe('optimal');
    const value = columns.reduce((sum, x, i) => sum + (1 + ((i * 7) % 5)) * (answer.values[x] ?? 0), 0);
    expect(answer.bound).toBeCloseTo(value);
    const told = heard.filter((b): b is number => b !== null);
    expect(told.length).toBeGreaterThan(0);
    expect(Math.max(...told)).toBeLessThanOrEqual(value + 1e-6);
  });

  it('reads bound and best from the lines that have them alone', () => {
    expect(
      progressOf('         1       0         1 100.00%   27              27                 0.00%        0'),
    ).toEqual({
      bound: 27,
      best: 27,
    });
    expect(
      progressOf(' J       0       0         0   0.00%   -inf            333                Large        0'),
    ).toEqual({
      bound: null,
      best: 333,
    });
    expect(progressOf('  Dual bound        4.5')).toEqual({ bound: 4.5, best: null });
    for (const line of ['Presolving model', '40 rows, 26 cols, 455 nonzeros 0s', '  Primal bound      27', ''])
      expect(progressOf(line)).toBeNull();
  });
});
