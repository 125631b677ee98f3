import {
  type Board,
  checkSeat,
  type Hole,
  holeNear,
  holeXY,
  type Jumper,
  parseHole,
  printHole,
  type SeatedPart,
  withEnds,
} from '../board';
import { entryOf } from '../element-at';
import { type Finding, finding } from '../finding';
import { doubled, followed } from './move';

/** Parts by reference and jumpers by id that are to be shifted together, in tenths of an inch on the mat. */
export interface Shift {
  readonly what: readonly string[];
  readonly dx: number;
  readonly dy: number;
}

/** A hole shifted over the mat; null where no hole lies there. */
export function shiftedHole(board: Board, text: string, dx: number, dy: number): Hole | null {
  const hole = parseHole(text);
  const at = hole && holeXY(hole);
  return at && holeNear(at.x + dx, at.y + dy, board.breadboards);
}

/**
 * The board after several things have been shifted together: parts by their anchors, chosen jumpers by both ends, and
 * of other jumpers the ends in strips of the parts. Or the findings that forbid it.
 */
export function shifted(board: Board, { what, dx, dy }: Shift): Board | Finding[] {
  const chosen = new Set(what);
  const pairs: [SeatedPart, SeatedPart][] = [];
  for (const part of Object.values(board.parts)) {
    if (!chosen.has(part.ref)) continue;
    const to = shiftedHole(board, part.at, dx, dy);
    if (!to) return [finding('hand/nowhere', [{ kind: 'part', ref: part.ref }], { what: part.ref })];
    pairs.push([part, { ...part, at: printHole(to) }]);
  }
  const after = followed(board, pairs);
  const jumpers: Record<string, Jumper> = {};
  for (const jumper of Object.values(board.jumpers)) {
    const { id, from, to } = jumper;
    const ends = chosen.has(id) ? [from, to].map((end) => shiftedHole(board, end, dx, dy)) : null;
    if (ends?.some((end) => end === null)) return [finding('hand/nowhere', [{ kind: 'jumper', id }], { what: id })];
    const [a, b] = ends ?? [];
    jumpers[id] = a && b ? withEnds(jumper, printHole(a), printHole(b)) : entryOf(after, id);
  }
  const parts = { ...board.parts, ...Object.fromEntries(pairs.map(([, to]) => [to.ref, to])) };
  const result = { ...board, parts, jumpers };
  const refused = pairs.flatMap(([, to]) => checkSeat(result, to));
  return refused.length > 0 ? refused.slice(0, 1) : (doubled(result) ?? result);
}
