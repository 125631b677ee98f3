import { drawnAside, elementAt, type Path, type Point } from '@saddlebag/core';

/** A stretch of a jumper that is being drawn aside, to bend it: its way so far, and how far it was drawn. */
export interface Bend {
  readonly id: string;
  readonly path: Path;
  readonly stretch: number;
  readonly grabX: number;
  readonly grabY: number;
  readonly by: Point;
}

/** The stretch of a jumper's way that lies nearest to a place, in the hand. */
export function grabbed(id: string, path: Path, x: number, y: number): Bend {
  const away = path.slice(1).map((q, i) => awayFrom(elementAt(path, i), q, x, y));
  return { id, path, stretch: away.indexOf(Math.min(...away)), grabX: x, grabY: y, by: { x: 0, y: 0 } };
}

/** How far a place is from a stretch, in tenths of an inch. */
function awayFrom(p: Point, q: Point, x: number, y: number): number {
  const [dx, dy] = [q.x - p.x, q.y - p.y];
  const t = Math.max(0, Math.min(1, ((x - p.x) * dx + (y - p.y) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(x - p.x - t * dx, y - p.y - t * dy);
}

/** How far the hand must go before a stretch goes with it, and to which places it goes: holes and half way between. */
const LEAST_DRAW = 0.4;
const GRID = 0.5;

/** The bend with the hand at another place; itself when nothing goes along. */
export function drawnTo(bend: Bend, x: number, y: number): Bend {
  const [p, q] = [bend.path[bend.stretch], bend.path[bend.stretch + 1]];
  if (!p || !q) return bend;
  const onGrid = (from: number, way: number): number =>
    Math.abs(way) < LEAST_DRAW ? 0 : Math.round((from + way) / GRID) * GRID - from;
  // A level stretch goes up and down, an upright one left and right; a slanting one turns where the hand takes it.
  const by = {
    x: p.y === q.y ? 0 : onGrid((p.x + q.x) / 2, x - bend.grabX),
    y: p.x === q.x ? 0 : onGrid((p.y + q.y) / 2, y - bend.grabY),
  };
  return by.x === bend.by.x && by.y === bend.by.y ? bend : { ...bend, by };
}

/** The corners that a jumper has when its stretch stays where it was drawn to. */
export const cornersOf = ({ path, stretch, by }: Bend): readonly Point[] => drawnAside(path, stretch, by);
