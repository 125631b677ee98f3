import type { Candidate, Duty } from './candidate';
import { dutyKey } from './candidate';
import type { Choice } from './choice-program';
import { classOf, type FunctionNet, type Literal } from './functions';
import { type UnitKind, unitKindsOf } from './units';

/** Functions of up to so many sources are settled by trying everything. */
export const MAX_EXHAUSTED = 4;

/** What trying everything came to: a choice in so many packages, that there is none, or that it would take too long. */
export type Exhausted = { readonly found: Choice } | { readonly found: null; readonly none: boolean };

/** One kind of unit in the pool of a set of packages: its duty and how many are left. */
interface Pooled {
  readonly kind: UnitKind;
  left: number;
}

/**
 * Tries every set of `packages` packages, and with each every way to put its units to use, fewest units
 * first: functions are words of up to 16 rows, steps come in one order of all that are equal up to the order
 * of independent ones, and where as many units are left as functions wanted only those are made. `budget` is
 * the number of steps tried at most; beyond, nothing is claimed.
 */
export function exhaust(
  functions: FunctionNet,
  roots: readonly Literal[],
  chips: readonly string[],
  stock: ReadonlyMap<string, number>,
  packages: number,
  budget: number,
): Exhausted {
  const search = new Search(functions, roots, budget);
  const kinds = new Map(chips.map((n) => [n, unitKindsOf([n])]));
  const sets = multisets(distinct(chips, kinds, stock), packages).filter((set) =>
    set.every((n) => count(set, n) <= (stock.get(n) ?? packages)),
  );
  for (const set of sets.sort((a, b) => promise(b) - promise(a))) {
    const pool = poolOf(set, kinds);
    const most = pool.reduce((n, p) => n + p.left, 0);
    for (let units = search.wanted; units <= most; units++) {
      const choice = search.with(pool, units);
      if (choice) return { found: choice };
      if (search.spent) return { found: null, none: false };
    }
  }
  return { found: null, none: true };
}

/** Sets tried first: of different chips, with exclusive ors, and with units from which everything can be made. */
function promise(set: readonly string[]): number {
  const has = (n: string): number => Number(set.includes(n));
  return new Set(set).size + 2 * has('7486') + has('7400') + has('7402') + has('7451') - has('7404');
}

