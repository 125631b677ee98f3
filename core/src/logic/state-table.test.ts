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
});
