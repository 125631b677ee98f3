import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import { clocksOf, stateTable } from './state-table';

const behaviour = (text: string) => readDesign(text).design.behaviour ?? expect.fail('not read');

describe('the states of a clocked design', () => {
  it('are those it reaches, each with what follows it', () => {
    const counter = behaviour('in CK\nout q1 q0\nq0 = ~q0 & ~q1 at rise CK\nq1 = q0 at rise CK');
    expect(clocksOf(counter)).toEqual(['CK']);
    const { transitions, whole } = stateTable(counter, 'CK');
    const at = (t: { from: string; to: string }) => `${t.from} ${t.to}`;
    // Stored signals stand in the order in which the outputs ask for them: q1, q0.
    expect([transitions.map(at), whole]).toEqual([['00 01', '01 10', '10 00'], true]);
  });

  it('are listed for every setting of the inputs, with the outputs before the edge', () => {
    const lock = behaviour('in K CK\nout Q W\nQ = K at fall CK\nW = Q & ~K');
    const { transitions, edge } = stateTable(lock, 'CK');
    expect(edge).toBe('fall');
    expect(transitions.map((t) => `${t.from} ${t.inputs} ${t.outputs} ${t.to}`)).toEqual([
      '0 0 00 0',
      '0 1 00 1',
      '1 0 11 0',
      '1 1 10 1',
    ]);
  });

  it('of a part are its count sequence', () => {
    const text =
      'in CK\nout Q[3:0]\nuse 7490 as U1 (CKA = CK, CKB = Q0, R01 = 0, R02 = 0, R91 = 0, R92 = 0, QA = Q0, QB = Q1, QC = Q2, QD = Q3)';
    const { transitions } = stateTable(behaviour(text), 'CK');
    expect(transitions).toHaveLength(10);
    expect(new Set(transitions.map((t) => t.outputs)).size).toBe(10);
  });

  it('are bounded, and say so', () => {
    const text = `in CK\nout y\n${Array.from({ length: 8 }, (_, i) => `q${i} = ~q${i} at fall ${i === 0 ? 'CK' : `q${i - 1}`}`).join('\n')}\ny = q7`;
    expect(stateTable(behaviour(text), 'CK')).toMatchObject({ whole: false });
  });

  /** Counters cut at ten by their own outputs, each with a reset by hand beside. */
  const stages = Array.from({ length: 4 }, (_, i) => `q${i}`);
  const halves = stages.map((q, i) => {
    const clock = i === 0 ? 'CK' : stages[i - 1];
    return `use 7476 as F${i} (1J = 1, 1K = 1, 1CLK = ${clock}, 1PREn = 1, 1CLRn = CL, 1Q = ${q}, 2J = 0, 2K = 0, 2CLK = 0, 2PREn = 1, 2CLRn = 1)`;
  });
  const cutAtTen: readonly [string, string][] = [
    [
      'a 7493 whose outputs go straight into its resets',
      'in CK\nout q3 q2 q1 q0\nuse 7493 as U1 (CKA = CK, CKB = q0, R01 = q1, R02 = q3, QA = q0, QB = q1, QC = q2, QD = q3)',
    ],
    ['four halves of 7476 and a NAND', `in CK\nout q3 q2 q1 q0\n${halves.join('\n')}\nCL = nand(q1, q3)`],
    [
      'equations with clear',
      `in CK\nout q3 q2 q1 q0\n${stages.map((q, i) => `${q} = ~${q} at fall ${i === 0 ? 'CK' : stages[i - 1]} clear R`).join('\n')}\nR = q1 & q3`,
    ],
  ];

  it.each(cutAtTen)('of %s go from nine to nought, by way of a ten that passes', (_, text) => {
    const { transitions } = stateTable(behaviour(text), 'CK');
    expect(transitions.map((t) => Number.parseInt(t.outputs, 2))).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(transitions.at(-1)?.to).toBe(transitions[0]?.from);
    expect(transitions.map((t) => t.passing.length)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 0, 1]);
  });
});
