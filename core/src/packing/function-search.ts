import { assign, type MadeVector, type PooledUnits, type Steps } from './assign';
import type { Duty } from './candidate';
import { NarrowVectors } from './narrow-vectors';
import { type Helpers, type Searched, TargetPruning } from './target-pruning';
import { UnitVectors } from './unit-vectors';

/** Wide gates: units of more than two inputs, or of two levels. They make many functions and are few, so their use is counted kind by kind. */
interface Wide {
  readonly duty: Duty;
  /** Their bit among the functions left out. */
  readonly bit: number;
  left: number;
}

const MOST_SIGNALS = 64;
/** Steps that a set of functions takes beside those counted one by one. */
const STEPS_A_VISIT = 100;
/** Visits between two looks at the clock. */
const LOOK = 1024;

/** Whether a kind of unit makes functions of two signals at most. */
export const isPlain = ({ duty: { kind, width } }: PooledUnits): boolean => kind !== 'aoi' && width <= 2;

/**
 * Exact synthesis for a set of packages: is there a Boolean chain from the sources to all targets whose steps are units of the set? Functions are
 * truth vectors, one bit for each row that matters.
 *
 * The search is depth first, over the *sets* of intermediate functions of a chain and not over its wirings: a target counts as reached as soon as
 * some unit could make it of the signals at hand (`close`), so that only intermediates are branched on. It is a relaxation: units of two inputs are
 * counted together, wide gates by kind, and with inverters in the set a function and its complement are one. A set that passes is then held to
 * the very units (`assign`); where the relaxation finds none, there is none.
 *
 * Symmetry is broken as in orderly enumeration: a function that was branched on is excluded from the rest of its level, so that no set comes
 * twice. Branches are cut by the unreached targets (`TargetPruning`): those that no two-input unit makes of the signals and the other
 * targets. The last intermediate has to be an input of every one of them, but for as many as wide gates are left.
 *
 * Source: Boolean chains and their exhaustive search after Knuth, The Art of Computer Programming 4A, 7.1.2, with packages in the place of
 * gates; docs/packing.md, "By trying everything".
 */
export class FunctionSearch implements Searched {
  /** Sets of functions that allowed for more than there is and that the very units cannot make. */
  refused = 0;
  private readonly words: UnitVectors;
  private readonly plain: NarrowVectors;
  private readonly plainDuties: readonly Duty[];
  private readonly wide: readonly Wide[];
  /** Whether complements cost nothing; of a function and its complement the lesser word then stands for both. */
  readonly inverts: boolean;
  private readonly classes: readonly number[];
  private readonly signals = new Int32Array(MOST_SIGNALS);
  private n = 0;
  readonly have: Uint8Array;
  /** Functions left out: bit 1 altogether, others when a kind of wide unit makes them. */
  private readonly banned: Uint8Array;
  private readonly isWanted: Uint8Array;
  /** Signals and what is still wanted, as a list and as marks. */
  readonly both = new Int32Array(MOST_SIGNALS);
  nBoth = 0;
  readonly inBoth: Uint8Array;
  private readonly seen: Int32Array;
  private round = 0;
  private visits = 0;
  private readonly helping: TargetPruning;

  private readonly all: number;
  private readonly sources: readonly number[];
  private readonly wanted: readonly number[];
  private readonly pool: readonly PooledUnits[];
  private readonly steps: Steps;

  constructor({
    all,
    sources,
    wanted,
    pool,
    steps,
  }: {
    readonly all: number;
    readonly sources: readonly number[];
    readonly wanted: readonly number[];
    readonly pool: readonly PooledUnits[];
    readonly steps: Steps;
  }) {
    this.all = all;
    this.sources = sources;
    this.wanted = wanted;
    this.pool = pool;
    this.steps = steps;
    this.words = new UnitVectors(all);
    this.inverts = pool.some((p) => p.duty.kind === 'not');
    this.plainDuties = pool.filter(isPlain).map((p) => p.duty);
    this.plain = new NarrowVectors(all, this.plainDuties);
    this.wide = wideKindsOf(pool);
    this.helping = new TargetPruning(
      { all, plain: this.plain, kinds: new Set(this.plainDuties.map((d) => d.kind)).size },
      steps,
      this,
    );
    this.have = new Uint8Array(all + 1);
    this.banned = new Uint8Array(all + 1);
    this.inBoth = new Uint8Array(all + 1);
    this.seen = new Int32Array(all + 1);
    const given = new Set(sources.map((s) => this.oneOf(s)));
    const classes = wanted.map((w) => this.oneOf(w)).filter((w) => !given.has(w));
    this.classes = this.inverts ? [...new Set(classes)] : wanted;
    this.isWanted = new Uint8Array(all + 1);
    for (const w of this.classes) this.isWanted[w] = 1;
  }

