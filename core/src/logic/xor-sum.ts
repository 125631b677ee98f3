import type { Rows } from './cover';
import { coverOf } from './set-cover';

/**
 * A product whose factors are literals and exclusive ors of two inputs. Bit k of `care` and `value`
 * belongs to the input k places from the last one, as in a cube; a pair is high when its two inputs
 * differ, or with `same` when they are equal.
 */
export interface XorProduct {
  readonly care: number;
  readonly value: number;
  readonly pairs: readonly XorPair[];
}

/** Two inputs of a product that must be equal (`same`) or differ; by their number, from 0. */
export interface XorPair {
  readonly a: number;
  readonly b: number;
  readonly same: boolean;
}

/** Most inputs of a function that is covered by such products: 4899 products to choose from. */
export const MAX_XOR_SUM_INPUTS = 6;

/** Rows as two words: rows 0 to 31, and rows 32 to 63. */
interface Two {
  readonly low: number;
  readonly high: number;
}

/** Within a word: the rows in which each of the five fastest inputs is high. */
const highIn = [0xaaaaaaaa | 0, 0xcccccccc | 0, 0xf0f0f0f0 | 0, 0xff00ff00 | 0, 0xffff0000 | 0] as const;

const inputRows = (k: number): Two => {
  const word = highIn[k];
  return word === undefined ? { low: 0, high: -1 } : { low: word, high: word };
};
const and = (a: Two, b: Two): Two => ({ low: a.low & b.low, high: a.high & b.high });
const not = (a: Two): Two => ({ low: ~a.low, high: ~a.high });
const xor = (a: Two, b: Two): Two => ({ low: a.low ^ b.low, high: a.high ^ b.high });
const meets = (a: Two, b: Two): boolean => (a.low & b.low) !== 0 || (a.high & b.high) !== 0;

/**
 * A sum of such products for one function, with the fewest products and then the lightest. Every product
 * of literals and disjoint pairs that can lose no factor is a candidate. Source: the three-level forms of
 * Ciriani, "Synthesis of SPP three-level logic networks using affine spaces" (2003), pairs alone. Null
 * for functions of more inputs than MAX_XOR_SUM_INPUTS.
 */
export async function sumOfXorProducts(on: Rows, free: Rows, inputs: number): Promise<XorProduct[] | null> {
  if (inputs > MAX_XOR_SUM_INPUTS) return null;
  const word = (rows: Rows, k: number): number => rows[k] ?? 0;
  const ones: Two = { low: word(on, 0), high: word(on, 1) };
  const all: Two = { low: inputs >= 5 ? -1 : 2 ** (2 ** inputs) - 1, high: inputs > 5 ? -1 : 0 };
  const off = and(all, not({ low: ones.low | word(free, 0), high: ones.high | word(free, 1) }));
  const primes = primesOf(inputs, all, ones, off);
  const cells = Array.from({ length: 2 ** inputs }, (_, r) => r).filter((r) => has(ones, r));
  const columns = primes.map((p) => cells.flatMap((r, i) => (has(p.rows, r) ? [i] : [])));
  const weights = primes.map(({ product: p }) => 100 + bits(p.care) * 4 + p.pairs.length * 9);
  const { taken } = await coverOf({ rows: cells.length, columns, weights }, null);
  return taken.map((c) => primes[c]?.product as XorProduct);
}

const has = (rows: Two, r: number): boolean => (((r < 32 ? rows.low : rows.high) >>> (r & 31)) & 1) === 1;

function bits(word: number): number {
  let n = 0;
  for (let rest = word; rest !== 0; rest &= rest - 1) n++;
  return n;
}

interface Prime {
  readonly product: XorProduct;
  readonly rows: Two;
}

/** A factor of a product: a literal or a pair, with the rows in which it is high. */
interface Factor {
  readonly rows: Two;
  readonly literal?: { readonly bit: number; readonly high: boolean };
  readonly pair?: XorPair;
}

/** Products that hold a row wanted and none that must be low, and would hold one without any of their factors. */
function primesOf(inputs: number, all: Two, ones: Two, off: Two): Prime[] {
  const primes: Prime[] = [];
  const rowsOfAll = (factors: readonly Factor[]): Two => factors.reduce((rows, f) => and(rows, f.rows), all);
  const visit = (k: number, factors: readonly Factor[], taken: number): void => {
    if (k < 0) {
      const rows = rowsOfAll(factors);
      if (meets(rows, off) || !meets(rows, ones)) return;
      if (factors.some((f) => !meets(rowsOfAll(factors.filter((g) => g !== f)), off))) return;
      primes.push({ product: productOf(factors), rows });
      return;
    }
    visit(k - 1, factors, taken);
    if ((taken >>> k) & 1) return;
    const own = inputRows(k);
    for (const high of [true, false])
      visit(k - 1, [...factors, { rows: high ? own : not(own), literal: { bit: 1 << k, high } }], taken);
    for (let j = k - 1; j >= 0; j--) {
      if ((taken >>> j) & 1) continue;
      const differ = xor(own, inputRows(j));
      for (const same of [false, true]) {
        const pair: Factor = { rows: same ? not(differ) : differ, pair: { a: k, b: j, same } };
        visit(k - 1, [...factors, pair], taken | (1 << j));
      }
    }
  };
  visit(inputs - 1, [], 0);
  return primes;
}

function productOf(factors: readonly Factor[]): XorProduct {
  const literals = factors.flatMap((f) => f.literal ?? []);
  return {
    care: literals.reduce((word, l) => word | l.bit, 0),
    value: literals.reduce((word, l) => word | (l.high ? l.bit : 0), 0),
    pairs: factors.flatMap((f) => f.pair ?? []),
  };
}
