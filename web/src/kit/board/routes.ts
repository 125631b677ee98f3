import { type Board, type Paths, type Routed, routeJumpers } from '@saddlebag/core';

/** Jumpers that are routed at once, in a few milliseconds; more are for the worker. */
const MOST_AT_ONCE = 40;

/** How the jumpers of boards run, as far as it was worked out: a board never changes. */
const known = new WeakMap<Board, Paths>();
/** The board that was drawn last: after an edit its wires lie as they lay, and only the new ones are routed. */
let last: Routed | undefined;

/** How the jumpers of a board run; null where so many are new that the worker should work it out (`learnRoutes`). */
export function routesOf(board: Board): Paths | null {
  const before = known.get(board);
  if (!before && freshIn(board) > MOST_AT_ONCE) return null;
  const paths = before ?? routeJumpers(board, last);
  learnRoutes(board, paths);
  return paths;
}

/** Keeps what was worked out elsewhere. */
export function learnRoutes(board: Board, paths: Paths): void {
  known.set(board, paths);
  last = { board, paths };
}

function freshIn(board: Board): number {
  return Object.values(board.jumpers).filter((j) => last?.board.jumpers[j.id] !== j).length;
}
