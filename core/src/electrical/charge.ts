import { elementAt } from '../element-at';
import { type Element, voltsSource } from './elements';
import type { CapacitorModel, IslandModel } from './island';
import { currentFrom, solveIsland } from './operating-point';

/** The volts over which a capacitor is looked at go so far beyond the supply, each way. */
const BEYOND_V = 0.7;
/** Between two samples the current may leave the straight line by this share, or by these amperes; the volts of nodes by these volts. */
const STRAIGHT_SHARE = 4e-3;
const STRAIGHT_A = 2e-9;
const STRAIGHT_V = 2e-3;
/** How often a piece is halved. */
const MOST_HALVINGS = 9;
/** A capacitor rests within so many volts of where it goes, or when it moves by fewer volts in a second. */
const REST_V = 1e-3;
const REST_V_S = 1e-5;
/** Two bounds of a capacitor's volts that are so near to each other are one, in volts. */
const SAME_V = 0.01;

/** What an island does while its one capacitor is held at some volts: the current that flows into it there, and the volts of the nodes. */
interface Sample {
  readonly v: number;
  readonly amps: number;
  readonly nodes: Float64Array;
  readonly supplyA: number;
  readonly isSure: boolean;
}

/**
 * How the one capacitor of an island is charged while contacts and outputs stand as they do: samples in the order of its volts, straight
 * between them. So each piece is an exponential in time, known in closed form.
 */
export interface ChargeLaw {
  readonly samples: readonly Sample[];
}

/** A level of a node that somebody watches, in volts; `row` is the node's index in the island. */
export interface Watch {
  readonly row: number;
  readonly volts: number;
}

/**
 * An island with one capacitor, in time. The volts of the capacitor lie between a least and a most, which are one but where an output is
 * unknown; each goes its own way by the law that holds for it.
 */
export class ChargedIsland {
  private low = 0;
  private high = 0;
  private lowLaw: ChargeLaw = { samples: [] };
  private highLaw: ChargeLaw = { samples: [] };
  private readonly laws = new Map<number | string, readonly [ChargeLaw, ChargeLaw]>();

  constructor(
    readonly model: IslandModel,
    private readonly capacitor: CapacitorModel,
    private readonly fixed: {
      readonly volts: Float64Array;
      readonly positive: ReadonlySet<number>;
      readonly mostV: number;
    },
  ) {}

  /** Takes up how contacts and outputs stand now. The capacitor keeps its volts. */
  turn(): void {
    const key = this.model.standing;
    let laws = this.laws.get(key);
    if (!laws) {
      const own = this.model.corners().map(({ elements }) => this.lawOf(elements));
      const first = elementAt(own, 0);
      laws = own.length === 1 ? [first, first] : [envelope(own, Math.min), envelope(own, Math.max)];
      this.laws.set(key, laws);
    }
    [this.lowLaw, this.highLaw] = laws;
  }

  private lawOf(elements: readonly Element[]): ChargeLaw {
    const { a, b } = this.capacitor;
    const { volts, positive, mostV } = this.fixed;
    const source = voltsSource(a, b);
    const island = { free: this.model.free, elements: [...elements, source] };
    const sample = (v: number): Sample => {
      source.sourceV = v;
      const { found, isStable } = solveIsland(island, volts);
      const nodes = Float64Array.from(this.model.free, (node) => volts[node] as number);
      const supplyA = currentFrom(positive, elements, volts);
      return { v, amps: source.amps(volts), nodes, supplyA, isSure: found && isStable && !this.model.isLost };
    };
    const ends = [-mostV - BEYOND_V, 0, mostV + BEYOND_V].map(sample);
    const samples = [elementAt(ends, 0)];
    const halve = (from: Sample, to: Sample, depth: number): void => {
      const middle = sample((from.v + to.v) / 2);
      if (depth < MOST_HALVINGS && !(isStraight(from, middle, to) && depth > 0)) {
        halve(from, middle, depth + 1);
        halve(middle, to, depth + 1);
      } else samples.push(to);
    };
    halve(elementAt(ends, 0), elementAt(ends, 1), 0);
    halve(elementAt(ends, 1), elementAt(ends, 2), 0);
    return { samples };
  }

  /** Lets so many seconds pass. */
  advance(seconds: number): void {
    if (seconds <= 0) return;
    const isOne = this.isOne;
    this.low = this.after(this.lowLaw, this.low, seconds);
    this.high = isOne ? this.low : this.after(this.highLaw, this.high, seconds);
    if (Math.abs(this.high - this.low) < SAME_V && this.lowLaw === this.highLaw) this.high = this.low;
  }

