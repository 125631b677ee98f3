import { type PartType, type Pin, typeOf } from '../catalogue';
import { type Finding, finding, type Place } from '../finding';
import { onceFor } from '../memo';
import { type Board, byNumber, type Jumper, type Rotation, type SeatedPart } from './board';
import { type Hole, holeAt, holesOfStrip, holeXY, parseHole, printHole, rowY, stripOf } from './hole';
import { pinOf } from './pin';

/** A pin of a seated part, written `U1.8`, and the hole it enters; null where the board has none. */
export interface Lead {
  readonly pin: string;
  readonly ref: string;
  readonly type: Pin;
  readonly hole: Hole | null;
  /** That hole and its strip by name. */
  readonly at: string | null;
  readonly strip: string | null;
}

/** An offset turned clockwise by quarter turns. */
export function rotated(dx: number, dy: number, rotation: Rotation): { dx: number; dy: number } {
  if (rotation === 90) return { dx: -dy, dy: dx };
  if (rotation === 180) return { dx: -dx, dy: -dy };
  return rotation === 270 ? { dx: dy, dy: -dx } : { dx, dy };
}

/** Where the leads of a seated part go, in pin order; empty when its type or anchor is not known. */
export const leadsOf: (seated: SeatedPart) => readonly Lead[] = onceFor(workedOut);

function workedOut(seated: SeatedPart): readonly Lead[] {
  const type = typeOf(seated);
  const anchor = parseHole(seated.at);
  if (!type || !anchor) return [];
  return type.pins.map((pin) => {
    const { dx, dy } = rotated(pin.dx, pin.dy, seated.rotation);
    const hole = holeAt(anchor.board, anchor.column + dx, rowY[anchor.row] + dy);
    const named = { at: hole && printHole(hole), strip: hole && stripOf(hole) };
    return { pin: pinOf(seated.ref, pin.id), ref: seated.ref, type: pin, hole, ...named };
  });
}

/** Who is in each hole (`b1.e17`), by name: a pin `U1.8` or a jumper `w12`. */
export type Occupancy = ReadonlyMap<string, readonly string[]>;

/** Lists the occupants of every hole in use. A sound board has one in each. */
export function occupancyOf(board: Board): Occupancy {
  const holes = new Map([...holesOfParts(board.parts)].map(([hole, pins]) => [hole, [...pins]]));
  for (const { id, from, to } of Object.values(board.jumpers)) for (const end of [from, to]) put(holes, end, id);
  return holes;
}

/** The holes that hold more than one lead or jumper's end, with who is in them. */
export function doubledHoles({ parts, jumpers }: Board): (readonly [hole: string, by: readonly string[]])[] {
  const ofParts = holesOfParts(parts);
  const ends = new Map<string, string[]>();
  for (const { id, from, to } of Object.values(jumpers)) for (const end of [from, to]) put(ends, end, id);
  const ofBoth = [...ends].flatMap(([hole, ids]) => {
    const by = [...(ofParts.get(hole) ?? []), ...ids];
    return by.length > 1 ? [[hole, by] as const] : [];
  });
  return [...[...ofParts].filter(([hole, pins]) => pins.length > 1 && !ends.has(hole)), ...ofBoth];
}

/** Who of the parts is in each hole; kept while the parts stay as they are. */
const holesOfParts: (parts: Board['parts']) => Occupancy = onceFor((parts) => {
  const holes = new Map<string, string[]>();
  for (const part of Object.values(parts))
    for (const { at, pin } of leadsOf(part)) if (at !== null) put(holes, at, pin);
  return holes;
});

function put(holes: Map<string, string[]>, hole: string, by: string): void {
  const there = holes.get(hole);
  if (there) there.push(by);
  else holes.set(hole, [by]);
}

/**
 * Holes that lie under the body of a part and hold none of its own leads, by name, with whose body it is. Nothing can be plugged in
 * there. Kept while the parts stay as they are.
 */
export const coveredHoles: (parts: Board['parts']) => ReadonlyMap<string, string> = onceFor(
  (parts) => new Map(Object.values(parts).flatMap((part) => holesUnder(part).map((hole) => [hole, part.ref] as const))),
);

/** The holes under one part's body that hold none of its own leads, by name; kept with the part. */
export const holesUnder: (part: SeatedPart) => readonly string[] = onceFor(workedOutUnder);

function workedOutUnder(part: SeatedPart): string[] {
  const [type, anchor] = [typeOf(part), parseHole(part.at)];
  if (!type || !anchor) return [];
  const own = new Set(leadsOf(part).map((lead) => lead.at));
  const { x, y, width, height } = bodyOf(type, part.rotation);
  const holes: string[] = [];
  for (let dx = Math.ceil(x); dx <= x + width; dx++)
    for (let dy = Math.ceil(y); dy <= y + height; dy++) {
      const hole = holeAt(anchor.board, anchor.column + dx, rowY[anchor.row] + dy);
      const name = hole && printHole(hole);
      if (name !== null && !own.has(name)) holes.push(name);
    }
  return holes;
}

