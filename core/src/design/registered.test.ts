import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileMachine, HIGH, LOW, MachineRun } from '../logic';
import { readSheet } from './index';
import { registered } from './registered';

const inputs = ['A', 'B', 'C'];
const expressions = fc.constantFrom('A & B | ~A & C', 'A ^ B ^ C', '~(A | B) & C', "A·B + A'·C", '(A ⊕ B)·C');
const behaviourOf = (sheet: string) => readSheet(sheet).design.behaviour ?? expect.fail(sheet);

describe('a signal taken from a flip-flop', () => {
  it('has with each edge of its clock the value that it had without, and keeps it between', () => {
    fc.assert(
      fc.property(
        expressions,
        fc.array(fc.array(fc.constantFrom(LOW, HIGH), { minLength: 3, maxLength: 3 }), { minLength: 1, maxLength: 12 }),
        (expression, rows) => {
          const before = `in ${inputs.join(' ')} "of the lock"\nout Y\nY = ${expression}  # the permit\n`;
          const { text, clock } = registered(before, 'Y') ?? expect.fail(before);
          expect(text).toContain('# the permit');
          const [plain, clocked] = [before, text].map((sheet) => new MachineRun(compileMachine(behaviourOf(sheet))));
          const after = behaviourOf(text);
          const put = (run: MachineRun | undefined, names: readonly string[], levels: readonly number[]): void => {
            levels.forEach((level, i) => {
              run?.setInput(names.indexOf(inputs[i] ?? ''), level);
            });
            run?.settle();
          };
          const at = after.inputs.indexOf(clock);
          let kept: number | null = null;
          for (const row of rows) {
            clocked?.setInput(at, LOW);
            put(clocked, after.inputs, row);
            if (kept !== null) expect(clocked?.outputLevel(0)).toBe(kept);
            put(plain, inputs, row);
            clocked?.setInput(at, HIGH);
            clocked?.settle();
            kept = plain?.outputLevel(0) ?? null;
            expect(clocked?.outputLevel(0)).toBe(kept);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('takes the clock that the sheet has, or a new input that has a free name', () => {
    expect(registered('in A CK\nout Q Y\nQ = ~Q at fall CK\nY = A & Q\n', 'Y')).toEqual({
      text: 'in A CK\nout Q Y\nQ = ~Q at fall CK\nY = A & Q at fall CK\n',
      clock: 'CK',
    });
    expect(registered('in A CLK\nout Y\nY = A & CLK\n', 'Y')).toEqual({
      text: 'in A CLK\nin  CLK1\nout Y\nY = A & CLK at rise CLK1\n',
      clock: 'CLK1',
    });
  });

  it('is refused where no equation makes it, or it is stored', () => {
    expect(registered('in A B\nout Y\ntable Y of A B : 0110\n', 'Y')).toBeNull();
    expect(registered('in A C\nout Y\nY = A at rise C\n', 'Y')).toBeNull();
    expect(registered('in A C\nout Y\nY = A\n', 'A')).toBeNull();
  });
});
