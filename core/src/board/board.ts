/** Quarter turns clockwise, in degrees. */
export type Turn = 0 | 90 | 180 | 270;

/** A breadboard; `b1`, `b2` … lie below each other. */
export interface Breadboard {
  readonly id: string;
  readonly type: 'full';
}

/**
 * A part on the board. `ref` is its label (`U1`), `part` a part number or the catalogue's word, `at`
 * the hole of its first pin; the holes of its other pins follow from `turn`. `signal` names the input
 * that a switch gives or the output that an LED shows; `value` is in ohms, nanofarads or volts.
 */
export interface SeatedPart {
  readonly ref: string;
  readonly part: string;
  readonly at: string;
  readonly turn: Turn;
  readonly signal?: string;
  readonly value?: number;
  /** The definition of a part of one's own: its pins and behaviour, as the sheet had them when it was seated. */
  readonly own?: string;
}

/** A jumper wire from hole to hole; its path over the board is not stored but worked out. */
export interface Jumper {
  readonly id: string;
  readonly from: string;
  readonly to: string;
}

/** Breadboards with what is on them: parts by reference, jumpers by id. */
export interface Board {
  readonly breadboards: readonly Breadboard[];
  readonly parts: Readonly<Record<string, SeatedPart>>;
  readonly jumpers: Readonly<Record<string, Jumper>>;
}

/** One empty full-size breadboard. */
export const emptyBoard: Board = { breadboards: [{ id: 'b1', type: 'full' }], parts: {}, jumpers: {} };

/** Whether nothing has been put on the board yet. */
export function isBare(board: Board): boolean {
  return Object.keys(board.parts).length === 0 && Object.keys(board.jumpers).length === 0;
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

/** The jumper with an id, or undefined; safe for any text a person may type. */
export function jumperOf(board: Board, id: string): Jumper | undefined {
  return Object.hasOwn(board.jumpers, id) ? board.jumpers[id] : undefined;
}
