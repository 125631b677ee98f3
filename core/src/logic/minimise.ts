import { elementAt } from '../element-at';
import { type Cube, irredundantCover, type Rows, rowMask, rowsOf, wordsFor } from './cover';
import type { SolveInteger } from './integer';
import { type Functions, type Product, primesOf } from './primes';
import { coverOf } from './set-cover';

/** Sums of products for several functions, products shared where that saves some. */
export interface SumOfProducts {
  readonly products: readonly Product[];
  /** No sum of fewer products, and of those none with fewer literals, does the same. */
  readonly proved: boolean;
}

/** Up to so many inputs the smallest sum of products is looked for and, time allowing, proved. */
export const MAX_EXACT_INPUTS = 10;
/** Beyond so many cells to cover, or products to choose from, a good sum is made instead of the smallest. */
const MAX_EXACT_CELLS = 6_000;
const MAX_EXACT_PRIMES = 12_000;

/**
 * The smallest sum of products of some functions: fewest products (a product that serves several counts
 * once), then fewest literals. Exact up to MAX_EXACT_INPUTS inputs; beyond, or when there is too much to
 * choose from, irredundant and prime but perhaps not the smallest, and `proved` is false.
 */
export async function minimise(functions: Functions, solve: SolveInteger | null = null): Promise<SumOfProducts> {
  if (functions.inputs <= MAX_EXACT_INPUTS) {
    const cells = functions.on.map((rows) => listRows(rows));
    const count = cells.reduce((n, list) => n + list.length, 0);
    const primes = count > MAX_EXACT_CELLS ? [] : primesOf(functions);
    if (count === 0) return { products: [], proved: true };
    if (primes.length > 0 && primes.length <= MAX_EXACT_PRIMES) {
      const { products, proved } = await exact(cells, primes, functions, solve);
      return { products: inOrder(products, functions.inputs), proved };
    }
  }
  const products = functions.on.flatMap((on, o) =>
    good(on, elementAt(functions.free, o), functions.inputs).map((cube) => ({ ...cube, serves: 1 << o })),
  );
  return { products: inOrder(shared(products), functions.inputs), proved: false };
}

/** Products as textbooks list them: by their first inputs, plain before complemented before absent. */
function inOrder(products: readonly Product[], inputs: number): Product[] {
  const rank = ({ care, value }: Cube, k: number): number => ((care >>> k) & 1 ? 1 - ((value >>> k) & 1) : 2);
  return [...products].sort((a, b) => {
    for (let k = inputs - 1; k >= 0; k--) if (rank(a, k) !== rank(b, k)) return rank(a, k) - rank(b, k);
    return 0;
  });
}

/** Literals of a cube. */
export function literalsOf({ care }: Cube): number {
  let n = 0;
  for (let rest = care; rest !== 0; rest &= rest - 1) n++;
  return n;
}

async function exact(
  cells: readonly (readonly number[])[],
  primes: readonly Product[],
  functions: Functions,
  solve: SolveInteger | null,
): Promise<SumOfProducts> {
  const offsets: number[] = [];
  let total = 0;
  const indexOf = cells.map((list) => {
    offsets.push(total);
    total += list.length;
    return new Map(list.map((row, i) => [row, i]));
  });
  const columns = primes.map((p) =>
    cells.flatMap((list, o) => {
      if (((p.serves >>> o) & 1) === 0) return [];
      const own = elementAt(indexOf, o);
      return list.flatMap((row) =>
        (row & p.care) === p.value ? [elementAt(offsets, o) + (own.get(row) as number)] : [],
      );
    }),
  );
  // Products weigh so much more than literals that one product less is always worth it.
  const weights = primes.map((p) => 1000 + literalsOf(p));
  const { taken, proved } = await coverOf({ rows: total, columns, weights }, solve);
  return {
    products: trimmed(
      taken.map((c) => elementAt(primes, c)),
      functions,
    ),
    proved,
  };
}

/** Takes from each product the functions that are covered without it. */
function trimmed(products: readonly Product[], { on, inputs }: Functions): Product[] {
  const serves = products.map((p) => p.serves);
  on.forEach((rows, o) => {
    for (let i = products.length - 1; i >= 0; i--) {
      if (((elementAt(serves, i) >>> o) & 1) === 0) continue;
      const others = products.filter((_, j) => j !== i && (elementAt(serves, j) >>> o) & 1);
      const covered = rowsOf(others, inputs);
      if (rows.every((w, k) => (w & ~elementAt(covered, k)) === 0)) serves[i] = elementAt(serves, i) & ~(1 << o);
    }
  });
  return products.flatMap((p, i) => (serves[i] === 0 ? [] : [{ ...p, serves: elementAt(serves, i) }]));
}

/** Equal products become one that serves all their functions. */
function shared(products: readonly Product[]): Product[] {
  const byCube = new Map<string, Product>();
  for (const p of products) {
    const key = `${p.care} ${p.value}`;
    byCube.set(key, { ...p, serves: p.serves | (byCube.get(key)?.serves ?? 0) });
  }
  return [...byCube.values()];
}

/** Steps over words that the good cover may spend on making its products prime. */
const EXPAND_STEPS = 40_000_000;

/** An irredundant sum of prime products: an irredundant cover, its products widened, the superfluous dropped. */
function good(on: Rows, free: Rows, inputs: number): Cube[] {
  const upper = on.map((w, i) => w | elementAt(free, i));
  const cover = irredundantCover(on, upper, inputs);
  let steps = EXPAND_STEPS;
  const fits = (cube: Cube): boolean => {
    steps -= upper.length;
    return steps > 0 && liesIn(cube, upper, inputs);
  };
  const wide = cover.map((cube) => {
    let { care, value } = cube;
    for (let k = 0; k < inputs; k++) {
      const bit = 1 << k;
      if ((care & bit) === 0 || !fits({ care: care & ~bit, value: value & ~bit })) continue;
      [care, value] = [care & ~bit, value & ~bit];
    }
    return { care, value };
  });
  return withoutSuperfluous(wide, on, inputs);
}

/** Drops, widest products first kept, every one whose rows the others have. */
function withoutSuperfluous(cubes: readonly Cube[], on: Rows, inputs: number): Cube[] {
  const sorted = [...cubes].sort((a, b) => literalsOf(a) - literalsOf(b));
  const covered = new Int32Array(wordsFor(inputs));
  const kept: Cube[] = [];
  for (const cube of sorted) {
    const rows = rowsOf([cube], inputs);
    if (!rows.some((w, i) => (w & elementAt(on, i) & ~elementAt(covered, i)) !== 0)) continue;
    kept.push(cube);
    rows.forEach((w, i) => {
      covered[i] = elementAt(covered, i) | w;
    });
  }
  return kept;
}

function liesIn(cube: Cube, rows: Rows, inputs: number): boolean {
  const own = rowsOf([cube], inputs);
  for (let i = 0; i < own.length; i++) if (elementAt(own, i) & ~elementAt(rows, i)) return false;
  return true;
}

/** The numbers of the rows in a set, in order. */
export function listRows(rows: Rows): number[] {
  const list: number[] = [];
  rows.forEach((word, i) => {
    for (let rest = word; rest !== 0; rest &= rest - 1) list.push(i * 32 + (31 - Math.clz32(rest & -rest)));
  });
  return list;
}

/** The rows where a function is low and its value matters. */
export function offRows(on: Rows, free: Rows, inputs: number): Rows {
  return on.map((w, i) => ~(w | elementAt(free, i)) & rowMask(inputs));
}
