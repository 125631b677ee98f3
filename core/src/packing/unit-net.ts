import type { GateKind } from '../logic';
import { evaluateBlockKind, FIRST_BLOCK, sameAsBlock } from './block-kinds';
import type { Duty } from './candidate';

/** Inverter; the kinds of units have numbers here, for a kernel. */
export const NOT = 0;
/** Product. */
export const AND = 1;
/** Complement of a product. */
export const NAND = 2;
/** Sum. */
export const OR = 3;
/** Complement of a sum. */
export const NOR = 4;
/** Exclusive or of two. */
export const XOR = 5;
/** Its complement. */
export const XNOR = 6;
/** AND-OR-invert: the complement of the sum of two products, whose inputs are the two halves of its list. */
export const AOI = 7;

const names = ['not', 'and', 'nand', 'or', 'nor', 'xor', 'xnor', 'aoi'] as const;

/** The number of a kind of unit. */
export const kindNumber = (kind: Duty['kind'] | GateKind): number => (names as readonly string[]).indexOf(kind);

/** The duty of a unit by the number of its kind and its inputs. */
export function dutyOfNode(kind: number, inputs: number): Duty {
  if (kind === AOI) return { kind: 'aoi', width: inputs > 4 ? 3 : 2 };
  return { kind: names[kind] as Exclude<Duty['kind'], 'aoi'>, width: inputs };
}

/** The signals that stand for 0 and 1; sources follow, then what units make. */
export const [ZERO, ONE, FIRST_SOURCE] = [0, 1, 2];

/** The most units of a net, and the most inputs of one. */
const CAPACITY = 400;

/** A net of units as it is between moves: kinds and inputs by signal, and the signals of the outputs. */
export interface NetState {
  readonly nodes: readonly { readonly signal: number; readonly kind: number; readonly ins: readonly number[] }[];
  readonly outputs: readonly number[];
}

/**
 * A net of real units over some rows, 32 to a word: each signal has its words, units are in an order in which each comes after what it reads. Signals are
 * numbers: 0, 1, the sources, and one for each unit. A move replaces a unit by a signal; what nothing reads then is gone, and gates with a
 * constant or the same input twice become smaller ones.
 */
export class UnitNet {
  /** The kind of each signal's unit; -1 where there is none. */
  readonly kind: Int8Array;
  readonly ins: number[][] = [];
  /** How many inputs and outputs read each signal. */
  readonly readers: Int32Array;
  readonly bits: Int32Array[] = [];
  readonly outputs: number[];
  /** Signals of units, each after what it reads. */
  order: number[] = [];
  readonly firstNode: number;
  readonly words: number;
  private readonly free: number[] = [];

  constructor(sources: readonly Int32Array[], state: NetState) {
    const words = sources[0]?.length ?? 1;
    this.words = words;
    this.firstNode = FIRST_SOURCE + sources.length;
    const size = this.firstNode + CAPACITY;
    this.kind = new Int8Array(size).fill(-1);
    this.readers = new Int32Array(size);
    this.outputs = [...state.outputs];
    this.bits.push(new Int32Array(words), new Int32Array(words).fill(-1), ...sources);
    for (let s = this.bits.length; s < size; s++) this.bits.push(new Int32Array(words));
    for (let s = 0; s < size; s++) this.ins.push([]);
    this.restore(state);
  }

  /** How many units there are. */
  get size(): number {
    return this.order.length;
  }

  /** The net as it is, to come back to. */
  state(): NetState {
    const nodes = this.order.map((signal) => ({
      signal,
      kind: this.kind[signal] as number,
      ins: [...(this.ins[signal] as number[])],
    }));
    return { nodes, outputs: [...this.outputs] };
  }

  /** Puts a net back as it was. */
  restore({ nodes, outputs }: NetState): void {
    this.kind.fill(-1);
    for (const { signal, kind, ins } of nodes) {
      this.kind[signal] = kind;
      this.ins[signal] = [...ins];
    }
    for (const [o, signal] of outputs.entries()) this.outputs[o] = signal;
    this.settle();
  }

