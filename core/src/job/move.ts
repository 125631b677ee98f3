import {
  type Board,
  checkSeat,
  doubledHoles,
  holeAt,
  isRail,
  leadsOf,
  parseHole,
  partOf,
  printHole,
  type Rotation,
  rotated,
  rowY,
  type SeatedPart,
  stripOf,
  withEnds,
} from '../board';
import { type PartKind, typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';

/** Where a part is to go, and whether the jumpers in its strips go with it. */
export interface Move {
  readonly ref: string;
  readonly at: string;
  readonly rotation: Rotation;
  readonly follow: boolean;
}

/**
 * The board after a part has moved, or the findings that forbid it: no such part, no hole for a lead,
 * a hole taken by another part or by a jumper that stays.
 */
export function moved(board: Board, move: Move): Board | Finding[] {
  const part = partOf(board, move.ref);
  if (!part) return [finding('hand/no-such-part', [], { ref: move.ref })];
  const next: SeatedPart = { ...part, at: move.at, rotation: move.rotation };
  const jumpers = move.follow && part.rotation === move.rotation ? followed(board, [[part, next]]) : board.jumpers;
  const result = { ...board, parts: { ...board.parts, [part.ref]: next }, jumpers };
  const findings = checkSeat(result, next);
  if (findings.length > 0) return findings;
  return doubled(result) ?? result;
}

/** The jumpers of a board after the own strips of parts have moved along with them. */
export function followed(
  board: Board,
  pairs: readonly (readonly [from: SeatedPart, to: SeatedPart])[],
): Board['jumpers'] {
  const moving = new Set(pairs.map(([part]) => part.ref));
  const shift = new Map<string, { from: string; column: number; board: string }>();
  for (const [part, to] of pairs) {
    const after = leadsOf(to);
    leadsOf(part).forEach(({ hole }, i) => {
      const target = after[i]?.hole;
      if (!hole || !target || isRail(hole.row) || isRail(target.row)) return;
      if (rowY[hole.row] > 8 === rowY[target.row] > 8)
        shift.set(stripOf(hole), { from: stripOf(hole), column: target.column, board: target.board });
    });
  }
  for (const other of Object.values(board.parts))
    if (!moving.has(other.ref)) for (const { hole } of leadsOf(other)) if (hole) shift.delete(stripOf(hole));
  const end = (text: string): string => {
    const hole = parseHole(text);
    const by = hole && shift.get(stripOf(hole));
    return hole && by ? printHole({ ...hole, column: by.column, board: by.board }) : text;
  };
  return Object.fromEntries(Object.values(board.jumpers).map((j) => [j.id, withEnds(j, end(j.from), end(j.to))]));
}

/** The first hole that holds two leads, as a finding; null when none does. */
export function doubled(board: Board): Finding[] | null {
  const [first] = doubledHoles(board);
  if (!first) return null;
  const [hole, by] = first;
  return [finding('hand/hole-taken', [{ kind: 'hole', hole }], { hole, by: by.join(' and ') })];
}

const quarterTurns: ReadonlySet<PartKind> = new Set(['resistor', 'capacitor', 'diode', 'push-button']);

/**
 * Where a part goes when it is turned: resistors, capacitors, diodes and push-buttons by a
 * quarter turn about their first lead, other parts by half a turn within their own holes. Null when its anchor is in no hole.
 */
export function rotatedInPlace(part: SeatedPart): Pick<Move, 'at' | 'rotation'> | null {
  const type = typeOf(part);
  const anchor = parseHole(part.at);
  if (!type || !anchor) return null;
  if (quarterTurns.has(type.kind)) {
    return { at: part.at, rotation: ((part.rotation + 90) % 360) as Rotation };
  }
  const offsets = type.pins.map((pin) => rotated(pin.dx, pin.dy, part.rotation));
  const sum = (of: 'dx' | 'dy'): number =>
    Math.min(...offsets.map((o) => o[of])) + Math.max(...offsets.map((o) => o[of]));
  const hole = holeAt(anchor.board, anchor.column + sum('dx'), rowY[anchor.row] + sum('dy'));
  return hole && { at: printHole(hole), rotation: ((part.rotation + 180) % 360) as Rotation };
}
