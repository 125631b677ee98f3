import { elementAt } from '../element-at';
import type { ChainStep, FunctionNet, Literal } from './functions';

/** Functions of up to so many sources are words of 16 rows, for which chains are sought. */
export const MAX_CHAINED = 4;

/** Chains longer than the shortest by more than this are of no use. */
const SLACK = 2;
/** Steps after which a chain is given up. */
const MAX_STEPS = 24;

/**
 * Chains of gates of two inputs that make all roots from the sources, the shortest first, each once. A chain takes
 * whatever root is one gate away; otherwise the gate that brings most roots within one or two gates, and by chance one
 * of the next best: `runs` chains are tried so, drawn by a seed. What comes out depends on the functions alone.
 * Source: greedy straight-line programs after Boyar and Peralta, "A new combinational logic minimization technique"
 * (2010); Boolean chains after Knuth, The Art of Computer Programming 4A, 7.1.2.
 */
export function chainsOf(functions: FunctionNet, roots: readonly Literal[], runs: number): ChainStep[][] {
  if (!functions.exact || functions.sources.length > MAX_CHAINED || functions.sources.length < 2) return [];
  const all = functions.mask;
  const word = (l: Literal): number => lowInRow0(elementAt(functions.bits(l), 0) & all, all);
  const sources = functions.sources.map((_, i) => word(2 * (i + 1)));
  const wanted = [...new Set(roots.map(word))].filter((f) => f !== 0 && !sources.includes(f));
  const found = new Map<string, ChainStep[]>();
  let seed = 0x5eed;
  const chance = (): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
    return (seed >>> 8) / 2 ** 24;
  };
  let shortest = MAX_STEPS;
  for (let run = 0; run < runs; run++) {
    const chain = new Chain(sources, wanted, all).run(4 * chance(), chance, shortest + SLACK);
    if (!chain) continue;
    shortest = Math.min(shortest, chain.length);
    const made = chain.map((s) => s.makes).sort((a, b) => a - b);
    found.set(made.join(), chain);
  }
  return [...found.values()].filter((c) => c.length <= shortest + SLACK).sort((a, b) => a.length - b.length);
}

const lowInRow0 = (f: number, all: number): number => (f & 1 ? ~f & all : f);

/** What a chain has of a function: nothing yet, a gate that would make it, or the function itself. */
const [NEAR, MADE] = [1, 2];

class Chain {
  private readonly signals: number[] = [];
  /** NEAR or MADE by function. */
  private readonly marks = new Uint8Array(1 << (1 << MAX_CHAINED));
  /** Functions that were one gate away when they came into sight, in that order, with a way to make each. */
  private readonly near: ChainStep[] = [];
  /** The same, as words alone. */
  private readonly words = new Int32Array(1 << ((1 << MAX_CHAINED) - 1));
  private readonly steps: ChainStep[] = [];
  /** What is still to be made, each with what is known of it. */
  private missing: Target[];

  constructor(
    sources: readonly number[],
    wanted: readonly number[],
    private readonly all: number,
  ) {
    this.marks[0] = MADE;
    for (const f of sources) this.marks[f] = MADE;
    this.missing = wanted.map((f) => ({ f, reach: [], tried: [], triedNear: [] }));
    for (const f of sources) this.widen(f);
  }

  /** The chain, or null when it takes more than `most` steps; `noise` is the weight of chance beside two gates saved. */
  run(noise: number, chance: () => number, most: number): ChainStep[] | null {
    while (this.missing.length > 0) {
      if (this.steps.length + this.missing.length > most) return null;
      const direct = this.missing.filter(({ f }) => this.marks[f] === NEAR);
      this.take(direct[Math.floor(chance() * direct.length)]?.f ?? this.mostUseful(noise, chance));
    }
    return this.steps;
  }

  private mostUseful(noise: number, chance: () => number): number {
    let best = Number.NEGATIVE_INFINITY;
    let choice = 0;
    for (const [i, { makes }] of this.near.entries()) {
      if (this.marks[makes] !== NEAR) continue;
      let score = noise * chance();
      for (const t of this.missing) score += this.reach(t, i, makes);
      if (score > best) [best, choice] = [score, makes];
    }
    return choice;
  }

  private take(g: number): void {
    const step = this.near.find((s) => s.makes === g);
    if (!step) throw new Error('a function out of reach was taken');
    this.steps.push(step);
    this.marks[g] = MADE;
    this.widen(g);
    this.missing = this.missing.filter((t) => t.f !== g);
  }

  /** Adds a signal, and what it makes with those before it. */
  private widen(f: number): void {
    for (const s of this.signals) {
      this.offer('xor', s ^ f, s, f);
      for (const a of [s, this.all & ~s]) for (const b of [f, this.all & ~f]) this.offer('and', a & b, a, b);
    }
    this.signals.push(f);
  }

  private offer(kind: ChainStep['kind'], g: number, a: number, b: number): void {
    const makes = lowInRow0(g, this.all);
    if (this.marks[makes] !== 0) return;
    this.marks[makes] = NEAR;
    this.words[this.near.length] = makes;
    this.near.push({ makes, of: [a, b], kind });
  }

  /**
   * How near function `g`, number `i` of those one gate away, brings a target: ONE gate makes it of `g` and a signal, or of `g` and something that is
   * one gate away, TWO in all; else nothing. What is once so stays so, and what was looked at in vain is not looked at again.
   */
  private reach(t: Target, i: number, g: number): number {
    const { marks, all } = this;
    if (t.reach[i] === ONE) return ONE;
    const sum = marks[lowInRow0(t.f ^ g, all)];
    const part = partOf(t.f, g, all);
    if (sum === MADE || (part >= 0 && this.meets(t, part, i))) {
      t.reach[i] = ONE;
      return ONE;
    }
    if (t.reach[i] === TWO) return TWO;
    if (sum === NEAR || (part >= 0 && this.meetsNear(t, part, i))) {
      t.reach[i] = TWO;
      return TWO;
    }
    return 0;
  }

  /** Whether a signal, in either polarity, is the target or its complement in the rows of a part. */
  private meets(t: Target, part: number, i: number): boolean {
    const { signals } = this;
    for (let s = t.tried[i] ?? 0; s < signals.length; s++) if (agrees(elementAt(signals, s) ^ t.f, part)) return true;
    t.tried[i] = signals.length;
    return false;
  }

  /** The same of what is one gate away. */
  private meetsNear(t: Target, part: number, i: number): boolean {
    const { words, near } = this;
    for (let n = t.triedNear[i] ?? 0; n < near.length; n++) if (agrees((words[n] as number) ^ t.f, part)) return true;
    t.triedNear[i] = near.length;
    return false;
  }
}

/** What a gate is worth that brings a target within one gate, or within two. */
const [ONE, TWO] = [3, 1];

/** A function to be made, and of each function near, by its number: how near it brings it, and of how many others that was looked at. */
interface Target {
  readonly f: number;
  readonly reach: number[];
  readonly tried: number[];
  readonly triedNear: number[];
}

/** Those rows of `g` or of its complement that hold all of `t` or of its complement, so that a product of them and something else may be it; -1 where there are none. */
function partOf(t: number, g: number, all: number): number {
  const [u, h] = [all & ~t, all & ~g];
  if ((t & h) === 0 || (u & h) === 0) return g;
  return (t & g) === 0 || (u & g) === 0 ? h : -1;
}

/** Whether two functions, of which `differs` is the sum, are the same or complements in some rows. */
function agrees(differs: number, rows: number): boolean {
  const here = differs & rows;
  return here === 0 || here === rows;
}