  /** A signal for a new unit; -1 when there is no room. */
  add(kind: number, ins: readonly number[]): number {
    const signal = this.free.pop() ?? -1;
    if (signal < 0) return -1;
    this.kind[signal] = kind;
    this.ins[signal] = [...ins];
    return signal;
  }

  /** Has all that reads one signal read another, smaller gates where that makes them so; and brings order and rows up to date. */
  replace(from: number, by: number): void {
    const todo: [number, number][] = [[from, by]];
    for (let next = todo.pop(); next; next = todo.pop()) {
      const [old, now] = next;
      for (const [o, signal] of this.outputs.entries()) if (signal === old) this.outputs[o] = now;
      for (const pair of todo) if (pair[1] === old) pair[1] = now;
      for (let s = this.firstNode; s < this.kind.length; s++) {
        const ins = this.ins[s] as number[];
        if (this.kind[s] === -1 || s === old || !ins.includes(old)) continue;
        for (const [i, x] of ins.entries()) if (x === old) ins[i] = now;
        const same = this.simplified(s);
        if (same >= 0) todo.push([s, same]);
      }
      this.kind[old] = -1;
    }
    this.settle();
  }

  /** Makes a gate with constants or doubled inputs smaller; the signal that it is like, -1 where it stays a gate. */
  private simplified(s: number): number {
    const kind = this.kind[s] as number;
    const ins = this.ins[s] as number[];
    if (kind >= FIRST_BLOCK) return sameAsBlock(kind, ins);
    if (kind === AOI) return this.simplifiedAoi(s, ins);
    if (kind === NOT) return ins[0] === ZERO ? ONE : ins[0] === ONE ? ZERO : -1;
    if (kind === XOR || kind === XNOR) return this.simplifiedXor(s, kind, ins);
    const isAnd = kind === AND || kind === NAND;
    const inverts = kind === NAND || kind === NOR;
    const [neutral, ruling] = isAnd ? [ONE, ZERO] : [ZERO, ONE];
    if (ins.includes(ruling)) return inverts ? 1 - ruling : ruling;
    const left = [...new Set(ins)].filter((x) => x !== neutral);
    this.ins[s] = left;
    if (left.length === 0) return inverts ? 1 - neutral : neutral;
    if (left.length > 1) return -1;
    if (!inverts) return left[0] as number;
    this.kind[s] = NOT;
    return -1;
  }

  private simplifiedXor(s: number, kind: number, [a = 0, b = 0]: readonly number[]): number {
    const isOdd = kind === XOR;
    if (a === b) return isOdd ? ZERO : ONE;
    const constant = a <= ONE ? a : b <= ONE ? b : -1;
    if (constant < 0) return -1;
    const other = a <= ONE ? b : a;
    if ((constant === ONE) === isOdd) {
      this.kind[s] = NOT;
      this.ins[s] = [other];
      return other <= ONE ? 1 - other : -1;
    }
    return other;
  }

  private simplifiedAoi(s: number, ins: readonly number[]): number {
    const half = ins.length / 2;
    const sides = [ins.slice(0, half), ins.slice(half)].map((side) => {
      if (side.includes(ZERO)) return null;
      return [...new Set(side)].filter((x) => x !== ONE);
    });
    const [a, b] = sides as [number[] | null, number[] | null];
    if (a?.length === 0 || b?.length === 0) return ZERO;
    if (a && b && a.join() !== b.join()) {
      if (a.length === 1 && b.length === 1) {
        this.kind[s] = NOR;
        this.ins[s] = [...a, ...b];
        return -1;
      }
      const width = Math.max(2, a.length, b.length);
      const filled = (side: readonly number[]) =>
        Array.from({ length: width }, (_, i) => side[i] ?? (side[0] as number));
      this.ins[s] = [...filled(a), ...filled(b)];
      return -1;
    }
    const one = a ?? b;
    if (!one) return ONE;
    this.kind[s] = one.length === 1 ? NOT : NAND;
    this.ins[s] = one;
    return -1;
  }

