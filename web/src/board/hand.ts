import {
  applyEdit,
  type Board,
  breadboardXY,
  type Clip,
  clipOf,
  type Edit,
  elementAt,
  type Finding,
  freeHoles,
  type Hole,
  holeNear,
  holeXY,
  type Job,
  jumperOf,
  nextFree,
  noteOf,
  nudged,
  occupancyOf,
  type Path,
  parseHole,
  partOf,
  pasted,
  printHole,
  readCommand,
  thingsOn,
  typeOf,
  unusableHoles,
} from '@saddlebag/core';
import { type Bend, cornersOf, drawnTo, grabbed } from './bend';
import { type Frame, nextInUse, pullAll, shiftThatWorks, within } from './selection';

/** A part on its way: from where it was grabbed to where it would be put, and whether its jumpers follow. */
export interface Carry {
  readonly ref: string;
  readonly grabX: number;
  readonly grabY: number;
  readonly at: string | null;
  readonly follow: boolean;
}

/**
 * The state of a person's hands over the board: the cursor, what is chosen (a reference or a jumper's
 * id), the hole a jumper is being laid from, the part being carried. Holes are written `b1.e17`.
 */
export interface Hands {
  readonly cursor: string;
  readonly chosen: string | null;
  /** What is chosen beside it. */
  readonly others: readonly string[];
  readonly laying: string | null;
  /** Whether it is being drawn from there with the button down: let go where it began, nothing is laid. */
  readonly drawing: boolean;
  /** The end of a jumper that is being plugged elsewhere; `laying` is then its other end. */
  readonly plug: { readonly id: string; readonly end: 'from' | 'to' } | null;
  readonly carry: Carry | null;
  readonly bend: Bend | null;
  readonly frame: Frame | null;
}

/** Hands that hold nothing, with the cursor in the middle of the first column. */
export const idleHands: Hands = {
  cursor: 'b1.e1',
  chosen: null,
  others: [],
  laying: null,
  drawing: false,
  plug: null,
  carry: null,
  bend: null,
  frame: null,
};

/** Everything that is chosen. */
export function allChosen({ chosen, others }: Hands): readonly string[] {
  return chosen === null ? [] : [chosen, ...others];
}

/** The hands with nothing begun and something else chosen. */
function holding(hands: Hands, what: readonly string[]): Hands {
  const [chosen = null, ...others] = what;
  return { ...hands, chosen, others, laying: null, drawing: false, plug: null, carry: null, bend: null, frame: null };
}

/** What happens to the hands. Places are in tenths of an inch on the mat; `on` is what lies there. */
export type HandEvent =
  | {
      readonly kind: 'press';
      readonly x: number;
      readonly y: number;
      readonly on: string | null;
      /** The way of the jumper that lies there. */
      readonly path?: Path | undefined;
      readonly stay: boolean;
      /** Adds to what is chosen, or begins a frame. */
      readonly add?: boolean;
    }
  | { readonly kind: 'move'; readonly x: number; readonly y: number }
  | { readonly kind: 'release'; readonly x: number; readonly y: number }
  | { readonly kind: 'key'; readonly key: string; readonly shift: boolean }
  | { readonly kind: 'choose-all' }
  | { readonly kind: 'copy' }
  | { readonly kind: 'paste'; readonly clip: Clip };

/** The hands after an event, and the edit that they ask for, what they copied, or why nothing was done. */
export interface Reaction {
  readonly hands: Hands;
  readonly edit?: Edit;
  readonly clip?: Clip;
  readonly refusal?: Finding;
}

/** How near a free hole must be for a press to mean the hole and not the wire over it. */
const HOLE_REACH = 0.3;

