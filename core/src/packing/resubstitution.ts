import { AND, AOI, NAND, NOR, NOT, OR, XNOR, XOR } from './unit-net';

/** Stands among the signals that a gate reads for a second new gate, which is still to be found. */
export const NEW = -1;

/** A gate that could stand for a function: its kind and the signals it reads. */
export interface Gate {
  readonly kind: number;
  readonly ins: readonly number[];
}

/** Where a function must be high, and where low; in other rows it may be either. */
export interface Wanted {
  readonly on: Int32Array;
  readonly off: Int32Array;
}

/** What may be used: signals in the order in which they are looked at, their rows, and the most inputs of each kind of gate (0: none). */
export interface Means {
  readonly signals: readonly number[];
  readonly bits: readonly Int32Array[];
  readonly mostInputs: readonly number[];
}

/** How many signals each kind of gate may try, and how many gates are found at most. */
export interface Bounds {
  readonly looks: number;
  readonly gates: number;
}

const MOST_WIDTH = 4;
/** The share of what is found that may be AND-OR-inverts. */
const AOI_SHARE = 0.15;
const NOTHING = new Int32Array(0);

/**
 * Boolean resubstitution: gates over given signals that agree with a function wherever it matters. Products and sums are covers: of the rows that are still wrong
 * the first is put right by each signal that can. A kernel: it runs some times in each move of a search.
 */
export class Resubstitution {
  private readonly rest: readonly Int32Array[];
  private readonly outer: readonly Int32Array[];
  private readonly inner: readonly Int32Array[];
  private readonly bySum = new Map<number, number[]>();
  private found: Gate[] = [];
  private looks = 0;
  private most = 0;
  private bounds: Bounds = { looks: 0, gates: 0 };
  private signals: readonly number[] = [];
  private bits: readonly Int32Array[] = [];
  private mostInputs: readonly number[] = [];
  private on: Int32Array = NOTHING;
  private off: Int32Array = NOTHING;

  /** `words` is how many words of 32 rows each signal has. */
  constructor(words: number) {
    const rows = (): Int32Array[] => Array.from({ length: MOST_WIDTH + 1 }, () => new Int32Array(words));
    [this.rest, this.outer, this.inner] = [rows(), rows(), rows()];
  }

  /** The signals that are what is wanted as they are, and gates that are. */
  find(
    { on, off }: Wanted,
    { signals, bits, mostInputs }: Means,
    bounds: Bounds,
  ): { readonly signals: readonly number[]; readonly gates: readonly Gate[] } {
    this.found = [];
    this.bounds = bounds;
    this.most = bounds.gates;
    [this.signals, this.bits, this.mostInputs, this.on, this.off] = [signals, bits, mostInputs, on, off];
    const same: number[] = [];
    const [aboveOn, aboveOff, clearOfOff, clearOfOn]: number[][] = [[], [], [], []];
    for (const s of signals) {
      const is = this.relation(bits[s] as Int32Array);
      if ((is & HOLDS_ON) !== 0) aboveOn?.push(s);
      if ((is & HOLDS_OFF) !== 0) aboveOff?.push(s);
      if ((is & CLEAR_OF_OFF) !== 0) clearOfOff?.push(s);
      if ((is & CLEAR_OF_ON) !== 0) clearOfOn?.push(s);
      if ((is & HOLDS_ON) !== 0 && (is & CLEAR_OF_OFF) !== 0) same.push(s);
      else if ((is & HOLDS_OFF) !== 0 && (is & CLEAR_OF_ON) !== 0 && this.mayUse(NOT))
        this.found.push({ kind: NOT, ins: [s] });
    }
    this.covers(AND, aboveOn ?? [], off);
    this.covers(NAND, aboveOff ?? [], on);
    this.covers(OR, clearOfOff ?? [], on);
    this.covers(NOR, clearOfOn ?? [], off);
    if (this.mayUse(XOR)) this.pairs(XOR, on, off);
    if (this.mayUse(XNOR)) this.pairs(XNOR, off, on);
    if (this.mayUse(AOI)) this.andOrInverts();
    return { signals: same, gates: this.found };
  }

