/**
 * A square matrix with few entries, symmetric in where they are, and its elimination worked out once: a flat program of indices that is
 * run for each set of values. Rows are numbered in the order in which they are eliminated, that of least degree first (Tinney
 * and Walker, "Direct solutions of sparse network equations by optimally ordered triangular factorization", Proc. IEEE 55,
 * 1967). Nodal matrices need no other pivots than their diagonal.
 */
export class SparseMatrix {
  /** The values, entry by entry: the diagonal first, by row; then those that are given or arise. */
  readonly values: Float64Array;
  /** For each row as it was given, its number in the order of elimination. */
  readonly rowOf: Int32Array;
  /** Entries by row and column in the order of elimination, -1 where there is none. */
  private readonly entryAt: Int32Array;
  /** For each row: where its lists begin in `below` (and `beside`, the same entries mirrored), which have the rows that it is subtracted from. */
  private readonly start: Int32Array;
  private readonly rows: Int32Array;
  /** Entries under, and beside, the diagonal of each row, in the order of `rows`. */
  private readonly below: Int32Array;
  private readonly beside: Int32Array;
  /** Entries that each row's elimination changes: for each row below, one for each column beside. */
  private readonly changed: Int32Array;
  private readonly scratch: Float64Array;

  /** `joined` are the groups of rows that share entries: every two rows of a group have one, both ways. */
  constructor(
    readonly size: number,
    joined: Iterable<readonly number[]>,
  ) {
    const n = size;
    this.scratch = new Float64Array(n);
    const near = neighboursOf(n, joined);
    const order = leastDegreeFirst(near);
    this.rowOf = new Int32Array(n);
    order.forEach((row, i) => {
      this.rowOf[row] = i;
    });
    // After the ordering each row is joined to those that it still had when it was eliminated, fills among them.
    const later = order.map((row) =>
      Int32Array.from([...(near[row] as Set<number>)].map((r) => this.rowOf[r] as number)).sort(),
    );
    this.entryAt = new Int32Array(n * n).fill(-1);
    let entries = n;
    for (let k = 0; k < n; k++) this.entryAt[k * n + k] = k;
    later.forEach((rows, k) => {
      for (const i of rows) {
        this.entryAt[i * n + k] = entries++;
        this.entryAt[k * n + i] = entries++;
      }
    });
    this.values = new Float64Array(entries);
    this.start = new Int32Array(n + 1);
    later.forEach((rows, k) => {
      this.start[k + 1] = (this.start[k] as number) + rows.length;
    });
    this.rows = Int32Array.from(later.flatMap((rows) => [...rows]));
    this.below = Int32Array.from(later.flatMap((rows, k) => [...rows].map((i) => this.entryAt[i * n + k] as number)));
    this.beside = Int32Array.from(later.flatMap((rows, k) => [...rows].map((j) => this.entryAt[k * n + j] as number)));
    this.changed = Int32Array.from(
      later.flatMap((rows) => [...rows].flatMap((i) => [...rows].map((j) => this.entryAt[i * n + j] as number))),
    );
  }

  clear(): void {
    this.values.fill(0);
  }

  /** Adds to an entry, by rows and columns as they were given. There must be one. */
  add(row: number, column: number, value: number): void {
    const at = this.entryAt[(this.rowOf[row] as number) * this.size + (this.rowOf[column] as number)] as number;
    this.values[at] = (this.values[at] as number) + value;
  }

  /** Factors the values in place into L and U; false where a pivot vanishes. */
  factor(): boolean {
    const { values, start, below, beside, changed, size } = this;
    let c = 0;
    for (let k = 0; k < size; k++) {
      const pivot = values[k] as number;
      if (Math.abs(pivot) < 1e-30) return false;
      const [from, to] = [start[k] as number, start[k + 1] as number];
      for (let r = from; r < to; r++) {
        const l = (values[below[r] as number] as number) / pivot;
        values[below[r] as number] = l;
        for (let u = from; u < to; u++, c++) {
          const at = changed[c] as number;
          values[at] = (values[at] as number) - l * (values[beside[u] as number] as number);
        }
      }
    }
    return true;
  }

  /** Solves with the factored values; `x`, by rows as they were given, is the right side and becomes the solution. */
  solve(x: Float64Array): void {
    const { values, start, rows, below, beside, size, rowOf } = this;
    const y = this.scratch;
    for (let row = 0; row < size; row++) y[rowOf[row] as number] = x[row] as number;
    for (let k = 0; k < size; k++)
      for (let r = start[k] as number; r < (start[k + 1] as number); r++) {
        const i = rows[r] as number;
        y[i] = (y[i] as number) - (values[below[r] as number] as number) * (y[k] as number);
      }
    for (let k = size - 1; k >= 0; k--) {
      let sum = y[k] as number;
      for (let u = start[k] as number; u < (start[k + 1] as number); u++)
        sum -= (values[beside[u] as number] as number) * (y[rows[u] as number] as number);
      y[k] = sum / (values[k] as number);
    }
    for (let row = 0; row < size; row++) x[row] = y[rowOf[row] as number] as number;
  }
}

/** For each row the others that it shares an entry with. */
function neighboursOf(n: number, joined: Iterable<readonly number[]>): Set<number>[] {
  const near = Array.from({ length: n }, () => new Set<number>());
  for (const group of joined) for (const a of group) for (const b of group) if (a !== b) near[a]?.add(b);
  return near;
}

/** Rows in the order of elimination. Of each, `near` is left with the rows that come after it and share an entry with it by then. */
function leastDegreeFirst(near: readonly Set<number>[]): number[] {
  const left = new Set(near.keys());
  const order: number[] = [];
  while (left.size > 0) {
    let next = -1;
    for (const row of left) if (next < 0 || degree(near, row) < degree(near, next)) next = row;
    left.delete(next);
    order.push(next);
    const around = [...(near[next] as Set<number>)];
    for (const a of around) {
      near[a]?.delete(next);
      for (const b of around) if (a !== b) near[a]?.add(b);
    }
  }
  return order;
}

const degree = (near: readonly Set<number>[], row: number): number => near[row]?.size ?? 0;
