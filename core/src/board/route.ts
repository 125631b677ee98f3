import { elementAt } from '../element-at';
import type { Board } from './board';
import { byNumber } from './board';
import { plainRoute } from './corners';
import { breadboardXY, columnsOf, hasRails, holeXY, type Point, parseHole, rowY } from './hole';
import { type Outline, outlinesOf } from './seating';
import { areaOf, CROSSINGS, STEP, type Weights, WireGrid } from './wire-grid';

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
export const routeJumpers = (board: Board, before?: Routed): Paths => laidJumpers(board, before).paths;

/** How each jumper runs, as `routeJumpers` has it, with the router on which they all are laid. */
export function laidJumpers(board: Board, before?: Routed): { readonly paths: Paths; readonly router: Router } {
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
  for (const { id, a, b, given } of ends) if (!given) paths.set(id, router.route(a, b));
  return { paths, router };
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
  return new Router(gridFor(board, MET, holes.map(holeXY)), outlinesOf(board), { rails: new Set(rails), corridors });
}

/** A grid for the wires of a board, with a little room around it; none lies on it yet. */
export function gridFor(board: Board, weights: Weights, ends: readonly Point[] = []): WireGrid {
  const corners = board.breadboards.flatMap(({ id }) => {
    const { x, y } = breadboardXY(id);
    return [
      { x: x - ASIDE_MOST, y: y - ASIDE_MOST },
      { x: x + columnsOf(id) + ASIDE_MOST, y: y + rowY['bottom-'] + ASIDE_MOST },
    ];
  });
  return new WireGrid(areaOf(corners), weights, ends);
}

/** How often the wires of some paths cross each other, stretch by stretch; wires that lie on each other do not count. */
export function crossingsOf(paths: Paths): number {
  const grid = new WireGrid(areaOf([...paths.values()].flat()), CROSSINGS);
  let count = 0;
  for (const path of paths.values()) {
    for (const [p, q] of stretches(path)) count += grid.cost(p, q);
    for (const [p, q] of stretches(path)) grid.lay(p, q);
  }
  return count;
}

/** How far beyond its ends a wire may go round. */
const DETOUR = 70;
/** What a bend costs against a tenth of an inch of way, and a tenth of an inch over the holes of a rail, where a wire would look plugged in. */
const BEND = 0.3;
const OVER_A_RAIL = 0.7;
/** The same for other wires: 3 for a tenth of an inch on one, 2.5 so near to one that they touch, 3 for crossing one and 2 for lying over the end of one. */
const MET: Weights = { on: 3 * STEP, beside: 2.5 * STEP, crossed: 3, ends: 2 };
/** What lying over a part costs: one that may never be crossed, one that has a name on it, and another, which is as much as a long way round. */
const OVER = { read: 1e6, named: 60, other: 6 } as const;

/** A part's outline, and what lying over it costs. */
type Body = Outline & { readonly over: number };

/** The route of a wire, and what it costs: its length in tenths of an inch, and what it crosses, touches and lies over. */
export interface Route {
  readonly path: Path;
  readonly cost: number;
}

/** Finds ways for wires on a board, one after the other: each among those that are laid. */
export class Router {
  private readonly parts: readonly Body[];
  private readonly inRow = new Map<number, readonly Body[]>();
  private readonly inColumn = new Map<number, readonly Body[]>();

  constructor(
    private readonly grid: WireGrid,
    outlines: readonly Outline[],
    private readonly rows: { readonly rails: ReadonlySet<number>; readonly corridors: readonly number[] },
  ) {
    this.parts = outlines.map((o) => ({ ...o, over: isRead(o) ? OVER.read : isNamed(o) ? OVER.named : OVER.other }));
  }

  /** Finds the way of a wire among those that are laid, and lays it. */
  route(a: Point, b: Point): Path {
    const path = plainRoute(this.find(a, b).path);
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
    const column = this.bestColumn(a, b, least, isPlain ? 0 : DETOUR);
    if (column) [least, best] = [column.cost, corners([a, { x: column.x, y: a.y }, { x: column.x, y: b.y }, b])];
    if (isPlain) return { path: best, cost: least };
    for (const ring of [1, 2] as const)
      if (this.isHidden(best)) for (const path of throughLanes(a, b, ring, () => least)) consider(path);
    const way = Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
    if (way >= FAR && least > way + BY)
      for (const path of this.throughCorridors(a, b, () => least - BY)) consider(path, BY);
    return { path: best, cost: least };
  }

