import { elementAt } from '../element-at';
import type { Board } from './board';
import { byNumber } from './board';
import { plainRoute } from './corners';
import { breadboardXY, hasRails, holeXY, type Point, parseHole } from './hole';
import { type Outline, outlinesOf } from './seating';

/** The corners of a jumper's way from hole to hole, both included. */
export type Path = readonly Point[];

/** How the jumpers of a board run, by id. */
export type Paths = ReadonlyMap<string, Path>;

/** A board whose jumpers have been routed. */
export interface Routed {
  readonly board: Board;
  readonly paths: Paths;
}

/**
 * Works out how each jumper runs: along the row of its first hole, up or down in one column, along the
 * row of its second; or out of its first hole's strip, along a lane between two rows, and into its
 * second's, or, where a wire or a part would be hidden otherwise, along a lane beside one of the rows. The column or lane is chosen so that no wire lies over a chip's body, few lie on each
 * other or touch, few cross, and none seems to be plugged into a rail that it only passes. Those that a person bent run as they were bent; of the others shorter ones choose first; ends in no hole give no path. With the board given as it was
 * `before`, wires that are still there lie as they lay, unless a part is now in their way.
 */
export function routeJumpers(board: Board, before?: Routed): Paths {
  const outlines = outlinesOf(board);
  const holes = Object.values(board.jumpers).flatMap(({ from, to }) =>
    [from, to].flatMap((end) => parseHole(end) ?? []),
  );
  const rails = board.breadboards.flatMap(({ id }) =>
    hasRails(id) ? [0, 0.5, 1, 16, 16.5, 17].map((y) => breadboardXY(id).y + y) : [],
  );
  const router = new Router(outlines, new Ends(holes.map(holeXY)), new Set(rails));
  const paths = new Map<string, Path>();
  if (before) {
    const known = new Set(outlinesOf(before.board).map((o) => JSON.stringify(o)));
    const fresh = outlines.filter((o) => !known.has(JSON.stringify(o)));
    for (const [id, path] of before.paths) {
      if (board.jumpers[id] !== before.board.jumpers[id] || isCrossed(path, fresh)) continue;
      router.take(path);
      paths.set(id, path);
    }
  }
  const ends = Object.values(board.jumpers).flatMap(({ id, from, to, route, corners: bent }) => {
    const [a, b] = [parseHole(from), parseHole(to)];
    if (!a || !b || paths.has(id)) return [];
    const given = route === 'straight' ? [] : bent;
    return [{ id, a: holeXY(a), b: holeXY(b), given }];
  });
  for (const { id, a, b, given } of ends) {
    if (!given) continue;
    const path = corners([a, ...given, b]);
    router.take(path);
    paths.set(id, path);
  }
  const length = (j: { a: Point; b: Point }): number => Math.abs(j.a.x - j.b.x) + Math.abs(j.a.y - j.b.y);
  ends.sort((i, j) => length(i) - length(j) || byNumber(i.id, j.id));
  for (const { id, a, b, given } of ends) if (!given) paths.set(id, plainRoute(router.route(a, b)));
  return paths;
}