  /** The most intermediates of a chain in which every unit is used; negative where the units do not even suffice for the targets. */
  get room(): number {
    const units = this.pool.filter((p) => p.duty.kind !== 'not').reduce((n, p) => n + p.count, 0);
    return units - this.classes.length;
  }

  /** A chain with `spare` intermediates; null when there is none, or the steps are spent. */
  find(spare: number): MadeVector[] | null {
    this.n = 0;
    this.have.fill(0);
    this.banned.fill(0);
    for (const s of this.sources) this.push(s);
    return this.visit(spare);
  }

  oneOf(word: number): number {
    return this.inverts ? Math.min(word, this.all & ~word) : word;
  }

  private push(word: number): void {
    this.signals[this.n++] = word;
    this.have[word] = 1;
    if (!this.inverts) return;
    this.signals[this.n++] = this.all & ~word;
    this.have[this.all & ~word] = 1;
  }

  private popTo(n: number): void {
    while (this.n > n) this.have[this.signals[--this.n] as number] = 0;
  }

  private visit(spare: number): MadeVector[] | null {
    if (++this.visits % LOOK === 0 && Date.now() >= (this.steps.until ?? Number.POSITIVE_INFINITY))
      this.steps.left = -1;
    if (this.steps.left < 0) return null;
    const from = this.n;
    const missing = this.close();
    this.steps.left -= STEPS_A_VISIT + this.n * missing.length;
    let found = missing.length === 0 ? this.assigned() : null;
    if (!found && (missing.length > 0 || spare > 0)) found = this.branch(spare, missing);
    this.popTo(from);
    return found;
  }

  /** A chain over the functions at hand with the very units of the set; null where the relaxation allowed too much. */
  private assigned(): MadeVector[] | null {
    const functions = this.signals.slice(0, this.n);
    const made = assign(
      this.words,
      { sources: this.sources, wanted: this.wanted, functions, pool: this.pool },
      this.steps,
    );
    if (!made) this.refused++;
    return made;
  }

  /** Closes the signals under the targets: takes each that a two-input unit makes now, to a fixed point. Returns the targets still missing. */
  private close(): number[] {
    const missing: number[] = [];
    for (const t of this.classes) if (this.have[t] === 0) missing.push(t);
    for (let i = 0; i < missing.length; i++) {
      const t = missing[i] as number;
      if (!this.isPlainlyMade(t, this.signals, this.n, this.have)) continue;
      this.push(t);
      missing.splice(i, 1);
      i = -1;
    }
    return missing;
  }

  private isPlainlyMade(t: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    return this.plain.makes(t, list, n, marks) || (this.inverts && this.plain.makes(this.all & ~t, list, n, marks));
  }

  private isMadeBy({ duty }: Wide, t: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    const { words } = this;
    return words.makes(duty, t, list, n, marks) || (this.inverts && words.makes(duty, this.all & ~t, list, n, marks));
  }

  private branch(spare: number, missing: readonly number[]): MadeVector[] | null {
    const unreached = missing.length > 0 ? this.unreached(missing) : missing;
    if (spare === 0 && !this.canFinish(unreached)) return null;
    const undo: number[] = [];
    let found = this.wide.length > 0 ? this.wantedByWide(spare, missing, undo) : null;
    if (!found && spare > 0)
      found =
        spare === 1 && unreached.length > this.wideLeft()
          ? this.last(unreached)
          : this.inBetween(spare, missing, unreached, undo);
    while (undo.length > 0) {
      const word = undo.pop() as number;
      (this.banned[word] as number) &= ~(undo.pop() as number);
    }
    return found;
  }

  /** Wide units left, one less when one is about to be used. */
  private wideLeft(by?: Wide): number {
    let left = by ? -1 : 0;
    for (const s of this.wide) left += s.left;
    return left;
  }

