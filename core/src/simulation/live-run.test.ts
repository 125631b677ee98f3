import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { plainSettings } from '../testing/live';
import { MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { LiveRun } from './live-run';
import { type LiveSettings, liveFindings } from './live-state';

const live = (board: Board, change: Partial<LiveSettings> = {}) => {
  const nets = extractNets(board);
  const run = new LiveRun(board, nets, { ...plainSettings, ...change });
  const level = (pin: string): number => run.state().levels[nets.ofPin.get(pin) ?? -1] ?? expect.fail(pin);
  return { run, level, net: (pin: string) => nets.ofPin.get(pin) ?? -1 };
};
const never = (): boolean => false;
const chip = ['seat 74HC04 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`];
const inverters = wired(
  ...chip,
  ...switches(1),
  'S1.2 > U1.1',
  'U1.2 > U1.3',
  'seat led b1.c50',
  'label D1 Y',
  'U1.4 > D1.A',
  ...resistor(2, '1k', 'D1.K', MINUS),
);
const clocked = wired('seat clock', `X1.1 > ${PLUS}`, `X1.2 > ${MINUS}`, 'value X1 10Hz', ...chip, 'X1.3 > U1.1');
const ring = wired(...chip, 'U1.1 > U1.2');

describe('a live board', () => {
  it('follows its switches at once, and rests with the row that they stand at', () => {
    const { run } = live(inverters, { subject: { inputs: ['S1'], outputs: ['Y'] }, on: ['S1'] });
    expect(run.state()).toMatchObject({ isMoving: false, row: { row: 1, seen: [HIGH], settled: true } });
    run.setSwitches(new Map([['S1', false]]));
    expect(run.state().row).toMatchObject({ row: 0, seen: [LOW] });
    expect(run.state().lamps.get('D1')).toEqual({ ma: expect.closeTo(0, 6), state: 'dark' });
    expect(run.isGoing).toBe(false);
  });

  it('slowed down, shows what passes on the way, by time or by steps', () => {
    const { run, level } = live(inverters, { speed: 1e-8 });
    run.setSwitches(new Map([['S1', true]]));
    // Five of the nine nanoseconds of the first inverter in half a second.
    run.advance(500, never);
    expect([level('S1.2'), level('U1.2'), level('U1.4')]).toEqual([HIGH, HIGH, LOW]);
    run.advance(500, never);
    expect([level('U1.2'), level('U1.4')]).toEqual([LOW, LOW]);
    run.advance(1000, never);
    expect(level('U1.4')).toBe(HIGH);
    run.setPace(1, true);
    run.setSwitches(new Map([['S1', false]]));
    expect([level('U1.2'), run.isGoing]).toEqual([LOW, false]);
    run.step();
    expect([level('U1.2'), level('U1.4')]).toEqual([HIGH, HIGH]);
    run.step();
    expect(level('U1.4')).toBe(LOW);
  });

  it('runs its clocks at the speed that is asked for, and tells how fast', () => {
    for (const [speed, edges] of [
      [1, 20],
      [10, 200],
    ] as const) {
      const { run, level, net } = live(clocked, { speed });
      let [last, seen] = [level('U1.2'), 0];
      for (let ms = 0; ms < 1000; ms += 1) {
        run.advance(1, never);
        if (level('U1.2') !== last) seen++;
        last = level('U1.2');
      }
      expect(seen).toBeGreaterThan(edges - 2);
      expect(seen).toBeLessThan(edges + 2);
      expect(run.state().hertz[net('U1.2')]).toBeCloseTo(10, 3);
      expect(run.state()).toMatchObject({ isMoving: true, row: null, isBehind: false });
    }
    // A hand does not move a clock that runs.
    const { run } = live(clocked);
    const before = run.state().clocksOn;
    run.setSwitches(new Map([['X1', before.length === 0]]));
    expect(run.state().clocksOn).toEqual(before);
  });

  it('says that it is behind where more happens than is worked off', () => {
    const { run, net } = live(ring, { start: { chance: 1 } });
    let looks = 0;
    run.advance(16, () => ++looks > 2);
    const { isBehind, isMoving, hertz, timeNs } = run.state();
    expect([isBehind, isMoving]).toEqual([true, true]);
    expect(timeNs).toBeLessThan(16e6);
    expect(hertz[net('U1.2')]).toBeCloseTo(1e9 / 18, -3);
    run.setPace(1e-8, false);
    run.advance(1000, never);
    expect(run.state().isBehind).toBe(false);
  });

  it('destroys a lamp past its maximum, for good: it is dark, told, and takes no current', () => {
    const board = wired(...switches(1), 'seat led b1.c50', 'S1.2 > D1.A', ...resistor(2, '47', 'D1.K', MINUS));
    const { run } = live(board);
    expect(run.state().destroyed.size).toBe(0);
    run.setSwitches(new Map([['S1', true]]));
    const { destroyed, lamps } = run.state();
    expect([...destroyed.keys()]).toEqual(['D1']);
    expect(destroyed.get('D1')).toBeGreaterThan(40);
    expect(lamps.get('D1')).toEqual({ ma: 0, state: 'destroyed' });
    expect(run.state().supplyMa).toBeCloseTo(0.5, 2);
    expect(liveFindings(run.state()).map((f) => [f.code, f.fix])).toEqual([['lamp-destroyed', 'new D1']]);
    const later = live(board, { destroyed, on: ['S1'] }).run;
    expect(later.state().lamps.get('D1')?.state).toBe('destroyed');
    expect(live(board).run.state().lamps.get('D1')?.state).toBe('dark');
  });

  it('tells an output that carries more than its chip bears', () => {
    const fight = wired(
      ...chip,
      `U1.1 > ${MINUS}`,
      'seat 74HC04 b1.e40',
      'U2.14 > U1.14',
      'U2.7 > U1.7',
      `U2.1 > ${PLUS}`,
      'U1.2 > U2.2',
    );
    const findings = liveFindings(live(fight).run.state());
    expect(findings.map((f) => [f.code, f.facts.pin]).sort()).toEqual([
      ['output-over-maximum', 'U1.2'],
      ['output-over-maximum', 'U2.2'],
    ]);
  });

  it('traces its labels, and what is asked for beside them', () => {
    const { run } = live(inverters, { scope: { spanNs: 100, endNs: null, columns: 10 } });
    const names = () => run.state().trace?.rows.map((row) => row.name);
    expect(names()).toEqual(['Y']);
    run.setTraced(['U1.2', 'U9.9']);
    expect(names()).toEqual(['Y', 'U1.2']);
    run.setSwitches(new Map([['S1', true]]));
    const [y, first] = run.state().trace?.rows ?? [];
    // Two inverters behind each other: the second follows nine nanoseconds later.
    expect([y?.to[9], first?.to[9]]).toEqual([HIGH, LOW]);
    run.setTraced([]);
    expect(names()).toEqual(['Y']);
  });

  it('with memory unknown names the loop that nobody knows', () => {
    const { run, level } = live(ring);
    expect([level('U1.2'), run.state().unknownLoop, run.state().isMoving]).toEqual([UNKNOWN, 'U1.2', false]);
  });
});
