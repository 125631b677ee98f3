import {
  type Board,
  CROSSINGS,
  columnsOf,
  gridFor,
  type Hole,
  hasRailHole,
  holesOfStrip,
  holeXY,
  isRail,
  type Jumper,
  type Point,
  parseHole,
  printHole,
  type Rail,
  railNamed,
  unusableHoles,
  type WireGrid,
} from '../board';
import { elementAt } from '../element-at';

/** The corner of a wire, and how many others it crosses. */
interface Corner {
  readonly at: Point;
  readonly crossed: number;
}

/** What crossing a wire costs, in rows. */
const CROSSING = 5;

/** Where jumpers of one row run: from and to, in columns. */
type RowRuns = { readonly from: number; readonly to: number }[];

/**
 * Lays jumpers on a seated board, hole by hole: keeps count of holes in use and of the rows in which
 * wires already run, so that each hole takes one lead and wires seldom lie on each other.
 */
export class Wirer {
  readonly jumpers: Record<string, Jumper> = {};
  private readonly taken: Set<string>;
  private readonly rowsInUse = new Map<string, RowRuns>();
  /** How wires are likely to run: with one corner. */
  private readonly likely: WireGrid;

  constructor(board: Board) {
    this.taken = new Set(unusableHoles(board).keys());
    this.likely = gridFor(board, CROSSINGS);
    for (const { from, to } of Object.values(board.jumpers)) {
      const [a, b] = [parseHole(from), parseHole(to)];
      if (a && b) this.note(a, b);
    }
  }

  /** Remembers in which rows a jumper runs. */
  private note(from: Hole, to: Hole): void {
    for (const hole of [from, to]) if (!isRail(hole.row)) this.runsOf(hole).push(columnsBetween(from, to));
    const { at } = this.corner(from, to);
    this.likely.lay(holeXY(from), at);
    this.likely.lay(at, holeXY(to));
  }

  /** Lays a jumper between two free holes and names it `w1`, `w2` … in the order laid. */
  lay(from: Hole, to: Hole): void {
    const id = `w${Object.keys(this.jumpers).length + 1}`;
    this.jumpers[id] = { id, from: printHole(from), to: printHole(to) };
    for (const hole of [from, to]) this.taken.add(printHole(hole));
    this.note(from, to);
  }

  /** Lays a jumper between the strips of two holes, in the rows that are least in use. */
  join(a: Hole, b: Hole): void {
    const between = columnsBetween(a, b);
    const [from, to] = [this.free(a), this.free(b)];
    const pairs = from.flatMap((p) => to.map((q) => ({ p, q, cost: this.cost(p, between) + this.cost(q, between) })));
    const level = (h: { p: Hole; q: Hole }): number =>
      holeXY(h.p).y === holeXY(h.q).y ? 0 : 3 + 1 * Math.abs(holeXY(h.p).y - holeXY(h.q).y);
    let best = elementAt(pairs, 0);
    let least = Number.POSITIVE_INFINITY;
    for (const pair of pairs) {
      const cost = pair.cost + level(pair) + CROSSING * this.corner(pair.p, pair.q).crossed;
      if (cost < least) [least, best] = [cost, pair];
    }
    this.lay(best.p, best.q);
  }

  /** The corner by which a wire between two holes crosses the fewest that are likely to be there. */
  private corner(p: Hole, q: Hole): { readonly at: Point; readonly crossed: number } {
    const [a, b] = [holeXY(p), holeXY(q)];
    const [one, other] = [
      { x: a.x, y: b.y },
      { x: b.x, y: a.y },
    ].map((at) => ({ at, crossed: this.likely.cost(a, at) + this.likely.cost(at, b) })) as [Corner, Corner];
    return other.crossed < one.crossed ? other : one;
  }

  /** The free holes of a strip, outermost rows last; rows e and f, beside the pins, come last of all. */
  free(of: Hole): Hole[] {
    return holesOfStrip(of)
      .filter((h) => !this.taken.has(printHole(h)))
      .sort((p, q) => away(p) - away(q));
  }