  private mayUse(kind: number): boolean {
    return (this.mostInputs[kind] as number) > 0;
  }

  /** How a signal lies to what is wanted. */
  private relation(rows: Int32Array): number {
    const { on, off } = this;
    let is = HOLDS_ON | HOLDS_OFF | CLEAR_OF_ON | CLEAR_OF_OFF;
    for (let w = 0; w < rows.length && is !== 0; w++) {
      const [r, a, b] = [rows[w] as number, on[w] as number, off[w] as number];
      if ((a & ~r) !== 0) is &= ~HOLDS_ON;
      if ((b & ~r) !== 0) is &= ~HOLDS_OFF;
      if ((a & r) !== 0) is &= ~CLEAR_OF_ON;
      if ((b & r) !== 0) is &= ~CLEAR_OF_OFF;
    }
    return is;
  }

  private get isFull(): boolean {
    return this.found.length >= this.most;
  }

  /** Gates of signals of which one at least is low (of a sum, high) in each of some rows. */
  private covers(kind: number, among: readonly number[], rows: Int32Array): void {
    const width = Math.min(MOST_WIDTH, this.mostInputs[kind] as number);
    if (width < 2 || among.length < 2 || this.isFull) return;
    this.looks = this.bounds.looks;
    (this.rest[0] as Int32Array).set(rows);
    this.deepen({ kind, width, flip: kind === AND || kind === NAND ? -1 : 0, among }, []);
  }

  private deepen(cover: Cover, taken: readonly number[]): void {
    const { kind, width, flip, among } = cover;
    const rest = this.rest[taken.length] as Int32Array;
    const at = firstWord(rest);
    if (at < 0) return;
    const row = (rest[at] as number) & -(rest[at] as number);
    const isLast = taken.length === width - 1;
    const next = this.rest[taken.length + 1] as Int32Array;
    for (const s of among) {
      const own = this.bits[s] as Int32Array;
      if ((((own[at] as number) ^ flip) & row) === 0) continue;
      if (--this.looks < 0 || this.isFull) return;
      let left = 0;
      for (let w = at; w < rest.length; w++) {
        const x = (rest[w] as number) & ~((own[w] as number) ^ flip);
        next[w] = x;
        left |= x;
        if (isLast && x !== 0) break;
      }
      if (left === 0) {
        if (taken.length > 0) this.found.push({ kind, ins: [...taken, s] });
      } else if (!isLast) {
        next.fill(0, 0, at);
        this.deepen(cover, [...taken, s]);
      }
    }
  }

  /** Pairs of signals that differ in the first rows, and not in the others. */
  private pairs(kind: number, odd: Int32Array, even: Int32Array): void {
    const { bySum } = this;
    const wanted = this.sumOf(odd);
    bySum.clear();
    for (const b of this.signals) {
      if (this.isFull) return;
      const sum = this.sumOf(this.bits[b] as Int32Array);
      for (const a of bySum.get(sum ^ wanted) ?? [])
        if (this.differ(a, b, odd, even)) this.found.push({ kind, ins: [a, b] });
      const list = bySum.get(sum);
      if (list) list.push(b);
      else bySum.set(sum, [b]);
    }
  }

  /** A number that is the same for what is the same where it matters; of an exclusive or it is the exclusive or of both. */
  private sumOf(rows: Int32Array): number {
    const { on, off } = this;
    let sum = 0;
    for (let w = 0; w < rows.length; w++) {
      const x = (rows[w] as number) & ((on[w] as number) | (off[w] as number));
      sum ^= (x << (w & 31)) | (x >>> -(w & 31));
    }
    return sum;
  }

