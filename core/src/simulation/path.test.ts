import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW } from '../logic';
import { plainSettings } from '../testing/live';
import { MINUS, PLUS, resistor, wired } from '../testing/wired';
import { LiveRun } from './live-run';
import type { LiveSettings } from './live-state';
import { longestPath } from './longest-path';
import { PoweredBoard } from './powered-board';

/** Inverters of 74HC04s in rows: `chains` says how many follow each other from each switch. */
function inverters(chains: readonly number[]): Board {
  const chips = Math.ceil(chains.reduce((a, b) => a + b, 0) / 6);
  const seats = Array.from({ length: chips }, (_, i) => [
    `seat 74HC04 b1.e${10 + 10 * i}`,
    `U${i + 1}.14 > ${PLUS}`,
    `U${i + 1}.7 > ${MINUS}`,
  ]);
  const pins = [
    [1, 2],
    [3, 4],
    [5, 6],
    [9, 8],
    [11, 10],
    [13, 12],
  ] as const;
  let next = 0;
  const wires = chains.flatMap((count, s) => {
    let from = `S${s + 1}.2`;
    return Array.from({ length: count }, () => {
      const [input, output] = pins[next % 6] ?? [1, 2];
      const chip = `U${1 + Math.floor(next++ / 6)}`;
      const wire = `${from} > ${chip}.${input}`;
      from = `${chip}.${output}`;
      return wire;
    });
  });
  const switches = chains.flatMap((_, s) => [
    'seat switch',
    `S${s + 1}.1 > ${PLUS}`,
    ...resistor(s + 1, '10k', `S${s + 1}.2`, MINUS),
  ]);
  return wired(...seats.flat(), ...switches, ...wires);
}

const settings: LiveSettings = { ...plainSettings, start: 'clear', speed: 1e-8 };

describe('the longest path of a board', () => {
  it('is as long as the longest row of gates, and no change takes longer', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 3 }), (chains) => {
        const board = inverters(chains);
        const path = longestPath(board) ?? expect.fail('no path');
        const longest = Math.max(...chains);
        expect(path.steps).toHaveLength(longest);
        expect(path.hasLoops).toBe(false);
        const live = new PoweredBoard(board, extractNets(board), { start: 'clear' });
        chains.forEach((_, s) => {
          const before = live.timeNs;
          live.setSwitch(s, true);
          const { timeNs } = live.settle();
          expect(timeNs - before).toBeLessThanOrEqual(path.typicalNs + 1e-6);
        });
        const slow = new PoweredBoard(board, extractNets(board), { start: 'clear', delays: 'most' });
        const s = chains.indexOf(longest);
        slow.setSwitch(s, true);
        expect(slow.settle().timeNs).toBeCloseTo(path.mostNs, 6);
        expect(path.steps[path.steps.length - 1]?.ns).toBeCloseTo(path.mostNs, 6);
      }),
      { numRuns: 20 },
    );
  });

  it('ends where gates feed each other in a circle, and says so; a board without chips has none', () => {
    const latch = wired(...['seat 74HC00 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, 'U1.3 > U1.4', 'U1.6 > U1.2']);
    expect(longestPath(latch)).toMatchObject({ hasLoops: true, steps: [{}, {}] });
    expect(longestPath(wired('seat switch'))).toBeNull();
  });
});

describe('what passes through the chips', () => {
  it('is told gate by gate in its order, from the touch on, as far as it has come', () => {
    const board = inverters([4]);
    const run = new LiveRun(board, extractNets(board), settings);
    run.setSwitches(new Map([['S1', true]]));
    expect(run.state().passage.steps).toEqual([]);
    // Two gates of nine nanoseconds in two seconds of ten each.
    run.advance(2000, () => false);
    const half = run.state().passage;
    expect(half.steps.map(({ pin, level }) => [pin, level])).toEqual([
      ['U1.2', LOW],
      ['U1.4', HIGH],
    ]);
    run.advance(5000, () => false);
    const { steps } = run.state().passage;
    expect(steps.map((s) => s.pin)).toEqual(['U1.2', 'U1.4', 'U1.6', 'U1.8']);
    steps.forEach(({ ns }, i) => {
      if (i > 0) expect(ns).toBeGreaterThan(steps[i - 1]?.ns ?? 0);
    });
    expect(steps[3]?.ns).toBeCloseTo(longestPath(board)?.typicalNs ?? 0, 6);
    // At full speed too, for what a hand does.
    run.setPace(1, false);
    run.setSwitches(new Map([['S1', false]]));
    expect(run.state().passage.steps.map((s) => s.level)).toEqual([HIGH, LOW, HIGH, LOW]);
  });
});
