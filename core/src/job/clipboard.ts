import {
  type Board,
  breadboardXY,
  checkSeat,
  type Jumper,
  nextFree,
  occupancyOf,
  parseHole,
  printHole,
  type SeatedPart,
  unusableHoles,
  withEnds,
} from '../board';
import { typeOf } from '../catalogue';
import { type Finding, finding } from '../finding';
import type { Edit } from './edit';
import { shiftedHole } from './shift';

/** Parts and jumpers taken up together, as they lay on their board. */
export interface Clip {
  readonly parts: readonly SeatedPart[];
  readonly jumpers: readonly Jumper[];
}

/** Takes up what is chosen, and the jumpers that run between chosen parts alone. */
export function clipOf(board: Board, what: readonly string[]): Clip {
  const chosen = new Set(what);
  return {
    parts: Object.values(board.parts).filter((p) => chosen.has(p.ref)),
    jumpers: Object.values(board.jumpers).filter((j) => chosen.has(j.id)),
  };
}

/**
 * The edit that lays a clip down again with names of its own, at the first place, from where it was taken rightwards
 * and then board by board, that has all its holes free; or why it cannot be. Labels stay with the parts they were
 * given to: two switches cannot give one signal.
 */
export function pasted(board: Board, clip: Clip): { readonly edit: Edit; readonly what: readonly string[] } | Finding {
  const count = clip.parts.length + clip.jumpers.length;
  if (count === 0) return finding('hand/nothing-copied', [], {});
  const taken = unusableHoles(board);
  for (const { dx, dy } of offsets(board, clip)) {
    const laid = laidDown(board, clip, dx, dy);
    const holes = laid && occupancyOf({ ...board, parts: laid.parts, jumpers: laid.jumpers });
    if (!laid || !holes) continue;
    const free = [...holes].every(([hole, by]) => by.length === 1 && !taken.has(hole));
    const seated = Object.values(laid.parts).every((part) => checkSeat(board, part).length === 0);
    if (!free || !seated) continue;
    const edits: Edit[] = [
      ...Object.values(laid.parts).map((part): Edit => ({ kind: 'seat', part })),
      ...Object.values(laid.jumpers).map((jumper): Edit => ({ kind: 'lay-jumper', jumper })),
    ];
    const what = [...Object.keys(laid.parts), ...Object.keys(laid.jumpers)];
    return { edit: { kind: 'all', says: `paste ${count}`, edits }, what };
  }
  return finding('hand/no-seat', [], { part: count === 1 ? 'the copy' : `the copy of ${count} things` });
}

function laidDown(board: Board, clip: Clip, dx: number, dy: number): Pick<Board, 'parts' | 'jumpers'> | null {
  const parts: Record<string, SeatedPart> = {};
  const jumpers: Record<string, Jumper> = {};
  for (const part of clip.parts) {
    const at = shiftedHole(board, part.at, dx, dy);
    const prefix = typeOf(part)?.prefix ?? part.ref.replace(/\d+$/, '');
    const ref = nextFree(prefix, { ...board.parts, ...parts });
    if (!at) return null;
    const { signal: _, labels: __, fixed: ___, ...rest } = part;
    parts[ref] = { ...rest, ref, at: printHole(at) };
  }
  for (const jumper of clip.jumpers) {
    const [from, to] = [jumper.from, jumper.to].map((end) => shiftedHole(board, end, dx, dy));
    if (!from || !to) return null;
    const id = nextFree('w', { ...board.jumpers, ...jumpers });
    jumpers[id] = { ...withEnds(jumper, printHole(from), printHole(to)), id };
  }
  return { parts, jumpers };
}

/** Shifts to try: along the board that the clip was on, then along every other. */
function* offsets(board: Board, clip: Clip): Generator<{ dx: number; dy: number }> {
  const home = parseHole(clip.parts[0]?.at ?? clip.jumpers[0]?.from ?? '');
  if (!home) return;
  const from = breadboardXY(home.board);
  const steps = Array.from({ length: 130 }, (_, i) => i - 64).sort((a, b) => Number(a < 0) - Number(b < 0) || a - b);
  for (const { id } of [...board.breadboards].sort(
    (a, b) => Number(b.id === home.board) - Number(a.id === home.board),
  )) {
    const to = breadboardXY(id);
    for (const dx of steps) yield { dx: dx + to.x - from.x, dy: to.y - from.y };
  }
}
