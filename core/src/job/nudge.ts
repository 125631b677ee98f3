import {
  type Board,
  breadboardXY,
  byNumber,
  type Hole,
  holesOfStrip,
  holeXY,
  isRail,
  parseHole,
  partOf,
  printHole,
} from '../board';
import type { Edit } from './edit';

/**
 * The next place of a part that is nudged by one hole: `dx` columns and `dy` rows. Over the channel,
 * up and down skip to the next row, or board, that takes the part. Null when nothing does.
 */
export function nudged(board: Board, ref: string, dx: number, dy: number): Edit | null {
  const part = partOf(board, ref);
  const anchor = part && parseHole(part.at);
  if (!part || !anchor) return null;
  const from = holeXY(anchor);
  const seats = board.breadboards
    .flatMap(({ id }) => holesInColumn(id, from.x + dx - breadboardXY(id).x))
    .filter((h) => (dy === 0 ? holeXY(h).y === from.y : Math.sign(holeXY(h).y - from.y) === dy))
    .sort((p, q) => Math.abs(holeXY(p).y - from.y) - Math.abs(holeXY(q).y - from.y));
  const [nearest] = seats;
  if (!nearest) return null;
  return { kind: 'move', ref, at: printHole(nearest), rotation: part.rotation, follow: true };
}

function holesInColumn(board: string, column: number): Hole[] {
  const rows = ['top+', 'top-', 'j', 'e', 'bottom+', 'bottom-'] as const;
  return rows.flatMap((row) => {
    const hole = parseHole(printHole({ board, column, row }));
    if (!hole) return [];
    return isRail(row) ? [hole] : holesOfStrip(hole);
  });
}

/** References and ids of everything on a board, in the order a person steps through them. */
export function thingsOn(board: Board): string[] {
  return [...Object.keys(board.parts).sort(byNumber), ...Object.keys(board.jumpers).sort(byNumber)];
}
