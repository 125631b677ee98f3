import { afterEach, describe, expect, it, vi } from 'vitest';
import { highsSolver, progressOf } from './solver';

const costOf = (i: number): number => 1 + ((i * 7) % 5);

/** A covering program of so many columns and rows, with numbers by a seed. */
function program(columns: number, rows: number): string {
  let seed = 7;
  const draw = (n: number): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return Math.floor((seed / 2 ** 32) * n);
  };
  const names = Array.from({ length: columns }, (_, i) => `x${i}`);
  const lines = Array.from({ length: rows }, (_, r) => {
    const terms = names.filter(() => draw(4) === 0).map((x) => `${1 + draw(4)} ${x}`);
    return ` r${r}: ${terms.join(' + ')} >= 7`;
  });
  const cost = names.map((x, i) => `${costOf(i)} ${x}`).join(' + ');
  const general = names.map((x) => ` ${x}`);
  return ['Minimize', ` cost: ${cost}`, 'Subject To', ...lines, 'General', ...general, 'End'].join('\n');
}

afterEach(() => vi.restoreAllMocks());

describe('the solver', () => {
  it('tells bound and best while it works, the bound from below, and ends with the proved one', async () => {
    const heard: (number | null)[] = [];
    const answer = await highsSolver()(program(24, 30), { effort: 10 }, ({ bound }) => heard.push(bound));
    expect(answer.status).toBe('optimal');
    const value = Object.values(answer.values).reduce((sum, x, i) => sum + costOf(i) * x, 0);
    expect(answer.bound).toBeCloseTo(value);
    const told = heard.filter((b): b is number => b !== null);
    expect(told.length).toBeGreaterThan(0);
    expect(Math.max(...told)).toBeLessThanOrEqual(value + 1e-6);
  });

  it('counts its effort: on a machine on which all takes a thousand times as long it finds the same', async () => {
    const solve = highsSolver();
    const hard = program(80, 60);
    const quiet = await solve(hard, { effort: 0.2 });
    // It was broken off in the middle, so that a limit of time would show.
    expect(quiet.status).toBe('feasible');
    expect(quiet.effort).toBeGreaterThan(0.2);
    const [monotonic, date] = [performance.now.bind(performance), Date.now];
    vi.spyOn(performance, 'now').mockImplementation(() => 1000 * monotonic());
    vi.spyOn(Date, 'now').mockImplementation(() => 1000 * date());
    await solve(program(24, 30), { effort: 10 });
    expect(await solve(hard, { effort: 0.2 })).toEqual(quiet);
  });

  it('more effort is no worse, and past its moment it ends at once', async () => {
    const solve = highsSolver();
    const hard = program(80, 60);
    const cost = (values: Readonly<Record<string, number>>): number =>
      Object.entries(values).reduce((sum, [x, n]) => sum + costOf(Number(x.slice(1))) * n, 0);
    const [less, more] = [await solve(hard, { effort: 0.2 }), await solve(hard, { effort: 1 })];
    expect(cost(more.values)).toBeLessThanOrEqual(cost(less.values));
    expect(more.effort).toBeGreaterThan(less.effort);
    expect(await solve(hard, { effort: 100, until: Date.now() })).toMatchObject({ status: 'none', effort: 0 });
    // The moment comes while it works.
    const clock = Date.now();
    let looked = 0;
    vi.spyOn(Date, 'now').mockImplementation(() => clock + looked++);
    const broken = await solve(hard, { effort: 100, until: clock + 20 });
    expect(broken.status).not.toBe('optimal');
    expect(broken.effort).toBeLessThan(less.effort + 1);
  });

  it('broken off at any step it has a solution of the program, or says that it has none', async () => {
    const solve = highsSolver();
    const [columns, rows] = [80, 60];
    const text = program(columns, rows);
    const said = new Set<string>();
    for (let effort = 0.002; effort < 0.3; effort *= 1.5) {
      const { status, values } = await solve(text, { effort });
      said.add(status);
      if (status === 'none') continue;
      for (const row of text.split('\n').filter((line) => line.startsWith(' r'))) {
        const terms = [...row.matchAll(/(\d+) (x\d+)/g)];
        expect(terms.reduce((sum, [, n, x]) => sum + Number(n) * (values[x as string] ?? 0), 0)).toBeGreaterThan(6.99);
      }
    }
    expect([...said]).toEqual(['none', 'feasible']);
  });

  it('leaves the clock of others alone', async () => {
    const before = performance.now;
    const heard: number[] = [];
    await highsSolver()(program(24, 30), { effort: 10 }, () => heard.push(performance.now()));
    expect(performance.now).toBe(before);
    const now = performance.now();
    expect(heard.length).toBeGreaterThan(0);
    for (const at of heard) expect(now - at).toBeLessThan(600_000);
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
    expect(progressOf('  Primal bound      27')).toEqual({ bound: null, best: 27 });
    expect(progressOf('  Primal bound      inf')).toEqual({ bound: null, best: null });
    for (const line of ['Presolving model', '40 rows, 26 cols, 455 nonzeros 0s', ''])
      expect(progressOf(line)).toBeNull();
  });
});
