import { blockKind, firstKindOf, isEnabledLow } from './block-kinds';
import { type Gate, NEW, type Wanted } from './resubstitution';
import { ONE, ZERO } from './unit-net';

/** A block that could stand for a function; where a gate that it reads is still to be found (NEW), `missing` is what that must be. */
export interface BlockMove {
  readonly gate: Gate;
  readonly missing: Wanted | null;
}

/** What may be used: signals in the order in which they are looked at, their rows, the blocks of the net, and how many addresses are tried for each chip. */
export interface BlockMeans {
  readonly signals: readonly number[];
  readonly bits: readonly Int32Array[];
  readonly there: readonly Gate[];
  /** The first signal that is no source: addresses are drawn from the sources as often as from all signals. */
  readonly firstNode: number;
  readonly tries: number;
}

/** What signals are in all rows in which a function must be low, of those that are one thing there. */
type Still = Map<number, 0 | 1>;

/**
 * Selectors and outputs of decoders that agree with a function wherever it matters: in each row of an address a selector brings out a signal that agrees there
 * (Shannon expansion), and one gate may be missing, which then serves all rows that have none. Addresses that the net has already are tried first: what
 * shares one shares a package.
 */
export class BlockMoves {
  private readonly chips: readonly string[];
  /** The rows in which an address is in the row that is looked at. */
  private readonly here: Int32Array;

  /** `words` is how many words of 32 rows each signal has; `draw` gives a whole number below another. */
  constructor(
    chips: readonly string[],
    private readonly words: number,
    private readonly draw: (below: number) => number,
  ) {
    this.chips = chips.filter((n) => firstKindOf(n) >= 0);
    this.here = new Int32Array(words);
  }

  find(wanted: Wanted, means: BlockMeans): BlockMove[] {
    const kinds = this.chips.map(firstKindOf);
    const isDecoder = (kind: number): boolean => blockKind(kind).row !== null;
    const selectors = kinds.filter((k) => !isDecoder(k)).flatMap((kind) => this.selectors(kind, wanted, means));
    const decoders = kinds.filter(isDecoder);
    if (decoders.length === 0) return selectors;
    // A signal of a decoder's address stands still wherever its output must be low.
    const still: Still = new Map([
      [ZERO, 0],
      [ONE, 1],
    ]);
    for (const s of means.signals) {
      const value = standsAt(means.bits[s] as Int32Array, wanted.off);
      if (value !== null) still.set(s, value);
    }
    return [...selectors, ...decoders.flatMap((kind) => this.decoders(kind, still, { wanted, means }))];
  }

  private selectors(kind: number, wanted: Wanted, means: BlockMeans): BlockMove[] {
    const { address } = blockKind(kind);
    return this.addresses(kind, address, means).flatMap((select) => {
      const move = this.selector(kind, select, wanted, means);
      return move ? [move] : [];
    });
  }

  /** Addresses to try: those of units of the same chip, and drawn ones. */
  private addresses(kind: number, length: number, { signals, there, tries, firstNode }: BlockMeans): number[][] {
    const { number } = blockKind(kind);
    const own = there.filter((g) => blockKind(g.kind).number === number).map(({ ins }) => ins.slice(0, length));
    const open = own.filter((ins) => ins.every((s) => s <= ONE || signals.includes(s)));
    const shared = open.length > 0 ? [open[this.draw(open.length)] as number[]] : [];
    const sources = signals.filter((s) => s < firstNode);
    const drawn = Array.from({ length: tries }, (_, i) => this.drawn(i % 2 === 0 ? sources : signals, length));
    return [...shared, ...drawn.filter((list) => list.length === length)];
  }

  /** So many different signals, in ascending order, so that equal addresses are written alike. */
  private drawn(signals: readonly number[], count: number): number[] {
    const taken = new Set<number>();
    for (let i = 0; i < 2 * count && taken.size < count && signals.length > 0; i++)
      taken.add(signals[this.draw(signals.length)] as number);
    return [...taken].sort((a, b) => a - b);
  }

  private selector(kind: number, select: readonly number[], wanted: Wanted, means: BlockMeans): BlockMove | null {
    const rows = 2 ** select.length;
    const data: number[] = [];
    let missing: { readonly on: Int32Array; readonly off: Int32Array } | null = null;
    for (let k = 0; k < rows; k++) {
      this.mask(select, k, means.bits);
      const s = this.agreeing(wanted, means);
      data.push(s);
      if (s !== NEW) continue;
      missing ??= { on: new Int32Array(this.words), off: new Int32Array(this.words) };
      for (let w = 0; w < this.words; w++) {
        const here = this.here[w] as number;
        missing.on[w] = (missing.on[w] as number) | ((wanted.on[w] as number) & here);
        missing.off[w] = (missing.off[w] as number) | ((wanted.off[w] as number) & here);
      }
    }
    return data.every((s) => s === NEW) ? null : { gate: { kind, ins: [...select, ...data] }, missing };
  }