/** Chips without those that have the same units as one before them, of which there are enough. */
function distinct(
  chips: readonly string[],
  kinds: ReadonlyMap<string, readonly UnitKind[]>,
  stock: ReadonlyMap<string, number>,
): string[] {
  const seen = new Set<string>();
  return chips.filter((n) => {
    const key = (kinds.get(n) ?? []).map((k) => `${dutyKey(k.duty)} ${k.units.length}`).join();
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

function poolOf(set: readonly string[], kinds: ReadonlyMap<string, readonly UnitKind[]>): Pooled[] {
  const pool = new Map<UnitKind, Pooled>();
  for (const n of set)
    for (const kind of kinds.get(n) ?? []) {
      const pooled = pool.get(kind) ?? { kind, left: 0 };
      pooled.left += kind.units.length;
      pool.set(kind, pooled);
    }
  return [...pool.values()];
}

class Search {
  readonly wanted: number;
  private readonly all: number;
  private readonly sources: readonly number[];
  private readonly outputs: readonly number[];
  private readonly isWanted = new Uint8Array(65536);
  private readonly have = new Uint8Array(65536);
  /** The steps taken: the function each made, and what kind of unit made it. */
  private made: number[] = [];
  private by: Pooled[] = [];
  private tried = 0;

  constructor(
    private readonly functions: FunctionNet,
    roots: readonly Literal[],
    private readonly budget: number,
  ) {
    this.all = 2 ** (2 ** functions.sources.length) - 1;
    this.sources = functions.sources.map((_, i) => this.wordOf(2 * (i + 1)));
    const given = new Set([0, this.all, ...this.sources]);
    this.outputs = [...new Set(roots.map((l) => this.wordOf(l)).filter((f) => !given.has(f)))];
    this.wanted = this.outputs.length;
    for (const f of this.outputs) this.isWanted[f] = 1;
  }

  get spent(): boolean {
    return this.tried > this.budget;
  }

  private wordOf(l: Literal): number {
    return (this.functions.bits(l)[0] as number) & this.all;
  }

  /** A choice that uses just so many units of a pool; null when there is none, or the budget is spent. */
  with(pool: readonly Pooled[], units: number): Choice | null {
    this.have.fill(0);
    const signals: number[] = [];
    const offers = pool.map(() => [] as number[]);
    const seen = pool.map(() => new Uint8Array(8192));
    this.have[0] = this.have[this.all] = 1;
    for (const f of this.sources) {
      this.have[f] = 1;
      this.widen(pool, offers, seen, signals, f);
      signals.push(f);
    }
    this.made = [];
    this.by = [];
    return this.visit(
      pool,
      offers,
      seen,
      signals,
      units,
      this.wanted,
      offers.map(() => 0),
      -1,
    )
      ? this.choice()
      : null;
  }

  /**
   * `offers` are the functions that each kind of the pool can make of the signals there are; those from
   * `fresh` on read the newest. An older one may only follow in the order of keys.
   */
  private visit(
    pool: readonly Pooled[],
    offers: readonly number[][],
    seen: readonly Uint8Array[],
    signals: number[],
    left: number,
    missing: number,
    fresh: readonly number[],
    last: number,
  ): boolean {
    if (missing === 0) return true;
    if (left < missing) return false;
    if (left === missing) return this.finish(pool, signals, missing, last);
    // With one unit to spare, what it makes must be read at once by something wanted.
    const lastSpare = left === missing + 1;
    for (let p = 0; p < pool.length; p++) {
      const pooled = pool[p] as Pooled;
      if (pooled.left === 0) continue;
      const own = offers[p] as number[];
      for (let i = own.length - 1; i >= 0; i--) {
        const f = own[i] as number;
        if (this.have[f]) continue;
        const wanted = this.isWanted[f] === 1;
        const key = f * 64 + p;
        if (i < (fresh[p] as number) && key < last) continue;
        if (++this.tried > this.budget) return false;
        const closing = lastSpare && !wanted;
        pooled.left--;
        if (closing && !this.helps(f, pool)) {
          pooled.left++;
          continue;
        }
        this.have[f] = 1;
        this.made.push(f);
        this.by.push(pooled);
        let found: boolean;
        if (closing) {
          signals.push(f);
          found = this.finish(pool, signals, missing, key);
          if (!found) signals.pop();
        } else {
          const marks = offers.map((list) => list.length);
          this.widen(pool, offers, seen, signals, f);
          signals.push(f);
          found = this.visit(pool, offers, seen, signals, left - 1, missing - (wanted ? 1 : 0), marks, key);
          if (!found) {
            signals.pop();
            this.narrow(offers, seen, marks);
          }
        }
        if (found) return true;
        this.made.pop();
        this.by.pop();
        this.have[f] = 0;
        pooled.left++;
        if (this.tried > this.budget) return false;
      }
    }
    return false;
  }

  /** Makes all that is still missing with no unit to spare. */
  private finish(pool: readonly Pooled[], signals: number[], missing: number, last: number): boolean {
    if (missing === 0) return true;
    for (let o = 0; o < this.outputs.length; o++) {
      const f = this.outputs[o] as number;
      if (this.have[f]) continue;
      for (let p = 0; p < pool.length; p++) {
        const pooled = pool[p] as Pooled;
        if (pooled.left === 0) continue;
        const { duty } = pooled.kind;
        const key = f * 64 + p;
        if (!this.makeable(f, duty, signals, signals.length)) continue;
        if (key < last && this.makeable(f, duty, signals, signals.length - 1)) continue;
        this.tried++;
        pooled.left--;
        this.have[f] = 1;
        this.made.push(f);
        this.by.push(pooled);
        signals.push(f);
        if (this.finish(pool, signals, missing - 1, key)) return true;
        signals.pop();
        this.made.pop();
        this.by.pop();
        this.have[f] = 0;
        pooled.left++;
      }
    }
    return false;
  }

  /** Whether any missing function could be made at once with a signal: one that cannot is of no use as the last to spare. */
  private helps(g: number, pool: readonly Pooled[]): boolean {
    for (let p = 0; p < pool.length; p++) {
      const { kind, left } = pool[p] as Pooled;
      if (left === 0) continue;
      const what = kind.duty.kind;
      if (what === 'xor' || what === 'xnor' || what === 'aoi') return true;
      for (let o = 0; o < this.outputs.length; o++) {
        const f = this.outputs[o] as number;
        if (this.have[f]) continue;
        const t = what === 'and' || what === 'or' ? f : this.all & ~f;
        const of = what === 'not' ? t === g : what === 'and' || what === 'nand' ? (t & ~g) === 0 : (g & ~t) === 0;
        if (of) return true;
      }
    }
    return false;
  }

  /** Whether a unit can make a function of the first `n` signals. */
  private makeable(f: number, { kind, width }: Duty, signals: readonly number[], n: number): boolean {
    const opposite = this.all & ~f;
    switch (kind) {
      case 'not':
        return this.among(opposite, signals, n);
      case 'xor':
      case 'xnor': {
        const g = kind === 'xor' ? f : opposite;
        if (this.among(opposite, signals, n)) return true;
        for (let i = 0; i < n; i++) if (this.among((signals[i] as number) ^ g, signals, i)) return true;
        return false;
      }
      case 'and':
        return this.isProduct(f, width, signals, n);
      case 'nand':
        return this.isProduct(opposite, width, signals, n);
      case 'or':
        return this.isSum(f, width, signals, n);
      case 'nor':
        return this.isSum(opposite, width, signals, n);
      case 'aoi':
        return this.isSumOfTwoProducts(opposite, width, signals, n);
    }
  }

  private among(g: number, signals: readonly number[], n: number): boolean {
    if (!this.have[g]) return false;
    for (let i = 0; i < n; i++) if (signals[i] === g) return true;
    return false;
  }

  private isProduct(t: number, width: number, signals: readonly number[], n: number): boolean {
    let rest = this.all;
    for (let i = 0; i < n; i++) if ((t & ~(signals[i] as number)) === 0) rest &= signals[i] as number;
    return rest === t && this.gathers(t, this.all, 0, width, signals, n);
  }

  /** Whether up to `room` more signals that hold `t` bring `value` down to it. */
  private gathers(
    t: number,
    value: number,
    from: number,
    room: number,
    signals: readonly number[],
    n: number,
  ): boolean {
    if (value === t) return true;
    if (room === 0) return false;
    for (let i = from; i < n; i++) {
      const s = signals[i] as number;
      if ((t & ~s) === 0 && this.gathers(t, value & s, i + 1, room - 1, signals, n)) return true;
    }
    return false;
  }

  private isSum(t: number, width: number, signals: readonly number[], n: number): boolean {
    let sum = 0;
    for (let i = 0; i < n; i++) if (((signals[i] as number) & ~t) === 0) sum |= signals[i] as number;
    return sum === t && this.adds(t, 0, 0, width, signals, n);
  }

  private adds(t: number, value: number, from: number, room: number, signals: readonly number[], n: number): boolean {
    if (value === t) return true;
    if (room === 0) return false;
    for (let i = from; i < n; i++) {
      const s = signals[i] as number;
      if ((s & ~t) === 0 && this.adds(t, value | s, i + 1, room - 1, signals, n)) return true;
    }
    return false;
  }

  private isSumOfTwoProducts(t: number, width: number, signals: readonly number[], n: number): boolean {
    const within: number[] = [];
    let sum = 0;
    const visit = (from: number, value: number, room: number): void => {
      for (let i = from; i < n; i++) {
        const v = value & (signals[i] as number);
        if ((v & ~t) === 0) {
          sum |= v;
          if (v !== 0) within.push(v);
        } else if (room > 1) visit(i + 1, v, room - 1);
      }
    };
    visit(0, this.all, width);
    if (sum !== t) return false;
    for (let i = 0; i < within.length; i++)
      for (let j = i; j < within.length; j++) if (((within[i] as number) | (within[j] as number)) === t) return true;
    return false;
  }

  /** Adds what each kind can make with a new signal. */
  private widen(
    pool: readonly Pooled[],
    offers: readonly number[][],
    seen: readonly Uint8Array[],
    signals: readonly number[],
    f: number,
  ): void {
    pool.forEach(({ kind, left }, p) => {
      if (left === 0) return;
      const marks = seen[p] as Uint8Array;
      const list = offers[p] as number[];
      this.eachMade(kind.duty, signals, f, (g) => {
        if (g === 0 || g === this.all || ((marks[g >> 3] as number) >> (g & 7)) & 1) return;
        (marks[g >> 3] as number) |= 1 << (g & 7);
        list.push(g);
      });
    });
  }

  private narrow(offers: readonly number[][], seen: readonly Uint8Array[], to: readonly number[]): void {
    offers.forEach((list, p) => {
      const marks = seen[p] as Uint8Array;
      while (list.length > (to[p] as number)) {
        const g = list.pop() as number;
        (marks[g >> 3] as number) &= ~(1 << (g & 7));
      }
    });
  }

  /** Calls for each function that a unit makes of a signal with others before it; spare inputs are joined or tied. */
  private eachMade(duty: Duty, signals: readonly number[], f: number, visit: (g: number) => void): void {
    const { all } = this;
    const { kind, width } = duty;
    if (kind === 'not') visit(all & ~f);
    else if (kind === 'xor' || kind === 'xnor') {
      visit(all & ~f);
      for (const s of signals) visit(all & (kind === 'xor' ? s ^ f : ~(s ^ f)));
    } else if (kind === 'aoi') {
      const both = [...signals, f];
      const withF = productsOf(signals, width - 1).map((x) => x & f);
      const every = productsOf(both, width);
      for (const a of withF) for (const b of every) visit(all & ~(a | b));
    } else {
      const inverted = kind === 'nand' || kind === 'nor';
      const isAnd = kind === 'and' || kind === 'nand';
      const gather = (from: number, value: number, room: number): void => {
        visit(all & (inverted ? ~value : value));
        if (room === 0) return;
        for (let i = from; i < signals.length; i++) {
          const s = signals[i] as number;
          gather(i + 1, isAnd ? value & s : value | s, room - 1);
        }
      };
      gather(0, f, width - 1);
    }
  }

  /** The steps found, as ways over literals. */
  private choice(): Choice {
    const ways: Candidate[] = [];
    const service = new Map<string, UnitKind[]>();
    const signals = [...this.sources];
    for (const [i, f] of this.made.entries()) {
      const pooled = this.by[i] as Pooled;
      const { duty, inputs } = this.wayTo(f, pooled.kind.duty, signals);
      ways.push({ makes: this.literal(f), duty, inputs: inputs.map((g) => this.literal(g)) });
      service.set(dutyKey(duty), [...(service.get(dutyKey(duty)) ?? []), pooled.kind]);
      signals.push(f);
    }
    return { ways, inverters: [], service };
  }

  private literal(f: number): Literal {
    return this.functions.add(Int32Array.of(f), 1 + (this.functions.depth[classOf(2)] ?? 0));
  }

  /** The duty and inputs, fewest first, by which a unit makes a function of signals. */
  private wayTo(f: number, unit: Duty, signals: readonly number[]): { duty: Duty; inputs: number[] } {
    const inverting = unit.kind !== 'and' && unit.kind !== 'or';
    const single = inverting && signals.find((s) => (this.all & ~s) === f);
    if (single !== false && single !== undefined) return { duty: { kind: 'not', width: 1 }, inputs: [single] };
    if (unit.kind === 'aoi') return this.aoiTo(f, unit.width, signals);
    for (let width = 2; width <= unit.width; width++) {
      const inputs = this.setTo(f, unit, width, signals);
      if (inputs) return { duty: { kind: unit.kind, width } as Duty, inputs };
    }
    throw new Error('a step cannot be done again');
  }

  private setTo(f: number, { kind }: Duty, width: number, signals: readonly number[]): number[] | null {
    const value = (of: readonly number[]): number => {
      const odd = kind === 'xor' || kind === 'xnor';
      const isAnd = kind === 'and' || kind === 'nand';
      const v = of.reduce((a, b) => (odd ? a ^ b : isAnd ? a & b : a | b));
      return this.all & (kind === 'nand' || kind === 'nor' || kind === 'xnor' ? ~v : v);
    };
    const visit = (from: number, taken: number[]): number[] | null => {
      if (taken.length === width) return value(taken) === f ? taken : null;
      for (let i = from; i < signals.length; i++) {
        const found = visit(i + 1, [...taken, signals[i] as number]);
        if (found) return found;
      }
      return null;
    };
    return visit(0, []);
  }

  private aoiTo(f: number, width: 2 | 3, signals: readonly number[]): { duty: Duty; inputs: number[] } {
    const sets = subsets(signals, width);
    const product = (set: readonly number[]): number => set.reduce((a, b) => a & b, this.all);
    for (const a of sets)
      for (const b of sets) {
        if ((this.all & ~(product(a) | product(b))) !== f) continue;
        const wide = (Math.max(a.length, b.length) > 2 ? 3 : 2) as 2 | 3;
        const filled = (set: readonly number[]): number[] =>
          Array.from({ length: wide }, (_, i) => set[i] ?? (set[0] as number));
        return { duty: { kind: 'aoi', width: wide }, inputs: [...filled(a), ...filled(b)] };
      }
    throw new Error('a step cannot be done again');
  }
}

/** Sets of one to `most` of some signals. */
function subsets(signals: readonly number[], most: number): number[][] {
  const found: number[][] = [];
  const visit = (from: number, taken: number[]): void => {
    if (taken.length > 0) found.push(taken);
    if (taken.length === most) return;
    for (let i = from; i < signals.length; i++) visit(i + 1, [...taken, signals[i] as number]);
  };
  visit(0, []);
  return found.sort((a, b) => a.length - b.length);
}

/** Products of up to `most` of some signals, the empty one among them, each once. */
function productsOf(signals: readonly number[], most: number): number[] {
  const found = new Set<number>([-1]);
  const visit = (from: number, value: number, room: number): void => {
    if (room === 0) return;
    for (let i = from; i < signals.length; i++) {
      const v = value & (signals[i] as number);
      found.add(v);
      visit(i + 1, v, room - 1);
    }
  };
  visit(0, -1, most);
  return [...found];
}