  private get isOne(): boolean {
    return this.low === this.high && this.lowLaw === this.highLaw;
  }

  private after({ samples }: ChargeLaw, from: number, seconds: number): number {
    const { farads } = this.capacitor;
    let [v, left] = [from, seconds];
    for (const piece of path(samples, from)) {
      const needed = secondsTo(piece, v, piece.endV, farads);
      if (needed >= left) return along(piece, v, left, farads);
      left -= needed;
      v = piece.endV;
    }
    return v;
  }

  /** Seconds until a node passes one of the watched levels first; Infinity where none does. */
  nextCrossing(watches: readonly Watch[]): number {
    if (watches.length === 0) return Infinity;
    const first = this.crossing(this.lowLaw, this.low, watches);
    return this.isOne ? first : Math.min(first, this.crossing(this.highLaw, this.high, watches));
  }

  private crossing({ samples }: ChargeLaw, from: number, watches: readonly Watch[]): number {
    const { farads } = this.capacitor;
    let [v, passed] = [from, 0];
    for (const piece of path(samples, from)) {
      let nearest = Infinity;
      for (const { row, volts } of watches) {
        const [start, end] = [nodeAt(piece, row, v), nodeAt(piece, row, piece.endV)];
        if (start < volts === end < volts && start > volts === end > volts) continue;
        const at = v + ((volts - start) / (end - start)) * (piece.endV - v);
        if (start === end || at === v) continue;
        nearest = Math.min(nearest, secondsTo(piece, v, at, farads));
      }
      if (nearest < Infinity) return passed + nearest;
      passed += secondsTo(piece, v, piece.endV, farads);
      if (passed === Infinity) return Infinity;
      v = piece.endV;
    }
    return Infinity;
  }

  /** Whether the capacitor rests for all that can be seen. */
  get isResting(): boolean {
    return this.rests(this.lowLaw, this.low) && (this.isOne || this.rests(this.highLaw, this.high));
  }

  private rests({ samples }: ChargeLaw, v: number): boolean {
    if (samples.length < 2) return true;
    const k = pieceAt(samples, v);
    const [left, right] = [elementAt(samples, k), elementAt(samples, k + 1)];
    const slope = (right.amps - left.amps) / (right.v - left.v);
    const amps = left.amps + slope * (v - left.v);
    if (Math.abs(amps) / this.capacitor.farads < REST_V_S) return true;
    return slope < 0 && Math.abs(amps / slope) <= REST_V;
  }

  /** Seconds until the capacitor rests for all that can be seen; 0 where it does. */
  get secondsToRest(): number {
    const own = this.restOf(this.lowLaw, this.low);
    return this.isOne ? own : Math.max(own, this.restOf(this.highLaw, this.high));
  }

  private restOf({ samples }: ChargeLaw, from: number): number {
    const { farads } = this.capacitor;
    let [v, passed] = [from, 0];
    for (const piece of path(samples, from)) {
      if (Math.abs(piece.amps + piece.slope * (v - piece.fromV)) / farads < REST_V_S) return passed;
      const goal = piece.slope < 0 ? piece.fromV - piece.amps / piece.slope : Infinity;
      const isLast = Math.abs(goal - v) <= Math.abs(piece.endV - v) + REST_V;
      const near = goal - Math.sign(goal - v) * REST_V;
      if (isLast) return Math.abs(goal - v) <= REST_V ? passed : passed + secondsTo(piece, v, near, farads);
      passed += secondsTo(piece, v, piece.endV, farads);
      v = piece.endV;
    }
    return passed;
  }

  /** The least and the most volts of a node, by its index in the island, and whether anything is known of it. */
  nodeV(row: number): readonly [least: number, most: number] {
    const low = valueAt(this.lowLaw, this.low, ({ nodes }) => nodes[row] as number);
    if (this.isOne) return [low, low];
    const others = [
      valueAt(this.lowLaw, this.high, ({ nodes }) => nodes[row] as number),
      valueAt(this.highLaw, this.low, ({ nodes }) => nodes[row] as number),
      valueAt(this.highLaw, this.high, ({ nodes }) => nodes[row] as number),
    ];
    return [Math.min(low, ...others), Math.max(low, ...others)];
  }

  /** Whether the law was found where the capacitor stands. */
  get isSure(): boolean {
    return (this.lowLaw.samples[0]?.isSure ?? false) && (this.highLaw.samples[0]?.isSure ?? false);
  }

