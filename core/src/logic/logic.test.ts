import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { networkOf, printSheet, readSheet } from '../design';
import { elementAt } from '../element-at';
import { arbitrarySheet } from '../testing/random';
import { compiledSweep } from './compiled-sweep';
import { compile, evaluateLevels, HIGH, LOW, opcode, type Program, slotCount, UNKNOWN } from './program';
import { firstDifference, inputAt, sweep, sweptByWords, valueAt } from './table';

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

  it('of many inputs are filled by compiled code as they are word by word, whatever the gates', () => {
    const kinds = Object.values(opcode);
    const gates = fc.array(
      fc.record({ kind: fc.constantFrom(...kinds), reads: fc.array(fc.nat(), { minLength: 1, maxLength: 9 }) }),
      { minLength: 1, maxLength: 40 },
    );
    fc.assert(
      fc.property(
        fc.integer({ min: 15, max: 17 }),
        gates,
        fc.array(fc.nat(), { minLength: 1 }),
        (inputs, list, outs) => {
          const code: number[] = [];
          list.forEach(({ kind, reads }, g) => {
            const one = kind === opcode.not ? reads.slice(0, 1) : reads;
            const all = kind === opcode.wire ? [...one, ...one.slice().reverse()] : one;
            code.push(kind, all.length, ...all.map((n) => n % (2 + inputs + g)));
          });
          const program: Program = {
            inputs,
            gates: list.length,
            code: Int32Array.from(code),
            outputs: Int32Array.from(outs, (n) => n % (2 + inputs + list.length)),
          };
          const compiled = compiledSweep(program) ?? expect.fail('not compiled');
          const plain = sweptByWords(program);
          expect(compiled.length).toBe(plain.length);
          compiled.forEach((column, o) => {
            const other = elementAt(plain, o);
            expect(column.every((word, w) => word === other[w])).toBe(true);
          });
        },
      ),
      { numRuns: 60 },
    );
  });

  it('too small to be worth a module, or without an engine for one, are left to words', () => {
    const small = compile({ inputs: ['A'], gates: [], outputs: ['A'] });
    expect(compiledSweep(small)).toBeNull();
    const inputs = Array.from({ length: 16 }, (_, i) => `i${i}`);
    const wide = compile({ inputs, gates: [{ output: 'y', kind: 'and', inputs }], outputs: ['y'] });
    const { WebAssembly: engine } = globalThis as { WebAssembly?: unknown };
    vi.stubGlobal('WebAssembly', undefined);
    const table = sweep(wide);
    vi.stubGlobal('WebAssembly', engine);
    expect(table).toEqual(sweep(wide));
    vi.unstubAllGlobals();
  });
});
