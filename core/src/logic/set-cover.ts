import { elementAt } from '../element-at';
import type { SolveInteger } from './integer';

/**
 * A covering problem: columns with weights, each a list of the rows it covers (rows from 0). Every row
 * must be covered; the sum of the weights of the columns taken should be least.
 */
export interface Covering {
  readonly rows: number;
  readonly columns: readonly (readonly number[])[];
  readonly weights: readonly number[];
}

/** Columns taken, by index, and whether no lighter choice exists. */
export interface Cover {
  readonly taken: readonly number[];
  readonly proved: boolean;
}

/** Steps of the own search before an integer program is asked. */
const SEARCH_STEPS = 20_000;
const SOLVER_EFFORT = 8;

/**
 * Covers all rows as lightly as can be: essential columns and dominated ones first, then what is left by
 * branch and bound with a bound from rows that share no column; when that takes too long, by `solve`.
 * Source: the covering step of two-level minimisation as in Coudert, "Two-level logic minimization: an
 * overview" (1994).
 */
export async function coverOf(problem: Covering, solve: SolveInteger | null): Promise<Cover> {
  const { taken, core } = reduced(problem);
  if (core.rowLists.length === 0) return { taken, proved: true };
  const search = new Search(core, SEARCH_STEPS);
  const best = search.run();
  if (search.complete) return { taken: [...taken, ...best], proved: true };
  const solved = solve && (await bySolver(core, solve));
  if (solved && weightOf(solved.taken, core) <= weightOf(best, core))
    return { taken: [...taken, ...solved.taken], proved: solved.proved };
  return { taken: [...taken, ...best], proved: false };
}

/** What is left after the reductions: for each open row the open columns on it, and the other way round. */
interface Core {
  readonly rowLists: readonly (readonly number[])[];
  readonly columnRows: ReadonlyMap<number, readonly number[]>;
  readonly weights: readonly number[];
}

const weightOf = (taken: readonly number[], core: Core): number =>
  taken.reduce((sum, c) => sum + elementAt(core.weights, c), 0);

function reduced({ rows, columns, weights }: Covering): { taken: number[]; core: Core } {
  const onRow: Set<number>[] = Array.from({ length: rows }, () => new Set());
  const ofColumn = new Map<number, Set<number>>(columns.map((list, c) => [c, new Set(list)]));
  columns.forEach((list, c) => {
    for (const r of list) onRow[r]?.add(c);
  });
  const open = new Set(Array.from({ length: rows }, (_, r) => r));
  const taken: number[] = [];
  const dropColumn = (c: number): void => {
    for (const r of ofColumn.get(c) ?? []) onRow[r]?.delete(c);
    ofColumn.delete(c);
  };
  const dropRow = (r: number): void => {
    open.delete(r);
    for (const c of onRow[r] ?? []) ofColumn.get(c)?.delete(r);
  };
  const take = (c: number): void => {
    taken.push(c);
    for (const r of [...(ofColumn.get(c) ?? [])]) dropRow(r);
    dropColumn(c);
  };
  for (let changed = true; changed; ) {
    changed = false;
    for (const r of [...open]) {
      if (!open.has(r) || onRow[r]?.size !== 1) continue;
      take(elementAt([...elementAt(onRow, r)], 0));
      changed = true;
    }
    if (dropDominatedColumns(ofColumn, onRow, weights, dropColumn)) changed = true;
    if (dropDominatingRows(open, onRow, ofColumn, dropRow)) changed = true;
  }
  const rowList = [...open];
  const index = new Map(rowList.map((r, i) => [r, i]));
  const left = [...ofColumn].filter(([, list]) => list.size > 0);
  return {
    taken,
    core: {
      rowLists: rowList.map((r) => [...elementAt(onRow, r)]),
      columnRows: new Map(left.map(([c, list]) => [c, [...list].map((r) => index.get(r) as number)])),
      weights,
    },
  };
}

const isSubset = (a: ReadonlySet<number>, b: ReadonlySet<number>): boolean => {
  if (a.size > b.size) return false;
  for (const x of a) if (!b.has(x)) return false;
  return true;
};

/** Columns that cover no more than another which is no heavier. */
function dropDominatedColumns(
  ofColumn: Map<number, Set<number>>,
  onRow: readonly ReadonlySet<number>[],
  weights: readonly number[],
  drop: (c: number) => void,
): boolean {
  let changed = false;
  for (const [c, list] of [...ofColumn]) {
    const [first] = list;
    const others = first === undefined ? [] : [...elementAt(onRow, first)];
    const beaten = (d: number): boolean => {
      const other = ofColumn.get(d);
      if (d === c || !other || !isSubset(list, other)) return false;
      const [w, v] = [elementAt(weights, c), elementAt(weights, d)];
      return v < w || (v === w && (other.size > list.size || d < c));
    };
    if (list.size > 0 && !others.some(beaten)) continue;
    drop(c);
    changed = true;
  }
  return changed;
}