/** Moves the hands on by one event. Pure; a null answer means that the event was not for the board. */
export function react(hands: Hands, event: HandEvent, job: Job): Reaction | null {
  if (event.kind === 'press') return press(hands, event, job.board);
  if (event.kind === 'move') return move(hands, event, job.board);
  if (event.kind === 'release') return release(hands, event, job.board);
  if (event.kind === 'choose-all') return { hands: holding(hands, thingsOn(job.board)) };
  if (event.kind === 'copy') return { hands, clip: clipOf(job.board, allChosen(hands)) };
  if (event.kind === 'paste') {
    const made = pasted(job.board, event.clip);
    return 'code' in made ? { hands, refusal: made } : { hands: holding(hands, made.what), edit: made.edit };
  }
  return key(hands, event, job);
}

function press(hands: Hands, event: Extract<HandEvent, { kind: 'press' }>, board: Board): Reaction {
  const { x, y, on, stay } = event;
  const hole = holeNear(x, y, board.breadboards);
  const free = hole !== null && !unusableHoles(board).has(printHole(hole));
  const onHole = free && Math.hypot(holeXY(hole).x - x, holeXY(hole).y - y) < HOLE_REACH;
  if (hands.laying !== null && free) return finish(hands, printHole(hole), board);
  const part = on === null ? undefined : partOf(board, on);
  const jumper = on === null ? undefined : jumperOf(board, on);
  if (event.add) {
    if (part || jumper) return { hands: toggled(hands, (part?.ref ?? jumper?.id) as string) };
    return { hands: { ...hands, laying: null, plug: null, frame: { x1: x, y1: y, x2: x, y2: y } } };
  }
  if (part) {
    const carry = { ref: part.ref, grabX: x, grabY: y, at: null, follow: !stay };
    const locks = allChosen(hands).includes(part.ref) ? hands : holding(hands, [part.ref]);
    return { hands: { ...locks, carry, laying: null, plug: null, cursor: part.at } };
  }
  const plug = hole ? plugAt(hands, board, printHole(hole)) : null;
  if (plug) return { hands: plug };
  const isHeld = jumper !== undefined && jumper.id === hands.chosen && hands.others.length === 0;
  if (jumper && (isHeld || !onHole)) {
    const bend = event.path ? grabbed(jumper.id, event.path, x, y) : null;
    return { hands: { ...holding(hands, [jumper.id]), cursor: jumper.from, bend } };
  }
  const note = on === null ? undefined : noteOf(board, on);
  if (note) return { hands: { ...holding(hands, [note.id]), cursor: note.at } };
  if (!free) return { hands: { ...holding(hands, []), cursor: hole ? printHole(hole) : hands.cursor } };
  // A press shows the strip; only drawing on from there, or Enter, begins a wire.
  return { hands: { ...holding(hands, []), laying: printHole(hole), drawing: true, cursor: printHole(hole) } };
}