  /** Joins both halves of a broken rail by their nearest free holes; nothing where there is no break. */
  bridge(board: string, row: Rail): void {
    const [left, right] = ['left', 'right'].map((half) => railNamed(`${board}.${half}-${row}`));
    const free = (hole: Hole | null | undefined) =>
      hole ? holesOfStrip(hole).filter((h) => !this.taken.has(printHole(h))) : [];
    const [from, to] = [free(left).at(-1), free(right)[0]];
    if (from && to) this.lay(from, to);
  }

  /** How many holes of a strip are free. */
  freeCount(of: Hole): number {
    return this.free(of).length;
  }

  /** Of pins waiting for a signal the one nearest to a strip that has it and a hole left; null when all are full. */
  nearestPair(
    reached: readonly Hole[],
    waiting: ReadonlyMap<string, Hole>,
  ): { readonly pin: string; readonly from: Hole } | null {
    const open = reached.filter((strip) => this.freeCount(strip) > 0);
    let best: { pin: string; from: Hole } | null = null;
    let least = Number.POSITIVE_INFINITY;
    for (const [pin, hole] of waiting)
      for (const from of open) {
        const away = distance(from, hole);
        if (away < least) [least, best] = [away, { pin, from }];
      }
    return best;
  }

  /** The strip with a free hole that is nearest to another one, by a hole of each; null when all are full. */
  nearestWithRoom(strips: readonly Hole[], to: Hole): Hole | null {
    let best: Hole | null = null;
    for (const strip of strips)
      if (this.freeCount(strip) > 0 && (!best || distance(strip, to) < distance(best, to))) best = strip;
    return best;
  }

  /** Joins a strip to the nearest free hole of a rail; false when the rail is full. */
  toRail(of: Hole, rails: readonly Rail[]): boolean {
    const from = this.free(of);
    for (const rail of rails) {
      const near = this.railHole(of.board, rail, of.column);
      if (!near) continue;
      const outermost = [...from].sort(
        (p, q) => Math.abs(holeXY(p).y - holeXY(near).y) - Math.abs(holeXY(q).y - holeXY(near).y),
      )[0];
      if (!outermost) return false;
      this.lay(outermost, near);
      return true;
    }
    return false;
  }

  /** The free hole of a rail nearest to a column, or null. */
  railHole(board: string, row: Rail, column: number): Hole | null {
    for (let off = 0; off < columnsOf(board); off++) {
      for (const c of [column + off, column - off]) {
        const hole = { board, column: c, row };
        if (hasRailHole(c, board) && !this.taken.has(printHole(hole))) return hole;
      }
    }
    return null;
  }

  private cost(hole: Hole, between: { from: number; to: number }): number {
    let cost = 0.1 * away(hole);
    for (let column = between.from + 1; column < between.to; column++)
      if (this.taken.has(printHole({ ...hole, column }))) cost += 2;
    for (const r of this.runsOf(hole)) if (r.from <= hole.column && hole.column <= r.to) cost += 2;
    for (const r of this.runsOf(hole))
      cost += Math.max(0, Math.min(r.to, between.to) - Math.max(r.from, between.from) + 1);
    return cost;
  }

  private runsOf(hole: Hole): RowRuns {
    const key = `${hole.board}.${hole.row}`;
    const runs = this.rowsInUse.get(key) ?? [];
    this.rowsInUse.set(key, runs);
    return runs;
  }
}

/** Columns apart, with a price for crossing the channel or going to another board. */
function distance(a: Hole, b: Hole): number {
  const [p, q] = [holeXY(a), holeXY(b)];
  return Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
}

function columnsBetween(a: Hole, b: Hole): { from: number; to: number } {
  return { from: Math.min(a.column, b.column), to: Math.max(a.column, b.column) };
}

/** Rows from the channel outwards; the pins' own rows are the last choice. */
function away(hole: Hole): number {
  return hole.row === 'e' || hole.row === 'f' ? 40 : 'dcba'.indexOf(hole.row) + 1 || 'ghij'.indexOf(hole.row) + 1;
}
