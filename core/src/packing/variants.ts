import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import {
  addRow,
  type Expr,
  exprOfCover,
  factored,
  minimise,
  offRows,
  type Rows,
  rowBit,
  withXor,
  wordsFor,
} from '../logic';
import { classOf, type FunctionNet, type Literal } from './functions';

/** Cones of up to so many sources get other structures offered beside their own. */
const MAX_CONE = 4;
/** The most outputs whose cones are restated. */
const MAX_RESTATED = 16;

/**
 * Adds other structures of a design's small cones to its functions: smallest sums of products of each
 * function and of its complement, these factored, forms with exclusive ors, and Shannon's expansion by
 * each source. Only functions are added: which of them are made is for the integer program to say.
 */
export async function addVariants(functions: FunctionNet, netlist: Netlist): Promise<void> {
  const roots = netlist.outputs.map((o) => o.net);
  const seen = new Set<number>();
  for (const net of roots) {
    const l = functions.ofNet(net);
    if (seen.has(classOf(l)) || functions.isSource(classOf(l)) || classOf(l) === 0) continue;
    seen.add(classOf(l));
    if (seen.size > MAX_RESTATED) return;
    const support = supportOf(functions, l);
    if (support === null || support.length < 2) continue;
    const names = support.map((i) => elementAt(functions.sources, i));
    const { on, free } = localRows(functions, l, support);
    for (const e of await formsOf(on, free, names)) functions.expr(e);
    expandByEach(functions, on, names);
  }
}

/** The sources that a literal depends on, by index; null when there are over MAX_CONE, or not all rows are known. */
function supportOf(functions: FunctionNet, l: Literal): number[] | null {
  if (!functions.exact) return null;
  // With rows left out, what depends on what is a matter of choice.
  if (functions.freeRows > 0) return functions.sources.length <= MAX_CONE ? functions.sources.map((_, i) => i) : null;
  const bits = functions.bits(l);
  const n = functions.sources.length;
  const support: number[] = [];
  for (let i = 0; i < n; i++) {
    if (!dependsOn(bits, n - 1 - i, n)) continue;
    support.push(i);
    if (support.length > MAX_CONE) return null;
  }
  return support;
}

/** Within a word: the rows in which each of the five fastest inputs is low. */
const lowIn = [0x55555555, 0x33333333, 0x0f0f0f0f, 0x00ff00ff, 0x0000ffff] as const;

function dependsOn(bits: Int32Array, k: number, n: number): boolean {
  if (k < 5) {
    const low = n >= 5 ? -1 : 2 ** (2 ** n) - 1;
    return bits.some((w) => ((w ^ (w >>> (1 << k))) & elementAt(lowIn, k) & low) !== 0);
  }
  const step = 1 << (k - 5);
  return bits.some((w, i) => (i & step) === 0 && w !== bits[i + step]);
}

/** The function over its support alone, its first source the most significant, and the rows of that which do not matter. */
function localRows(functions: FunctionNet, l: Literal, support: readonly number[]): { on: Rows; free: Rows } {
  const bits = functions.bits(l);
  const n = functions.sources.length;
  const on = new Int32Array(wordsFor(support.length));
  const free = new Int32Array(on.length);
  for (let r = 0; r < 2 ** support.length; r++) {
    const row = support.reduce((at, i, k) => at | (((r >>> (support.length - 1 - k)) & 1) << (n - 1 - i)), 0);
    if (functions.isFree(row)) addRow(free, r);
    else if (rowBit(bits, row)) addRow(on, r);
  }
  return { on, free };
}

async function formsOf(on: Rows, free: Rows, names: readonly string[]): Promise<Expr[]> {
  const inputs = names.length;
  const off = offRows(on, free, inputs);
  const [ones, zeros] = [
    await minimise({ inputs, on: [on], free: [free] }),
    await minimise({ inputs, on: [off], free: [free] }),
  ];
  const xor = await withXor(on, free, names);
  return [
    exprOfCover(ones.products, names),
    exprOfCover(zeros.products, names),
    factored(ones.products, names),
    factored(zeros.products, names),
    ...(xor ? [xor] : []),
  ];
}

/** `x·f1 + x'·f0` by each source, down to single sources. */
function expandByEach(functions: FunctionNet, on: Rows, names: readonly string[]): void {
  const n = names.length;
  const all = 2 ** (2 ** n) - 1;
  const literals = names.map((name) => functions.ofNet(name));
  const made = new Map<number, Literal>();
  const make = (f: number, left: readonly number[]): Literal => {
    if (f === 0) return 0;
    if ((f & all) === all) return 1;
    const known = made.get(f);
    if (known !== undefined) return known;
    const [i, ...rest] = left;
    if (i === undefined) return 0;
    const k = n - 1 - i;
    const low = elementAt(lowIn, k);
    const [f0, f1] = [f & low & all, (f >>> (1 << k)) & low & all];
    const spread = (g: number): number => (g | (g << (1 << k))) & all;
    if (f0 === f1) return make(f, rest);
    const [zero, one] = [make(spread(f0), rest), make(spread(f1), rest)];
    const x = elementAt(literals, i);
    const sum = functions.wide('or', [functions.wide('and', [x, one]), functions.wide('and', [x ^ 1, zero])]);
    made.set(f, sum);
    return sum;
  };
  const order = names.map((_, i) => i);
  make(elementAt(on, 0) & all, order);
}