  /**
   * The unreached targets: those that no two-input unit makes of the signals and the other targets, whatever order these come in. Each needs a wide
   * gate, or an intermediate that is not chosen yet: a lower bound for both.
   */
  private unreached(missing: readonly number[]): number[] {
    const { both, inBoth, signals } = this;
    for (let i = 0; i < this.nBoth; i++) inBoth[both[i] as number] = 0;
    for (let i = 0; i < this.n; i++) both[i] = signals[i] as number;
    this.nBoth = this.n;
    for (const t of missing) {
      both[this.nBoth++] = t;
      if (this.inverts) both[this.nBoth++] = this.all & ~t;
    }
    for (let i = 0; i < this.nBoth; i++) inBoth[both[i] as number] = 1;
    return missing.filter((t) => !this.ofOthers(t, (list, n) => this.isPlainlyMade(t, list, n, inBoth)));
  }

  /** Whether wide gates alone reach the unreached targets, with no intermediate more. */
  private canFinish(unreached: readonly number[]): boolean {
    return unreached.length <= this.wideLeft() && unreached.every((t) => this.isMadeByWide(t));
  }

  private isMadeByWide(t: number): boolean {
    return this.ofOthers(t, (list, n) =>
      this.wide.some((s) => s.left > 0 && this.isMadeBy(s, t, list, n, this.inBoth)),
    );
  }

  /** Asks about the signals and wanted functions without `t`, where complements are one without its complement too. */
  private ofOthers(t: number, ask: (list: Int32Array, n: number) => boolean): boolean {
    const { both, nBoth, inBoth } = this;
    if (!this.inverts) return ask(both, nBoth);
    const c = this.all & ~t;
    const list = both.subarray(0, nBoth).filter((w) => w !== t && w !== c);
    inBoth[t] = inBoth[c] = 0;
    const answer = ask(list, list.length);
    inBoth[t] = inBoth[c] = 1;
    return answer;
  }

  /** Searches the subtree in which a function is a signal, made by a wide gate or by a two-input unit. */
  private with(word: number, spare: number, by?: Wide): MadeVector[] | null {
    const from = this.n;
    if (by) by.left--;
    this.push(word);
    const found = this.visit(spare);
    this.popTo(from);
    if (by) by.left++;
    return found;
  }

  private isBanned(word: number, bits: number): boolean {
    return ((this.banned[word] as number) & bits) !== 0;
  }

  /** Excludes a function from the rest of its level, altogether or as a step of one kind of unit; `undo` takes that back. */
  private ban(word: number, bit: number, undo: number[]): void {
    if (this.isBanned(word, bit)) return;
    (this.banned[word] as number) |= bit;
    undo.push(bit, word);
  }

  /** Branches on the targets that a wide gate reaches now. */
  private wantedByWide(spare: number, missing: readonly number[], undo: number[]): MadeVector[] | null {
    for (const s of this.wide)
      for (const t of s.left > 0 ? missing : []) {
        if (this.isBanned(t, s.bit) || !this.isMadeBy(s, t, this.signals, this.n, this.have)) continue;
        const found = this.with(t, spare, s);
        if (found || this.steps.left < 0) return found;
        this.ban(t, s.bit, undo);
      }
    return null;
  }

  /** Branches on every intermediate that a unit makes of the signals now. */
  private inBetween(
    spare: number,
    missing: readonly number[],
    unreached: readonly number[],
    undo: number[],
  ): MadeVector[] | null {
    const plain = this.offers(this.plainDuties);
    const byWide = this.wide.map((s) => (s.left > 0 ? this.offers([s.duty], plain) : []));
    // Settled for all before the first of them is tried, which looks at other functions.
    const helpers = spare === 2 && unreached.length > 0 && !this.inverts ? this.helping.ofAll(unreached) : null;
    const likely = (some: readonly number[], by?: Wide): readonly number[] => {
      if (spare === 1 && missing.length > 0) return some.filter((g) => this.isOneMadeWith(g, missing, by));
      if (!helpers) return some;
      return some.filter((g) => this.helping.mayBeOfPair(g, unreached, helpers, this.wideLeft(by)));
    };
    const [plainly, strongly] = [likely(plain), this.wide.map((s, k) => likely(byWide[k] as number[], s))];
    for (const g of plainly) {
      const found = this.with(g, spare - 1);
      if (found || this.steps.left < 0) return found;
      this.ban(g, 1, undo);
    }
    for (const [k, s] of this.wide.entries())
      for (const g of strongly[k] as readonly number[]) {
        if (this.isBanned(g, 1 | s.bit)) continue;
        const found = this.with(g, spare - 1, s);
        if (found || this.steps.left < 0) return found;
        this.ban(g, s.bit, undo);
      }
    return null;
  }