  /** Puts into `here` where an address is in one of its rows. */
  private mask(select: readonly number[], k: number, bits: readonly Int32Array[]): void {
    const { here } = this;
    here.fill(-1);
    for (let i = 0; i < select.length; i++) {
      const a = bits[select[i] as number] as Int32Array;
      const flip = (k >>> i) & 1 ? 0 : -1;
      for (let w = 0; w < here.length; w++) here[w] = (here[w] as number) & ((a[w] as number) ^ flip);
    }
  }

  /** A constant or a signal that is what is wanted in the rows of `here`; NEW where there is none. */
  private agreeing({ on, off }: Wanted, { signals, bits }: BlockMeans): number {
    const { here } = this;
    let [isNeverOn, isNeverOff] = [true, true];
    for (let w = 0; w < here.length; w++) {
      if (((on[w] as number) & (here[w] as number)) !== 0) isNeverOn = false;
      if (((off[w] as number) & (here[w] as number)) !== 0) isNeverOff = false;
    }
    if (isNeverOn) return ZERO;
    if (isNeverOff) return ONE;
    for (const s of signals) {
      const rows = bits[s] as Int32Array;
      let w = 0;
      for (; w < here.length; w++) {
        const r = rows[w] as number;
        if (((((on[w] as number) & ~r) | ((off[w] as number) & r)) & (here[w] as number)) !== 0) break;
      }
      if (w === here.length) return s;
    }
    return NEW;
  }

  /** Outputs of decoders: low wherever the function must be, high wherever it must be that. */
  private decoders(
    first: number,
    still: Still,
    { wanted, means }: { readonly wanted: Wanted; readonly means: BlockMeans },
  ): BlockMove[] {
    const { address, number, slots } = blockKind(first);
    const enabled = isEnabledLow(number) ? ZERO : ONE;
    const signals = means.signals.filter((s) => still.has(s));
    const always = signals.filter((s) => still.get(s) === enabled);
    const sources = signals.filter((s) => s < means.firstNode);
    const own = means.there.filter((g) => blockKind(g.kind).number === number).map(({ ins }) => ins);
    const drawn = Array.from({ length: means.tries * slots }, (_, i) => {
      const list = this.drawn(i % 2 === 0 ? sources : signals, address);
      const free = always.filter((s) => !list.includes(s));
      const enable = free.length > 0 && this.draw(2) === 0 ? (free[this.draw(free.length)] as number) : enabled;
      return [...list, enable];
    });
    return [...own, ...drawn].flatMap((ins) => {
      if (ins.length !== address + 1) return [];
      const values = ins.map((s) => still.get(s));
      if (values.includes(undefined) || values[address] !== enabled) return [];
      const row = values.slice(0, address).reduce((sum: number, v, i) => sum + (v === 1 ? 2 ** i : 0), 0);
      const isClear = this.isClear(ins, values as (0 | 1)[], wanted.on, means.bits);
      return isClear ? [{ gate: { kind: first + row, ins }, missing: null }] : [];
    });
  }

  /** Whether signals are never all at these values in any of some rows. */
  private isClear(
    ins: readonly number[],
    values: readonly (0 | 1)[],
    rows: Int32Array,
    bits: readonly Int32Array[],
  ): boolean {
    for (let w = 0; w < this.words; w++) {
      let left = rows[w] as number;
      for (const [i, s] of ins.entries()) {
        const a = (bits[s] as Int32Array)[w] as number;
        left &= values[i] === 1 ? a : ~a;
      }
      if (left !== 0) return false;
    }
    return true;
  }
}

/** What a signal is in all of some rows; null where it is now high, now low. */
function standsAt(rows: Int32Array, where: Int32Array): 0 | 1 | null {
  let [isHigh, isLow] = [true, true];
  for (let w = 0; w < rows.length && (isHigh || isLow); w++) {
    if ((~(rows[w] as number) & (where[w] as number)) !== 0) isHigh = false;
    if (((rows[w] as number) & (where[w] as number)) !== 0) isLow = false;
  }
  return isHigh ? 1 : isLow ? 0 : null;
}
