/** Up to so many sources every row is looked at in every move; beyond, so many words of drawn rows, and room for those that showed a fault. */
const ALL_ROWS = 11;
const DRAWN_WORDS = 64;
const SPARE_WORDS = 4;

/** Rows of the sources that a search looks at: all of them, or drawn ones and those that showed a fault. */
export class SignatureRows {
  readonly sources: Int32Array[];
  readonly valid: Int32Array;
  readonly isAll: boolean;
  private spare = 0;

  constructor(
    private readonly count: number,
    private readonly unused: readonly number[],
  ) {
    this.isAll = count <= ALL_ROWS;
    const words = this.isAll ? Math.max(1, (2 ** count) >> 5) : DRAWN_WORDS + SPARE_WORDS;
    this.sources = Array.from({ length: count }, () => new Int32Array(words));
    const free = new Set(unused);
    this.valid = new Int32Array(words);
    const drawn = new DrawnRows(count);
    const last = this.isAll ? 2 ** count : DRAWN_WORDS * 32;
    for (let r = 0; r < last; r++) {
      const row = this.isAll ? r : drawn.row(r);
      if (!free.has(row)) this.put(r, row);
    }
  }

  /** Takes a row among those that are looked at. */
  look(row: number): void {
    this.put(DRAWN_WORDS * 32 + (this.spare++ % (SPARE_WORDS * 32)), row);
  }

  /** The first row that matters in which two lists of columns differ; -1 where none does. */
  firstWrong(wanted: readonly Int32Array[], made: readonly Int32Array[]): number {
    const free = new Set(this.unused);
    for (const [o, column] of wanted.entries()) {
      const other = made[o] as Int32Array;
      for (let w = 0; w < column.length; w++) {
        const differs = (column[w] as number) ^ (other[w] as number);
        for (let rest = differs; rest !== 0; rest &= rest - 1) {
          const row = 32 * w + (31 - Math.clz32(rest & -rest));
          if (!free.has(row)) return row;
        }
      }
    }
    return -1;
  }

  private put(at: number, row: number): void {
    const [word, bit] = [at >> 5, 1 << (at & 31)];
    this.valid[word] = (this.valid[word] as number) | bit;
    for (const [i, rows] of this.sources.entries()) {
      const isHigh = ((row >>> (this.count - 1 - i)) & 1) === 1;
      rows[word] = isHigh ? (rows[word] as number) | bit : (rows[word] as number) & ~bit;
    }
  }
}

/**
 * Rows drawn by a seed: a quarter of them with half of the sources high, a quarter each with most and with few, and a quarter with all but one alike, on which wide
 * gates hang.
 */
class DrawnRows {
  private state = 0x9e3779b9;

  constructor(private readonly count: number) {}

  row(r: number): number {
    const all = 2 ** this.count - 1;
    const one = 1 << ((r >> 2) % this.count);
    switch (r & 3) {
      case 0:
        return this.draw();
      case 1:
        return this.draw() | this.draw() | this.draw();
      case 2:
        return this.draw() & this.draw() & this.draw();
      default:
        return (r >> 2) % (4 * this.count) < 2 * this.count ? all & ~one : (r >> 2) % 3 === 0 ? one : this.draw();
    }
  }

  private draw(): number {
    this.state = Math.imul(this.state ^ (this.state >>> 15), 0x2c1b3c6d) + 0x297a2d39;
    return (this.state ^ (this.state >>> 13)) >>> (32 - this.count);
  }
}
