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

class Chain {
  private readonly signals: number[] = [];
  private readonly have: Set<number>;
  /** Functions one gate away, with a way to make each. */
  private readonly near = new Map<number, ChainStep>();
  private readonly steps: ChainStep[] = [];
  private missing: number[];

  constructor(
    sources: readonly number[],
    wanted: readonly number[],
    private readonly all: number,
  ) {
    this.have = new Set([0, ...sources]);
    this.missing = [...wanted];
    for (const f of sources) this.widen(f);
  }

  /** The chain, or null when it takes more than `most` steps; `noise` is the weight of chance beside two gates saved. */
  run(noise: number, chance: () => number, most: number): ChainStep[] | null {
    while (this.missing.length > 0) {
      if (this.steps.length + this.missing.length > most) return null;
      const direct = this.missing.filter((t) => this.near.has(t));
      this.take(direct[Math.floor(chance() * direct.length)] ?? this.mostUseful(noise, chance));
    }
    return this.steps;
  }

  private mostUseful(noise: number, chance: () => number): number {
    let best = Number.NEGATIVE_INFINITY;
    let choice = 0;
    for (const g of this.near.keys()) {
      let score = noise * chance();
      for (const t of this.missing) {
        if (this.isOneAway(t, g)) score += 3;
        else if (this.isTwoAway(t, g)) score += 1;
      }
      if (score > best) [best, choice] = [score, g];
    }
    return choice;
  }

  private take(g: number): void {
    const step = this.near.get(g);
    if (!step) throw new Error('a function out of reach was taken');
    this.steps.push(step);
    this.have.add(g);
    this.near.delete(g);
    this.widen(g);
    this.missing = this.missing.filter((t) => t !== g);
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
    if (!this.have.has(makes) && !this.near.has(makes)) this.near.set(makes, { makes, of: [a, b], kind });
  }

  /** Whether a gate makes `t` of `g` and a signal. */
  private isOneAway(t: number, g: number): boolean {
    return this.have.has(lowInRow0(t ^ g, this.all)) || this.isProduct(t, g, this.signals);
  }

  /** Whether a gate makes `t` of `g` and something one gate away. */
  private isTwoAway(t: number, g: number): boolean {
    return this.near.has(lowInRow0(t ^ g, this.all)) || this.isProduct(t, g, this.near.keys());
  }

  /** Whether `t` or its complement is a product of `g` and one of some functions, each of these in either polarity. */
  private isProduct(t: number, g: number, others: Iterable<number>): boolean {
    const { all } = this;
    const sides = [g, all & ~g].flatMap((p) => [t, all & ~t].filter((r) => (r & ~p) === 0).map((r) => [p, r] as const));
    if (sides.length === 0) return false;
    for (const o of others) for (const [p, r] of sides) if ((o & p) === r || (all & ~o & p) === r) return true;
    return false;
  }
}
