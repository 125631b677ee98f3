import type { Board } from './board';
import { byNumber } from './board';
import { holeXY, parseHole } from './hole';
import { type Outline, outlinesOf } from './seating';

/** A point on the mat in tenths of an inch. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The corners of a jumper's way from hole to hole, both included. */
export type Path = readonly Point[];

/**
 * Works out how each jumper runs: along the row of its first hole, up or down in one column, along
 * the row of its second. The column is chosen so that no wire lies over a chip's body and few lie on
 * each other. Shorter jumpers choose first; ends in no hole give no path.
 */
export function routeJumpers(board: Board): ReadonlyMap<string, Path> {
  const router = new Router(outlinesOf(board));
  const ends = Object.values(board.jumpers).flatMap(({ id, from, to }) => {
    const [a, b] = [parseHole(from), parseHole(to)];
    return a && b ? [{ id, a: holeXY(a), b: holeXY(b) }] : [];
  });
  const length = (j: { a: Point; b: Point }): number => Math.abs(j.a.x - j.b.x) + Math.abs(j.a.y - j.b.y);
  ends.sort((i, j) => length(i) - length(j) || byNumber(i.id, j.id));
  return new Map(ends.map(({ id, a, b }) => [id, router.route(a, b)]));
}

interface Run {
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

const run = (at: number, a: number, b: number): Run => ({ at, from: Math.min(a, b), to: Math.max(a, b) });
const overlap = (a: Run, b: Run): number => Math.max(0, Math.min(a.to, b.to) - Math.max(a.from, b.from));

/** Columns tried for the upright part: on the grid and in quarters between. */
const STEP = 0.25;
/** How far beyond its ends a wire may go round. */
const DETOUR = 70;

class Router {
  private readonly across: Run[] = [];
  private readonly upright: Run[] = [];

  constructor(private readonly outlines: readonly Outline[]) {}

  route(a: Point, b: Point): Path {
    const column = a.y === b.y ? a.x : this.bestColumn(a, b);
    if (a.y === b.y) this.across.push(run(a.y, a.x, b.x));
    else {
      this.upright.push(run(column, a.y, b.y));
      if (column !== a.x) this.across.push(run(a.y, a.x, column));
      if (column !== b.x) this.across.push(run(b.y, column, b.x));
    }
    const corners = [a, { x: column, y: a.y }, { x: column, y: b.y }, b];
    return corners.filter((p, i) => i === 0 || p.x !== corners[i - 1]?.x || p.y !== corners[i - 1]?.y);
  }

  private bestColumn(a: Point, b: Point): number {
    let best = a.x;
    let least = Number.POSITIVE_INFINITY;
    const [from, to] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    for (let out = 0; out <= DETOUR; out += STEP) {
      if (2 * out > least) break;
      const tried = out === 0 ? span(from, to) : [from - out, to + out];
      for (const x of tried) {
        const cost = this.cost(x, a, b);
        if (cost < least) [least, best] = [cost, x];
      }
    }
    return best;
  }

  private cost(x: number, a: Point, b: Point): number {
    const up = run(x, a.y, b.y);
    const detour = Math.abs(a.x - x) + Math.abs(b.x - x) - Math.abs(a.x - b.x);
    const onGrid = Number.isInteger(x) && x !== a.x && x !== b.x ? 2 : 0;
    const bends = (x === a.x ? 0 : 0.3) + (x === b.x ? 0 : 0.3);
    let cost = detour + onGrid + bends + this.bodies(up);
    for (const other of this.upright) if (Math.abs(other.at - x) < 0.24) cost += 3 * overlap(other, up);
    for (const along of [run(a.y, a.x, x), run(b.y, x, b.x)])
      for (const other of this.across) if (other.at === along.at) cost += 2 * overlap(other, along);
    return cost;
  }

  /** Chips may never be crossed; other parts cost as much as a long way round. */
  private bodies(up: Run): number {
    let cost = 0;
    for (const o of this.outlines) {
      const crossed = up.at > o.x - 0.1 && up.at < o.x + o.width + 0.1 && up.from < o.y + o.height && up.to > o.y;
      if (crossed) cost += o.kind === 'chip' ? 1e6 : 4;
    }
    return cost;
  }
}

function span(from: number, to: number): number[] {
  return Array.from({ length: Math.round((to - from) / STEP) + 1 }, (_, i) => from + i * STEP);
}

/** Whether a path lies over the body of a chip anywhere. */
export function crossesChip(path: Path, outlines: readonly Outline[]): boolean {
  return path.slice(1).some((p, i) => {
    const q = path[i] as Point;
    const [x0, x1] = [Math.min(p.x, q.x), Math.max(p.x, q.x)];
    const [y0, y1] = [Math.min(p.y, q.y), Math.max(p.y, q.y)];
    return outlines.some((o) => o.kind === 'chip' && x1 > o.x && x0 < o.x + o.width && y1 > o.y && y0 < o.y + o.height);
  });
}