  private differ(a: number, b: number, odd: Int32Array, even: Int32Array): boolean {
    const [x, y] = [this.bits[a] as Int32Array, this.bits[b] as Int32Array];
    for (let w = 0; w < x.length; w++) {
      const d = (x[w] as number) ^ (y[w] as number);
      if (((odd[w] as number) & ~d) !== 0 || ((even[w] as number) & d) !== 0) return false;
    }
    return true;
  }

  /** Two products of up to three signals: neither high where the function is, one of them high wherever it is low. */
  private andOrInverts(): void {
    const { off, signals } = this;
    const at = firstWord(off);
    if (at < 0) return;
    const row = (off[at] as number) & -(off[at] as number);
    const here = signals.filter((s) => (((this.bits[s] as Int32Array)[at] as number) & row) !== 0);
    const rest = this.rest[0] as Int32Array;
    this.looks = this.bounds.looks;
    // There are many of them, which would drown the others.
    this.most = Math.min(this.bounds.gates, this.found.length + Math.ceil(this.bounds.gates * AOI_SHARE));
    this.products(here, { taken: [], into: this.outer }, (first, rows) => {
      let left = 0;
      for (let w = 0; w < rest.length; w++) {
        rest[w] = (off[w] as number) & ~(rows[w] as number);
        left |= rest[w] as number;
      }
      if (left === 0) return;
      // What is left must lie in the second product.
      const above = signals.filter((s) => isWithin(rest, this.bits[s] as Int32Array));
      this.products(above, { taken: [], into: this.inner }, (second) =>
        this.found.push({ kind: AOI, ins: filled(first, second) }),
      );
    });
  }

  /** Calls for each product of some signals that is nowhere high where the function is; of each only the shortest. */
  private products(
    among: readonly number[],
    { taken, into }: { readonly taken: readonly number[]; readonly into: readonly Int32Array[] },
    visit: (taken: readonly number[], rows: Int32Array) => void,
  ): void {
    const { on } = this;
    const before = taken.length === 0 ? null : (into[taken.length - 1] as Int32Array);
    const rows = into[taken.length] as Int32Array;
    for (const [i, s] of among.entries()) {
      if (--this.looks < 0 || this.isFull) return;
      const own = this.bits[s] as Int32Array;
      let meets = 0;
      for (let w = 0; w < rows.length; w++) {
        const x = before ? (before[w] as number) & (own[w] as number) : (own[w] as number);
        rows[w] = x;
        meets |= x & (on[w] as number);
      }
      const all = [...taken, s];
      if (meets === 0) visit(all, rows);
      else if (all.length < (this.mostInputs[AOI] as number))
        this.products(among.slice(i + 1), { taken: all, into }, visit);
    }
  }
}

/** The inputs of an AND-OR-invert of two products, the shorter one's first signal repeated. */
function filled(first: readonly number[], second: readonly number[]): number[] {
  const width = Math.max(2, first.length, second.length);
  return [first, second].flatMap((of) => Array.from({ length: width }, (_, i) => of[i] ?? (of[0] as number)));
}

/** A gate that is looked for as a cover: its kind, its most inputs, and whether signals cover where they are low (-1) or high (0). */
interface Cover {
  readonly kind: number;
  readonly width: number;
  readonly flip: number;
  readonly among: readonly number[];
}

const [HOLDS_ON, HOLDS_OFF, CLEAR_OF_ON, CLEAR_OF_OFF] = [1, 2, 4, 8];

/** The first word of some rows in which there is one; -1 where there is none. */
function firstWord(rows: Int32Array): number {
  for (let w = 0; w < rows.length; w++) if (rows[w] !== 0) return w;
  return -1;
}

/** Whether there is no row among some. */
export const isEmpty = (rows: Int32Array): boolean => firstWord(rows) < 0;

function isWithin(rows: Int32Array, others: Int32Array): boolean {
  for (let w = 0; w < rows.length; w++) if (((rows[w] as number) & ~(others[w] as number)) !== 0) return false;
  return true;
}
