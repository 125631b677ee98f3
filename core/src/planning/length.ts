import { type Board, extractNets, holesOfStrip, holeXY, parseHole, stripNamed } from '../board';
import { elementAt } from '../element-at';

/** How long the wires of a board are, in tenths of an inch, and how short they could be at the least. */
export interface WireLength {
  readonly laid: number;
  readonly bound: number;
}

/** A strip as an upright stretch, or a rail as a level one, in tenths of an inch on the mat. */
interface Stretch {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

/** A length against the least for the same seats, in words: `19 % longer than the shortest possible`. */
export function againstShortest({ laid, bound }: WireLength): string {
  const percent = Math.round(100 * (laid / Math.max(1, bound) - 1));
  return percent <= 0 ? 'as short as possible' : `${percent}\u00a0% longer than the shortest possible`;
}

/**
 * The length of all jumpers from hole to hole, right-angled, against the least that any wiring of the same seats needs:
 * for every net the minimum spanning tree over its strips and rails, with the distance of two strips that of their
 * nearest holes (R. C. Prim, Shortest connection networks, 1957). Nets without a jumper count nothing.
 */
export function wireLength(board: Board): WireLength {
  const { nets } = extractNets(board);
  let laid = 0;
  for (const { from, to } of Object.values(board.jumpers)) {
    const [a, b] = [parseHole(from), parseHole(to)];
    if (a && b) laid += away(holeXY(a), holeXY(b));
  }
  let bound = 0;
  for (const net of nets) if (net.jumpers.length > 0) bound += treeLength(net.strips.flatMap(stretchOf));
  return { laid, bound };
}

const away = (a: { x: number; y: number }, b: { x: number; y: number }): number =>
  Math.abs(a.x - b.x) + Math.abs(a.y - b.y);

function stretchOf(strip: string): Stretch[] {
  const first = stripNamed(strip);
  if (!first) return [];
  const holes = holesOfStrip(first);
  const places = holes.map(holeXY);
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  return [{ left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }];
}

/** The length of a minimum spanning tree, each stretch joined where it is nearest. */
function treeLength(stretches: readonly Stretch[]): number {
  const gap = (a1: number, a2: number, b1: number, b2: number): number => Math.max(0, b1 - a2, a1 - b2);
  const between = (a: Stretch, b: Stretch): number =>
    gap(a.left, a.right, b.left, b.right) + gap(a.top, a.bottom, b.top, b.bottom);
  const [first, ...rest] = stretches;
  if (!first) return 0;
  const nearest = rest.map((s) => between(first, s));
  let length = 0;
  const waiting = new Set(rest.keys());
  while (waiting.size > 0) {
    let next = -1;
    for (const i of waiting) if (next < 0 || elementAt(nearest, i) < elementAt(nearest, next)) next = i;
    waiting.delete(next);
    length += elementAt(nearest, next);
    for (const i of waiting)
      nearest[i] = Math.min(elementAt(nearest, i), between(elementAt(rest, next), elementAt(rest, i)));
  }
  return length;
}
