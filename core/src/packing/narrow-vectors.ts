import type { Duty } from './candidate';
import { writeParts } from './unit-vectors';

const LIST = 64;

/**
 * The steps of all two-input units of a set on truth vectors (bit r is the value in row r), all kinds at once: the questions that `UnitVectors`
 * answers for one kind, as the innermost loop of the search. Any unit that inverts with its inputs joined serves as an inverter.
 */
export class NarrowVectors {
  private readonly inverts: boolean;
  private readonly xor: boolean;
  private readonly xnor: boolean;
  private readonly and: boolean;
  private readonly nand: boolean;
  private readonly or: boolean;
  private readonly nor: boolean;
  private readonly kept = new Int32Array(LIST);

  constructor(
    private readonly all: number,
    duties: readonly Duty[],
  ) {
    const has = (kind: Duty['kind']): boolean => duties.some((d) => d.kind === kind);
    this.xor = has('xor');
    this.xnor = has('xnor');
    this.and = has('and');
    this.nand = has('nand');
    this.or = has('or');
    this.nor = has('nor');
    this.inverts = has('not') || this.nand || this.nor || this.xor || this.xnor;
  }

  /** Whether any unit makes `t` of words of a list other than `t`; `marks` is 1 for those of the list. */
  makes(t: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    const { all, xor, xnor } = this;
    const u = all & ~t;
    if (this.inverts && marks[u] === 1) return true;
    let [overT, overU, inT, inU] = [all, all, 0, 0];
    for (let i = 0; i < n; i++) {
      const s = list[i] as number;
      if (s === t) continue;
      const o = s ^ t;
      if (xor && o !== t && marks[o] === 1) return true;
      if (xnor && (all & ~o) !== t && marks[all & ~o] === 1) return true;
      if ((t & ~s) === 0) overT &= s;
      else if ((s & ~t) === 0) inT |= s;
      if ((u & ~s) === 0) overU &= s;
      else if ((s & ~u) === 0) inU |= s;
    }
    return (
      (this.and && overT === t && this.isProduct(t, t, list, n)) ||
      (this.nand && overU === u && this.isProduct(u, t, list, n)) ||
      (this.or && inT === t && this.isSum(t, t, list, n)) ||
      (this.nor && inU === u && this.isSum(u, t, list, n))
    );
  }

  /** Whether any unit makes `t` of `g` and a word of a list other than `t`. */
  makesWith(t: number, g: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    const { all } = this;
    const u = all & ~t;
    if (g === u) return this.inverts;
    const o = g ^ t;
    if (this.xor && o !== t && marks[o] === 1) return true;
    if (this.xnor && (all & ~o) !== t && marks[all & ~o] === 1) return true;
    if (this.and && (t & ~g) === 0 && joins(t, t, g, list, n, true)) return true;
    if (this.nand && (u & ~g) === 0 && joins(u, t, g, list, n, true)) return true;
    if (this.or && (g & ~t) === 0 && joins(t, t, g, list, n, false)) return true;
    return this.nor && (g & ~u) === 0 && joins(u, t, g, list, n, false);
  }

  /** Whether any unit makes `t` of just two words. */
  makesOfTwo(t: number, g: number, h: number): boolean {
    const { all } = this;
    const u = all & ~t;
    return (
      (this.xor && (g ^ h) === t) ||
      (this.xnor && (g ^ h) === u) ||
      (this.and && (g & h) === t) ||
      (this.nand && (g & h) === u) ||
      (this.or && (g | h) === t) ||
      (this.nor && (g | h) === u)
    );
  }

  /** Writes the words with which some unit makes `t`, the other from a list; how many there are, -1 when there is no room for all. Some may come twice. */
  enabling(t: number, list: Int32Array, n: number, into: Int32Array): number {
    const { all } = this;
    const u = all & ~t;
    let k = 0;
    if (this.inverts) into[k++] = u;
    for (let i = 0; i < n && k >= 0; i++) {
      const s = list[i] as number;
      if (s === t) continue;
      if (k + 2 > into.length) return -1;
      if (this.xor) into[k++] = s ^ t;
      if (this.xnor) into[k++] = all & ~(s ^ t);
      // The other holds what is made, and nothing else that `s` holds; of a sum, the other way round.
      if (this.and && (t & ~s) === 0) k = writeParts(t, all & ~s, into, k);
      if (this.nand && (u & ~s) === 0) k = writeParts(u, all & ~s, into, k);
      if (this.or && (s & ~t) === 0) k = writeParts(t & ~s, s, into, k);
      if (this.nor && (s & ~u) === 0) k = writeParts(u & ~s, s, into, k);
    }
    return k;
  }

  private isProduct(u: number, not: number, list: Int32Array, n: number): boolean {
    const { kept } = this;
    let k = 0;
    for (let i = 0; i < n; i++) {
      const s = list[i] as number;
      if (s === not || (u & ~s) !== 0) continue;
      if (s === u) return true;
      for (let j = 0; j < k; j++) if (((kept[j] as number) & s) === u) return true;
      kept[k++] = s;
    }
    return false;
  }

  private isSum(u: number, not: number, list: Int32Array, n: number): boolean {
    const { kept } = this;
    let k = 0;
    for (let i = 0; i < n; i++) {
      const s = list[i] as number;
      if (s === not || (s & ~u) !== 0) continue;
      if (s === u) return true;
      for (let j = 0; j < k; j++) if (((kept[j] as number) | s) === u) return true;
      kept[k++] = s;
    }
    return false;
  }
}

/** Whether `g` and a word of a list other than `not` come to `u`, as a product or as a sum. */
function joins(u: number, not: number, g: number, list: Int32Array, n: number, isProduct: boolean): boolean {
  for (let i = 0; i < n; i++) {
    const s = list[i] as number;
    if ((isProduct ? g & s : g | s) === u && s !== not) return true;
  }
  return false;
}
