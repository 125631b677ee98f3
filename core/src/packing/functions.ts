import { type Netlist, networkOf } from '../design';
import { elementAt } from '../element-at';
import type { Expr, GateKind } from '../logic';
import { addRow } from '../logic';

/**
 * A signal up to complement: class number times two, plus one for the complement of the class's own
 * function. Literals 0 and 1 are the constants.
 */
export type Literal = number;

/** The class of a literal: the function up to complement that it stands for. */
export const classOf = (l: Literal): number => l >> 1;
/** The complement of a literal. */
export const inverse = (l: Literal): Literal => l ^ 1;

/** A step of a chain: a function as a word with row 0 low, and the two, in either polarity, of which it or its complement is made. */
export interface ChainStep {
  readonly makes: number;
  readonly of: readonly [number, number];
  readonly kind: 'and' | 'xor';
}

/** Up to so many sources functions are known in all rows; beyond, in rows drawn by a seed. */
const MAX_ALL_ROWS = 12;
const DRAWN_WORDS = 256;
/** The depth of functions that nothing is known to make. */
const FAR = 1000;

/**
 * The functions of a design, each once up to complement, as bit sets over rows; and their order: a class
 * is made from classes of lower rank alone. Class 0 is the constant, then come the sources. `exact` tells
 * whether the rows are all there are, so that equal bits are equal functions. Rows that matter to nothing are
 * taken to be like row 0, whatever the inputs say: functions that differ in them alone are then one.
 */
export class FunctionNet {
  readonly exact: boolean;
  readonly words: number;
  readonly tables: Int32Array[] = [];
  /** Length of the shortest known way from the sources to each class, in gates of two inputs. */
  readonly depth: number[] = [];
  /** Ways to make classes that follow from how they were come by: `and`, `or` and `xor` of up to four. */
  readonly steps: { readonly makes: Literal; readonly kind: GateKind; readonly of: readonly Literal[] }[] = [];
  private readonly byBits = new Map<string, number>();
  private readonly literals = new Map<string, Literal>();
  private readonly free: ReadonlySet<number>;

  constructor(
    readonly sources: readonly string[],
    unused: readonly number[] = [],
  ) {
    this.exact = sources.length <= MAX_ALL_ROWS;
    this.words = this.exact ? Math.max(1, (2 ** sources.length) >> 5) : DRAWN_WORDS;
    // Row 0 stays, so that every source is low in it.
    const free = new Set(this.exact ? unused.filter((r) => r > 0) : []);
    this.free = this.areApart(free) ? free : new Set();
    this.add(new Int32Array(this.words), 0);
    for (const [i, name] of sources.entries()) this.literals.set(name, this.add(this.sourceRows(i), 0));
    this.literals.set('0', 0);
    this.literals.set('1', 1);
  }

  /** Whether a row, by number, matters to nothing. */
  isFree(row: number): boolean {
    return this.free.has(row);
  }

  /** Rows that matter to nothing and are taken for another. */
  get freeRows(): number {
    return this.free.size;
  }

  /** The same sources over the same rows, and the same names, but of ways to make functions only those of a chain. */
  madeByChain(chain: readonly ChainStep[]): FunctionNet {
    const net = new FunctionNet(this.sources, [...this.free]);
    for (const { of, kind } of chain) {
      const literals = of.map((f) => net.find(Int32Array.of(f)));
      if (literals.includes(null)) throw new Error('a step of a chain reads what is not made');
      net.wide(kind, literals as Literal[]);
    }
    for (const [name, l] of this.literals) net.name(name, net.add(this.bits(l), FAR));
    return net;
  }

  /** Whether no source is constant or like another, or its complement, in the rows that are left. */
  private areApart(free: ReadonlySet<number>): boolean {
    const n = this.sources.length;
    const texts = this.sources.map((_, i) => {
      let text = '';
      for (let row = 0; row < 2 ** n && free.size > 0; row++) if (!free.has(row)) text += (row >>> (n - 1 - i)) & 1;
      return text;
    });
    return free.size === 0 || (texts.every((t) => t.includes('1')) && new Set(texts).size === n);
  }

  get count(): number {
    return this.tables.length;
  }

  isSource(c: number): boolean {
    return c > 0 && c <= this.sources.length;
  }

  /** The literal of a named net; throws for a net that was not added. */
  ofNet(name: string): Literal {
    const literal = this.literals.get(name);
    if (literal === undefined) throw new Error(`no function is known of ${name}`);
    return literal;
  }

  /** Nets by name with their literals, in the order they were added. */
  nets(): Iterable<[string, Literal]> {
    return this.literals;
  }

  /** The rows in which a literal is high, words of it. */
  bits(l: Literal): Int32Array {
    const table = elementAt(this.tables, classOf(l));
    return l & 1 ? table.map((w) => ~w & this.mask) : table;
  }

  /** The bits of a word that are rows. */
  get mask(): number {
    return this.exact && this.sources.length < 5 ? 2 ** (2 ** this.sources.length) - 1 : -1;
  }

  /** The literal of a function, a new class if it is none yet. */
  add(bits: Int32Array, depth: number): Literal {
    const phase = elementAt(bits, 0) & 1;
    const own = phase ? bits.map((w) => ~w & this.mask) : bits;
    const key = keyOf(own);
    let c = this.byBits.get(key);
    if (c === undefined) {
      c = this.tables.length;
      this.byBits.set(key, c);
      this.tables.push(own);
      this.depth.push(depth);
    } else if (depth < elementAt(this.depth, c)) this.depth[c] = depth;
    return 2 * c + phase;
  }

