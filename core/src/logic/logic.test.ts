import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { networkOf, printSheet, readSheet } from '../design';
import { elementAt } from '../element-at';
import { arbitrarySheet } from '../testing/random';
import { compile, evaluateLevels, HIGH, LOW, type Program, slotCount, UNKNOWN } from './program';
import { firstDifference, inputAt, sweep, valueAt } from './table';

const arbitraryProgram = arbitrarySheet.map((sheet): Program => {
  const { netlist } = readSheet(printSheet(sheet)).design;
  return compile(networkOf(netlist ?? expect.fail('no gates')));
});

function levels(program: Program, inputs: readonly number[]): number[] {
  const slots = new Uint8Array(slotCount(program));
  slots.set(inputs, 2);
  evaluateLevels(program, slots);
  return [...program.outputs].map((o) => elementAt(slots, o));
}

describe('three-valued evaluation', () => {
  it('agrees with the table when every input is known', () => {
    fc.assert(
      fc.property(arbitraryProgram, (program) => {
        const table = sweep(program);
        for (let row = 0; row < table.rows; row++) {
          const inputs = Array.from({ length: program.inputs }, (_, i) => inputAt(program.inputs, i, row));
          expect(levels(program, inputs)).toEqual(table.columns.map((_, o) => valueAt(table, o, row)));
        }
      }),
    );
  });

  it('never claims a level that some value of the unknown inputs would change', () => {
    fc.assert(
      fc.property(
        arbitraryProgram,
        fc.array(fc.constantFrom(LOW, HIGH, UNKNOWN), { minLength: 6, maxLength: 6 }),
        (program, some) => {
          const partial = some.slice(0, program.inputs);
          const claimed = levels(program, partial);
          for (const fill of [LOW, HIGH]) {
            const known = levels(
              program,
              partial.map((v) => (v === UNKNOWN ? fill : v)),
            );
            claimed.forEach((level, o) => {
              if (level !== UNKNOWN) expect(known[o]).toBe(level);
            });
          }
        },
      ),
    );
  });
});

describe('tables', () => {
  const tableOf = (text: string) =>
    sweep(compile(networkOf(readSheet(text).design.netlist ?? expect.fail('no gates'))));

  it('put the first input at the most significant place', () => {
    const table = tableOf('in A B\nout Y\nY = A & ~B');
    expect([0, 1, 2, 3].map((row) => valueAt(table, 0, row))).toEqual([0, 0, 1, 0]);
  });

  it('of one kind differ in the first row that differs, beyond the first word too', () => {
    const names = 'A B C D E F G';
    const all = tableOf(`in ${names}\nout Y\nY = and(${names.replaceAll(' ', ',')})`);
    const none = tableOf(`in ${names}\nout Y\nY = A & 0 & B & C & D & E & F & G`);
    expect(firstDifference(all, none)).toBe(127);
    expect(firstDifference(all, all)).toBeNull();
  });
});
