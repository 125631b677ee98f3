import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOST_HERTZ } from '../design';
import { astableLaw, rhythmOf } from '../electrical';
import { runningValues } from './pulse-values';
import { timerLeads, timerNets, timerPinsOf } from './timer';

describe('a timer that runs by itself', () => {
  it('gets parts with which it runs within 1 % of any rate that a sheet may want, high little longer than low', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: MOST_HERTZ.timer }), (hertz) => {
        const values = runningValues(hertz);
        const { highS, lowS } = rhythmOf(astableLaw, values);
        const periodS = highS + (lowS ?? 0);
        expect(Math.abs(periodS * hertz - 1)).toBeLessThan(0.01);
        expect(highS / periodS).toBeGreaterThan(0.5);
        expect(highS / periodS).toBeLessThan(0.56);
        for (const ohms of values.ohms) expect(ohms).toBeGreaterThanOrEqual(1000);
      }),
    );
  });

  it('has the pins of its data sheet, each on a net of its own but for trigger and threshold', () => {
    const named = { ref: 'X1', part: 'NE555' };
    // Source: data sheet NE555, pin functions: 2 TRIG, 3 OUT, 4 RESET, 6 THRES, 7 DISCH.
    expect(timerPinsOf(named)).toEqual({
      begins: 'X1.2',
      output: 'X1.3',
      clears: 'X1.4',
      ends: 'X1.6',
      empties: 'X1.7',
    });
    const nets = timerNets(named);
    expect(nets.get('X1.2')).toBe(nets.get('X1.6'));
    expect(new Set(nets.values()).size).toBe(3);
    const leads = timerLeads(timerPinsOf(named) ?? expect.fail());
    expect([leads.toSupply[1], leads.toCapacitor[1]]).toEqual([nets.get('X1.7'), nets.get('X1.6')]);
    expect([leads.toCapacitor[0], leads.capacitor[0]]).toEqual([nets.get('X1.7'), nets.get('X1.6')]);
    for (const part of ['NE556', '74HC00', 'resistor', 'nothing']) expect(timerPinsOf({ ref: 'U1', part })).toBeNull();
  });
});
