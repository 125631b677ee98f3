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
 * Works out how each jumper runs: along the row of its first hole, up or down in one column, along the
 * row of its second; or out of its first hole's strip, along a lane between two rows, and into its
 * second's. The column or lane is chosen so that no wire lies over a chip's body and few lie on each
 * other. Shorter jumpers choose first; ends in no hole give no path.
 */
export function routeJumpers(board: Board): ReadonlyMap<string, Path> {
  const router = new Router(outlinesOf(board));
  const ends = Object.values(board.jumpers).flatMap(({ id, from, to, way }) => {
    const [a, b] = [parseHole(from), parseHole(to)];
    return a && b ? [{ id, a: holeXY(a), b: holeXY(b), way }] : [];
  });
  const length = (j: { a: Point; b: Point }): number => Math.abs(j.a.x - j.b.x) + Math.abs(j.a.y - j.b.y);
  ends.sort((i, j) => length(i) - length(j) || byNumber(i.id, j.id));
  return new Map(ends.map(({ id, a, b, way }) => [id, way === 'straight' ? [a, b] : router.route(a, b)]));
}

/** A straight stretch: `at` is its row or column, `from` and `to` its ends along it. */
interface Run {
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

const run = (at: number, a: number, b: number): Run => ({ at, from: Math.min(a, b), to: Math.max(a, b) });
const overlap = (a: Run, b: Run): number => Math.max(0, Math.min(a.to, b.to) - Math.max(a.from, b.from));

/** Columns tried for an upright part: on the grid and in quarters between. */
const STEP = 0.25;
/** How far beyond its ends a wire may go round. */
const DETOUR = 70;
/** What a bend, and a tenth of an inch lying on another wire, cost against a tenth of an inch of way. */
const BEND = 0.3;
const ON_A_WIRE = 3;

class Router {
  private readonly across: Run[] = [];
  private readonly upright: Run[] = [];

  constructor(private readonly outlines: readonly Outline[]) {}

  route(a: Point, b: Point): Path {
    let best: Path = [a, b];
    let least = Number.POSITIVE_INFINITY;
    const consider = (path: Path): void => {
      const cost = this.cost(path);
      if (cost < least) [least, best] = [cost, path];
    };
    if (a.x !== b.x) for (const y of lanesNear(a.y, b.y)) consider(corners([a, { x: a.x, y }, { x: b.x, y }, b]));
    const [from, to] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const byColumn = (x: number): void => consider(corners([a, { x, y: a.y }, { x, y: b.y }, b]));
    for (let out = 0; out <= DETOUR && 2 * out <= least - (to - from); out += STEP) {
      for (const x of out === 0 ? span(from, to) : [from - out, to + out]) byColumn(x);
    }
    this.take(best);
    return best;
  }

  private take(path: Path): void {
    for (const [p, q] of stretches(path)) {
      if (p.y === q.y) this.across.push(run(p.y, p.x, q.x));
      else this.upright.push(run(p.x, p.y, q.y));
    }
  }

  private cost(path: Path): number {
    let cost = BEND * (path.length - 2);
    for (const [p, q] of stretches(path)) {
      const level = p.y === q.y;
      const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
      cost += own.to - own.from;
      for (const other of level ? this.across : this.upright)
        if (Math.abs(other.at - own.at) < 0.24) cost += ON_A_WIRE * overlap(other, own);
      // A column on the grid lies over the holes of other strips.
      if (!level && Number.isInteger(own.at) && path.length > 2 && p !== path[0] && q !== path[path.length - 1])
        cost += 2;
      cost += this.bodies(p, q);
    }
    return cost;
  }

  /** Chips may never be crossed; other parts cost as much as a long way round. */
  private bodies(p: Point, q: Point): number {
    let cost = 0;
    for (const o of this.outlines) if (crosses(p, q, o)) cost += o.kind === 'chip' ? 1e6 : 4;
    return cost;
  }
}

/** Lanes between rows, and just outside, near two rows of one half of a board; none when they are farther apart. */
function lanesNear(y1: number, y2: number): number[] {
  const [top, bottom] = [Math.min(y1, y2), Math.max(y1, y2)];
  return bottom - top > 4 ? [] : span(top - 2.5, bottom + 2.5).filter((y) => Math.abs(y % 1) === 0.5);
}

const corners = (points: Path): Path =>
  points.filter((p, i) => i === 0 || p.x !== points[i - 1]?.x || p.y !== points[i - 1]?.y);

/** The straight stretches of a path, end to end. */
const stretches = (path: Path): (readonly [Point, Point])[] => path.slice(1).map((q, i) => [path[i] as Point, q]);

/** Whether a level or upright stretch lies over an outline, with a little room at its sides. */
function crosses(p: Point, q: Point, o: Outline): boolean {
  const [x0, x1] = [Math.min(p.x, q.x), Math.max(p.x, q.x)];
  const [y0, y1] = [Math.min(p.y, q.y), Math.max(p.y, q.y)];
  return x1 > o.x - 0.1 && x0 < o.x + o.width + 0.1 && y1 > o.y && y0 < o.y + o.height;
}

function span(from: number, to: number): number[] {
  return Array.from({ length: Math.round((to - from) / STEP) + 1 }, (_, i) => from + i * STEP);
}

/** Whether a path lies over the body of a chip anywhere. */
export function crossesChip(path: Path, outlines: readonly Outline[]): boolean {
  return stretches(path).some(([p, q]) => outlines.some((o) => o.kind === 'chip' && crosses(p, q, o)));
}