  /** The column by which a wire goes up or down at the least cost, and less than `most`; at most so far beyond its ends. */
  private bestColumn(a: Point, b: Point, most: number, detour: number): { x: number; cost: number } | null {
    // In one row there is no column to choose; and a way in two stretches would not meet what crosses it between them.
    if (a.y === b.y) {
      const cost = this.cost([a, b], most);
      return cost < most ? { x: a.x, cost } : null;
    }
    const [from, to] = [Math.min(a.x, b.x), Math.max(a.x, b.x)];
    let [least, best] = [most, from];
    const consider = (x: number): void => {
      const cost = this.costByColumn(a, b, x, least);
      if (cost < least) [least, best] = [cost, x];
    };
    for (let x = from; x <= to; x += STEP) consider(x);
    for (let out = STEP; out <= detour && 2 * out <= least - (to - from); out += STEP) {
      consider(from - out);
      consider(to + out);
    }
    return least < most ? { x: best, cost: least } : null;
  }

  /** Ways along the corridors near both ends that are shorter than `most`: out of one hole's strip to a column that no part stands in, along, and so down to the other. */
  private *throughCorridors(a: Point, b: Point, most: () => number): Generator<Path> {
    const [top, bottom] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
    for (const y of this.rows.corridors) {
      if (y <= top - NEAR || y >= bottom + NEAR) continue;
      const height = Math.abs(a.y - y) + Math.abs(b.y - y);
      if (height + Math.abs(a.x - b.x) >= most()) continue;
      const others = this.clearColumns(b, y);
      for (const from of this.clearColumns(a, y))
        for (const to of others) {
          if (height + Math.abs(a.x - from) + Math.abs(from - to) + Math.abs(to - b.x) >= most()) continue;
          yield corners([a, { x: from, y: a.y }, { x: from, y }, { x: to, y }, { x: to, y: b.y }, b]);
        }
    }
  }

  /** Columns beside a place in which nothing stands from it to a row: the nearest on both sides. */
  private clearColumns(from: Point, y: number): number[] {
    return [-1, 1].flatMap((side) => {
      const found: number[] = [];
      for (let off = 0.5; off <= ASIDE_MOST && found.length < COLUMNS; off += STEP) {
        const x = from.x + side * off;
        if (this.bodiesInColumn(x, from.y, y) === 0) found.push(x);
      }
      return found;
    });
  }

  /** Whether a path lies on another wire, over the end of one, or over a part. */
  private isHidden(path: Path): boolean {
    return stretches(path).some(([p, q]) => this.grid.isTaken(p, q) || this.bodies(p, q) > 0);
  }

  /** Lays a wire. */
  take(path: Path): void {
    for (const [p, q] of stretches(path)) this.grid.lay(p, q);
  }

  /** Takes a wire up again. */
  drop(path: Path): void {
    for (const [p, q] of stretches(path)) this.grid.takeUp(p, q);
  }

  /** What the way of a laid wire costs among the others; where that is less than `least`, no more than that much is known. */
  costAmongOthers(path: Path, least: number): number {
    // It lies on itself at least; what it meets of its own besides is seldom anything.
    const most = this.cost(path, Number.POSITIVE_INFINITY) - (MET.on / STEP) * lengthOf(path);
    if (most < least) return most;
    this.drop(path);
    const cost = this.cost(path, Number.POSITIVE_INFINITY);
    this.take(path);
    return cost;
  }

  /** What a path costs; no more than is needed to see that it costs `most` or more. */
  private cost(path: Path, most: number): number {
    let cost = BEND * (path.length - 2);
    const last = path.length - 1;
    for (let i = 0; i < last; i++) {
      const [p, q] = [path[i] as Point, path[i + 1] as Point];
      cost += Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
      if (p.x === q.x && i > 0 && i < last - 1) cost += overStrips(p.x);
    }
    for (let i = 0; i < last && cost < most; i++) {
      const [p, q] = [path[i] as Point, path[i + 1] as Point];
      if (p.y === q.y) cost += this.levelCost(p.y, p.x, q.x);
      else if (p.x === q.x) cost += this.uprightCost(p.x, p.y, q.y);
    }
    return cost;
  }

  /** The same for the way along the first hole's row, up or down in a column, and along the other's: most that are looked at are such ways. */
  private costByColumn(a: Point, b: Point, x: number, most: number): number {
    const [out, on] = [Math.abs(a.x - x), Math.abs(b.x - x)];
    const bends = (out > 0 ? 1 : 0) + (on > 0 ? 1 : 0);
    let cost = BEND * bends + out + on + Math.abs(a.y - b.y);
    if (bends === 2) cost += overStrips(x);
    if (cost >= most) return cost;
    cost += this.uprightCost(x, a.y, b.y);
    if (out > 0 && cost < most) cost += this.levelCost(a.y, a.x, x);
    if (on > 0 && cost < most) cost += this.levelCost(b.y, x, b.x);
    return cost;
  }

  /** What a level stretch costs besides its length. */
  private levelCost(y: number, from: number, to: number): number {
    const onRail = this.rows.rails.has(y) ? OVER_A_RAIL * Math.abs(from - to) : 0;
    return onRail + this.grid.levelCost(y, from, to) + this.bodiesInRow(y, from, to);
  }

  /** What an upright stretch costs besides its length. */
  private uprightCost(x: number, from: number, to: number): number {
    return this.grid.uprightCost(x, from, to) + this.bodiesInColumn(x, from, to);
  }

