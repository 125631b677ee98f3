import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findHazards, tableOf } from '../logic';
import { readSheet } from './index';
import { withProduct } from './with-product';

const inputs = ['A', 'B', 'C', 'D'];
/** Sums of products over four inputs, as a person writes them. */
const sums = fc
  .array(fc.array(fc.constantFrom(0, 1, 2), { minLength: 4, maxLength: 4 }), { minLength: 1, maxLength: 5 })
  .map((list) => list.map((p) => inputs.flatMap((name, i) => (p[i] === 2 ? [] : [p[i] === 1 ? name : `~${name}`]))))
  .filter((list) => list.every((p) => p.length > 0))
  .map((list) => list.map((p) => p.join(' & ')).join(' | '));

const behaviourOf = (sheet: string) => readSheet(sheet).design.behaviour ?? expect.fail(sheet);
const highsOf = (sheet: string): string => JSON.stringify(tableOf(behaviourOf(sheet)));

describe('one product more in a sum', () => {
  it('closes gap after gap until none is left, and changes nothing of the function', () => {
    fc.assert(
      fc.property(sums, (sum) => {
        const before = `in ${inputs.join(' ')}\nout Y\nY = ${sum}  # the permit\n`;
        let sheet = before;
        const gaps = () =>
          findHazards(behaviourOf(sheet), () => 10).hazards.filter((h) => h.output === 'Y' && h.kind === 'static-1');
        for (let i = 0; gaps().length > 0; i++) {
          expect(i).toBeLessThan(40);
          sheet = withProduct(sheet, 'Y', gaps()[0]?.remedy ?? '') ?? expect.fail(sheet);
        }
        expect(highsOf(sheet)).toBe(highsOf(before));
        expect(sheet).toContain('# the permit');
      }),
      { numRuns: 200 },
    );
  });

  it('is written as its line is, and refused where no equation makes the signal', () => {
    expect(withProduct("in A B C\nout Y\nY = A·B + A'·C\n", 'Y', 'B & C')).toBe(
      "in A B C\nout Y\nY = A·B + A'·C + B·C\n",
    );
    expect(withProduct('in A B\nout Y\nY = A & B\n', 'Y', 'A')).toBe('in A B\nout Y\nY = A & B | A\n');
    expect(withProduct('in A B\nout Y\ntable Y of A B : 0110\n', 'Y', 'A')).toBeNull();
    expect(withProduct('in A B\nout Y\nY = A & B\n', 'Z', 'A')).toBeNull();
    expect(withProduct('in A B\nout Y\nY = A & B\n', 'Y', 'A &')).toBeNull();
  });
});
