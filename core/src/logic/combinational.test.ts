import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../design';
import { combinationalPart } from './combinational';
import { type Behaviour, compileMachine, MachineRun } from './machine';
import { HIGH, LOW } from './program';
import { tableOf, valueAt } from './table';

const behaviourOf = (sheet: string): Behaviour => readSheet(sheet).design.behaviour ?? expect.fail(sheet);

describe('what of a design follows from its inputs alone', () => {
  it('is the same, in every row and whatever is stored, as the whole design shows', () => {
    const lines = fc.array(
      fc.constantFrom('Y = A & B | ~A & C', 'W = Q & A', 'V = ~(B ^ C)', 'U = Q ^ Y', 'T = 1 & C'),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(lines, (chosen) => {
        const own = [...new Set(['Y = A & B | ~A & C', ...chosen])];
        const names = own.map((line) => line[0] ?? '');
        const whole = behaviourOf(`in A B C CK\nout Q ${names.join(' ')}\nQ = ~Q at rise CK\n${own.join('\n')}\n`);
        const part = combinationalPart(whole) ?? expect.fail();
        expect(part.outputs.map((o) => o.name)).toEqual(names.filter((n) => 'YVT'.includes(n)));
        expect(part.inputs).not.toContain('CK');
        const table = tableOf(part);
        const run = new MachineRun(compileMachine(whole));
        for (const stored of [LOW, HIGH])
          for (let row = 0; row < table.rows; row++) {
            part.inputs.forEach((name, i) => {
              run.setInput(whole.inputs.indexOf(name), (row >> (part.inputs.length - 1 - i)) & 1 ? HIGH : LOW);
            });
            run.setInput(whole.inputs.indexOf('CK'), LOW);
            run.restore([stored]);
            run.settle();
            part.outputs.forEach(({ name }, o) => {
              const at = whole.outputs.findIndex((output) => output.name === name);
              expect(run.outputLevel(at) === HIGH ? 1 : 0).toBe(valueAt(table, o, row));
            });
          }
      }),
      { numRuns: 40 },
    );
  });

  it('is the design itself where it stores nothing, and nothing where all hangs on what is stored', () => {
    const gates = behaviourOf('in A B\nout Y\nY = A & B\n');
    expect(combinationalPart(gates)).toBe(gates);
    expect(combinationalPart(behaviourOf('in C\nout Q N\nQ = ~Q at rise C\nN = ~Q\n'))).toBeNull();
  });
});
