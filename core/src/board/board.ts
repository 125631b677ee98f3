import {
  BOARD_GAP,
  type BreadboardKind,
  breadboardId,
  breadboardXY,
  columnsOf,
  MAX_SLOTS,
  type Point,
  readBreadboard,
} from './hole';

/** Quarter turns clockwise, in degrees. */
export type Rotation = 0 | 90 | 180 | 270;

/**
 * A breadboard. Its id says what and where it is: `b1`, `b2` … are full-size ones below each other, `bh1r` is a half
 * board to the right of `bh1`. So nothing that is seated moves when another board comes or goes.
 */
export interface Breadboard {
  readonly id: string;
  readonly type: BreadboardKind;
}

/**
 * A part on the board. `ref` is its label (`U1`), `part` a part number or the catalogue's word, `at`
 * the hole of its first pin; the holes of its other pins follow from `rotation`. `signal` names the input
 * that a switch, a clock module or a timer gives or the output that an LED shows; `value` is in ohms, nanofarads, volts or hertz.
 */
export interface SeatedPart {
  readonly ref: string;
  readonly part: string;
  readonly at: string;
  readonly rotation: Rotation;
  readonly signal?: string;
  /** The signals of single contacts or lamps of a part with several, `of` being the name within the part (`3`, `a`). */
  readonly labels?: readonly PartLabel[];
  readonly value?: number;
  /** How far apart its leads are bent, in tenths of an inch; as they come where it is absent. */
  readonly span?: number;
  /** The current limit that a bench supply is set to, in milliamperes; 500 where it is absent. */
  readonly limit?: number;
  /** A person wants it to stay where it is: laying out goes around it. */
  readonly fixed?: true;
  /** The definition of a part of one's own: its pins and behaviour, as the sheet had them when it was seated. */
  readonly own?: string;
}

/** The signal that one contact of a part gives, or one lamp shows. */
export interface PartLabel {
  readonly of: string;
  readonly signal: string;
}

/** A jumper wire from hole to hole; its path over the board is worked out unless a person chose it. */
export interface Jumper {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  /** The colour of its insulation; absent, it is drawn in that of its signal. */
  readonly colour?: JumperColour;
  /** Drawn from end to end; absent, it bends so that it lies over no chip. */
  readonly route?: 'straight';
  /** Where it turns, from `from` to `to`, when a person bent it; `way` is then absent. */
  readonly corners?: readonly Point[];
}

/** Colours that jumper wires are sold in. */
export const jumperColours = [
  'red',
  'black',
  'blue',
  'green',
  'yellow',
  'orange',
  'white',
  'grey',
  'violet',
  'brown',
] as const;
/** A colour that a jumper can be given; without one it has that of its signal. */
export type JumperColour = (typeof jumperColours)[number];

/** A slip of paper stuck beside a hole. */
export interface BoardNote {
  readonly id: string;
  readonly at: string;
  readonly text: string;
}

/** Breadboards with what is on them: parts by reference, jumpers by id. */
export interface Board {
  readonly breadboards: readonly Breadboard[];
  readonly parts: Readonly<Record<string, SeatedPart>>;
  readonly jumpers: Readonly<Record<string, Jumper>>;
  /** Notes by id, `n1` upwards; absent when there are none. */
  readonly notes?: Readonly<Record<string, BoardNote>>;
}

/** One empty full-size breadboard. */
export const emptyBoard: Board = { breadboards: [{ id: 'b1', type: 'full' }], parts: {}, jumpers: {} };

/** Whether nothing has been put on the board yet. */
export function isBare(board: Board): boolean {
  return Object.keys(board.parts).length === 0 && Object.keys(board.jumpers).length === 0 && !board.notes;
}

/** The breadboard of an id; null when it is none. */
export function breadboardOf(id: string): Breadboard | null {
  const read = readBreadboard(id);
  return read && { id, type: read.kind };
}

/** Whether a breadboard can lie beside those that are there: its place is free and its left neighbour is no wider. */
export function hasPlaceFor(board: Board, id: string): boolean {
  const wanted = readBreadboard(id);
  if (!wanted) return false;
  const span = (of: string): [number, number] => [breadboardXY(of).x, breadboardXY(of).x + columnsOf(of) + BOARD_GAP];
  const [from, to] = span(id);
  return board.breadboards.every((other) => {
    if (breadboardXY(other.id).y !== breadboardXY(id).y) return true;
    const [start, end] = span(other.id);
    return to <= start || end <= from;
  });
}

/** The id of the next breadboard of a kind: at the first free place, on the right only where that is asked. */
export function nextBreadboard(board: Board, kind: BreadboardKind, right = false): string | null {
  for (let slot = 1; slot <= MAX_SLOTS; slot++) {
    const id = breadboardId(kind, slot, right);
    const beside = !right || board.breadboards.some((b) => breadboardXY(b.id).y === breadboardXY(id).y);
    if (beside && hasPlaceFor(board, id)) return id;
  }
  return null;
}

const inOrder = new Intl.Collator('en', { numeric: true });

/** References and ids in the order people count: U2 before U10. */
export function byNumber(a: string, b: string): number {
  return inOrder.compare(a, b);
}

/** A reference or id that is not taken yet: the prefix and the lowest free number. */
export function nextFree(prefix: string, taken: Readonly<Record<string, unknown>>): string {
  let n = 1;
  while (Object.hasOwn(taken, `${prefix}${n}`)) n++;
  return `${prefix}${n}`;
}

/** The part with a reference, or undefined; safe for any text a person may type. */
export function partOf(board: Board, ref: string): SeatedPart | undefined {
  return Object.hasOwn(board.parts, ref) ? board.parts[ref] : undefined;
}

/** The note with an id, or undefined; safe for any text a person may type. */
export function noteOf({ notes = {} }: Board, id: string): BoardNote | undefined {
  return Object.hasOwn(notes, id) ? notes[id] : undefined;
}

/** The jumper with an id, or undefined; safe for any text a person may type. */
export function jumperOf(board: Board, id: string): Jumper | undefined {
  return Object.hasOwn(board.jumpers, id) ? board.jumpers[id] : undefined;
}
