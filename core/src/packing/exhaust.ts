import { rarity } from '../catalogue';
import { elementAt } from '../element-at';
import type { MadeVector, PooledUnits, Steps } from './assign';
import { dutyKey } from './candidate';
import type { Choice } from './choice-program';
import { FunctionSearch, isPlain } from './function-search';
import { classOf, type FunctionNet, type Literal } from './functions';
import { choiceOf } from './selection-reconstruction';
import { type UnitKind, unitKindsOf } from './units';

/** Functions of up to so many sources are settled by trying everything. */
export const MAX_EXHAUSTED = 4;

/** What trying everything came to: a choice in so many packages, that there is none, or that it would take too long. */
export type Exhausted = { readonly found: Choice } | { readonly found: null; readonly none: boolean };

/** A set of packages: its units by what they make, and the kinds of unit in the same order. */
interface PackageSet {
  readonly pool: readonly PooledUnits[];
  readonly kinds: readonly UnitKind[];
}

/** A set in which nothing was found with so many functions beside those wanted, though more was allowed than there is. */
interface Excluded extends PackageSet {
  readonly spare: number;
}

/**
 * Exact synthesis over packages: every multiset of `packages` packages, and in each every Boolean chain, shortest first (`FunctionSearch`). A
 * multiset that fails rules out all that it dominates, those with no more of anything that the search counts. `steps` bounds the work;
 * beyond it nothing is claimed.
 */
export function exhaust(
  functions: FunctionNet,
  roots: readonly Literal[],
  {
    chips,
    stock,
    packages,
  }: { readonly chips: readonly string[]; readonly stock: ReadonlyMap<string, number>; readonly packages: number },
  { steps, until = Number.POSITIVE_INFINITY }: { readonly steps: number; readonly until?: number | undefined },
): Exhausted {
  const words = new Words(functions);
  const given = new Set([0, words.all, ...words.sources]);
  const wanted = [...new Set(roots.map((l) => words.ofLiteral(l)).filter((f) => !given.has(f)))];
  const left: Steps = { left: steps, until };
  const sets = multisets(distinct(chips, stock), packages)
    .filter((set) => set.every((n) => count(set, n) <= (stock.get(n) ?? packages)))
    .sort((a, b) => (packages === 1 ? rareness(a) - rareness(b) : promise(b) - promise(a)))
    .map(setOf)
    // Sets of more kinds come first: they speak for the others.
    .sort((a, b) => (packages === 1 ? 0 : plainKinds(b).size - plainKinds(a).size));
  const searchOf = ({ pool }: PackageSet) =>
    new FunctionSearch({ all: words.all, sources: words.sources, wanted, pool, steps: left });
  const rooms = sets.map((set) => searchOf(set).room);
  const excluded: Excluded[] = [];
  for (let spare = 0; spare <= Math.max(-1, ...rooms); spare++)
    for (const [i, set] of sets.entries()) {
      if (elementAt(rooms, i) < spare || excluded.some((e) => e.spare >= spare && holds(e, set))) continue;
      const search = searchOf(set);
      const made = search.find(spare);
      if (made) return { found: words.choice(made, set.kinds) };
      if (left.left < 0) return { found: null, none: false };
      if (search.refused === 0) excluded.push({ ...set, spare });
    }
  return { found: null, none: true };
}

/** The functions of a net as words over the rows that matter: bit r is the value in the r-th of them. */
class Words {
  readonly all: number;
  readonly sources: readonly number[];
  private readonly rows: readonly number[];

  constructor(private readonly functions: FunctionNet) {
    const { sources } = functions;
    this.rows = Array.from({ length: 2 ** sources.length }, (_, r) => r).filter((r) => !functions.isFree(r));
    this.all = 2 ** this.rows.length - 1;
    this.sources = sources.map((_, i) => this.ofLiteral(2 * (i + 1)));
  }

  ofLiteral(l: Literal): number {
    const bits = elementAt(this.functions.bits(l), 0);
    return this.rows.reduce((word, row, r) => word | (((bits >>> row) & 1) << r), 0);
  }

  choice(made: readonly MadeVector[], kinds: readonly UnitKind[]): Choice {
    return choiceOf(made, { sources: this.sources, all: this.all, kinds }, (word) => this.literalOf(word));
  }

  private literalOf(word: number): Literal {
    const { functions, rows } = this;
    // Rows that do not matter are like row 0, as everywhere.
    let bits = word & 1 ? functions.mask : 0;
    for (const [r, row] of rows.entries()) bits = (word >>> r) & 1 ? bits | (1 << row) : bits & ~(1 << row);
    return functions.add(Int32Array.of(bits), 1 + (functions.depth[classOf(2)] ?? 0));
  }
}

const rareness = (set: readonly string[]): number => set.reduce((sum, n) => sum + rarity(n), 0);

/** Sets tried first: of different chips, with exclusive ors, and with units from which everything can be made. */
function promise(set: readonly string[]): number {
  const has = (n: string): number => Number(set.includes(n));
  return new Set(set).size + 2 * has('7486') + has('7400') + has('7402') + has('7451') - has('7404');
}

/** Chips without those that have the same units as one before them, of which there are enough. */
function distinct(chips: readonly string[], stock: ReadonlyMap<string, number>): string[] {
  const seen = new Set<string>();
  return chips.filter((n) => {
    const key = unitKindsOf([n])
      .map((k) => `${dutyKey(k.duty)} ${k.units.length}`)
      .join();
    if (seen.has(key) && stock.size === 0) return false;
    seen.add(key);
    return true;
  });
}

const count = (set: readonly string[], n: string): number => set.filter((x) => x === n).length;

function multisets(of: readonly string[], size: number): string[][] {
  if (size === 0) return [[]];
  return of.flatMap((n, i) => multisets(of.slice(i), size - 1).map((rest) => [n, ...rest]));
}

function setOf(numbers: readonly string[]): PackageSet {
  const units = new Map<UnitKind, number>();
  const byNumber = new Map([...new Set(numbers)].map((n) => [n, unitKindsOf([n])]));
  for (const n of numbers)
    for (const kind of byNumber.get(n) ?? []) units.set(kind, (units.get(kind) ?? 0) + kind.units.length);
  return { kinds: [...units.keys()], pool: [...units].map(([{ duty }, count]) => ({ duty, count })) };
}

const plainKinds = ({ pool }: PackageSet): ReadonlySet<string> => new Set(pool.filter(isPlain).map((p) => p.duty.kind));

/** Units of more than two inputs, by kind: how many, and how wide the widest is. */
function wideUnits({ pool }: PackageSet): ReadonlyMap<string, { readonly units: number; readonly width: number }> {
  const found = new Map<string, { units: number; width: number }>();
  for (const p of pool) {
    if (isPlain(p)) continue;
    const before = found.get(p.duty.kind);
    const width = Math.max(before?.width ?? 0, p.duty.width);
    found.set(p.duty.kind, { units: (before?.units ?? 0) + p.count, width });
  }
  return found;
}

/** Dominance: whether one set has every kind of two-input unit that another has, and as many wide gates of each kind. */
function holds(one: PackageSet, other: PackageSet): boolean {
  const [kinds, wide] = [plainKinds(one), wideUnits(one)];
  // With inverters a function and its complement are counted as one.
  if (kinds.has('not') !== plainKinds(other).has('not')) return false;
  if (![...plainKinds(other)].every((k) => kinds.has(k))) return false;
  return [...wideUnits(other)].every(([kind, { units, width }]) => {
    const own = wide.get(kind);
    return own !== undefined && own.units >= units && own.width >= width;
  });
}
