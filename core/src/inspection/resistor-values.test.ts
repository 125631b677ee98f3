import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { familyIds } from '../catalogue';
import { applyEdit, newJob } from '../job';
import { solve } from '../testing/interlock';
import { MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { layOut, packJob } from '../workflow';
import { inspect } from './inspect';
import { type FoundResistor, resistorsOf } from './resistor-values';

const withValue = (board: Board, ref: string, value: number): Board => {
  const applied = applyEdit({ ...newJob('bench'), board }, { kind: 'set-value', ref, value });
  return applied.ok ? applied.job.board : expect.fail(ref);
};
const found = (board: Board, ref: string, ledMa?: number): FoundResistor =>
  resistorsOf(board, { family: 'HC', ...(ledMa !== undefined && { ledMa }) }).find((r) => r.ref === ref) ??
  expect.fail(ref);
const codesOf = (board: Board): string[] => inspect(board, extractNets(board), null, 'HC').map((f) => f.code);

/** An LED at an output, or at supply, behind a resistor. */
const lit = (from: string): Board =>
  wired(
    ...['seat 74HC04 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, ...switches(1), 'S1.2 > U1.1'],
    ...['seat led', `D1.A > ${from}`, ...resistor(2, '470', 'D1.K', MINUS)],
  );

describe('a resistor before an LED', () => {
  it('gives what is wanted of it, and the next smaller one more; with any that is allowed the inspector is content', () => {
    fc.assert(
      fc.property(fc.constantFrom('U1.2', PLUS), fc.double({ min: 0.6, max: 25, noNaN: true }), (from, ledMa) => {
        const board = lit(from);
        const { suggestedOhms, leastOhms, mostOhms, of } = found(board, 'R2', ledMa);
        expect(of).toBe('D1');
        const maWith = (ohms: number): number => found(withValue(board, 'R2', ohms), 'R2').ma ?? 0;
        const within = maWith(suggestedOhms);
        expect(within).toBeLessThanOrEqual(ledMa + 1e-9);
        // Steps of the series are a tenth apart.
        if (suggestedOhms > leastOhms) expect(maWith(suggestedOhms / 1.13)).toBeGreaterThan(ledMa * 0.98);
        for (const ohms of [leastOhms, mostOhms, suggestedOhms])
          for (const code of ['led-current', 'led-over-maximum', 'output-over-maximum'])
            expect(codesOf(withValue(board, 'R2', ohms)), `${ohms} ${code}`).not.toContain(code);
      }),
      { numRuns: 24 },
    );
  });

  it('is not left so small that an output gives more than is guaranteed', () => {
    expect(found(lit('U1.2'), 'R2', 25).suggestedOhms).toBe(found(lit('U1.2'), 'R2').leastOhms);
    expect(codesOf(withValue(lit('U1.2'), 'R2', found(lit('U1.2'), 'R2').leastOhms / 2))).toContain('led-current');
  });
});

describe('a resistor that pulls', () => {
  it.each(['74HC04', '74LS04', '7404', '74S04'])(
    'a %s down holds its low, and twice the most does not where inputs give current',
    (part) => {
      const board = wired(
        ...[`seat ${part} b1.e20`, `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, ...switches(1)],
        ...['S1.2 > U1.1', 'S1.2 > U1.3', 'S1.2 > U1.5'],
      );
      const { use, mostOhms, leastOhms, suggestedOhms } = found(board, 'R1');
      expect(use).toBe('pull-down');
      expect(suggestedOhms).toBeLessThanOrEqual(mostOhms);
      expect(codesOf(withValue(board, 'R1', Math.min(mostOhms, suggestedOhms)))).not.toContain('pull-too-weak');
      if (part !== '74HC04') expect(codesOf(withValue(board, 'R1', 5 * mostOhms))).toContain('pull-too-weak');
      else expect([suggestedOhms, leastOhms, mostOhms]).toEqual([10_000, 200, 100_000]);
    },
  );

  it('an open-collector output up is as small as the output sinks, and as large as its inputs stay high', () => {
    const board = wired(
      ...['seat 7403 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, 'seat 7404', `U2.14 > ${PLUS}`, `U2.7 > ${MINUS}`],
      ...['U1.3 > U2.1', ...resistor(1, '2.2k', 'U1.3', PLUS)],
    );
    // (5 - 0.4) V / (16 - 1.6) mA, and (5 - 2) V / (250 + 40) µA, in the series E24.
    expect(found(board, 'R1')).toMatchObject({ use: 'pull-up', of: 'U2.1', leastOhms: 330, mostOhms: 10_000 });
  });

  it.each(familyIds)('and all others that a plan of family %s seats are within what is allowed', async (family) => {
    const { packing } = await packJob({ ...newJob('test', 'in A B\nout Y\nY = ~(A & B)'), family }, solve);
    const { edit } = layOut(packing ?? expect.fail(family), { fittings: [], pulses: [] });
    const applied = edit && applyEdit({ ...newJob('test'), family }, edit);
    const { board } = applied?.ok ? applied.job : expect.fail(family);
    const all = resistorsOf(board, { family });
    // Inputs of standard and Schottky TTL take no pull-downs: their switches change over.
    expect(all).toHaveLength(['74', 'S'].includes(family) ? 1 : 3);
    for (const { ref, ohms, leastOhms, mostOhms } of all) {
      expect(ohms, ref).toBeGreaterThanOrEqual(leastOhms);
      expect(ohms, ref).toBeLessThanOrEqual(mostOhms);
    }
  });
});