/** How often the wires of some paths cross each other, stretch by stretch; wires that lie on each other do not count. */
export function crossingsOf(paths: Paths): number {
  const runs = new Runs();
  let count = 0;
  for (const path of paths.values()) {
    for (const [p, q] of stretches(path)) count += runs.crossed(p, q);
    for (const [p, q] of stretches(path)) runs.add(p, q);
  }
  return count;
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
/** What a bend, a tenth of an inch lying on another wire, lying over the end of one, and crossing one cost against a tenth of an inch of way. */
const BEND = 0.3;
const OVER_AN_END = 2;
const ON_A_WIRE = 3;
const CROSSING = 3;
/** The same for lying so near to another wire that they touch, and for lying over the holes of a rail, where it would look plugged in. */
const TOUCHING = 2;
const OVER_A_RAIL = 0.7;
/** What lying over a part costs: one that may never be crossed, one that has a name on it, and another, which is as much as a long way round. */
const OVER = { read: 1e6, named: 25, other: 6 } as const;

/** Level and upright stretches of wire that have been laid, in tenths of an inch; others are passed over. */
export class Runs {
  private readonly across = new Map<number, Run[]>();
  private readonly upright = new Map<number, Run[]>();

  add(p: Point, q: Point): void {
    const level = p.y === q.y;
    if (!level && p.x !== q.x) return;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    const lists = level ? this.across : this.upright;
    const key = Math.round(own.at / STEP);
    const list = lists.get(key);
    if (list) list.push(own);
    else lists.set(key, [own]);
  }

  /** How much of a stretch lies on wires that run the same way; `aside` steps beside it. */
  overlapped(p: Point, q: Point, aside = 0): number {
    const level = p.y === q.y;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    let sum = 0;
    for (const other of (level ? this.across : this.upright).get(Math.round(own.at / STEP) + aside) ?? [])
      sum += overlap(other, own);
    return sum;
  }

  /** How many wires that run the other way a stretch crosses; those that it only touches do not count. */
  crossed(p: Point, q: Point): number {
    const level = p.y === q.y;
    if (!level && p.x !== q.x) return 0;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    const lists = level ? this.upright : this.across;
    let count = 0;
    for (let key = Math.floor(own.from / STEP) + 1; key < own.to / STEP; key++)
      for (const other of lists.get(key) ?? []) if (other.from < own.at && own.at < other.to) count++;
    return count;
  }
}

/** The holes in which wires end, by row and by column. */
class Ends {
  private readonly inRow = new Map<number, number[]>();
  private readonly inColumn = new Map<number, number[]>();

  constructor(ends: readonly Point[]) {
    const add = (lists: Map<number, number[]>, key: number, value: number): void => {
      const list = lists.get(key);
      if (list) list.push(value);
      else lists.set(key, [value]);
    };
    for (const { x, y } of ends) {
      add(this.inRow, y, x);
      add(this.inColumn, x, y);
    }
    for (const list of [...this.inRow.values(), ...this.inColumn.values()]) list.sort((a, b) => a - b);
  }

  /** How many lie under a level or upright stretch, between its own ends. */
  under(p: Point, q: Point): number {
    const level = p.y === q.y;
    const list = (level ? this.inRow.get(p.y) : this.inColumn.get(p.x)) ?? [];
    const [a, b] = level ? [p.x, q.x] : [p.y, q.y];
    return before(list, Math.max(a, b)) - before(list, Math.min(a, b) + STEP / 2);
  }
}

/** How many of a sorted list are less than `limit`. */
function before(list: readonly number[], limit: number): number {
  let [low, high] = [0, list.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (elementAt(list, middle) < limit) low = middle + 1;
    else high = middle;
  }
  return low;
}

class Router {
  private readonly runs = new Runs();
  /** The outlines that lie at the height of the wire that is routed. */
  private near: readonly Outline[] = [];

  constructor(
    private readonly outlines: readonly Outline[],
    private readonly ends: Ends,
    private readonly rails: ReadonlySet<number>,
  ) {}

  route(a: Point, b: Point): Path {
    let best: Path = [a, b];
    let least = Number.POSITIVE_INFINITY;
    const [top, bottom] = [Math.min(a.y, b.y) - LANES, Math.max(a.y, b.y) + LANES];
    this.near = this.outlines.filter((o) => o.y < bottom && o.y + o.height > top);
    const consider = (path: Path): void => {
      const cost = this.cost(path, least);
      if (cost < least) [least, best] = [cost, path];
    };
    if (a.x !== b.x) for (const y of lanesNear(a.y, b.y)) consider(corners([a, { x: a.x, y }, { x: b.x, y }, b]));
    const [from, to] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const byColumn = (x: number): void => consider(corners([a, { x, y: a.y }, { x, y: b.y }, b]));
    for (let out = 0; out <= DETOUR && 2 * out <= least - (to - from); out += STEP) {
      for (const x of out === 0 ? span(from, to) : [from - out, to + out]) byColumn(x);
    }
    if (this.isHidden(best)) for (const path of throughLanes(a, b)) consider(path);
    this.take(best);
    return best;
  }

  /** Whether a path lies on another wire, over the end of one, or over a part. */
  private isHidden(path: Path): boolean {
    return stretches(path).some(
      ([p, q]) => this.runs.overlapped(p, q) > 0 || this.ends.under(p, q) > 0 || this.bodies(p, q) > 0,
    );
  }

  take(path: Path): void {
    for (const [p, q] of stretches(path)) this.runs.add(p, q);
  }

  /** What a path costs; no more than is needed to see that it costs `most` or more. */
  private cost(path: Path, most: number): number {
    let cost = BEND * (path.length - 2);
    for (const [p, q] of stretches(path)) {
      cost += Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
      // A column on the grid lies over the holes of other strips.
      if (p.x === q.x && Number.isInteger(p.x) && path.length > 2 && p !== path[0] && q !== path[path.length - 1])
        cost += 2;
    }
    for (const [p, q] of stretches(path)) {
      if (cost >= most) return cost;
      cost += ON_A_WIRE * this.runs.overlapped(p, q) + OVER_AN_END * this.ends.under(p, q) + this.bodies(p, q);
      cost += TOUCHING * (this.runs.overlapped(p, q, 1) + this.runs.overlapped(p, q, -1));
      if (p.y === q.y && this.rails.has(p.y)) cost += OVER_A_RAIL * Math.abs(p.x - q.x);
    }
    for (const [p, q] of cost < most ? stretches(path) : []) cost += CROSSING * this.runs.crossed(p, q);
    return cost;
  }

  private bodies(p: Point, q: Point): number {
    let cost = 0;
    for (const o of this.near)
      if (crosses(p, q, o)) cost += isRead(o) ? OVER.read : isNamed(o) ? OVER.named : OVER.other;
    return cost;
  }
}

/** How far above and below its ends a wire may run in a lane. */
const LANES = 3;

/** Lanes between rows, and just outside, near two rows of one half of a board; none when they are farther apart. */
function lanesNear(y1: number, y2: number): number[] {
  const [top, bottom] = [Math.min(y1, y2), Math.max(y1, y2)];
  return bottom - top > 4 ? [] : span(top - 2.5, bottom + 2.5).filter((y) => Math.abs(y % 1) === 0.5);
}

/** How far from a hole's row the lanes lie that lead out of the way, and how far beside the other hole their column may stand. */
const ASIDE = [0.5, -0.5, 1.5, -1.5] as const;
const BESIDE = 1.5;

/** Ways with a bend more: out of one hole's row into a lane beside it, along to a column near the other hole, and there into its row. */
function throughLanes(a: Point, b: Point): Path[] {
  if (a.x === b.x) return [];
  const out = (p: Point, q: Point): Path[] =>
    ASIDE.flatMap((aside) => {
      const y = p.y + aside;
      return span(q.x - BESIDE, q.x + BESIDE).map((x) => corners([p, { x: p.x, y }, { x, y }, { x, y: q.y }, q]));
    });
  return [...out(a, b), ...out(b, a).map((path) => path.toReversed())];
}

const corners = (points: Path): Path =>
  points.filter((p, i) => i === 0 || p.x !== points[i - 1]?.x || p.y !== points[i - 1]?.y);

/** The straight stretches of a path, end to end. */
const stretches = (path: Path): (readonly [Point, Point])[] => path.slice(1).map((q, i) => [elementAt(path, i), q]);

/** Whether a level or upright stretch lies over an outline, with a little room at its sides. */
function crosses(p: Point, q: Point, o: Outline): boolean {
  const [x0, x1] = [Math.min(p.x, q.x), Math.max(p.x, q.x)];
  const [y0, y1] = [Math.min(p.y, q.y), Math.max(p.y, q.y)];
  return x1 > o.x - 0.1 && x0 < o.x + o.width + 0.1 && y1 > o.y && y0 < o.y + o.height;
}

function span(from: number, to: number): number[] {
  return Array.from({ length: Math.round((to - from) / STEP) + 1 }, (_, i) => from + i * STEP);
}

/** Whether a path lies over any of some outlines. */
const isCrossed = (path: Path, outlines: readonly Outline[]): boolean =>
  stretches(path).some(([p, q]) => outlines.some((o) => crosses(p, q, o)));

/** Whether people look at what a part shows: no wire is led over a chip, a display or a bar where there is another way. */
const isRead = ({ kind }: Outline): boolean => kind === 'chip' || kind === 'display' || kind === 'led-bar';

/** Whether a part has its signal's name on it. */
const isNamed = ({ kind }: Outline): boolean => ['led', 'switch', 'change-over', 'push-button'].includes(kind);

/** Whether a path lies over the body of a chip, a display or a bar anywhere. */
export function crossesFace(path: Path, outlines: readonly Outline[]): boolean {
  return isCrossed(path, outlines.filter(isRead));
}
