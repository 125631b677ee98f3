import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';

/** What a unit is asked to do: a gate kind with a number of inputs, or an AND-OR-invert of products of two or three. */
export type Duty =
  | { readonly kind: 'not' | 'and' | 'or' | 'nand' | 'nor' | 'xor' | 'xnor'; readonly width: number }
  | { readonly kind: 'aoi'; readonly width: 2 | 3 };

/** A key for a duty: `nand3`, `aoi2`. */
export const dutyKey = (duty: Duty): string => `${duty.kind}${duty.width}`;

/** A way to make a literal by one unit from others; an AND-OR-invert has the inputs of its first product, then the second's. */
export interface Candidate {
  readonly makes: Literal;
  readonly duty: Duty;
  readonly inputs: readonly Literal[];
}

/** A key that is equal for ways that do the same. */
export const candidateKey = ({ makes, duty, inputs }: Candidate): string =>
  `${makes} ${dutyKey(duty)} ${(duty.kind === 'aoi' ? [...inputs] : [...inputs].sort((a, b) => a - b)).join(' ')}`;

/** Literals implied by one that are looked at, and sets of literals that are offered in all; more only slow the solver down. */
const MAX_IMPLIED = 40;
const SETS_IN_ALL = 200;

/**
 * Every way, within bounds, to make the functions of a design from each other: products of two to four
 * earlier literals, by AND, NAND, and by De Morgan NOR and OR; exclusive ors in their four polarities;
 * AND-OR-inverts; and the wide gates of the design itself. What a way reads comes before what it makes in
 * one order of all classes, so no choice of ways can hold a loop. `sets` bounds the products offered beside
 * those that the design's own structure has.
 */
export function candidatesOf(functions: FunctionNet, netlist: Netlist, sets = SETS_IN_ALL): Candidate[] {
  const rank = ranksOf(functions);
  const found = new Map<string, Candidate>();
  const offer = (makes: Literal, duty: Duty, inputs: readonly Literal[]): void => {
    const strategy = { makes, duty, inputs };
    const key = candidateKey(strategy);
    if (!found.has(key)) found.set(key, strategy);
  };
  const products = new Map<Literal, Literal[][]>();
  const product = (makes: Literal, of: readonly Literal[]): void => {
    const width = of.length;
    products.set(makes, [...(products.get(makes) ?? []), [...of]]);
    offer(makes, { kind: 'and', width }, of);
    offer(inverse(makes), { kind: 'nand', width }, of);
    offer(makes, { kind: 'nor', width }, of.map(inverse));
    offer(inverse(makes), { kind: 'or', width }, of.map(inverse));
  };
  const each = sets === 0 ? 0 : Math.max(2, Math.min(24, Math.ceil(sets / (2 * functions.count))));
  for (const { makes, kind, of } of functions.steps) {
    const late = (x: Literal): boolean => elementAt(rank, classOf(x)) >= elementAt(rank, classOf(makes));
    if (classOf(makes) === 0 || of.some(late)) continue;
    if (kind === 'and') product(makes, of);
    if (kind === 'or') product(inverse(makes), of.map(inverse));
    const [a, b] = of;
    if (kind !== 'xor' || of.length !== 2 || a === undefined || b === undefined) continue;
    offer(makes, { kind: 'xor', width: 2 }, [a, b]);
    offer(inverse(makes), { kind: 'xnor', width: 2 }, [a, b]);
    offer(inverse(makes), { kind: 'xor', width: 2 }, [inverse(a), b]);
  }
  for (const { inputs, output, kind } of netlist.gates) {
    const l = functions.ofNet(output);
    const of = [...new Set(inputs.map((n) => functions.ofNet(n)))];
    if (of.length < 2 || classOf(l) === 0 || of.some((x) => elementAt(rank, classOf(x)) >= elementAt(rank, classOf(l))))
      continue;
    if (kind === 'and' || kind === 'nand') product(kind === 'and' ? l : inverse(l), of);
    if (kind === 'or' || kind === 'nor') product(kind === 'nor' ? l : inverse(l), of.map(inverse));
  }
  for (let c = functions.sources.length + 1; c < functions.count; c++)
    for (const l of [2 * c, 2 * c + 1]) {
      const sets = each === 0 ? [] : productsFor(functions, rank, l, each);
      for (const of of sets) product(l, of);
    }
  for (let c = functions.sources.length + 1; c < functions.count; c++) {
    for (const [a, b] of xorPairs(functions, rank, c, each === 0 ? 0 : Math.ceil(each / 2)))
      for (const [x, y, makes] of [
        [a, b, 2 * c],
        [inverse(a), b, 2 * c + 1],
        [a, inverse(b), 2 * c + 1],
        [inverse(a), inverse(b), 2 * c],
      ] as const) {
        offer(makes, { kind: 'xor', width: 2 }, [x, y]);
        offer(inverse(makes), { kind: 'xnor', width: 2 }, [x, y]);
      }
    for (const l of [2 * c, 2 * c + 1])
      for (const aoi of andOrInverts(products, rank, l, Math.max(2, Math.ceil(each / 2))))
        offer(l, aoi.duty, aoi.inputs);
  }
  return [...found.values()];
}

/** The place of each class in the order in which classes may read each other: by depth, then as they came. */
export function ranksOf(functions: FunctionNet): number[] {
  const order = Array.from({ length: functions.count }, (_, c) => c).sort(
    (a, b) => elementAt(functions.depth, a) - elementAt(functions.depth, b) || a - b,
  );
  const rank: number[] = new Array(functions.count).fill(0);
  order.forEach((c, i) => {
    rank[c] = i;
  });
  return rank;
}