  /** Whether any function still missing can be made at once of `g` and the signals: nothing more is chosen. */
  private isOneMadeWith(g: number, missing: readonly number[], by?: Wide): boolean {
    const { all, signals, n, have, inverts } = this;
    this.steps.left -= n;
    const wide = this.wide.filter((s) => s.left > (s === by ? 1 : 0));
    for (const t of missing)
      for (let i = inverts ? 3 : 0; i >= 0; i--) {
        const [to, from] = [i & 1 ? all & ~t : t, i & 2 ? all & ~g : g];
        if (this.plain.makesWith(to, from, signals, n, have)) return true;
        for (const { duty } of wide) if (this.words.makesWith(duty, to, from, signals, n, have)) return true;
      }
    return false;
  }

  /** Functions that some units make of the signals, new, not left out and not wanted, each once and none of the given. */
  private offers(duties: readonly Duty[], but: readonly number[] = []): number[] {
    const own = ++this.round;
    const { seen, have } = this;
    for (const g of but) seen[g] = own;
    const found: number[] = [];
    for (const duty of duties)
      this.words.each(duty, this.signals, this.n, (word) => {
        this.steps.left--;
        const g = this.oneOf(word);
        if (seen[g] === own || have[g] === 1) return;
        seen[g] = own;
        if (this.isOpen(g)) found.push(g);
      });
    return found;
  }

  /** Whether a function may be chosen in between. */
  isOpen(g: number): boolean {
    return g !== 0 && g !== this.all && this.isWanted[g] === 0 && !this.isBanned(g, 1);
  }

  /** The last intermediate, where more targets are unreached than wide gates are left: it is an input of all but so many. */
  private last(unreached: readonly number[]): MadeVector[] | null {
    const helpers = this.helping.ofAll(unreached);
    const plain = this.lastOf(unreached, helpers);
    const wide = this.wide.map((s) => (s.left > 0 ? this.lastOf(unreached, helpers, s) : []));
    for (const g of plain) {
      const found = this.with(g, 0);
      if (found || this.steps.left < 0) return found;
    }
    for (const [k, s] of this.wide.entries())
      for (const g of wide[k] as number[]) {
        if (this.isBanned(g, s.bit) || plain.includes(g)) continue;
        const found = this.with(g, 0, s);
        if (found || this.steps.left < 0) return found;
      }
    return null;
  }

  /** The candidates for the last intermediate: functions that can be made now and are an input of all unreached targets but those left to wide gates. */
  private lastOf(unreached: readonly number[], helpers: Helpers | null, by?: Wide): number[] {
    const left = this.wideLeft(by);
    if (!helpers) {
      const isEnough = (g: number): boolean => {
        let unhelped = 0;
        for (const t of unreached) if (!this.helps(g, t) && ++unhelped > left) return false;
        return true;
      };
      return this.offers(by ? [by.duty] : this.plainDuties).filter(isEnough);
    }
    const least = unreached.length - left;
    const { signals, n, have } = this;
    const found: number[] = [];
    // Of more than there are wide units one at least is helped.
    for (let i = 0; i <= left; i++)
      for (const g of helpers.of[i] as readonly number[]) {
        if ((helpers.counts[g] as number) < least || found.includes(g)) continue;
        if (by ? this.isMadeBy(by, g, signals, n, have) : this.isPlainlyMade(g, signals, n, have)) found.push(g);
      }
    return found;
  }

  /** Whether a unit of two inputs makes `t` of `g` and one of the signals and wanted ones. */
  private helps(g: number, t: number): boolean {
    const { all, both, nBoth, inBoth, plain } = this;
    if (plain.makesWith(t, g, both, nBoth, inBoth)) return true;
    if (!this.inverts) return false;
    const [c, h] = [all & ~t, all & ~g];
    return (
      plain.makesWith(c, g, both, nBoth, inBoth) ||
      plain.makesWith(t, h, both, nBoth, inBoth) ||
      plain.makesWith(c, h, both, nBoth, inBoth)
    );
  }
}

/** Wide units of a pool: those of one kind together, as wide as the widest. */
function wideKindsOf(pool: readonly PooledUnits[]): Wide[] {
  const found = new Map<string, { duty: Duty; left: number }>();
  for (const p of pool) {
    if (isPlain(p)) continue;
    const before = found.get(p.duty.kind);
    const duty = before && before.duty.width > p.duty.width ? before.duty : p.duty;
    found.set(p.duty.kind, { duty, left: (before?.left ?? 0) + p.count });
  }
  return [...found.values()].map((s, k) => ({ ...s, bit: 2 << k }));
}
