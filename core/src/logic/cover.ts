import { elementAt } from '../element-at';
import type { Expr } from './expression';

/**
 * A product of literals over the row number of a table: row r lies in it when `(r & care) === value`.
 * Bit k of both belongs to the input k places from the last one, as in `Table`.
 */
export interface Cube {
  readonly care: number;
  readonly value: number;
}

/** A set of rows, 32 a word, row r at bit r mod 32 of word r div 32, as in `Table`. */
export type Rows = Int32Array;

/** Whether a row is in a set: 1 or 0. Throws RangeError past the end of the set. */
export function rowBit(rows: Rows, row: number): 0 | 1 {
  return ((elementAt(rows, row >>> 5) >>> (row & 31)) & 1) as 0 | 1;
}

/** Puts a row into a set. */
export function addRow(rows: Rows, row: number): void {
  rows[row >>> 5] = elementAt(rows, row >>> 5) | (1 << (row & 31));
}

/** Words that a set of the rows of `inputs` inputs takes. */
export function wordsFor(inputs: number): number {
  return Math.max(1, (2 ** inputs) >>> 5);
}

/** The bits of a word that are rows of a table of so many inputs. */
export function rowMask(inputs: number): number {
  return inputs >= 5 ? -1 : 2 ** (2 ** inputs) - 1;
}

/** Within a word: for each of the five fastest inputs the rows in which it is high. */
const high = [0xaaaaaaaa | 0, 0xcccccccc | 0, 0xf0f0f0f0 | 0, 0xff00ff00 | 0, 0xffff0000 | 0] as const;

/** The rows of a cube. */
export function rowsOf(cubes: readonly Cube[], inputs: number): Rows {
  const rows = new Int32Array(wordsFor(inputs));
  for (const { care, value } of cubes) {
    let word = rowMask(inputs);
    for (let k = 0; k < Math.min(5, inputs); k++)
      if ((care >>> k) & 1) word &= (value >>> k) & 1 ? (high[k] as number) : ~(high[k] as number);
    const upper = { care: care >>> 5, value: value >>> 5 };
    for (let w = 0; w < rows.length; w++) if ((w & upper.care) === upper.value) (rows[w] as number) |= word;
  }
  return rows;
}

/**
 * An irredundant sum of products that covers every row of `on` and none outside `upper` (rows of `on`
 * and don't-cares together). Source: Minato, "Fast generation of irredundant sum-of-products forms
 * from binary decision diagrams" (1992), on bit sets instead of diagrams. Few products, not fewest.
 */
export function irredundantCover(on: Rows, upper: Rows, inputs: number): Cube[] {
  return coverOf(on, upper, inputs).cubes;
}

interface Covered {
  readonly cubes: Cube[];
  readonly rows: Rows;
}

function coverOf(on: Rows, upper: Rows, inputs: number): Covered {
  if (on.every((w) => w === 0)) return { cubes: [], rows: new Int32Array(on.length) };
  const all = rowMask(inputs);
  if (upper.every((w) => w === all)) return { cubes: [{ care: 0, value: 0 }], rows: Int32Array.from(upper) };
  if (inputs <= 5) {
    const { cubes, rows } = wordCover(on[0] as number, upper[0] as number, inputs);
    return { cubes, rows: Int32Array.of(rows) };
  }
  const half = on.length >> 1;
  const bit = 2 ** (inputs - 1);
  const [l0, l1, u0, u1] = [on.subarray(0, half), on.subarray(half), upper.subarray(0, half), upper.subarray(half)];
  const c0 = coverOf(minus(l0, u1), u0, inputs - 1);
  const c1 = coverOf(minus(l1, u0), u1, inputs - 1);
  const rest = minus(l0, c0.rows).map((w, i) => w | ((l1[i] as number) & ~(c1.rows[i] as number)));
  const both = coverOf(
    rest,
    u0.map((w, i) => w & (u1[i] as number)),
    inputs - 1,
  );
  const rows = new Int32Array(on.length);
  for (let i = 0; i < half; i++) {
    rows[i] = (c0.rows[i] as number) | (both.rows[i] as number);
    rows[half + i] = (c1.rows[i] as number) | (both.rows[i] as number);
  }
  return { cubes: joined(c0.cubes, c1.cubes, both.cubes, bit), rows };
}

const minus = (a: Rows, b: Rows): Rows => a.map((w, i) => w & ~(b[i] as number));

function joined(low: readonly Cube[], up: readonly Cube[], both: readonly Cube[], bit: number): Cube[] {
  return [
    ...low.map(({ care, value }) => ({ care: care | bit, value })),
    ...up.map(({ care, value }) => ({ care: care | bit, value: value | bit })),
    ...both,
  ];
}

/** The same within one word, for up to five inputs. */
function wordCover(on: number, upper: number, inputs: number): { cubes: Cube[]; rows: number } {
  if (on === 0) return { cubes: [], rows: 0 };
  if (upper === rowMask(inputs)) return { cubes: [{ care: 0, value: 0 }], rows: upper };
  const k = inputs - 1;
  const shift = 1 << k;
  const mask = rowMask(k);
  const [l0, l1, u0, u1] = [on & mask, (on >>> shift) & mask, upper & mask, (upper >>> shift) & mask];
  const c0 = wordCover(l0 & ~u1, u0, k);
  const c1 = wordCover(l1 & ~u0, u1, k);
  const both = wordCover((l0 & ~c0.rows) | (l1 & ~c1.rows), u0 & u1, k);
  const rows = c0.rows | both.rows | ((c1.rows | both.rows) << shift);
  return { cubes: joined(c0.cubes, c1.cubes, both.cubes, 1 << k), rows };
}

/** The product of a cube over named inputs, the first the most significant. */
export function exprOfCube({ care, value }: Cube, names: readonly string[]): Expr {
  const literals = names.flatMap((name, i): Expr[] => {
    const k = names.length - 1 - i;
    if (((care >>> k) & 1) === 0) return [];
    const literal: Expr = { kind: 'name', name };
    return [((value >>> k) & 1) === 1 ? literal : { kind: 'not', of: literal }];
  });
  return chain('and', literals);
}

/** The sum of products of cubes over named inputs. */
export function exprOfCover(cubes: readonly Cube[], names: readonly string[]): Expr {
  return chain(
    'or',
    cubes.map((cube) => exprOfCube(cube, names)),
  );
}

/** An infix chain, or what it comes to with one operand or none. */
export function chain(gate: 'and' | 'or' | 'xor', of: readonly Expr[]): Expr {
  if (of.length === 0) return { kind: 'const', value: gate === 'and' ? 1 : 0 };
  return of.length === 1 ? (of[0] as Expr) : { kind: 'gate', gate, of, infix: true };
}
