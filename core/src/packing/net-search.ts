import { BlockCount, blockShare } from './block-count';
import { blockKind, FIRST_BLOCK, firstKindOf } from './block-kinds';
import { BlockMoves } from './block-moves';
import type { PackageCount } from './package-count';
import { PLACES, placeOfDuty } from './package-count';
import { type Gate, isEmpty, NEW, Resubstitution, type Wanted } from './resubstitution';
import { AND, AOI, dutyOfNode, NAND, type NetState, NOR, NOT, ONE, OR, UnitNet, XNOR, XOR, ZERO } from './unit-net';

/** What is searched: a net to begin with, the rows of its sources and those that matter, and what packages cost. */
export interface NetProblem {
  readonly sources: readonly Int32Array[];
  readonly valid: Int32Array;
  readonly start: NetState;
  readonly packages: PackageCount;
  /** Base numbers of larger blocks that may be used too. */
  readonly blocks?: readonly string[];
}

/**
 * A move: the unit becomes a signal, or a gate; the gate may read a second new gate, which stands in its list as NEW. Other units that are rows of a new decoder
 * become its outputs along with it.
 */
interface Move {
  readonly signal?: number;
  readonly gate?: Gate;
  readonly second?: Gate;
  readonly also?: readonly { readonly unit: number; readonly gate: Gate }[];
}

/** Gates that are looked for at once, and for the second of two; tries with two. */
const GATES = { looks: 300, gates: 60 } as const;
const SECOND = { looks: 80, gates: 14 } as const;
const PAIRS = 6;
/** Addresses that are tried for each block, for a unit and for a second new unit; how many of the tries with two look for a block. */
const [ADDRESSES, SECOND_ADDRESSES, BLOCK_PAIRS] = [4, 1, 2];
/** How far a worse net may be taken, in packages, at the beginning and at the end. */
const [WARM, COLD] = [0.25, 0.02];

/**
 * A search over nets of real units: one unit at a time is replaced by whatever agrees with it in the rows in which an output hangs on it, and what makes the
 * packages fewer is taken with heat-bath annealing. The same seed gives the same search. Source: Boolean resubstitution with observability don't-cares, as in logic
 * synthesis; ../shared/PACKING.md. A kernel.
 */
export class NetSearch {
  readonly net: UnitNet;
  /** The cheapest net so far, and its cost: packages, and below one what its units take of packages. */
  best: NetState;
  bestCost: number;
  private readonly finder: Resubstitution;
  private readonly wanted: readonly Int32Array[];
  private readonly mostInputs: readonly number[];
  private readonly blocks: BlockMoves | null;
  private readonly blockCount = new BlockCount();
  private readonly counts = new Int32Array(PLACES);
  private share = 0;
  private readonly view: Int32Array[];
  private readonly flipped: readonly Int32Array[];
  private readonly inCone: Uint8Array;
  private readonly care: Int32Array;
  private readonly on: Int32Array;
  private readonly off: Int32Array;
  private readonly deepOn: Int32Array;
  private readonly deepOff: Int32Array;

  constructor(
    private readonly problem: NetProblem,
    private state: number,
  ) {
    this.net = new UnitNet(problem.sources, problem.start);
    const { words, bits, kind, outputs } = this.net;
    this.wanted = outputs.map((o) => Int32Array.from(bits[o] as Int32Array));
    this.mostInputs = [NOT, AND, NAND, OR, NOR, XOR, XNOR, AOI].map((k) => problem.packages.mostInputs(k));
    this.finder = new Resubstitution(words);
    const { blocks = [] } = problem;
    this.blocks = blocks.length > 0 ? new BlockMoves(blocks, words, (n) => this.draw(n)) : null;
    const rows = (): Int32Array => new Int32Array(words);
    [this.care, this.on, this.off, this.deepOn, this.deepOff] = [rows(), rows(), rows(), rows(), rows()];
    this.view = [...bits];
    this.flipped = Array.from({ length: kind.length }, rows);
    this.inCone = new Uint8Array(kind.length);
    this.recount();
    this.best = this.net.state();
    this.bestCost = this.cost();
  }

  /** The packages of the net as it is, as they are counted here. */
  get packages(): number {
    return this.problem.packages.of(this.counts) + this.blockCount.packages;
  }

  /** Goes back to a net, and takes its cost for the best. */
  restart(state: NetState): void {
    this.net.restore(state);
    this.recount();
    this.best = state;
    this.bestCost = this.cost();
  }

