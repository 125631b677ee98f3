import { elementAt } from '../element-at';
import { compiledSweep } from './compiled-sweep';
import type { Rows } from './cover';
import { rowBit } from './cover';
import type { Behaviour } from './machine';
import type { Functions } from './primes';
import { compile, evaluateBlock, type Program, slotCount } from './program';

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
  /** For each output the rows in which its value does not matter, and those in which nothing drives it; null for none. */
  readonly dontCare?: readonly (Rows | null)[];
  readonly floats?: readonly (Rows | null)[];
}

/** What stands in a cell of a table: a value, `-` where it does not matter, `Z` where nothing drives it. */
export type CellMark = '0' | '1' | '-' | 'Z';

/** Bit patterns of the five inputs that change within one word, fastest first. */
const withinWord = [0xaaaaaaaa | 0, 0xcccccccc | 0, 0xf0f0f0f0 | 0, 0xff00ff00 | 0, 0xffff0000 | 0] as const;

/** Words that are worked on together: gate by gate over all of them, which costs little a gate. */
const BLOCK = 512;

/**
 * Fills the whole table of a program, 32 rows a word: a large one by code compiled for it, others gate by gate over blocks of words.
 * Throws above MAX_TABLE_INPUTS inputs: callers ask first.
 */
export function sweep(program: Program): Table {
  const { inputs } = program;
  if (inputs > MAX_TABLE_INPUTS) throw new Error(`a table of ${inputs} inputs is too large`);
  return { inputs, rows: 2 ** inputs, columns: compiledSweep(program) ?? sweptByWords(program) };
}

/** The columns of a program's table, gate by gate over blocks of words. */
export function sweptByWords(program: Program): readonly Int32Array[] {
  const n = program.inputs;
  const rows = 2 ** n;
  const words = Math.max(1, rows >>> 5);
  const columns = Array.from(program.outputs, () => new Int32Array(words));
  const size = Math.min(BLOCK, words);
  const slots = Array.from({ length: slotCount(program) }, () => new Int32Array(size));
  slots[1]?.fill(-1);
  for (let i = 0; i < n; i++) if (n - 1 - i < 5) slots[2 + i]?.fill(elementAt(withinWord, n - 1 - i));
  const mask = rows < 32 ? 2 ** rows - 1 : -1;
  for (let from = 0; from < words; from += size) {
    fillInputs(slots, n, from);
    evaluateBlock(program, slots);
    columns.forEach((column, o) => {
      const values = elementAt(slots, elementAt(program.outputs, o));
      if (mask === -1) column.set(values, from);
      else column[0] = elementAt(values, 0) & mask;
    });
  }
  return columns;
}

/** The inputs that change from word to word, for the words from `from` on. */
function fillInputs(slots: readonly Int32Array[], n: number, from: number): void {
  for (let i = 0; i < n - 5; i++) {
    const bit = n - 6 - i;
    const slot = elementAt(slots, 2 + i);
    for (let w = 0; w < slot.length; w++) slot[w] = ((from + w) << (31 - bit)) >> 31;
  }
}

/**
 * The table of what a design does, don't-cares and floating outputs with it. Throws for designs that
 * store something, whose outputs are no function of their inputs, and above MAX_TABLE_INPUTS inputs.
 */
export function tableOf({ inputs, gates, outputs, stored }: Behaviour): Table {
  if (stored.length > 0) throw new Error('a design that stores something has no truth table');
  const nets = outputs.map((o) => o.net);
  const marks = outputs.flatMap((o) => [o.dontCare ?? '0', o.floats ?? '0']);
  const whole = sweep(compile({ inputs, gates, outputs: [...nets, ...marks] }));
  const mark = (o: number, k: 0 | 1): Rows | null => {
    const has = k === 0 ? outputs[o]?.dontCare : outputs[o]?.floats;
    return has ? elementAt(whole.columns, nets.length + 2 * o + k) : null;
  };
  return {
    inputs: whole.inputs,
    rows: whole.rows,
    columns: whole.columns.slice(0, nets.length),
    dontCare: nets.map((_, o) => mark(o, 0)),
    floats: nets.map((_, o) => mark(o, 1)),
  };
}

const has = (rows: Rows | null | undefined, row: number): boolean => !!rows && rowBit(rows, row) === 1;

/** What stands in the cell of an output in a row. */
export function cellAt(table: Table, output: number, row: number): CellMark {
  const value = valueAt(table, output, row);
  if (has(table.dontCare?.[output], row)) return '-';
  return has(table.floats?.[output], row) ? 'Z' : value === 1 ? '1' : '0';
}

/** The level wanted of an output in a row; null where any will do. */
export function wantedAt(table: Table, output: number, row: number): 0 | 1 | null {
  const cell = cellAt(table, output, row);
  return cell === '0' ? 0 : cell === '1' ? 1 : null;
}

/** Outputs of a table as functions to restate; where nothing drives them, their value does not matter. */
export function functionsOf(table: Table, outputs: readonly number[]): Functions {
  const free = outputs.map((o) => {
    const [a, b] = [table.dontCare?.[o], table.floats?.[o]];
    return elementAt(table.columns, o).map((_, w) => (a?.[w] ?? 0) | (b?.[w] ?? 0));
  });
  const on = outputs.map((o, i) => elementAt(table.columns, o).map((w, k) => w & ~elementAt(elementAt(free, i), k)));
  return { inputs: table.inputs, on, free };
}

/** The value, 0 or 1, of an output in a row. */
export function valueAt(table: Table, output: number, row: number): 0 | 1 {
  const column = table.columns[output];
  if (!column || row < 0 || row >= table.rows) throw new Error(`no cell ${output}, ${row}`);
  return rowBit(column, row);
}

/** The value, 0 or 1, of input i (from 0, the first is the most significant) in a row. */
export function inputAt(inputs: number, input: number, row: number): 0 | 1 {
  return ((row >>> (inputs - 1 - input)) & 1) as 0 | 1;
}

/** The first row in which two tables of one shape differ where both care, or null when they are the same. */
export function firstDifference(a: Table, b: Table): number | null {
  for (let w = 0; w < Math.max(1, a.rows >>> 5); w++) {
    let differing = 0;
    a.columns.forEach((column, o) => {
      const any = (a.dontCare?.[o]?.[w] ?? 0) | (b.dontCare?.[o]?.[w] ?? 0);
      differing |= (elementAt(column, w) ^ elementAt(elementAt(b.columns, o), w)) & ~any;
      differing |= ((a.floats?.[o]?.[w] ?? 0) ^ (b.floats?.[o]?.[w] ?? 0)) & ~any;
    });
    if (differing !== 0) return w * 32 + (31 - Math.clz32(differing & -differing));
  }
  return null;
}