  /** Brings order, readers and rows up to date; units that no output needs are gone. */
  private settle(): void {
    const { kind, ins, readers, outputs } = this;
    readers.fill(0);
    const order: number[] = [];
    const state = new Uint8Array(kind.length);
    const visit = (s: number): void => {
      if (s < this.firstNode || state[s] !== 0) return;
      state[s] = 1;
      for (const x of ins[s] as number[]) visit(x);
      order.push(s);
    };
    for (const o of outputs) visit(o);
    for (let s = this.firstNode; s < kind.length; s++) if (state[s] === 0) kind[s] = -1;
    for (const s of order) for (const x of ins[s] as number[]) readers[x] = (readers[x] as number) + 1;
    for (const o of outputs) readers[o] = (readers[o] as number) + 1;
    this.order = order;
    this.free.length = 0;
    for (let s = kind.length - 1; s >= this.firstNode; s--) if (state[s] === 0) this.free.push(s);
    for (const s of order) this.compute(s, this.bits, this.bits[s] as Int32Array);
  }

  /** The rows of a unit from those of its inputs. */
  compute(s: number, bits: readonly Int32Array[], into: Int32Array): void {
    evaluate(this.kind[s] as number, this.ins[s] as number[], bits, into);
  }

  /** The rows that a gate would have which is not in the net. */
  evaluate(kind: number, ins: readonly number[], into: Int32Array): void {
    evaluate(kind, ins, this.bits, into);
  }
}

/** The rows of a gate from those of its inputs. */
export function evaluate(kind: number, ins: readonly number[], bits: readonly Int32Array[], into: Int32Array): void {
  if (kind >= FIRST_BLOCK) {
    evaluateBlockKind(kind, ins, bits, into);
    return;
  }
  const words = into.length;
  const first = bits[ins[0] as number] as Int32Array;
  if (kind === AOI) {
    evaluateAoi(ins, bits, into);
    return;
  }
  if (kind === NOT) {
    for (let w = 0; w < words; w++) into[w] = ~(first[w] as number);
    return;
  }
  const second = bits[ins[1] as number] as Int32Array;
  if (kind === XOR || kind === XNOR) {
    const flip = kind === XNOR ? -1 : 0;
    for (let w = 0; w < words; w++) into[w] = (first[w] as number) ^ (second[w] as number) ^ flip;
    return;
  }
  const isAnd = kind === AND || kind === NAND;
  if (isAnd) for (let w = 0; w < words; w++) into[w] = (first[w] as number) & (second[w] as number);
  else for (let w = 0; w < words; w++) into[w] = (first[w] as number) | (second[w] as number);
  for (let i = 2; i < ins.length; i++) {
    const next = bits[ins[i] as number] as Int32Array;
    if (isAnd) for (let w = 0; w < words; w++) into[w] = (into[w] as number) & (next[w] as number);
    else for (let w = 0; w < words; w++) into[w] = (into[w] as number) | (next[w] as number);
  }
  if (kind === NAND || kind === NOR) for (let w = 0; w < words; w++) into[w] = ~(into[w] as number);
}

function evaluateAoi(ins: readonly number[], bits: readonly Int32Array[], into: Int32Array): void {
  const half = ins.length / 2;
  for (let w = 0; w < into.length; w++) {
    let [one, other] = [-1, -1];
    for (let i = 0; i < half; i++) {
      one &= (bits[ins[i] as number] as Int32Array)[w] as number;
      other &= (bits[ins[i + half] as number] as Int32Array)[w] as number;
    }
    into[w] = ~(one | other);
  }
}
