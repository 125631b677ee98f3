import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyEdit, newJob, readCommand } from '../job';
import { MINUS, PLUS, resistor, wired } from '../testing/wired';
import { measure } from './measure';

const supplyAt = (found: ReturnType<typeof measure>): number => {
  const pin = found.measured?.pins['P1.+'] ?? expect.fail();
  return pin.volts ?? expect.fail('nobody knows the volts of the supply');
};

describe('the current limit of a supply', () => {
  it('is what it gives at the most: by Ohm, its volts fall as far as that asks, and no farther', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 900 }),
        fc.array(fc.integer({ min: 10, max: 2000 }), { minLength: 1, maxLength: 3 }),
        (limit, all) => {
          const loads = all.flatMap((ohms, i) => resistor(i + 1, String(ohms), PLUS, MINUS));
          const found = measure(wired(`limit P1 ${limit}`, ...loads), []);
          const siemens = all.reduce((sum, ohms) => sum + 1 / ohms, 0);
          const free = 5000 * siemens;
          // Where the two are equal, either may be.
          fc.pre(Math.abs(free - limit) > 1);
          const isOver = free > limit;
          expect(supplyAt(found)).toBeCloseTo(isOver ? limit / 1000 / siemens : 5, 2);
          expect(found.measured?.supplyMa).toBeCloseTo(isOver ? limit : free, 1);
          expect(found.findings.map((f) => f.code)).toEqual(isOver ? ['measure-shorted'] : []);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('leaves some volts over an LED without a resistor, and none over a wire', () => {
    const led = supplyAt(measure(wired('limit P1 30', 'seat led', `D1.A > ${PLUS}`, `D1.K > ${MINUS}`), []));
    expect(led).toBeGreaterThan(1.8);
    expect(led).toBeLessThan(2.6);
    expect(measure(wired('b1.top+21 > b1.bottom-21'), []).findings.map((f) => f.facts?.volts)).toEqual(['0.00']);
  });

  it('is kept by the switch that closes a short, and over when it opens', () => {
    const board = wired('limit P1 200', 'seat switch', `S1.1 > ${PLUS}`, ...resistor(1, '5', 'S1.2', MINUS));
    // The contact has 0.05 Ω of its own.
    expect(supplyAt(measure(board, [['S1', true]]))).toBeCloseTo(0.2 * 5.05, 2);
    const again = measure(board, [
      ['S1', true],
      ['S1', false],
    ]);
    expect([supplyAt(again), again.findings]).toEqual([5, []]);
  });

  it('is set at bench supplies alone, in milliamperes or amperes', () => {
    const board = wired('seat led', 'seat battery');
    const typed = (text: string): number | string | undefined => {
      const command = readCommand(board, text);
      const applied = command.ok ? applyEdit({ ...newJob('bench'), board }, command.edit) : null;
      return applied?.ok ? applied.job.board.parts.P1?.limit : applied?.findings[0]?.code;
    };
    expect(typed('limit P1 120')).toBe(120);
    expect(typed('limit P1 1.5A')).toBe(1500);
    expect(typed('limit P1 0')).toBe('hand/limit-range');
    expect(typed('limit P1 50000')).toBe('hand/limit-range');
    expect(typed('limit P1 much')).toBe('hand/limit-range');
    expect(typed('limit D1 100')).toBe('hand/no-limit');
    expect(typed('limit P2 100')).toBe('hand/no-limit');
  });
});