/** Rows that are covered whenever another is. */
function dropDominatingRows(
  open: ReadonlySet<number>,
  onRow: readonly ReadonlySet<number>[],
  ofColumn: ReadonlyMap<number, ReadonlySet<number>>,
  drop: (r: number) => void,
): boolean {
  let changed = false;
  for (const r of [...open]) {
    const own = elementAt(onRow, r);
    let shortest: ReadonlySet<number> | null = null;
    for (const c of own) {
      const rows = ofColumn.get(c);
      if (rows && (!shortest || rows.size < shortest.size)) shortest = rows;
    }
    // A row whose columns all lie on this one has, through some column of this row, a neighbour here.
    const near = new Set<number>();
    for (const c of own) for (const s of ofColumn.get(c) ?? []) near.add(s);
    for (const s of near) {
      const other = elementAt(onRow, s);
      if (s === r || !open.has(s) || !isSubset(other, own) || (other.size === own.size && s > r)) continue;
      drop(r);
      changed = true;
      break;
    }
  }
  return changed;
}

/** Branch and bound on the shortest open row. */
class Search {
  complete = true;
  private best: number[] = [];
  private bestWeight = Number.POSITIVE_INFINITY;
  private readonly covered: Int32Array;
  private readonly refused = new Set<number>();

  constructor(
    private readonly core: Core,
    private steps: number,
  ) {
    this.covered = new Int32Array(core.rowLists.length);
  }

  run(): number[] {
    this.greedy();
    this.branch([], 0);
    return this.best;
  }

  /** A first answer: again and again the column that covers most for its weight; then the superfluous out. */
  private greedy(): void {
    const { columnRows, weights, rowLists } = this.core;
    const open = new Set(rowLists.keys());
    const taken: number[] = [];
    while (open.size > 0) {
      let [pick, most] = [-1, 0];
      for (const [c, rows] of columnRows) {
        const gain = rows.reduce((n, r) => n + Number(open.has(r)), 0) / elementAt(weights, c);
        if (gain > most) [pick, most] = [c, gain];
      }
      taken.push(pick);
      for (const r of columnRows.get(pick) as readonly number[]) open.delete(r);
    }
    for (const c of [...taken].reverse()) {
      const rest = taken.filter((x) => x !== c);
      const has = (r: number): boolean => rest.some((x) => columnRows.get(x)?.includes(r));
      if ((columnRows.get(c) as readonly number[]).every(has)) taken.splice(taken.indexOf(c), 1);
    }
    this.best = taken;
    this.bestWeight = weightOf(taken, this.core);
  }

  private branch(taken: number[], weight: number): void {
    if (--this.steps < 0) {
      this.complete = false;
      return;
    }
    const row = this.shortestRow();
    if (row === null) {
      if (weight < this.bestWeight) [this.best, this.bestWeight] = [[...taken], weight];
      return;
    }
    if (weight + this.bound() >= this.bestWeight) return;
    const { rowLists, columnRows, weights } = this.core;
    const tried: number[] = [];
    const byUse = [...elementAt(rowLists, row)]
      .filter((c) => !this.refused.has(c))
      .sort((a, b) => (columnRows.get(b)?.length ?? 0) - (columnRows.get(a)?.length ?? 0));
    for (const c of byUse) {
      this.mark(c, 1);
      taken.push(c);
      this.branch(taken, weight + elementAt(weights, c));
      taken.pop();
      this.mark(c, -1);
      // What has been tried with this column need not be tried again without it taking part.
      this.refused.add(c);
      tried.push(c);
      if (this.steps < 0) break;
    }
    for (const c of tried) this.refused.delete(c);
  }

  private mark(c: number, by: number): void {
    for (const r of this.core.columnRows.get(c) ?? []) this.covered[r] = (this.covered[r] ?? 0) + by;
  }

  private shortestRow(): number | null {
    let [pick, least] = [-1, Number.POSITIVE_INFINITY];
    this.core.rowLists.forEach((columns, r) => {
      if (elementAt(this.covered, r) > 0) return;
      let open = 0;
      for (const c of columns) if (!this.refused.has(c)) open++;
      if (open < least) [pick, least] = [r, open];
    });
    return pick < 0 ? null : pick;
  }

  /** Weight that open rows without a common column need at the least. */
  private bound(): number {
    const { rowLists, weights } = this.core;
    const used = new Set<number>();
    let sum = 0;
    const order = [...rowLists.keys()].filter((r) => this.covered[r] === 0);
    order.sort((a, b) => (rowLists[a]?.length ?? 0) - (rowLists[b]?.length ?? 0));
    for (const r of order) {
      const columns = elementAt(rowLists, r).filter((c) => !this.refused.has(c));
      if (columns.some((c) => used.has(c))) continue;
      for (const c of columns) used.add(c);
      sum += Math.min(...columns.map((c) => elementAt(weights, c)));
    }
    return sum;
  }
}

/** The rest as an integer program, for a solver that knows cuts. */
async function bySolver({ rowLists, columnRows, weights }: Core, solve: SolveInteger): Promise<Cover> {
  const columns = [...columnRows.keys()];
  const lp = [
    'Minimize',
    ` obj: ${columns.map((c) => `${weights[c]} x${c}`).join(' + ')}`,
    'Subject To',
    ...rowLists.map((list, r) => ` r${r}: ${list.map((c) => `x${c}`).join(' + ')} >= 1`),
    'Binaries',
    ` ${columns.map((c) => `x${c}`).join(' ')}`,
    'End',
  ].join('\n');
  const { status, values } = await solve(lp, { effort: SOLVER_EFFORT });
  const taken = status === 'none' ? columns : columns.filter((c) => (values[`x${c}`] ?? 0) > 0.5);
  return { taken, proved: status === 'optimal' };
}
