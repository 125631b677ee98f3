import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readJobFile } from '../job/file';
import { type Move, measure, runBoard } from '../simulation';

const samples = `${import.meta.dirname}/../../../samples`;
const boardOf = (name: string) => {
  const read = readJobFile(readFileSync(`${samples}/${name}.saddlebag.json`, 'utf8'));
  return read.ok ? read.job.board : expect.fail(name);
};
/** Presses of switches, each turned over, a millisecond apart. */
const pressed = (...names: string[]): Move[] => {
  const on = new Map<string, boolean>();
  return names.map((name, i) => {
    on.set(name, !on.get(name));
    return { name, on: on.get(name) === true, atNs: 1e6 * (i + 1) };
  });
};
/** What some signals come to after such presses, the first most significant; and their runs. */
function played(name: string, moves: readonly Move[], watch: readonly string[]) {
  const untilNs = 1e6 * (moves.length + 2);
  const { run } = runBoard(boardOf(name), { untilNs, moves, watch, start: 'clear' });
  if (!run) return expect.fail(name);
  const value = run.trace.rows.reduce((sum, row) => 2 * sum + (row.levelAt(row.length - 1) === 1 ? 1 : 0), 0);
  return { value, run };
}
const times = (count: number, name: string): string[] => Array.from({ length: 2 * count }, () => name);

describe('the clocked samples', () => {
  it('ropes by tens count to nine and begin again; ten passes for some gate delays', () => {
    const bits = ['Q3', 'Q2', 'Q1', 'Q0'];
    for (const count of [0, 1, 7, 9, 10, 13, 20, 27])
      expect(played('ropes-by-tens', pressed('R', 'R', ...times(count, 'C')), bits).value).toBe(count % 10);
    const { run } = played('ropes-by-tens', pressed('R', 'R', ...times(10, 'C')), bits);
    const { shortestPulseNs } = run.signals.Q1 ?? {};
    expect(shortestPulseNs).toBeGreaterThan(10);
    expect(shortestPulseNs).toBeLessThan(120);
  });

  it('up and down count each its way from the reset on', () => {
    for (const count of [0, 1, 3, 8, 11]) {
      const moves = pressed('R', 'R', ...times(count, 'C'));
      expect(played('up-and-down', moves, ['U2', 'U1', 'U0']).value).toBe(count % 8);
      expect(played('up-and-down', moves, ['D2', 'D1', 'D0']).value).toBe(7 - (count % 8));
    }
  });

  it('the keeper’s clock goes from 59 seconds to a minute, and past midnight; its fast switch lets the minutes run', () => {
    const [seconds, minutes, hours] = [
      ['T2', 'T1', 'T0', 'S3', 'S2', 'S1', 'S0'],
      ['U2', 'U1', 'U0', 'N3', 'N2', 'N1', 'N0'],
      ['V1', 'V0', 'H3', 'H2', 'H1', 'H0'],
    ];
    const shown = (moves: readonly Move[]): number[] =>
      [seconds, minutes, hours].map((bits) => {
        const { value } = played('keepers-clock', moves, bits);
        // Two decimal digits, the lower in four lamps.
        return 10 * (value >> 4) + (value & 15);
      });
    const slow = (count: number) => shown(pressed('M', 'M', ...times(count, 'P')));
    expect([slow(0), slow(9), slow(59), slow(60), slow(75)]).toEqual([
      [0, 0, 0],
      [9, 0, 0],
      [59, 0, 0],
      [0, 1, 0],
      [15, 1, 0],
    ]);
    const fast = (count: number) => shown(pressed('M', 'M', 'F', ...times(count, 'P'))).slice(1);
    expect([fast(59), fast(60), fast(1439), fast(1440), fast(1441)]).toEqual([
      [59, 0],
      [0, 1],
      [59, 23],
      [0, 0],
      [1, 0],
    ]);
  });

  it('the false alarm goes up though nothing stopped: its selector lets go for less than a tenth of a microsecond', () => {
    const { run, value } = played('false-alarm', pressed('A', 'B', 'S', 'R', 'R', 'S', 'S'), ['F']);
    expect([value, run.signals.F?.edges]).toEqual([1, 1]);
    const { run: pump } = played('false-alarm', pressed('A', 'B', 'S', 'S'), ['Y']);
    expect(pump.signals.Y?.shortestPulseNs).toBeLessThan(100);
    // With one pump alone a stop is a stop.
    expect(played('false-alarm', pressed('A', 'S', 'R', 'R', 'A'), ['F']).value).toBe(1);
    expect(played('false-alarm', pressed('A', 'S', 'R', 'R'), ['F']).value).toBe(0);
  });

  it('the seconds stand on the digit, one after the other, and go up by one a second', () => {
    const segments = ['abcdef', 'bc', 'abdeg', 'abcdg', 'bcfg', 'acdfg', 'cdefg', 'abc', 'abcdefg', 'abcfg'];
    const board = boardOf('seconds-digit');
    for (const second of [0, 1, 2, 3, 5, 8, 9, 10, 12]) {
      const { measured } = measure(board, [], { atNs: (second + 0.6) * 1.012e9, start: 'clear' });
      const lit = Object.entries(measured?.lamps ?? {}).flatMap(([name, { state }]) =>
        state === 'lit' ? [name.slice(3)] : [],
      );
      expect(lit.sort().join(''), `after ${second} s`).toBe(segments[second % 10]);
    }
  });

  it('the steady button counts presses, however its contacts bounce; the bare contact counts bounces', () => {
    const moves = [1, 2, 3, 4].map((i): Move => ({ name: 'S1', on: i % 2 === 1, atNs: i * 1e8 }));
    const counts = [1, 2, 3, 4, 5].map((bounce) => {
      const { run } = runBoard(boardOf('steady-button'), { untilNs: 6e8, moves, bounce, start: 'clear' });
      return [run?.signals.K0?.edges, run?.signals.B0?.edges];
    });
    expect(new Set(counts.map(([steady]) => steady))).toEqual(new Set([2]));
    expect(counts.filter(([, bare]) => bare !== 2).length).toBeGreaterThan(2);
  });
});