/** A type's body relative to its anchor, turned. */
function bodyOf(type: PartType, rotation: Rotation): Omit<Outline, 'ref' | 'kind'> {
  const a = rotated(type.body.x, type.body.y, rotation);
  const b = rotated(type.body.x + type.body.width, type.body.y + type.body.height, rotation);
  const [x, y] = [Math.min(a.dx, b.dx), Math.min(a.dy, b.dy)];
  return { x, y, width: Math.abs(b.dx - a.dx), height: Math.abs(b.dy - a.dy) };
}

/** The holes in which nothing more can be plugged, with what is in them or over them. */
export function unusableHoles(board: Board): Occupancy {
  const holes = new Map(occupancyOf(board));
  for (const [hole, ref] of coveredHoles(board.parts)) if (!holes.has(hole)) holes.set(hole, [`the body of ${ref}`]);
  return holes;
}

/** Jumper ends and leads of other parts that lie under a part's body: the hole, what is in it, and the part. */
export function coveredEnds(board: Board): { readonly hole: string; readonly by: string; readonly ref: string }[] {
  const taken = occupancyOf(board);
  return [...coveredHoles(board.parts)].flatMap(([hole, ref]) =>
    (taken.get(hole) ?? []).map((by) => ({ hole, by, ref })),
  );
}

/** Whether nothing is plugged into a breadboard. */
export function hasBareBoard(board: Board, id: string): boolean {
  const on = (hole: string): boolean => hole.startsWith(`${id}.`);
  return (
    !Object.values(board.jumpers).some((j) => on(j.from) || on(j.to)) &&
    !Object.values(board.parts).some((part) => leadsOf(part).some((lead) => lead.hole?.board === id))
  );
}

const atHole = (hole: Hole): Place => ({ kind: 'hole', hole: printHole(hole) });

/** Whether a part can be put where it says: every lead in a hole of the board that nobody else holds. */
export function checkSeat(board: Board, part: SeatedPart): Finding[] {
  const anchor = parseHole(part.at);
  if (!anchor || !hasBoard(board, anchor)) return [finding('hand/no-such-hole', [], { hole: part.at })];
  const others = { ...board.parts };
  delete others[part.ref];
  const taken = unusableHoles({ ...board, parts: others });
  const findings: Finding[] = [];
  for (const { hole, type } of leadsOf(part)) {
    if (!hole) findings.push(finding('hand/lead-off-board', [], { ref: part.ref, pin: type.id }));
    else findings.push(...checkFree(taken, hole));
  }
  for (const hole of holesUnder(part)) {
    const by = occupancyOf({ ...board, parts: others }).get(hole);
    if (by)
      findings.push(finding('hand/covers-hole', [{ kind: 'hole', hole }], { ref: part.ref, hole, by: by.join() }));
  }
  return findings.slice(0, 1);
}

/** Whether a jumper can be laid: two different free holes of the board. */
export function checkJumper(board: Board, jumper: Jumper): Finding[] {
  if (jumper.from === jumper.to) return [finding('hand/same-hole', [], { hole: jumper.from })];
  const others = { ...board.jumpers };
  delete others[jumper.id];
  const taken = unusableHoles({ ...board, jumpers: others });
  return [jumper.from, jumper.to].flatMap((text) => {
    const hole = parseHole(text);
    if (!hole || !hasBoard(board, hole)) return [finding('hand/no-such-hole', [], { hole: text })];
    return checkFree(taken, hole);
  });
}

function checkFree(taken: Occupancy, hole: Hole): Finding[] {
  const by = taken.get(printHole(hole));
  return by ? [finding('hand/hole-taken', [atHole(hole)], { hole: printHole(hole), by: by.join(' and ') })] : [];
}

const hasBoard = (board: Board, hole: Hole): boolean => board.breadboards.some((b) => b.id === hole.board);

/**
 * Free holes of the strip of `hole`, nearest first to the place on the mat that `towards` lies at; those of rows e and f
 * last, for a jumper there lies over the pins of a chip.
 */
export function freeHoles(taken: Occupancy, hole: Hole, towards: Hole = hole): Hole[] {
  const to = holeXY(towards);
  const away = (h: Hole): number => Math.hypot(holeXY(h).x - to.x, holeXY(h).y - to.y);
  return holesOfStrip(hole)
    .filter((h) => !taken.has(printHole(h)))
    .sort((a, b) => Number(isInner(a)) - Number(isInner(b)) || away(a) - away(b));
}

const isInner = (h: Hole): boolean => h.row === 'e' || h.row === 'f';

/** The outline of a seated part on the mat, in tenths of an inch, turn included. */
export interface Outline {
  readonly ref: string;
  readonly kind: PartType['kind'];
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Outlines of all parts that are known and on the board, in reference order. */
export function outlinesOf(board: Board): Outline[] {
  return Object.values(board.parts)
    .sort((a, b) => byNumber(a.ref, b.ref))
    .flatMap((part) => {
      const type = typeOf(part);
      const anchor = parseHole(part.at);
      if (!type || !anchor) return [];
      const at = holeXY(anchor);
      const body = bodyOf(type, part.rotation);
      return [{ ...body, ref: part.ref, kind: type.kind, x: at.x + body.x, y: at.y + body.y }];
    });
}