  /** What the supplies give into it now, in amperes. */
  get supplyA(): number {
    return valueAt(this.lowLaw, this.low, (s) => s.supplyA);
  }
}

/** Whether the middle of three samples lies on the straight line between the others. */
function isStraight(from: Sample, middle: Sample, to: Sample): boolean {
  const off = Math.abs(middle.amps - (from.amps + to.amps) / 2);
  const size = Math.min(Math.abs(from.amps), Math.abs(middle.amps), Math.abs(to.amps));
  if (off > STRAIGHT_A + STRAIGHT_SHARE * size) return false;
  return middle.nodes.every(
    (v, i) => Math.abs(v - ((from.nodes[i] as number) + (to.nodes[i] as number)) / 2) < STRAIGHT_V,
  );
}

/** A piece of a capacitor's way: from where it is to the end of what is straight, in the direction in which it moves. */
interface Piece {
  readonly from: Sample;
  readonly to: Sample;
  readonly fromV: number;
  readonly endV: number;
  /** The current at `fromV`, and what it changes by with each volt. */
  readonly amps: number;
  readonly slope: number;
}

/** The pieces that a capacitor goes through from some volts on, until it rests or leaves what is known. */
function* path(samples: readonly Sample[], from: number): Generator<Piece> {
  if (samples.length < 2) return;
  let k = pieceAt(samples, from);
  let v = from;
  let direction = 0;
  for (;;) {
    const [left, right] = [elementAt(samples, k), elementAt(samples, k + 1)];
    const slope = (right.amps - left.amps) / (right.v - left.v);
    const amps = left.amps + slope * (v - left.v);
    const sign = Math.sign(amps);
    if (sign === 0 || (direction !== 0 && sign !== direction)) return;
    direction = sign;
    const endV = sign > 0 ? right.v : left.v;
    // From the very edge of a piece the way goes on in the next one.
    if (v !== endV) yield { from: left, to: right, fromV: v, endV, amps, slope };
    v = endV;
    k += sign;
    if (k < 0 || k > samples.length - 2) return;
  }
}

function pieceAt(samples: readonly Sample[], v: number): number {
  let [low, high] = [0, samples.length - 2];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (elementAt(samples, middle).v <= v) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Seconds from one voltage of a piece to another; Infinity where it never comes there. */
function secondsTo({ fromV, amps, slope }: Piece, v: number, target: number, farads: number): number {
  const now = amps + slope * (v - fromV);
  const ratio = (slope * (target - v)) / now;
  if (!(ratio > -1)) return Infinity;
  const seconds = Math.abs(ratio) < 1e-9 ? (farads * (target - v)) / now : (farads / slope) * Math.log1p(ratio);
  return seconds >= 0 ? seconds : Infinity;
}

/** The volts after some seconds on a piece. */
function along({ fromV, amps, slope }: Piece, v: number, seconds: number, farads: number): number {
  const now = amps + slope * (v - fromV);
  const x = (slope * seconds) / farads;
  return v + (Math.abs(x) < 1e-12 ? (now * seconds) / farads : (now / slope) * Math.expm1(x));
}

function nodeAt({ from, to }: Piece, row: number, v: number): number {
  const share = (v - from.v) / (to.v - from.v);
  const [a, b] = [from.nodes[row] as number, to.nodes[row] as number];
  return a + share * (b - a);
}

function valueAt({ samples }: ChargeLaw, v: number, of: (sample: Sample) => number): number {
  if (samples.length < 2) return 0;
  const k = pieceAt(samples, v);
  const [from, to] = [elementAt(samples, k), elementAt(samples, k + 1)];
  const share = Math.max(0, Math.min(1, (v - from.v) / (to.v - from.v)));
  return of(from) + share * (of(to) - of(from));
}

/** The law that bounds several, taken where any of them bends. */
function envelope(laws: readonly ChargeLaw[], bound: (...values: number[]) => number): ChargeLaw {
  const all = [...new Set(laws.flatMap(({ samples }) => samples.map((s) => s.v)))].sort((a, b) => a - b);
  return {
    samples: all.map((v) => ({
      v,
      amps: bound(...laws.map((law) => valueAt(law, v, (s) => s.amps))),
      nodes: elementAt(elementAt(laws, 0).samples, 0).nodes.map((_, row) =>
        bound(...laws.map((law) => valueAt(law, v, (s) => s.nodes[row] as number))),
      ),
      supplyA: bound(...laws.map((law) => valueAt(law, v, (s) => s.supplyA))),
      isSure: laws.every((law) => law.samples.every((s) => s.isSure)),
    })),
  };
}
