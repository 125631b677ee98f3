import {
  applyEdit,
  type Board,
  type Edit,
  holeXY,
  type Job,
  jumperOf,
  noteOf,
  outlinesOf,
  parseHole,
  partOf,
} from '@saddlebag/core';

/** A corner-to-corner frame drawn over the mat, in tenths of an inch. */
export interface Frame {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
}

/** A frame with its sides in order. */
export function sidesOf({ x1, y1, x2, y2 }: Frame): { left: number; top: number; right: number; bottom: number } {
  return { left: Math.min(x1, x2), right: Math.max(x1, x2), top: Math.min(y1, y2), bottom: Math.max(y1, y2) };
}

/** What a frame holds: parts that lie in it whole, jumpers with both ends in it. */
export function within(board: Board, frame: Frame): string[] {
  const { left, top, right, bottom } = sidesOf(frame);
  const holds = (x: number, y: number): boolean => x >= left && x <= right && y >= top && y <= bottom;
  const parts = outlinesOf(board).filter((o) => holds(o.x, o.y) && holds(o.x + o.width, o.y + o.height));
  const jumpers = Object.values(board.jumpers).filter(({ from, to }) =>
    [from, to].every((end) => {
      const hole = parseHole(end);
      const at = hole && holeXY(hole);
      return at !== null && holds(at.x, at.y);
    }),
  );
  return [...parts.map((o) => o.ref), ...jumpers.map((j) => j.id)];
}

/** Pulls everything that is chosen out in one step. */
export function pullAll(board: Board, what: readonly string[]): Edit | null {
  const edits = what.flatMap((id): Edit[] => {
    if (partOf(board, id)) return [{ kind: 'pull-part', ref: id }];
    if (jumperOf(board, id)) return [{ kind: 'pull-jumper', id }];
    const note = noteOf(board, id);
    return note ? [{ kind: 'note', note: { ...note, text: '' } }] : [];
  });
  const [only] = edits;
  if (!only) return null;
  return edits.length === 1 ? only : { kind: 'all', says: `pull ${edits.length} things`, edits };
}

/** The nearest shift in a direction that all of them take: holes of rails, and other parts, may be in the way. */
export function shiftThatWorks(job: Job, what: readonly string[], dx: number, dy: number): Edit | null {
  for (let n = 1; n <= 24; n++) {
    const edit: Edit = { kind: 'shift', what, dx: n * dx, dy: n * dy };
    if (applyEdit(job, edit).ok) return edit;
  }
  return null;
}

/** The next hole with a pin or a jumper's end in a direction, the straightest first; the same one when there is none. */
export function nextInUse(from: string, dx: number, dy: number, occupied: Iterable<string>): string {
  const start = parseHole(from);
  if (!start) return from;
  const a = holeXY(start);
  let best = from;
  let least = Number.POSITIVE_INFINITY;
  for (const text of occupied) {
    const hole = parseHole(text);
    if (!hole) continue;
    const b = holeXY(hole);
    const [along, aside] = dx === 0 ? [(b.y - a.y) * dy, Math.abs(b.x - a.x)] : [(b.x - a.x) * dx, Math.abs(b.y - a.y)];
    const cost = along + 4 * aside;
    if (along > 0 && cost < least) [least, best] = [cost, text];
  }
  return best;
}
