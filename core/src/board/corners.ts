import { type Finding, finding } from '../finding';
import type { Board, Jumper } from './board';
import { breadboardXY, columnsOf, holeXY, type Point, parseHole, rowY } from './hole';

/** The most corners that a jumper may be given by hand. */
export const MAX_CORNERS = 12;
/** How far beyond the boards a corner may lie, in tenths of an inch. */
const BEYOND = 3;

/** Whether a jumper may turn at these corners: not too many, and on the mat. */
export function checkCorners(board: Board, id: string, corners: readonly Point[]): Finding[] {
  const ends = board.breadboards.map((b) => ({ ...breadboardXY(b.id), columns: columnsOf(b.id) }));
  const right = Math.max(...ends.map((b) => b.x + b.columns)) + BEYOND;
  const bottom = Math.max(...ends.map((b) => b.y)) + rowY['bottom-'] + BEYOND;
  const isOn = ({ x, y }: Point): boolean => x >= -BEYOND && x <= right && y >= -BEYOND && y <= bottom;
  if (corners.length <= MAX_CORNERS && corners.every(isOn)) return [];
  return [finding('hand/no-such-route', [{ kind: 'jumper', id }], { id, most: MAX_CORNERS })];
}

/**
 * A jumper with its ends in other holes; itself when they are the same. Its corners go with it when both ends went the
 * same way; otherwise the corner next to an end that moved stays level with it, or upright above it, as it was.
 */
export function withEnds(jumper: Jumper, from: string, to: string): Jumper {
  if (from === jumper.from && to === jumper.to) return jumper;
  const next = { ...jumper, from, to };
  if (!jumper.corners) return next;
  const [a, b] = [wayBetween(jumper.from, from), wayBetween(jumper.to, to)];
  if (a.x === b.x && a.y === b.y) return { ...next, corners: jumper.corners.map((c) => moved(c, a)) };
  const [start, end] = [inLineWith(jumper.corners[0], jumper.from), inLineWith(jumper.corners.at(-1), jumper.to)];
  const last = jumper.corners.length - 1;
  const corners = jumper.corners.map((c, i) => {
    const after = i === 0 ? moved(c, { x: start.x ? a.x : 0, y: start.y ? a.y : 0 }) : c;
    return i === last ? moved(after, { x: end.x ? b.x : 0, y: end.y ? b.y : 0 }) : after;
  });
  return { ...next, corners };
}

const moved = (p: Point, by: Point): Point => ({ x: p.x + by.x, y: p.y + by.y });

/** From one hole to another over the mat, in tenths of an inch. */
function wayBetween(from: string, to: string): Point {
  const [a, b] = [parseHole(from), parseHole(to)];
  if (!a || !b) return { x: 0, y: 0 };
  return { x: holeXY(b).x - holeXY(a).x, y: holeXY(b).y - holeXY(a).y };
}

/** Whether a corner stands upright above or below a hole (`x`), or level with it (`y`). */
function inLineWith(corner: Point | undefined, hole: string): { x: boolean; y: boolean } {
  const parsed = parseHole(hole);
  const at = parsed && holeXY(parsed);
  return { x: at?.x === corner?.x, y: at?.y === corner?.y };
}

/**
 * The corners of a way, given with both its ends, after one of its stretches was drawn aside: a level one up or down,
 * an upright one left or right, its ends staying joined to the rest. A slanting one gets a corner in its middle.
 */
export function drawnAside(path: readonly Point[], stretch: number, by: Point): Point[] {
  const [p, q] = [path[stretch], path[stretch + 1]];
  if (!p || !q) return path.slice(1, -1);
  const level = p.y === q.y;
  const between =
    level || p.x === q.x
      ? [p, q].map((c) => moved(c, level ? { x: 0, y: by.y } : { x: by.x, y: 0 }))
      : [moved({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 }, by)];
  const route = [...path.slice(0, stretch + 1), ...between, ...path.slice(stretch + 1)];
  return plainRoute(route).slice(1, -1);
}

/** A way without corners that are none: twice at one place, or in line with both their neighbours. */
export function plainRoute(route: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const c of route) {
    const isOne = (): boolean => {
      const [a, b] = [kept.at(-2), kept.at(-1)];
      if (!b) return true;
      if (b.x === c.x && b.y === c.y) return false;
      return !a || !((a.x === b.x && b.x === c.x) || (a.y === b.y && b.y === c.y));
    };
    while (!isOne()) kept.pop();
    kept.push(c);
  }
  return kept;
}
