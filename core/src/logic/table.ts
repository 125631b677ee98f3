import { evaluateWord, type Program, slotCount } from './program';

/** Most inputs a full table is made for: 2^20 rows. */
export const MAX_TABLE_INPUTS = 20;

/**
 * A truth table. Row r runs from 0 to 2^inputs - 1; the first input is the most significant bit of
 * r, as textbooks write it. `columns[o]` holds output o, 32 rows a word, row r at bit r mod 32 of
 * word r div 32; bits past the last row are 0.
 */
export interface Table {
  readonly inputs: number;
  readonly rows: number;
  readonly columns: readonly Int32Array[];
}

/** Bit patterns of the five inputs that change within one word, fastest first. */
const withinWord = [0xaaaaaaaa | 0, 0xcccccccc | 0, 0xf0f0f0f0 | 0, 0xff00ff00 | 0, 0xffff0000 | 0] as const;

/**
 * Fills the whole table of a program, 32 rows at a time.
 * Throws above MAX_TABLE_INPUTS inputs: callers ask first.
 */
export function sweep(program: Program): Table {
  const n = program.inputs;
  if (n > MAX_TABLE_INPUTS) throw new Error(`a table of ${n} inputs is too large`);
  const rows = 2 ** n;
  const words = Math.max(1, rows >>> 5);
  const columns = Array.from(program.outputs, () => new Int32Array(words));
  const slots = new Int32Array(slotCount(program));
  const mask = rows < 32 ? 2 ** rows - 1 : -1;
  for (let w = 0; w < words; w++) {
    for (let i = 0; i < n; i++) {
      const bit = n - 1 - i;
      slots[2 + i] = bit < 5 ? (withinWord[bit] as number) : ((w >>> (bit - 5)) & 1) === 1 ? -1 : 0;
    }
    evaluateWord(program, slots);
    columns.forEach((column, o) => {
      column[w] = (slots[program.outputs[o] as number] as number) & mask;
    });
  }
  return { inputs: n, rows, columns };
}

/** The value, 0 or 1, of an output in a row. */
export function valueAt(table: Table, output: number, row: number): 0 | 1 {
  const column = table.columns[output];
  if (!column || row < 0 || row >= table.rows) throw new Error(`no cell ${output}, ${row}`);
  return (((column[row >>> 5] as number) >>> (row & 31)) & 1) as 0 | 1;
}

/** The value, 0 or 1, of input i (from 0, the first is the most significant) in a row. */
export function inputAt(inputs: number, input: number, row: number): 0 | 1 {
  return ((row >>> (inputs - 1 - input)) & 1) as 0 | 1;
}

/** The first row in which two tables of one shape differ, or null when they are the same. */
export function firstDifference(a: Table, b: Table): number | null {
  for (let w = 0; w < Math.max(1, a.rows >>> 5); w++) {
    let differing = 0;
    a.columns.forEach((column, o) => {
      differing |= (column[w] as number) ^ ((b.columns[o] as Int32Array)[w] as number);
    });
    if (differing !== 0) return w * 32 + (31 - Math.clz32(differing & -differing));
  }
  return null;
}
