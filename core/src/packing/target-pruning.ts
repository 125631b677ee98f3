import type { Steps } from './assign';
import type { NarrowVectors } from './narrow-vectors';

/** The most functions that are listed as possible inputs of one target. */
const MOST_HELPING = 2048;

/** Of each unreached target the functions that are an input of it in some step; of each function the targets that it is an input of, as a bit set. */
export interface Helpers {
  readonly of: readonly (readonly number[])[];
  readonly helped: Uint32Array;
  /** How many of them that is. */
  readonly counts: Uint8Array;
  /** All of them, each once. */
  readonly each: readonly number[];
  /** By a number, those that help so many or more, as far as it was asked for. */
  readonly rich: (readonly number[])[];
}

/** What a search has at the moment. Where complements cost nothing the lesser of two words stands for both. */
export interface Searched {
  readonly inverts: boolean;
  /** Signals and what is still wanted, as a list of `nBoth` words and as marks. */
  readonly both: Int32Array;
  readonly nBoth: number;
  readonly inBoth: Uint8Array;
  /** Marks of the signals alone. */
  readonly have: Uint8Array;
  oneOf(word: number): number;
  /** Whether a function may still be chosen. */
  isOpen(word: number): boolean;
}

/** The first of the last two intermediates: its function, the unreached ones that it does not help, and what else the second is judged by. */
interface First {
  readonly g: number;
  readonly open: number;
  readonly unreached: readonly number[];
  readonly helped: Uint32Array;
  readonly wideLeft: number;
}

/**
 * Backward pruning from the unreached targets, those that the signals and the other targets do not make: an intermediate *helps* a target where a two-input
 * unit makes the target of it and one signal or target more. The last intermediate of a chain must help every unreached target, the last two
 * must do so together, but for as many targets as wide gates are left. Instead of trying each intermediate, the few that help are listed by
 * inverting the steps: of `t = a & b` the other operand of `a` holds `t` and nothing else that `a` holds.
 */
export class TargetPruning {
  private readonly written = new Int32Array(MOST_HELPING);
  private readonly pair = new Int32Array(1);
  private readonly helped: Uint32Array;
  private readonly counts: Uint8Array;
  private readonly seen: Int32Array;
  private round = 0;
  private last: readonly number[] = [];

  private readonly all: number;
  private readonly plain: NarrowVectors;
  private readonly kinds: number;

  /** `all` has a bit for every row; `kinds` counts the kinds of units of two inputs. */
  constructor(
    { all, plain, kinds }: { readonly all: number; readonly plain: NarrowVectors; readonly kinds: number },
    private readonly steps: Steps,
    private readonly searched: Searched,
  ) {
    this.all = all;
    this.plain = plain;
    this.kinds = kinds;
    this.helped = new Uint32Array(all + 1);
    this.counts = new Uint8Array(all + 1);
    this.seen = new Int32Array(all + 1);
  }

  /**
   * For each of the unreached functions those that help it, and for each function which of the unreached ones it helps (bit by
   * bit); null where there are too many to write down.
   */
  ofAll(unreached: readonly number[]): Helpers | null {
    const { helped, counts } = this;
    for (const g of this.last) helped[g] = counts[g] = 0;
    const each: number[] = [];
    this.last = each;
    const of: number[][] = [];
    for (const [i, t] of unreached.entries()) {
      const some = this.helpersOf(t);
      if (some === null) return null;
      for (const g of some) {
        (helped[g] as number) |= 1 << i;
        if ((counts[g] as number)++ === 0) each.push(g);
      }
      of.push(some);
    }
    return { of, helped, counts, each, rich: [] };
  }

  /**
   * Whether some second function could, with `g`, help the unreached ones but for as many as wide units are left: each is
   * made of one of the two, or of just the two.
   */
  mayBeOfPair(g: number, unreached: readonly number[], helpers: Helpers, wideLeft: number): boolean {
    const { of, helped, counts } = helpers;
    const open = (2 ** unreached.length - 1) & ~(helped[g] as number);
    const unhelped = unreached.length - (counts[g] as number);
    if (unhelped <= wideLeft) return true;
    const first: First = { g, open, unreached, helped, wideLeft };
    // Each kind of unit makes one function of just the two; the second helps the others.
    const least = unhelped - wideLeft - this.kinds;
    if (least > 0) {
      const rich = richOf(helpers, least);
      this.steps.left -= rich.length;
      return this.hasSecond(rich, first);
    }
    const { pair, written, searched } = this;
    pair[0] = g;
    // Of more than there are wide units one at least is made of the second.
    let rest = open;
    for (let k = 0; k <= wideLeft; k++, rest &= rest - 1) {
      const i = 31 - Math.clz32(rest & -rest);
      if (this.hasSecond(of[i] as readonly number[], first)) return true;
      const count = this.plain.enabling(unreached[i] as number, pair, 1, written);
      this.steps.left -= (of[i] as readonly number[]).length + Math.max(0, count);
      if (count < 0) return true;
      for (let j = 0; j < count; j++) {
        const h = written[j] as number;
        if (h !== g && searched.have[h] === 0 && searched.isOpen(h) && this.isSecond(h, first)) return true;
      }
    }
    return false;
  }

  private hasSecond(among: readonly number[], first: First): boolean {
    for (let k = 0; k < among.length; k++) if (this.isSecond(among[k] as number, first)) return true;
    return false;
  }

  /** Whether a second function helps what is open, but for what wide units are left for, and can be made at all. */
  private isSecond(h: number, { g, open, unreached, helped, wideLeft }: First): boolean {
    let left = wideLeft;
    for (let rest = open & ~(helped[h] as number); rest !== 0; rest &= rest - 1) {
      const t = unreached[31 - Math.clz32(rest & -rest)] as number;
      if (!this.plain.makesOfTwo(t, g, h) && --left < 0) return false;
    }
    const { both, nBoth, inBoth } = this.searched;
    return left > 0 || this.plain.makesWith(h, g, both, nBoth, inBoth) || this.plain.makes(h, both, nBoth, inBoth);
  }

  /** All functions that help a wanted one, each once; null where there are too many to write down. */
  private helpersOf(t: number): number[] | null {
    const own = ++this.round;
    const { seen, written, searched } = this;
    const { have, both, nBoth } = searched;
    const found: number[] = [];
    for (const to of searched.inverts ? [t, this.all & ~t] : [t]) {
      const count = this.plain.enabling(to, both, nBoth, written);
      this.steps.left -= count < 0 ? MOST_HELPING : count;
      if (count < 0) return null;
      for (let i = 0; i < count; i++) {
        const g = searched.oneOf(written[i] as number);
        if (seen[g] === own || have[g] === 1) continue;
        seen[g] = own;
        if (searched.isOpen(g)) found.push(g);
      }
    }
    return found;
  }
}

/** The functions that help so many of the unreached ones or more, each once. */
function richOf({ each, counts, rich }: Helpers, least: number): readonly number[] {
  const known = rich[least];
  if (known) return known;
  const found = each.filter((g) => (counts[g] as number) >= least);
  rich[least] = found;
  return found;
}
