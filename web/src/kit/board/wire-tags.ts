import { type Path, type Point, shownSignal } from '@saddlebag/core';

/** A wire as it runs, with the signal that it carries. */
export interface RunningWire {
  readonly id: string;
  readonly path: Path;
  readonly signal: string | undefined;
}

/** A name on a wire near one of its ends, as on a cable marker: the middle of the marker, and whether it reads upwards. */
export interface WireTag {
  readonly wire: string;
  readonly signal: string;
  readonly text: string;
  readonly x: number;
  readonly y: number;
  readonly isUpright: boolean;
  readonly length: number;
}

/** Wires that reach so far, in tenths of an inch, leave sight. */
const FAR = 24;
/** Height of a marker, width of a letter on it, and what it is longer than its text. */
export const TAG_HEIGHT = 0.8;
const LETTER = 0.4;
const ROOM = 0.5;
/** Longer names are cut. */
const MOST_LETTERS = 8;
/** The nearest that a marker comes to the end of its wire, and how it moves on where others are. */
const FROM_THE_END = 0.45;
/** How far a marker lies beside a wire that is shorter than it. */
const BESIDE = 0.75;
const STEP = 0.5;
/** What lying over another marker, over the end of another wire, and being farther from its own end cost. */
const COSTS = { marker: 20, end: 4, away: 1 } as const;

/**
 * The markers of wires that leave sight: of signals that reach to another board or far along one, near both ends, each where it covers least of what else is
 * there. `boardAt` names the board at a place of the mat.
 */
export function wireTags(wires: readonly RunningWire[], boardAt: (p: Point) => string | undefined): WireTag[] {
  const isFar = ({ path, signal }: RunningWire): boolean => {
    const [from, to] = [path[0], path.at(-1)];
    if (signal === undefined || signal === '0' || signal === '1' || !from || !to) return false;
    return Math.abs(from.x - to.x) + Math.abs(from.y - to.y) > FAR || boardAt(from) !== boardAt(to);
  };
  return tagsOf(wires, wires.filter(isFar), ({ signal = '' }) => shownSignal(signal));
}

/** A marker near both ends of each of some wires, with a text of its own, among all wires that are there. */
export function tagsOf(
  wires: readonly RunningWire[],
  tagged: readonly RunningWire[],
  textOf: (wire: RunningWire) => string,
): WireTag[] {
  const ends = wires.flatMap(({ id, path }) => [path[0], path.at(-1)].flatMap((p) => (p ? [{ id, ...p }] : [])));
  const tags: WireTag[] = [];
  for (const wire of tagged) {
    const own = { wire: wire.id, signal: wire.signal ?? '', text: cut(textOf(wire)) };
    const isShort = lengthOf(wire.path) < 2 * (own.text.length * LETTER + ROOM) + 2;
    const found = (isShort ? [wire.path] : [wire.path, wire.path.toReversed()]).flatMap(
      (path) => placeOn(path, own, { tags, ends }) ?? [],
    );
    tags.push(...(found.length > 0 || !isShort ? found : [beside(wire.path, own)]));
  }
  return tags;
}

interface Others {
  readonly tags: readonly WireTag[];
  readonly ends: readonly (Point & { readonly id: string })[];
}

const lengthOf = (path: readonly Point[]): number =>
  path.slice(1).reduce((sum, q, i) => sum + Math.abs(q.x - (path[i] ?? q).x) + Math.abs(q.y - (path[i] ?? q).y), 0);

/** The marker of a wire that is shorter than its name: beside its middle. */
function beside(path: readonly Point[], own: Pick<WireTag, 'wire' | 'signal' | 'text'>): WireTag {
  const [from, to] = [path[0] ?? { x: 0, y: 0 }, path.at(-1) ?? { x: 0, y: 0 }];
  const isUpright = from.x === to.x;
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  const length = own.text.length * LETTER + ROOM;
  return { ...own, x: isUpright ? x + BESIDE : x, y: isUpright ? y : y - BESIDE, isUpright, length };
}

const cut = (name: string): string => (name.length > MOST_LETTERS ? `${name.slice(0, MOST_LETTERS - 1)}…` : name);

/** The best place for a marker on a path, as near to its beginning as it may be; null where no stretch is long enough. */
function placeOn(
  path: readonly Point[],
  own: Pick<WireTag, 'wire' | 'signal' | 'text'>,
  others: Others,
): WireTag | null {
  const length = own.text.length * LETTER + ROOM;
  let best: WireTag | null = null;
  let least = Number.POSITIVE_INFINITY;
  let way = 0;
  for (const [i, q] of path.slice(1).entries()) {
    const p = path[i] ?? q;
    const size = Math.abs(p.x - q.x) + Math.abs(p.y - q.y);
    const [dx, dy] = [Math.sign(q.x - p.x), Math.sign(q.y - p.y)];
    for (let at = FROM_THE_END; at + length + FROM_THE_END <= size && COSTS.away * (way + at) < least; at += STEP) {
      const middle = at + length / 2;
      const tag = { ...own, x: p.x + dx * middle, y: p.y + dy * middle, isUpright: dx === 0, length };
      const cost = COSTS.away * (way + at) + covered(tag, others);
      if (cost < least) [least, best] = [cost, tag];
    }
    way += size;
  }
  return best;
}

/** What a marker costs by what it covers. */
function covered(tag: WireTag, { tags, ends }: Others): number {
  const box = boxOf(tag);
  let cost = 0;
  for (const other of tags) if (overlap(box, boxOf(other))) cost += COSTS.marker;
  for (const { id, x, y } of ends) {
    const isInside = x > box.x - 0.3 && x < box.x + box.width + 0.3 && y > box.y - 0.3 && y < box.y + box.height + 0.3;
    if (isInside && id !== tag.wire) cost += COSTS.end;
  }
  return cost;
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Whether two outlines lie on each other. */
export const overlap = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** The outline of a marker on the mat, `growth` times as large. */
export function boxOf({ x, y, isUpright, length }: WireTag, growth = 1): Box {
  const [width, height] = (isUpright ? [TAG_HEIGHT, length] : [length, TAG_HEIGHT]).map((side) => side * growth) as [
    number,
    number,
  ];
  return { x: x - width / 2, y: y - height / 2, width, height };
}