  /** What the parts cost that a stretch lies over. */
  private bodies(p: Point, q: Point): number {
    return p.y === q.y ? this.bodiesInRow(p.y, p.x, q.x) : this.bodiesInColumn(p.x, p.y, q.y);
  }

  private bodiesInRow(y: number, from: number, to: number): number {
    const known = this.inRow.get(y) ?? this.parts.filter((o) => isBeside(y, y, o));
    this.inRow.set(y, known);
    let cost = 0;
    for (const o of known) if (isAbove(from, to, o)) cost += o.over;
    return cost;
  }

  private bodiesInColumn(x: number, from: number, to: number): number {
    const known = this.inColumn.get(x) ?? this.parts.filter((o) => isAbove(x, x, o));
    this.inColumn.set(x, known);
    let cost = 0;
    for (const o of known) if (isBeside(from, to, o)) cost += o.over;
    return cost;
  }
}

/** What a column in the middle of a way costs: one on the grid lies over the holes of other strips. */
const overStrips = (x: number): number => (Number.isInteger(x) ? 2 : 0);

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

/** How far from a hole's row the lanes lie that lead out of the way, and how far beside the other hole their column may stand: first near it, then in a ring around that. */
const ASIDE = [0.5, -0.5, 1.5, -1.5] as const;
const BESIDE = [0, 1.5, 3] as const;

/** Ways with a bend more that are shorter than `most`: out of one hole's row into a lane beside it, along to a column of a ring around the other hole, and there into its row. */
function* throughLanes(a: Point, b: Point, ring: 1 | 2, most: () => number): Generator<Path> {
  if (a.x === b.x) return;
  const [inner, outer] = [BESIDE[ring - 1] as number, BESIDE[ring]];
  for (const [p, q] of [
    [a, b],
    [b, a],
  ] as const)
    for (const aside of ASIDE) {
      const y = p.y + aside;
      for (let x = q.x - outer; x <= q.x + outer; x += STEP) {
        if (ring > 1 && Math.abs(x - q.x) <= inner) continue;
        const length = Math.abs(aside) + Math.abs(x - p.x) + Math.abs(q.y - y) + Math.abs(q.x - x);
        if (length >= most()) continue;
        const path = corners([p, { x: p.x, y }, { x, y }, { x, y: q.y }, q]);
        yield p === a ? path : path.reverse();
      }
    }
}

/** A path without the corners that are where the one before is. */
function corners(points: Path): Point[] {
  const path: Point[] = [];
  for (const p of points) {
    const last = path.at(-1);
    if (p.x !== last?.x || p.y !== last.y) path.push(p);
  }
  return path;
}

const lengthOf = (path: Path): number =>
  stretches(path).reduce((sum, [p, q]) => sum + Math.abs(p.x - q.x) + Math.abs(p.y - q.y), 0);

/** The straight stretches of a path, end to end. */
const stretches = (path: Path): (readonly [Point, Point])[] => path.slice(1).map((q, i) => [elementAt(path, i), q]);

/** Whether a level or upright stretch lies over an outline, with a little room at its sides. */
const crosses = (p: Point, q: Point, o: Outline): boolean => isAbove(p.x, q.x, o) && isBeside(p.y, q.y, o);

/** Whether a stretch between two columns comes above or below an outline, or over it, with a little room at its sides. */
const isAbove = (from: number, to: number, { x, width }: Outline): boolean =>
  (from > to ? from : to) > x - 0.1 && (from < to ? from : to) < x + width + 0.1;

/** Whether a stretch between two rows comes beside an outline, or over it. */
const isBeside = (from: number, to: number, { y, height }: Outline): boolean =>
  (from > to ? from : to) > y && (from < to ? from : to) < y + height;

function span(from: number, to: number): number[] {
  return Array.from({ length: Math.round((to - from) / STEP) + 1 }, (_, i) => from + i * STEP);
}

/** Whether a path lies over any of some outlines. */
const isCrossed = (path: Path, outlines: readonly Outline[]): boolean =>
  stretches(path).some(([p, q]) => outlines.some((o) => crosses(p, q, o)));

/** Whether people look at what a part shows: no wire is led over a chip, a display or a bar where there is another way. */
const isRead = ({ kind }: Outline): boolean => kind === 'chip' || kind === 'display' || kind === 'led-bar';

/** Kinds of parts that have their signal's name on them. */
const NAMED: readonly Outline['kind'][] = [
  'led',
  'switch',
  'change-over',
  'push-button',
  'dip-switch',
  'clock',
  'buzzer',
];

/** Whether a part has its signal's name on it. */
const isNamed = ({ kind }: Outline): boolean => NAMED.includes(kind);

/** Whether a path lies over the body of a chip, a display or a bar anywhere. */
export function crossesFace(path: Path, outlines: readonly Outline[]): boolean {
  return isCrossed(path, outlines.filter(isRead));
}
