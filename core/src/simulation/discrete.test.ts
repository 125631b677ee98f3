import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { inverter, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { PoweredBoard } from './powered-board';

/** Volts at pins for each way that the switches of a board may stand, the first switch most significant. */
function voltsOf(board: Board, inputs: number, ...pins: string[]): number[][] {
  const live = new PoweredBoard(board, extractNets(board));
  return Array.from({ length: 2 ** inputs }, (_, row) => {
    for (let i = 0; i < inputs; i++) live.setSwitch(i, ((row >> (inputs - 1 - i)) & 1) === 1);
    expect(live.settle().settled).toBe(true);
    expect(live.shorted).toBe(false);
    return pins.map((pin) => live.point.voltsAt(pin) ?? Number.NaN);
  });
}

const tableOf = (rows: readonly number[][]): string => rows.map(([v = 2.5]) => (v > 2.5 ? 1 : 0)).join('');

describe('gates of discrete parts', () => {
  it('resistor-transistor logic inverts, and a NOR is one transistor for each input on a common load', () => {
    const not = wired(...switches(1), ...inverter(1, 2, 'S1.2'));
    const [low = [], high = []] = voltsOf(not, 1, 'Q1.3', 'Q1.2');
    expect(low[0]).toBeGreaterThan(4.99);
    expect(high[0]).toBeLessThan(0.2);
    expect(high[1]).toBeGreaterThan(0.6);
    expect(high[1]).toBeLessThan(0.8);
    const nor = wired(
      ...switches(2),
      ...inverter(1, 3, 'S1.2'),
      ...['seat npn', `Q2.1 > ${MINUS}`, 'Q2.3 > Q1.3'],
      ...resistor(5, '10k', 'S2.2', 'Q2.2'),
    );
    expect(tableOf(voltsOf(nor, 2, 'Q1.3'))).toBe('1000');
  });

  it('the two kinds of high differ where the collector resistor is as large as the base resistors', () => {
    const loaded = (load: string): number => {
      const board = wired(...switches(1), ...inverter(1, 2, 'S1.2', { load }), ...inverter(2, 4, 'Q1.3', { load }));
      return voltsOf(board, 1, 'Q1.3')[0]?.[0] ?? Number.NaN;
    };
    const alone =
      voltsOf(wired(...switches(1), ...inverter(1, 2, 'S1.2', { load: '10k' })), 1, 'Q1.3')[0]?.[0] ?? Number.NaN;
    expect(alone).toBeGreaterThan(4.99);
    expect(loaded('10k')).toBeGreaterThan(2.5);
    expect(loaded('10k')).toBeLessThan(3.1);
    expect(loaded('1k')).toBeGreaterThan(4.5);
  });

  it('diode logic is an OR of highs and an AND of lows, each a junction short of its rail', () => {
    const gate = (...parts: string[]): Board => wired(...switches(2), ...parts);
    const or = gate(
      ...['seat diode', 'seat diode', 'D1.A > S1.2', 'D2.A > S2.2', 'D1.K > D2.K'],
      ...resistor(3, '100k', 'D1.K', MINUS),
    );
    const rows = voltsOf(or, 2, 'D1.K');
    expect(tableOf(rows)).toBe('0111');
    for (const [v = 0] of rows.slice(1)) {
      expect(v).toBeGreaterThan(4.2);
      expect(v).toBeLessThan(4.6);
    }
    const and = gate(
      ...['seat diode', 'seat diode', 'D1.K > S1.2', 'D2.K > S2.2', 'D1.A > D2.A'],
      ...resistor(3, '1M', 'D1.A', PLUS),
    );
    const lows = voltsOf(and, 2, 'D1.A');
    expect(tableOf(lows)).toBe('0001');
    for (const [v = 0] of lows.slice(0, 3)) {
      expect(v).toBeGreaterThan(0.2);
      expect(v).toBeLessThan(0.7);
    }
  });

  it('an emitter follower gives a junction less than its base, and a MOSFET with a load inverts', () => {
    const follower = wired(
      ...switches(1),
      ...['seat npn', `Q1.3 > ${PLUS}`, 'S1.2 > Q1.2'],
      ...resistor(2, '1k', 'Q1.1', MINUS),
    );
    const [off = [], on = []] = voltsOf(follower, 1, 'Q1.1');
    expect(off[0]).toBeLessThan(0.05);
    expect(on[0]).toBeGreaterThan(4.1);
    expect(on[0]).toBeLessThan(4.45);
    const nmos = wired(
      ...switches(1),
      'seat nmos',
      `Q1.1 > ${MINUS}`,
      'S1.2 > Q1.2',
      ...resistor(2, '1k', 'Q1.3', PLUS),
    );
    const [high = [], low = []] = voltsOf(nmos, 1, 'Q1.3');
    expect(high[0]).toBeGreaterThan(4.99);
    expect(low[0]).toBeLessThan(0.05);
  });
});