  /** Makes one move of a search that is `share` done, from 0 to 1; whether the net is then cheaper than any before. */
  move(share: number): boolean {
    const { net } = this;
    if (net.size === 0) return false;
    const v = net.order[this.draw(net.size)] as number;
    this.observe(v);
    const moves = this.movesFor(v);
    const now = this.cost();
    const heat = WARM * (COLD / WARM) ** share;
    // Staying weighs one.
    const weights = moves.map((m) => Math.exp(Math.max(-60, Math.min(60, (now - this.costOf(v, m)) / heat))));
    let at = this.part() * weights.reduce((sum, w) => sum + w, 1) - 1;
    if (at < 0) return false;
    const taken = moves.find((_, i) => {
      at -= weights[i] as number;
      return at < 0;
    });
    return taken !== undefined && this.take(v, taken);
  }

  private take(v: number, move: Move): boolean {
    const { net } = this;
    const before = net.state();
    const by = move.signal ?? this.built(move);
    if (by >= 0) net.replace(v, by);
    for (const { unit, gate } of move.also ?? []) if (by >= 0 && net.kind[unit] !== -1) this.become(unit, gate);
    if (by < 0 || !this.isRight()) {
      net.restore(before);
      return false;
    }
    this.recount();
    const cost = this.cost();
    if (cost > this.bestCost - 1e-9) return false;
    this.bestCost = cost;
    this.best = net.state();
    return true;
  }

  private become(unit: number, { kind, ins }: Gate): void {
    const by = this.net.add(kind, ins);
    if (by >= 0) this.net.replace(unit, by);
  }

  private built({ gate, second }: Move): number {
    if (!gate) return -1;
    const below = second ? this.net.add(second.kind, second.ins) : NEW;
    if (second && below < 0) return -1;
    return this.net.add(
      gate.kind,
      gate.ins.map((s) => (s === NEW ? below : s)),
    );
  }

  /** Whether every output is what it was at the beginning, in all rows that matter. */
  private isRight(): boolean {
    const { net, wanted, problem } = this;
    for (let o = 0; o < wanted.length; o++) {
      const [is, was] = [net.bits[net.outputs[o] as number] as Int32Array, wanted[o] as Int32Array];
      for (let w = 0; w < was.length; w++)
        if ((((is[w] as number) ^ (was[w] as number)) & (problem.valid[w] as number)) !== 0) return false;
    }
    return true;
  }

  /** Flips a unit: `care` has the rows in which an output that is wanted then changes, `on` and `off` those of them in which it is high and low. */
  private observe(v: number): void {
    const { net, view, flipped, inCone, care, on, off, problem } = this;
    inCone.fill(0);
    const changed = [v];
    const own = net.bits[v] as Int32Array;
    const turned = flipped[v] as Int32Array;
    for (let w = 0; w < own.length; w++) turned[w] = ~(own[w] as number);
    view[v] = turned;
    inCone[v] = 1;
    for (let i = net.order.indexOf(v) + 1; i < net.order.length; i++) {
      const s = net.order[i] as number;
      let isBelow = false;
      for (const x of net.ins[s] as number[]) if (inCone[x] === 1) isBelow = true;
      if (!isBelow) continue;
      inCone[s] = 1;
      net.compute(s, view, flipped[s] as Int32Array);
      view[s] = flipped[s] as Int32Array;
      changed.push(s);
    }
    care.fill(0);
    for (const o of net.outputs) {
      if (inCone[o] !== 1) continue;
      const [is, then] = [net.bits[o] as Int32Array, flipped[o] as Int32Array];
      for (let w = 0; w < care.length; w++) care[w] = (care[w] as number) | ((is[w] as number) ^ (then[w] as number));
    }
    for (const s of changed) view[s] = net.bits[s] as Int32Array;
    for (let w = 0; w < care.length; w++) {
      const c = (care[w] as number) & (problem.valid[w] as number);
      care[w] = c;
      on[w] = (own[w] as number) & c;
      off[w] = ~(own[w] as number) & c;
    }
  }

