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
  const router = routerFor(board);
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

/** A router on the bare parts of a board: no wire is laid yet, though all holes that wires end in are known. */
export function routerFor(board: Board): Router {
  const holes = Object.values(board.jumpers).flatMap(({ from, to }) =>
    [from, to].flatMap((end) => parseHole(end) ?? []),
  );
  const rails = board.breadboards.flatMap(({ id }) =>
    hasRails(id) ? [0, 0.5, 1, 16, 16.5, 17].map((y) => breadboardXY(id).y + y) : [],
  );
  const tops = [...new Set(board.breadboards.map(({ id }) => breadboardXY(id).y))].sort((p, q) => p - q);
  const corridors = tops.slice(1).flatMap((top) => CORRIDOR.map((y) => top + y));
  return new Router(outlinesOf(board), new Ends(holes.map(holeXY)), { rails: new Set(rails), corridors });
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
const TOUCHING = 2.5;
const OVER_A_RAIL = 0.7;
/** What lying over a part costs: one that may never be crossed, one that has a name on it, and another, which is as much as a long way round. */
const OVER = { read: 1e6, named: 60, other: 6 } as const;

/** Where rows and columns are kept: in quarters of a tenth of an inch, from so many before the first. */
const ORIGIN = 1000;
const placeOf = (at: number): number => Math.round(at / STEP) + ORIGIN;

/** Level and upright stretches of wire that have been laid, in tenths of an inch; others are passed over. */
export class Runs {
  private readonly across: Run[][] = [];
  private readonly upright: Run[][] = [];

  add(p: Point, q: Point): void {
    const level = p.y === q.y;
    if (!level && p.x !== q.x) return;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    const lists = level ? this.across : this.upright;
    const key = placeOf(own.at);
    const list = lists[key];
    if (list) list.push(own);
    else lists[key] = [own];
  }

  /** Takes a stretch up that was laid. */
  remove(p: Point, q: Point): void {
    const level = p.y === q.y;
    if (!level && p.x !== q.x) return;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    const list = (level ? this.across : this.upright)[placeOf(own.at)] ?? [];
    const at = list.findIndex((r) => r.from === own.from && r.to === own.to);
    if (at >= 0) list.splice(at, 1);
  }

  /** How much of a stretch lies on wires that run the same way; `aside` steps beside it. */
  overlapped(p: Point, q: Point, aside = 0): number {
    const level = p.y === q.y;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    let sum = 0;
    for (const other of (level ? this.across : this.upright)[placeOf(own.at) + aside] ?? []) sum += overlap(other, own);
    return sum;
  }

  /** How many wires that run the other way a stretch crosses; those that it only touches do not count. */
  crossed(p: Point, q: Point): number {
    const level = p.y === q.y;
    if (!level && p.x !== q.x) return 0;
    const own = level ? run(p.y, p.x, q.x) : run(p.x, p.y, q.y);
    const lists = level ? this.upright : this.across;
    let count = 0;
    const end = own.to / STEP + ORIGIN;
    for (let key = Math.floor(own.from / STEP) + 1 + ORIGIN; key < end; key++) {
      const list = lists[key];
      if (list) for (const other of list) if (other.from < own.at && own.at < other.to) count++;
    }
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

/** A part's outline, and what lying over it costs. */
type Body = Outline & { readonly over: number };

/** The route of a wire, and what it costs: its length in tenths of an inch, and what it crosses, touches and lies over. */
export interface Route {
  readonly path: Path;
  readonly cost: number;
}

/** Finds ways for wires on a board, one after the other: each among those that are laid. */
export class Router {
  private readonly runs = new Runs();
  private readonly parts: readonly Body[];
  private readonly inRow = new Map<number, readonly Body[]>();
  private readonly inColumn = new Map<number, readonly Body[]>();

  constructor(
    outlines: readonly Outline[],
    private readonly ends: Ends,
    private readonly rows: { readonly rails: ReadonlySet<number>; readonly corridors: readonly number[] },
  ) {
    this.parts = outlines.map((o) => ({ ...o, over: isRead(o) ? OVER.read : isNamed(o) ? OVER.named : OVER.other }));
  }

  /** Finds the way of a wire among those that are laid, and lays it. */
  route(a: Point, b: Point): Path {
    const { path } = this.find(a, b);
    this.take(path);
    return path;
  }

  /** The cheapest way of a wire among those that are laid; one that costs less than `most`, or none better is looked for. */
  find(a: Point, b: Point, { most = Number.POSITIVE_INFINITY, isPlain = false } = {}): Route {
    let best: Path = [a, b];
    let least = most;
    const consider = (path: Path, more = 0): void => {
      const cost = more + this.cost(path, least - more);
      if (cost < least) [least, best] = [cost, path];
    };
    if (a.x !== b.x) for (const y of lanesNear(a.y, b.y)) consider(corners([a, { x: a.x, y }, { x: b.x, y }, b]));
    const [from, to] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    const byColumn = (x: number): void => consider(corners([a, { x, y: a.y }, { x, y: b.y }, b]));
    const detour = isPlain ? 0 : DETOUR;
    for (let out = 0; out <= detour && 2 * out <= least - (to - from); out += STEP) {
      for (const x of out === 0 ? span(from, to) : [from - out, to + out]) byColumn(x);
    }
    if (isPlain) return { path: best, cost: least };
    if (this.isHidden(best)) for (const path of throughLanes(a, b)) consider(path);
    const way = to - from + Math.abs(a.y - b.y);
    if (way >= FAR && least > way + BY) for (const path of this.throughCorridors(a, b)) consider(path, BY);
    return { path: best, cost: least };
  }

  /** Ways along the corridors near both ends: out of one hole's strip to a column that no part stands in, along, and so down to the other. */
  private throughCorridors(a: Point, b: Point): Path[] {
    const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
    const lanes = this.rows.corridors.filter((y) => y > top - NEAR && y < bottom + NEAR);
    return lanes.flatMap((y) => {
      const others = this.clearColumns(b, y);
      return this.clearColumns(a, y).flatMap((from) =>
        others.map((to) => corners([a, { x: from, y: a.y }, { x: from, y }, { x: to, y }, { x: to, y: b.y }, b])),
      );
    });
  }

  /** Columns beside a place in which nothing stands from it to a row: the nearest on both sides. */
  private clearColumns(from: Point, y: number): number[] {
    return [-1, 1].flatMap((side) => {
      const found: number[] = [];
      for (let off = 0.5; off <= ASIDE_MOST && found.length < COLUMNS; off += STEP) {
        const x = from.x + side * off;
        if (this.bodies({ x, y: from.y }, { x, y }) === 0) found.push(x);
      }
      return found;
    });
  }

  /** Whether a path lies on another wire, over the end of one, or over a part. */
  private isHidden(path: Path): boolean {
    return stretches(path).some(
      ([p, q]) => this.runs.overlapped(p, q) > 0 || this.ends.under(p, q) > 0 || this.bodies(p, q) > 0,
    );
  }

  /** Lays a wire. */
  take(path: Path): void {
    for (const [p, q] of stretches(path)) this.runs.add(p, q);
  }

  /** Takes a wire up again. */
  drop(path: Path): void {
    for (const [p, q] of stretches(path)) this.runs.remove(p, q);
  }

  /** What a way costs among the wires that are laid. */
  costOf(path: Path): number {
    return this.cost(path, Number.POSITIVE_INFINITY);
  }

  /** What a path costs; no more than is needed to see that it costs `most` or more. */
  private cost(path: Path, most: number): number {
    let cost = BEND * (path.length - 2);
    const last = path.length - 1;
    for (let i = 0; i < last; i++) {
      const [p, q] = [path[i] as Point, path[i + 1] as Point];
      cost += Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
      // A column on the grid lies over the holes of other strips.
      if (p.x === q.x && Number.isInteger(p.x) && last > 1 && i > 0 && i < last - 1) cost += 2;
    }
    for (let i = 0; i < last; i++) {
      if (cost >= most) return cost;
      const [p, q] = [path[i] as Point, path[i + 1] as Point];
      cost += ON_A_WIRE * this.runs.overlapped(p, q) + OVER_AN_END * this.ends.under(p, q) + this.bodies(p, q);
      cost += TOUCHING * (this.runs.overlapped(p, q, 1) + this.runs.overlapped(p, q, -1));
      if (p.y === q.y && this.rows.rails.has(p.y)) cost += OVER_A_RAIL * Math.abs(p.x - q.x);
    }
    for (let i = 0; i < last && cost < most; i++)
      cost += CROSSING * this.runs.crossed(path[i] as Point, path[i + 1] as Point);
    return cost;
  }

  private bodies(p: Point, q: Point): number {
    let cost = 0;
    for (const o of this.along(p, q)) if (crosses(p, q, o)) cost += o.over;
    return cost;
  }

  /** The parts that lie over the row or the column of a stretch. */
  private along(p: Point, q: Point): readonly Body[] {
    const level = p.y === q.y;
    const [lists, at] = level ? [this.inRow, p.y] : [this.inColumn, p.x];
    const known = lists.get(at);
    if (known) return known;
    const [far, near] = level
      ? [
          { x: -1e6, y: at },
          { x: 1e6, y: at },
        ]
      : [
          { x: at, y: -1e6 },
          { x: at, y: 1e6 },
        ];
    const found = this.parts.filter((o) => crosses(far, near, o));
    lists.set(at, found);
    return found;
  }
}

/** The corridor between two breadboards, from the top rail of the lower one: rows in which wires that go far run beside each other and over nothing. */
const CORRIDOR = [-2, -1.5, -1] as const;
/** Wires that reach so far may go by a corridor, when it is no farther than this above or below their ends. */
const FAR = 12;
const NEAR = 14;
/** How far beside its ends a wire to a corridor may go up or down, and how many columns are tried there on either side. */
const ASIDE_MOST = 8;
const COLUMNS = 4;
/** What going by a corridor costs: wires that cross or touch little elsewhere stay near their ends. */
const BY = 8;

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