/** Sets of two to four earlier literals whose product is a literal, none holding a smaller such set. */
function productsFor(functions: FunctionNet, rank: readonly number[], l: Literal, each: number): Literal[][] {
  const f = functions.bits(l);
  const implied: { literal: Literal; bits: Int32Array; extra: number }[] = [];
  for (let c = 1; c < functions.count; c++) {
    if (elementAt(rank, c) >= elementAt(rank, classOf(l))) continue;
    for (const g of [2 * c, 2 * c + 1]) {
      const bits = functions.bits(g);
      const extra = extraRows(f, bits);
      if (extra >= 0) implied.push({ literal: g, bits, extra });
    }
  }
  implied.sort((a, b) => a.extra - b.extra);
  const near = implied.slice(0, MAX_IMPLIED);
  const sets: Literal[][] = [];
  const pick = (size: number, among: typeof near, most: number): void => {
    let count = 0;
    const taken: number[] = [];
    const visit = (from: number, bits: Int32Array | null): void => {
      if (count >= most) return;
      if (taken.length === size) {
        if (!bits || !same(bits, f)) return;
        const set = taken.map((i) => elementAt(among, i).literal);
        if (sets.some((s) => s.length < size && s.every((x) => set.includes(x)))) return;
        sets.push(set);
        count++;
        return;
      }
      for (let i = from; i < among.length; i++) {
        const next = elementAt(among, i).bits;
        taken.push(i);
        visit(i + 1, bits ? bits.map((w, k) => w & elementAt(next, k)) : next);
        taken.pop();
      }
    };
    visit(0, null);
  };
  pick(2, near, each);
  pick(3, near.slice(0, 24), Math.ceil(each / 2));
  pick(4, near.slice(0, 14), Math.ceil(each / 4));
  return sets;
}

/** Rows of `g` outside `f`; -1 when `f` is not within `g`. */
function extraRows(f: Int32Array, g: Int32Array): number {
  let extra = 0;
  for (let w = 0; w < f.length; w++) {
    const [a, b] = [elementAt(f, w), elementAt(g, w)];
    if ((a & ~b) !== 0) return -1;
    let rest = b & ~a;
    rest -= (rest >>> 1) & 0x55555555;
    rest = (rest & 0x33333333) + ((rest >>> 2) & 0x33333333);
    extra += Math.imul((rest + (rest >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
  }
  return extra;
}

function same(a: Int32Array, b: Int32Array): boolean {
  for (let w = 0; w < a.length; w++) if (a[w] !== b[w]) return false;
  return true;
}

/** Pairs of earlier literals whose exclusive or is the class's own function. */
function xorPairs(functions: FunctionNet, rank: readonly number[], c: number, most: number): [Literal, Literal][] {
  const pairs: [Literal, Literal][] = [];
  const f = elementAt(functions.tables, c);
  for (let a = 1; a < functions.count && pairs.length < most; a++) {
    if (elementAt(rank, a) >= elementAt(rank, c)) continue;
    const other = elementAt(functions.tables, a);
    const b = functions.find(f.map((w, k) => w ^ elementAt(other, k)));
    if (b === null || classOf(b) <= a || elementAt(rank, classOf(b)) >= elementAt(rank, c)) continue;
    pairs.push([2 * a, b]);
  }
  return pairs;
}

/** AND-OR-inverts that make a literal: its complement as a sum of two products, or of a product and a literal. */
function andOrInverts(
  products: ReadonlyMap<Literal, readonly (readonly Literal[])[]>,
  rank: readonly number[],
  l: Literal,
  most: number,
): { duty: Duty; inputs: Literal[] }[] {
  const found: { duty: Duty; inputs: Literal[] }[] = [];
  const rankOf = (x: Literal): number => elementAt(rank, classOf(x));
  const sidesOf = (x: Literal, width: 2 | 3): Literal[][] => {
    const single = Array.from({ length: width }, () => x);
    const sets = (products.get(x) ?? []).filter((s) => s.length <= width);
    return [
      ...sets.map((s) => [...s, ...single].slice(0, width).map((v, i) => (i < s.length ? v : elementAt(s, 0)))),
      single,
    ];
  };
  // The literal is the product of the complements of the two sides.
  for (const set of products.get(l) ?? []) {
    const [a, b] = set.map(inverse);
    if (set.length !== 2 || a === undefined || b === undefined) continue;
    for (const width of [2, 3] as const)
      for (const x of sidesOf(a, width))
        for (const y of sidesOf(b, width)) {
          const inputs = [...x, ...y];
          if (found.length >= most || new Set(inputs).size <= 2) continue;
          if (width === 3 && new Set(x).size < 3 && new Set(y).size < 3) continue;
          if (inputs.every((v) => rankOf(v) < rankOf(l))) found.push({ duty: { kind: 'aoi', width }, inputs });
        }
  }
  return found;
}

/** The ways that make their function as early as any way does, each unit counted as one. */
export function earliest(candidates: readonly Candidate[], sources: number): Candidate[] {
  const at = new Map<number, number>([
    [0, 0],
    [1, 0],
  ]);
  for (let i = 1; i <= sources; i++) at.set(2 * i, 0).set(2 * i + 1, 1);
  const timeOf = (c: Candidate): number => 1 + Math.max(...c.inputs.map((l) => at.get(l) ?? Number.POSITIVE_INFINITY));
  for (let changed = true; changed; ) {
    changed = false;
    for (const c of candidates) {
      const t = timeOf(c);
      for (const [l, time] of [
        [c.makes, t],
        [c.makes ^ 1, t + 1],
      ] as const) {
        if (time >= (at.get(l) ?? Number.POSITIVE_INFINITY)) continue;
        at.set(l, time);
        changed = true;
      }
    }
  }
  return candidates.filter((c) => timeOf(c) <= (at.get(c.makes) ?? 0));
}