  /** The class with given rows, up to complement; null when there is none. */
  find(bits: Int32Array): Literal | null {
    const phase = elementAt(bits, 0) & 1;
    const c = this.byBits.get(keyOf(bits.map((w) => (phase ? ~w : w) & this.mask)));
    return c === undefined ? null : 2 * c + phase;
  }

  /** The literal that a gate of some literals makes. */
  gate(kind: GateKind, of: readonly Literal[]): Literal {
    const steps = Math.ceil(Math.log2(Math.max(2, of.length)));
    const depth = steps + Math.max(0, ...of.map((l) => elementAt(this.depth, classOf(l))));
    if (kind === 'not') return inverse(elementAt(of, 0));
    const odd = kind === 'xor' || kind === 'xnor';
    const all = kind === 'and' || kind === 'nand';
    const bits = new Int32Array(this.words).fill(all ? this.mask : 0);
    for (const l of of) {
      const other = this.bits(l);
      for (let w = 0; w < bits.length; w++) {
        const [a, b] = [elementAt(bits, w), elementAt(other, w)];
        bits[w] = odd ? a ^ b : all ? a & b : a | b;
      }
    }
    const made = this.add(bits, depth);
    return kind === 'nand' || kind === 'nor' || kind === 'xnor' ? inverse(made) : made;
  }

  /** Names a net after its literal. */
  name(net: string, l: Literal): void {
    this.literals.set(net, l);
  }

  /** The literal of an expression over named nets; every step of it becomes a class, wide gates two inputs at a time too. */
  expr(e: Expr): Literal {
    if (e.kind === 'const') return e.value;
    if (e.kind === 'name') return this.ofNet(e.name);
    if (e.kind === 'not') return inverse(this.expr(e.of));
    return this.wide(
      e.gate,
      e.of.map((x) => this.expr(x)),
    );
  }

  /**
   * A gate of any width, with ways to make it from smaller ones: its inputs in groups of two, three and
   * four, groups of groups, and one after the other; an exclusive or from products too. What is smaller is
   * added first, so that it comes earlier in the order of classes.
   */
  wide(kind: GateKind, of: readonly Literal[]): Literal {
    const plain = kind === 'nand' ? 'and' : kind === 'nor' ? 'or' : kind === 'xnor' ? 'xor' : kind;
    const ends = of.length > 2 ? [...this.grouped(plain, of), this.chained(plain, of)] : [of];
    if (plain === 'xor') for (const [a, b] of ends) if (a !== undefined && b !== undefined) this.productsOf(a, b);
    const made = this.gate(plain, of);
    for (const end of ends) if (end.length <= 4) this.steps.push({ makes: made, kind: plain, of: end });
    return kind === plain ? made : inverse(made);
  }

  /** The last lists of literals when inputs are gathered in groups; their groups are made. */
  private grouped(plain: GateKind, of: readonly Literal[]): Literal[][] {
    const ends: Literal[][] = of.length <= 4 ? [[...of]] : [];
    for (let size = 2; size <= Math.min(4, of.length - 1); size++) {
      const parts: Literal[] = [];
      for (let i = 0; i < of.length; i += size) parts.push(this.part(plain, of.slice(i, i + size)));
      if (parts.length <= 4) ends.push(parts);
      if (parts.length > 2) ends.push(...this.grouped(plain, parts));
    }
    return ends;
  }

  private chained(plain: GateKind, of: readonly Literal[]): Literal[] {
    let [before] = of as readonly [Literal];
    for (const l of of.slice(1, -1)) before = this.part(plain, [before, l]);
    return [before, elementAt(of, of.length - 1)];
  }

  private part(plain: GateKind, of: readonly Literal[]): Literal {
    if (of.length === 1) return elementAt(of, 0);
    if (plain === 'xor' && of.length === 2) this.productsOf(elementAt(of, 0), elementAt(of, 1));
    const makes = this.gate(plain, of);
    this.steps.push({ makes, kind: plain, of });
    return makes;
  }

  /** The products from which an exclusive or can be made where there are no exclusive ors. */
  private productsOf(a: Literal, b: Literal): void {
    for (const [x, y] of [
      [a, b],
      [inverse(a), inverse(b)],
      [a, inverse(b)],
      [inverse(a), b],
    ] as const)
      this.gate('and', [x, y]);
  }

  private sourceRows(i: number): Int32Array {
    const rows = new Int32Array(this.words);
    const n = this.sources.length;
    if (!this.exact) {
      let seed = Math.imul(i + 1, 0x9e3779b1);
      for (let w = 0; w < rows.length; w++) {
        seed = Math.imul(seed ^ (seed >>> 15), 0x2c1b3c6d) + 0x297a2d39;
        rows[w] = Math.imul(seed ^ (seed >>> 12), 0x5f356495);
      }
      // Row 0 has every source low, as everywhere.
      rows[0] = elementAt(rows, 0) & ~1;
      return rows;
    }
    const k = n - 1 - i;
    for (let row = 0; row < 2 ** n; row++) if ((row >>> k) & 1 && !this.free.has(row)) addRow(rows, row);
    return rows;
  }
}

const keyOf = (bits: Int32Array): string => {
  let key = '';
  for (let w = 0; w < bits.length; w++)
    key += String.fromCharCode(elementAt(bits, w) & 0xffff, elementAt(bits, w) >>> 16);
  return key;
};

/** The functions of a design's gates, the steps of wide gates among them. */
export function functionsOf(netlist: Netlist): FunctionNet {
  const functions = new FunctionNet(networkOf(netlist).inputs, netlist.unused?.rows);
  for (const { output, kind, inputs } of netlist.gates)
    functions.name(
      output,
      functions.wide(
        kind,
        inputs.map((n) => functions.ofNet(n)),
      ),
    );
  return functions;
}