  /** Everything that could stand for a unit that has been observed. */
  private movesFor(v: number): Move[] {
    const { net, on, off, mostInputs, finder } = this;
    if (isEmpty(on)) return [{ signal: ZERO }];
    if (isEmpty(off)) return [{ signal: ONE }];
    const signals: number[] = [];
    for (let s = 2; s < net.firstNode; s++) signals.push(s);
    for (const s of net.order) if (this.inCone[s] !== 1) signals.push(s);
    this.shuffle(signals);
    const means = { signals, bits: net.bits, mostInputs };
    const own = { there: this.blocks ? this.unitsOfBlocks() : [], firstNode: net.firstNode };
    const { signals: same, gates } = finder.find({ on, off }, means, GATES);
    const moves: Move[] = same.map((signal) => ({ signal }));
    for (const gate of gates) if (!this.isUnit(v, gate)) moves.push({ gate });
    for (let i = 0; i < PAIRS; i++) {
      const top = this.top(signals);
      if (!top) continue;
      for (const second of finder.find(top.wanted, means, SECOND).gates) moves.push({ gate: top.gate, second });
      if (i >= BLOCK_PAIRS) continue;
      for (const { gate, missing } of this.blocks?.find(top.wanted, { ...means, ...own, tries: SECOND_ADDRESSES }) ??
        [])
        if (!missing) moves.push({ gate: top.gate, second: gate });
    }
    for (const { gate, missing } of this.blocks?.find({ on, off }, { ...means, ...own, tries: ADDRESSES }) ?? []) {
      if (!missing && !this.isUnit(v, gate)) moves.push({ gate, also: this.rowsOf(v, gate) });
      else if (missing) for (const second of finder.find(missing, means, SECOND).gates) moves.push({ gate, second });
    }
    return moves;
  }

  /** Whether a unit is that gate already. */
  private isUnit(v: number, { kind, ins }: Gate): boolean {
    const own = this.net.ins[v] as number[];
    if (this.net.kind[v] !== kind || own.length !== ins.length) return false;
    return kind >= FIRST_BLOCK ? own.join() === ins.join() : [...own].sort().join() === [...ins].sort().join();
  }

  /** Units that do what other outputs of a new decoder do; addresses of sources alone, which hang on no unit. */
  private rowsOf(v: number, gate: Gate): { readonly unit: number; readonly gate: Gate }[] {
    const { net, problem } = this;
    const { row, number, address } = blockKind(gate.kind);
    if (row === null || gate.ins.some((s) => s >= net.firstNode)) return [];
    const first = firstKindOf(number);
    const gates = Array.from({ length: 2 ** address }, (_, k) => ({ kind: first + k, ins: gate.ins }));
    return gates.flatMap((other) => {
      if (other.kind === gate.kind) return [];
      net.evaluate(other.kind, other.ins, this.deepOn);
      const isSame = (s: number): boolean => {
        const rows = net.bits[s] as Int32Array;
        for (let w = 0; w < rows.length; w++)
          if ((((rows[w] as number) ^ (this.deepOn[w] as number)) & (problem.valid[w] as number)) !== 0) return false;
        return true;
      };
      return net.order
        .filter((s) => s !== v && !this.isUnit(s, other) && isSame(s))
        .map((unit) => ({ unit, gate: other }));
    });
  }

  private unitsOfBlocks(): Gate[] {
    const { order, kind, ins } = this.net;
    return order
      .filter((s) => (kind[s] as number) >= FIRST_BLOCK)
      .map((s) => ({ kind: kind[s] as number, ins: ins[s] as number[] }));
  }

  /** A gate over a signal and one that is to be found, with what that must be; null where the signal cannot serve. */
  private top(signals: readonly number[]): { readonly gate: Gate; readonly wanted: Wanted } | null {
    const { net, mostInputs, deepOn, deepOff } = this;
    const kind = this.draw(8);
    const d = signals[this.draw(signals.length)] as number;
    if (kind === NOT || (mostInputs[kind] as number) < 2) return null;
    const rows = net.bits[d] as Int32Array;
    const inverts = kind === NAND || kind === NOR || kind === XNOR || kind === AOI;
    const [on, off] = inverts ? [this.off, this.on] : [this.on, this.off];
    if (kind === AOI) return this.topAoi(signals, d, on, off);
    for (let w = 0; w < rows.length; w++) {
      const [r, a, b] = [rows[w] as number, on[w] as number, off[w] as number];
      if (kind === XOR || kind === XNOR) {
        deepOn[w] = (a & ~r) | (b & r);
        deepOff[w] = (a & r) | (b & ~r);
      } else if (kind === AND || kind === NAND) {
        if ((a & ~r) !== 0) return null;
        deepOn[w] = a;
        deepOff[w] = b & r;
      } else {
        if ((b & r) !== 0) return null;
        deepOn[w] = a & ~r;
        deepOff[w] = b;
      }
    }
    if (isEmpty(deepOn) || isEmpty(deepOff)) return null;
    return { gate: { kind, ins: [d, NEW] }, wanted: { on: deepOn, off: deepOff } };
  }

