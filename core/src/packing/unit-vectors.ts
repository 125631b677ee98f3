import type { Duty } from './candidate';

/**
 * The steps of one kind of unit on truth vectors: bit r of a word is the function's value in row r, so that a gate is one operation on words. Signals are
 * given twice, as a list of which the first `n` count and as marks, `marks[w]` being 1 for those of the list: what is made is found by walking
 * the list, whether something is there by looking at its mark.
 */
export class UnitVectors {
  /** `all` has a bit for every row. */
  constructor(readonly all: number) {}

  /** Whether a unit makes `t` of words of a list other than `t` itself. */
  makes({ kind, width }: Duty, t: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    const opposite = this.all & ~t;
    switch (kind) {
      case 'not':
        return marks[opposite] === 1;
      case 'xor':
      case 'xnor': {
        if (marks[opposite] === 1) return true;
        const g = kind === 'xor' ? t : opposite;
        for (let i = 0; i < n; i++) {
          const s = list[i] as number;
          const o = s ^ g;
          if (s !== t && o !== t && marks[o] === 1) return true;
        }
        return false;
      }
      case 'and':
        return this.comesTo(t, t, this.all, width, 0, list, n, true);
      case 'nand':
        return this.comesTo(opposite, t, this.all, width, 0, list, n, true);
      case 'or':
        return this.comesTo(t, t, 0, width, 0, list, n, false);
      case 'nor':
        return this.comesTo(opposite, t, 0, width, 0, list, n, false);
      case 'aoi':
        return this.isSumOfProducts(opposite, t, width, list, n);
    }
  }

  /** Whether a unit makes `t` of `g`, which need not be on the list, and words of a list other than `t`. */
  makesWith({ kind, width }: Duty, t: number, g: number, list: Int32Array, n: number, marks: Uint8Array): boolean {
    const opposite = this.all & ~t;
    if (g === opposite && kind !== 'and' && kind !== 'or') return true;
    switch (kind) {
      case 'not':
        return false;
      case 'xor':
      case 'xnor': {
        const o = g ^ (kind === 'xor' ? t : opposite);
        return o !== t && marks[o] === 1;
      }
      case 'and':
      case 'nand': {
        const u = kind === 'and' ? t : opposite;
        return (u & ~g) === 0 && this.comesTo(u, t, g, width - 1, 0, list, n, true);
      }
      case 'or':
      case 'nor': {
        const u = kind === 'or' ? t : opposite;
        return (g & ~u) === 0 && this.comesTo(u, t, g, width - 1, 0, list, n, false);
      }
      case 'aoi':
        return this.isSumOfProductsWith(opposite, t, g, width, list, n);
    }
  }

  /**
   * Whether up to `room` words bring `value` to `u`: down to it, each holding `u`, as a product; or up to it, each
   * within `u`, as a sum. `not` is none of them.
   */
  private comesTo(
    u: number,
    not: number,
    value: number,
    room: number,
    from: number,
    list: Int32Array,
    n: number,
    isProduct: boolean,
  ): boolean {
    if (value === u) return true;
    if (room === 0) return false;
    for (let i = from; i < n; i++) {
      const s = list[i] as number;
      if ((isProduct ? u & ~s : s & ~u) !== 0 || s === not) continue;
      const v = isProduct ? value & s : value | s;
      if (v === u || (room > 1 && this.comesTo(u, not, v, room - 1, i + 1, list, n, isProduct))) return true;
    }
    return false;
  }

  private isSumOfProducts(u: number, not: number, width: number, list: Int32Array, n: number): boolean {
    const within: number[] = [];
    this.within(u, not, this.all, width, 0, list, n, within);
    return isSumOfTwo(u, within, within);
  }

  private isSumOfProductsWith(u: number, not: number, g: number, width: number, list: Int32Array, n: number): boolean {
    const own: number[] = [];
    if ((g & ~u) === 0) own.push(g);
    else this.within(u, not, g, width - 1, 0, list, n, own);
    if (own.length === 0) return false;
    const others = [...own];
    this.within(u, not, this.all, width, 0, list, n, others);
    return isSumOfTwo(u, own, others);
  }

  /** Collects the products of `value` with up to `room` words that lie within `u`, of each only the shortest. */
  private within(
    u: number,
    not: number,
    value: number,
    room: number,
    from: number,
    list: Int32Array,
    n: number,
    found: number[],
  ): void {
    for (let i = from; i < n; i++) {
      const s = list[i] as number;
      if (s === not) continue;
      const v = value & s;
      if ((v & ~u) === 0) {
        if (v !== 0) found.push(v);
      } else if (room > 1 && v !== value) this.within(u, not, v, room - 1, i + 1, list, n, found);
    }
  }

  /** Calls for each word that a unit makes of words of a list; spare inputs are joined or tied. */
  each({ kind, width }: Duty, list: Int32Array, n: number, visit: (made: number) => void): void {
    const { all } = this;
    if (kind === 'not') for (let i = 0; i < n; i++) visit(all & ~(list[i] as number));
    else if (kind === 'xor' || kind === 'xnor')
      for (let i = 0; i < n; i++) {
        const s = list[i] as number;
        visit(all & ~s);
        for (let j = 0; j < i; j++)
          visit(all & (kind === 'xor' ? s ^ (list[j] as number) : ~(s ^ (list[j] as number))));
      }
    else if (kind === 'aoi') {
      const products = [0, ...this.products(list, n, width)];
      for (let i = 0; i < products.length; i++)
        for (let j = 0; j < i; j++) visit(all & ~((products[i] as number) | (products[j] as number)));
    } else {
      const inverted = kind === 'nand' || kind === 'nor';
      const isAnd = kind === 'and' || kind === 'nand';
      const gather = (value: number, from: number, room: number): void => {
        for (let i = from; i < n; i++) {
          const v = isAnd ? value & (list[i] as number) : value | (list[i] as number);
          visit(all & (inverted ? ~v : v));
          if (room > 1) gather(v, i + 1, room - 1);
        }
      };
      gather(isAnd ? all : 0, 0, width);
    }
  }

  /** Products of one to `most` words, each once. */
  private products(list: Int32Array, n: number, most: number): number[] {
    const found = new Set<number>();
    const gather = (value: number, from: number, room: number): void => {
      for (let i = from; i < n; i++) {
        const v = value & (list[i] as number);
        found.add(v);
        if (room > 1) gather(v, i + 1, room - 1);
      }
    };
    gather(this.all, 0, most);
    return [...found];
  }
}

/** Writes `base` with each set of some bits more, from place `k` on; the place after the last, -1 without room for all. */
export function writeParts(base: number, bits: number, into: Int32Array, k: number): number {
  if (k < 0) return -1;
  for (let part = bits, at = k; ; part = (part - 1) & bits) {
    if (at === into.length) return -1;
    into[at++] = base | part;
    if (part === 0) return at;
  }
}

function isSumOfTwo(u: number, some: readonly number[], others: readonly number[]): boolean {
  for (let i = 0; i < some.length; i++)
    for (let j = 0; j < others.length; j++) if (((some[i] as number) | (others[j] as number)) === u) return true;
  return false;
}