/** Adds a thing to what is chosen, or leaves it out. */
function toggled(hands: Hands, id: string): Hands {
  const chosen = allChosen(hands);
  return holding(hands, chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
}

/** The hands with an end of the chosen jumper in them, when it is in the given hole. */
function plugAt(hands: Hands, board: Board, hole: string): Hands | null {
  const jumper = hands.chosen === null ? undefined : jumperOf(board, hands.chosen);
  if (!jumper || hands.others.length > 0) return null;
  const end = jumper.from === hole ? 'from' : jumper.to === hole ? 'to' : null;
  if (!end) return null;
  return { ...hands, plug: { id: jumper.id, end }, laying: end === 'from' ? jumper.to : jumper.from, cursor: hole };
}

function move(hands: Hands, { x, y }: { x: number; y: number }, board: Board): Reaction | null {
  if (hands.carry) {
    const at = target(hands.carry, x, y, board);
    return at === hands.carry.at ? null : { hands: { ...hands, carry: { ...hands.carry, at } } };
  }
  if (hands.bend) {
    const bend = drawnTo(hands.bend, x, y);
    return bend === hands.bend ? null : { hands: { ...hands, bend } };
  }
  if (hands.frame) return { hands: { ...hands, frame: { ...hands.frame, x2: x, y2: y } } };
  if (hands.laying === null) return null;
  const hole = holeNear(x, y, board.breadboards);
  const cursor = hole ? printHole(hole) : hands.cursor;
  return cursor === hands.cursor ? null : { hands: { ...hands, cursor } };
}

/** Where the first pin of a carried part would go; chips keep to their row, over the channel. */
function target(carry: Carry, x: number, y: number, board: Board): string | null {
  const part = partOf(board, carry.ref);
  const anchor = part && parseHole(part.at);
  if (!part || !anchor) return null;
  const from = holeXY(anchor);
  const [toX, toY] = [from.x + x - carry.grabX, from.y + y - carry.grabY];
  const chip = typeOf(part)?.kind === 'chip';
  const near = chip ? sameRow(anchor, toX, toY, board) : holeNear(toX, toY, board.breadboards);
  return near ? printHole(near) : null;
}

function sameRow(anchor: Hole, x: number, y: number, board: Board): Hole | null {
  const places = board.breadboards.flatMap(({ id }) => {
    const column = Math.round(x - breadboardXY(id).x);
    return parseHole(printHole({ ...anchor, board: id, column })) ?? [];
  });
  return places.sort((a, b) => Math.abs(holeXY(a).y - y) - Math.abs(holeXY(b).y - y))[0] ?? null;
}

function release(hands: Hands, { x, y }: { x: number; y: number }, board: Board): Reaction | null {
  const { carry } = hands;
  if (carry) {
    const part = partOf(board, carry.ref);
    const still = { ...hands, carry: null };
    if (!part || carry.at === null || carry.at === part.at) return { hands: still };
    if (hands.others.length > 0) {
      const { dx, dy } = offsetBetween(part.at, carry.at);
      return { hands: { ...still, cursor: carry.at }, edit: { kind: 'shift', what: allChosen(hands), dx, dy } };
    }
    const edit: Edit = { kind: 'move', ref: carry.ref, at: carry.at, rotation: part.rotation, follow: carry.follow };
    return { hands: { ...still, cursor: carry.at }, edit };
  }
  if (hands.bend) {
    const { id, by } = hands.bend;
    const still = { ...hands, bend: null };
    if (by.x === 0 && by.y === 0) return { hands: still };
    return { hands: still, edit: { kind: 'bend', id, corners: cornersOf(hands.bend) } };
  }
  if (hands.frame) {
    const found = within(board, { ...hands.frame, x2: x, y2: y });
    return { hands: holding(hands, [...new Set([...allChosen(hands), ...found])]) };
  }
  const hole = holeNear(x, y, board.breadboards);
  if (hands.plug && hole && jumperOf(board, hands.plug.id)?.[hands.plug.end] === printHole(hole)) return null;
  if (hands.laying === null) return null;
  if (hands.drawing && (!hole || printHole(hole) === hands.laying))
    return { hands: { ...hands, laying: null, drawing: false } };
  if (!hole || printHole(hole) === hands.laying) return null;
  return finish(hands, printHole(hole), board);
}

/** From one hole to another over the mat, in tenths of an inch. */
export function offsetBetween(from: string, to: string): { dx: number; dy: number } {
  const [a, b] = [parseHole(from), parseHole(to)];
  if (!a || !b) return { dx: 0, dy: 0 };
  return { dx: holeXY(b).x - holeXY(a).x, dy: holeXY(b).y - holeXY(a).y };
}

function finish(hands: Hands, to: string, board: Board): Reaction {
  const from = hands.laying as string;
  if (from === to) return { hands: { ...hands, laying: null, drawing: false, plug: null } };
  if (hands.plug) {
    const edit: Edit = { kind: 're-plug', ...hands.plug, hole: to };
    return { hands: { ...hands, laying: null, drawing: false, plug: null, cursor: to }, edit };
  }
  const jumper = { id: nextFree('w', board.jumpers), from, to };
  return { hands: { ...hands, laying: null, drawing: false, cursor: to }, edit: { kind: 'lay-jumper', jumper } };
}

const arrows: Readonly<Record<string, readonly [dx: number, dy: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

function key(hands: Hands, event: { key: string; shift: boolean }, job: Job): Reaction | null {
  const { board } = job;
  const arrow = arrows[event.key];
  if (arrow) return arrowKey(hands, arrow, job, event.shift);
  switch (event.key) {
    case 'Enter': {
      const hole = freeInStrip(hands.cursor, hands.laying, board);
      if (hands.laying !== null) return finish(hands, hole, board);
      return { hands: { ...holding(hands, []), laying: hole, cursor: hole } };
    }
    case 'Escape':
      return { hands: holding(hands, []) };
    case 'n':
    case 'N':
      return { hands: choose(hands, board, event.shift ? -1 : 1) };
    case 'r':
    case 'R':
      return hands.chosen === null ? null : asked(hands, board, `rotate ${hands.chosen}`);
    case 'Delete':
    case 'Backspace': {
      const at = jumperAt(board, hands.cursor);
      const edit = pullAll(board, hands.chosen === null ? (at === undefined ? [] : [at]) : allChosen(hands));
      return edit && { hands: holding(hands, []), edit };
    }
    default:
      return null;
  }
}

function arrowKey(hands: Hands, [dx, dy]: readonly [number, number], job: Job, jump: boolean): Reaction {
  if (jump) {
    const cursor = nextInUse(hands.cursor, dx, dy, occupancyOf(job.board).keys());
    return { hands: { ...(hands.laying === null ? holding(hands, []) : hands), cursor } };
  }
  if (hands.others.length > 0) {
    const edit = shiftThatWorks(job, allChosen(hands), dx, dy);
    return edit ? { hands, edit } : { hands };
  }
  const part = hands.chosen === null ? undefined : partOf(job.board, hands.chosen);
  if (!part) return { hands: { ...hands, cursor: stepped(hands.cursor, dx, dy, job.board), chosen: null, others: [] } };
  const edit = firstThatWorks(job, part.ref, dx, dy);
  return edit ? { hands, edit } : { hands };
}

/** The nearest place in a direction that takes the part: single holes may be in the way. */
function firstThatWorks(job: Job, ref: string, dx: number, dy: number): Edit | null {
  for (let n = 1; n <= 12; n++) {
    const edit = nudged(job.board, ref, n * dx, n * dy);
    if (edit && applyEdit(job, edit).ok) return edit;
    if (dy !== 0) break;
  }
  return nudged(job.board, ref, dx, dy);
}

/** The next hole in a direction: gaps between rails, halves and boards are stepped over. */
export function stepped(from: string, dx: number, dy: number, board: Board): string {
  const hole = parseHole(from);
  if (!hole) return 'b1.e1';
  const { x, y } = holeXY(hole);
  for (let n = 1; n <= 8; n++) {
    const next = holeNear(x + n * dx, y + n * dy, board.breadboards);
    if (next) return printHole(next);
  }
  return from;
}

function choose(hands: Hands, board: Board, by: 1 | -1): Hands {
  const things = thingsOn(board);
  if (things.length === 0) return hands;
  const at = hands.chosen === null ? (by === 1 ? -1 : 0) : things.indexOf(hands.chosen);
  const chosen = elementAt(things, (at + by + things.length) % things.length);
  const cursor = partOf(board, chosen)?.at ?? jumperOf(board, chosen)?.from ?? hands.cursor;
  return { ...holding(hands, [chosen]), cursor };
}

/** A hole to plug into: the given one, or when it is taken the nearest free one of its strip. */
function freeInStrip(at: string, laying: string | null, board: Board): string {
  const taken = new Map(unusableHoles(board));
  if (laying !== null && laying !== at) taken.set(laying, ['the jumper being laid']);
  const hole = parseHole(at);
  if (!hole || !taken.has(at)) return at;
  const [free] = freeHoles(taken, hole);
  return free ? printHole(free) : at;
}

function jumperAt(board: Board, hole: string): string | undefined {
  return Object.values(board.jumpers).find((j) => j.from === hole || j.to === hole)?.id;
}

function asked(hands: Hands, board: Board, text: string): Reaction {
  const command = readCommand(board, text);
  return command.ok ? { hands, edit: command.edit } : { hands };
}