  /** An AND-OR-invert of a product of two signals and one that is to be found. */
  private topAoi(signals: readonly number[], d: number, on: Int32Array, off: Int32Array) {
    const { net, deepOn, deepOff } = this;
    const e = signals[this.draw(signals.length)] as number;
    const [x, y] = [net.bits[d] as Int32Array, net.bits[e] as Int32Array];
    for (let w = 0; w < x.length; w++) {
      const product = (x[w] as number) & (y[w] as number);
      if ((product & (off[w] as number)) !== 0) return null;
      deepOn[w] = (on[w] as number) & ~product;
      deepOff[w] = off[w] as number;
    }
    if (isEmpty(deepOn) || isEmpty(deepOff)) return null;
    return { gate: { kind: AOI, ins: [d, e, NEW, NEW] }, wanted: { on: deepOn, off: deepOff } };
  }

  /** What the net costs when a move is made: without what only the unit needs, with what is new. */
  private costOf(v: number, { signal, gate, second, also = [] }: Move): number {
    const { readers } = this.net;
    const kept = signal === undefined ? [...(gate?.ins ?? []), ...(second?.ins ?? [])] : [signal];
    const rows = also.map((a) => a.gate);
    for (const s of kept) if (s >= 0) readers[s] = (readers[s] as number) + 1;
    const share = this.share;
    const gone: number[] = [];
    this.release(v, gone);
    for (const { unit } of also) if (!gone.includes(unit)) this.release(unit, gone);
    for (const { kind, ins } of rows) this.tally(kind, ins, 1);
    if (gate) this.tally(gate.kind, gate.ins, 1);
    if (second) this.tally(second.kind, second.ins, 1);
    const cost = this.cost();
    if (second) this.tally(second.kind, second.ins, -1);
    if (gate) this.tally(gate.kind, gate.ins, -1);
    for (const { kind, ins } of rows) this.tally(kind, ins, -1);
    for (let i = gone.length - 1; i >= 0; i--) {
      const s = gone[i] as number;
      const ins = this.net.ins[s] as number[];
      for (const x of ins) readers[x] = (readers[x] as number) + 1;
      this.tally(this.net.kind[s] as number, ins, 1);
    }
    this.share = share;
    for (const s of kept) if (s >= 0) readers[s] = (readers[s] as number) - 1;
    return cost;
  }

  /** Takes a unit out of the counts, and all that nothing else reads. */
  private release(s: number, gone: number[]): void {
    const { readers, ins, kind, firstNode } = this.net;
    gone.push(s);
    const own = ins[s] as number[];
    this.tally(kind[s] as number, own, -1);
    for (const x of own) {
      readers[x] = (readers[x] as number) - 1;
      if (readers[x] === 0 && x >= firstNode) this.release(x, gone);
    }
  }

  private tally(kind: number, ins: readonly number[], sign: 1 | -1): void {
    if (kind >= FIRST_BLOCK) {
      this.blockCount.tally(kind, ins, sign);
      this.share += sign * blockShare(kind);
      return;
    }
    const duty = dutyOfNode(kind, ins.length);
    const place = placeOfDuty(duty);
    this.counts[place] = (this.counts[place] as number) + sign;
    this.share += sign * this.problem.packages.share(duty);
  }

  private recount(): void {
    const { net } = this;
    this.counts.fill(0);
    this.blockCount.clear();
    this.share = 0;
    for (const s of net.order) this.tally(net.kind[s] as number, net.ins[s] as number[], 1);
  }

  private cost(): number {
    return this.packages + this.share;
  }

  private shuffle(list: number[]): void {
    for (let i = list.length - 1; i > 0; i--) {
      const j = this.draw(i + 1);
      [list[i], list[j]] = [list[j] as number, list[i] as number];
    }
  }

  /** A number below n. */
  private draw(n: number): number {
    return Math.floor(this.part() * n);
  }

  /** From 0 up to 1: xorshift32. */
  private part(): number {
    let x = this.state;
    x ^= x << 13;
    x ^= x >>> 17;
    x ^= x << 5;
    this.state = x;
    return (x >>> 0) / 2 ** 32;
  }
}
