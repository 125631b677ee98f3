import {
  type Board,
  checkSeat,
  columnNumbers,
  type Hole,
  holesUnder,
  isRail,
  leadsOf,
  outlinesOf,
  parseHole,
  type Row,
  type SeatedPart,
  stripOf,
  unusableHoles,
} from '../board';
import { type PartKind, typeOf } from '../catalogue';

/** Rows in which the first pin of a part goes when nobody says where. */
const homes: Readonly<Record<PartKind, Row>> = {
  chip: 'e',
  switch: 'f',
  led: 'c',
  resistor: 'a',
  capacitor: 'top+',
  supply: 'top+',
  'dip-switch': 'e',
  'change-over': 'b',
  'push-button': 'e',
  'led-bar': 'e',
  buzzer: 'e',
  display: 'e',
  'resistor-network': 'b',
  diode: 'f',
  transistor: 'c',
  potentiometer: 'b',
  clock: 'b',
};

/** Those of single parts, where they are not their kind's: an electrolytic has its leads side by side. */
const homeOf: Readonly<Record<string, Row>> = { electrolytic: 'c' };

/**
 * The part at the first place, from the left, where all its leads find free holes in strips that hold nothing yet and
 * its body lies over no strip in use and on no other part; failing that, in any free holes; null when there are none. Its first lead goes in the row
 * `home`, or in that of its kind.
 */
export function freeSeat(board: Board, part: SeatedPart, home?: Row): SeatedPart | null {
  const { clear, any } = seats(board, part, home);
  return clear ?? any;
}

/** The same, in strips that hold nothing yet or nowhere. */
export function clearSeat(board: Board, part: SeatedPart, home?: Row): SeatedPart | null {
  return seats(board, part, home).clear;
}

function seats(board: Board, part: SeatedPart, home?: Row): { clear: SeatedPart | null; any: SeatedPart | null } {
  const row = home ?? homeOf[part.part] ?? homes[typeOf(part)?.kind ?? 'chip'];
  const used = stripsInUse(board);
  let any: SeatedPart | null = null;
  for (const { id } of board.breadboards)
    for (const column of columnNumbers(id)) {
      const tried = { ...part, at: `${id}.${row}${column}` };
      if (checkSeat(board, tried).length > 0) continue;
      const holes = [...leadsOf(tried).map((lead) => lead.hole), ...holesUnder(tried).map(parseHole)];
      const clear = holes.every((hole) => !hole || isRail(hole.row) || !used.has(stripOf(hole)));
      if (clear && !liesOnAnother(board, tried)) return { clear: tried, any };
      any ??= tried;
    }
  return { clear: null, any };
}

function stripsInUse(board: Board): ReadonlySet<string> {
  return new Set([...unusableHoles(board).keys()].flatMap((hole) => stripOf(parseHole(hole) as Hole)));
}

function liesOnAnother(board: Board, part: SeatedPart): boolean {
  const all = outlinesOf({ ...board, parts: { ...board.parts, [part.ref]: part } });
  const own = all.find((o) => o.ref === part.ref);
  return (
    own !== undefined &&
    all.some(
      (o) =>
        o.ref !== part.ref &&
        o.x < own.x + own.width &&
        own.x < o.x + o.width &&
        o.y < own.y + own.height &&
        own.y < o.y + o.height,
    )
  );
}
