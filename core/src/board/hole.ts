import { remembered } from '../memo';

/**
 * Rows of a full-size board from the top: two rails, the upper half j to f, the channel, the lower
 * half e to a, two rails.
 */
export const rows = ['top+', 'top-', 'j', 'i', 'h', 'g', 'f', 'e', 'd', 'c', 'b', 'a', 'bottom+', 'bottom-'] as const;
/** A row of a board by its letter, or a rail with its polarity. */
export type Row = (typeof rows)[number];
/** One of the four rails: above or below, plus or minus. */
export type Rail = 'top+' | 'top-' | 'bottom+' | 'bottom-';

/** A hole: its breadboard (`b1`), column from 1, and row. */
export interface Hole {
  readonly board: string;
  readonly column: number;
  readonly row: Row;
}

/** A point on the mat in tenths of an inch. */
export interface Point {
  readonly x: number;
  readonly y: number;
}

/**
 * Kinds of breadboard: full size with rails that run through, the same with every rail broken in the middle, half
 * size, and mini, which has no rails.
 */
export const breadboardKinds = ['full', 'split', 'half', 'mini'] as const;
/** A kind of breadboard that can lie on the mat. */
export type BreadboardKind = (typeof breadboardKinds)[number];

/** Kinds in words, for lists. */
export const breadboardTitles: Readonly<Record<BreadboardKind, string>> = {
  full: 'breadboard, full size, 63 columns',
  split: 'breadboard, full size, 63 columns, rails broken in the middle',
  half: 'breadboard, half size, 30 columns',
  mini: 'breadboard, mini, 17 columns, no rails',
};

/** What a kind of breadboard has: the letters of its ids, columns, the first and last column of its rails. */
interface Shape {
  readonly kind: BreadboardKind;
  readonly letters: string;
  readonly columns: number;
  /** Rails have groups of five holes from the first of these columns to the last, with every sixth left out. */
  readonly rails: { readonly first: number; readonly last: number } | null;
  /** Rails conduct up to this column and anew from the next; 0 when they run through. */
  readonly breakAfter: number;
}

/** Columns of a full-size board. */
export const COLUMNS = 63;

const shapes: readonly Shape[] = [
  { kind: 'full', letters: 'b', columns: COLUMNS, rails: { first: 3, last: 61 }, breakAfter: 0 },
  { kind: 'split', letters: 'bs', columns: COLUMNS, rails: { first: 3, last: 61 }, breakAfter: 31 },
  { kind: 'half', letters: 'bh', columns: 30, rails: { first: 2, last: 30 }, breakAfter: 0 },
  { kind: 'mini', letters: 'bm', columns: 17, rails: null, breakAfter: 0 },
];
const [full, ...others] = shapes as readonly [Shape, ...Shape[]];
const shapeOf = (board: string): Shape => others.find((s) => board.startsWith(s.letters)) ?? full;

/** The most places below each other on the mat. */
export const MAX_SLOTS = 40;
const ID = 'b[shm]?[1-9]\\d?r?';
const RAIL = '(?:top|bottom)[+-]';
/** The id of a breadboard: `b` and a letter for its kind, its place from the top, and `r` in the right-hand row of boards. */
export const BREADBOARD_ID = new RegExp(`^${ID}$`);
/** A hole as it is written; whether the board has it is for `parseHole` to say. */
export const HOLE_NAME = new RegExp(`^(${ID})\\.([a-j]|${RAIL})([1-9]\\d?)$`);
/** A strip of five by its column and the row beside the channel. */
const STRIP_NAME = new RegExp(`^(${ID})\\.([1-9]\\d?)([ef])$`);
/** A rail as it is written, with the half of a broken one. */
const RAIL_NAME = new RegExp(`^(${ID})\\.(?:(left|right)-)?(${RAIL})$`);

/** What a breadboard's id says: its kind, its place from the top, from 1, and whether it lies on the right; null for no id. */
export function readBreadboard(id: string): { kind: BreadboardKind; slot: number; right: boolean } | null {
  const slot = Number(/\d+/.exec(id)?.[0]);
  if (!BREADBOARD_ID.test(id) || slot > MAX_SLOTS) return null;
  return { kind: shapeOf(id).kind, slot, right: id.endsWith('r') };
}

/** The id of a breadboard of a kind at a place. */
export function breadboardId(kind: BreadboardKind, slot: number, right = false): string {
  return `${shapes.find((s) => s.kind === kind)?.letters}${slot}${right ? 'r' : ''}`;
}

/** How many columns a breadboard has. */
export function columnsOf(board: string): number {
  return shapeOf(board).columns;
}

/** Whether a breadboard has rails. */
export function hasRails(board: string): boolean {
  return shapeOf(board).rails !== null;
}

/** Height of each row below the top rail, in tenths of an inch; the channel is 0.3 inch from e to f. */
export const rowY: Readonly<Record<Row, number>> = {
  'top+': 0,
  'top-': 1,
  j: 3,
  i: 4,
  h: 5,
  g: 6,
  f: 7,
  e: 10,
  d: 11,
  c: 12,
  b: 13,
  a: 14,
  'bottom+': 16,
  'bottom-': 17,
};

/** Boards lie below each other, this many tenths of an inch from top rail to top rail. */
export const BOARD_PITCH = 20;

const rowAtY: ReadonlyMap<number, Row> = new Map(rows.map((row) => [rowY[row], row]));

/** Whether a row is a rail. */
export function isRail(row: Row): row is Rail {
  return row.length > 1;
}

/** Whether the rails of a breadboard have a hole over a column: a full-size one has 50, ten groups of five. */
export function hasRailHole(column: number, board = 'b1'): boolean {
  const { rails } = shapeOf(board);
  return rails !== null && column >= rails.first && column <= rails.last && (column - rails.first) % 6 !== 5;
}

const isHole = (board: string, column: number, row: Row): boolean =>
  Number.isInteger(column) && column >= 1 && column <= columnsOf(board) && (!isRail(row) || hasRailHole(column, board));

/** The hole at a place of a board, `y` in tenths of an inch below its top rail; null when there is none. */
export function holeAt(board: string, column: number, y: number): Hole | null {
  const row = rowAtY.get(y);
  return row !== undefined && isHole(board, column, row) ? { board, column, row } : null;
}

/** The names of a breadboard's holes and of their strips, row by row, by column from 0. */
type Names = Readonly<Partial<Record<Row, { readonly holes: readonly string[]; readonly strips: readonly string[] }>>>;

/** Written out once for each breadboard, since holes are compared by their names all the time. */
const namesOf: (board: string) => Names = remembered((board) => {
  const columns = [0, ...columnNumbers(board)];
  const ofRow = (row: Row) => ({
    holes: columns.map((column) => `${board}.${row}${column}`),
    strips: columns.map((column) => stripName({ board, column, row })),
  });
  return Object.fromEntries(rows.map((row) => [row, ofRow(row)]));
});

/** Writes a hole as people read it off a board: `b1.e17`, `b1.top+12`. */
export function printHole({ board, row, column }: Hole): string {
  return namesOf(board)[row]?.holes[column] ?? `${board}.${row}${column}`;
}

/** As many strips as a large job has. */
const MOST_STRIPS = 20_000;

/** As many holes as a large job has; each is the same object every time, so that what is kept by hole is found again. */
const MOST_HOLES = 100_000;

/** Reads `b1.e17` or `b1.top+12`; null when it is written otherwise or no such hole exists. */
export const parseHole: (text: string) => Hole | null = remembered(holeOf, MOST_HOLES);

function holeOf(text: string): Hole | null {
  const m = HOLE_NAME.exec(text);
  if (!m) return null;
  const [, board, row, column] = m as unknown as [string, string, Row, string];
  if (!readBreadboard(board) || !isHole(board, Number(column), row)) return null;
  return { board, column: Number(column), row };
}

/**
 * The strip a hole is in, as `b1.17e` (the lower five of column 17), `b1.17f` (the upper five) or a
 * rail `b1.top+`; of a rail that is broken in the middle `bs1.left-top+` or `bs1.right-top+`. All holes of a strip
 * conduct to each other.
 */
export function stripOf(hole: Hole): string {
  return namesOf(hole.board)[hole.row]?.strips[hole.column] ?? stripName(hole);
}

function stripName({ board, column, row }: Hole): string {
  if (!isRail(row)) return `${board}.${column}${rowY[row] > 8 ? 'e' : 'f'}`;
  const { breakAfter } = shapeOf(board);
  if (breakAfter === 0) return `${board}.${row}`;
  return `${board}.${column <= breakAfter ? 'left' : 'right'}-${row}`;
}

/** The mark of a rail, by the name of its strip or by its row: what it is meant to carry. Null for other strips and rows. */
export function markOf(rail: string): '+' | '-' | null {
  const mark = rail.at(-1);
  return mark === '+' || mark === '-' ? mark : null;
}

/** Whether the name of a strip is that of a rail. */
export function isRailStrip(strip: string): boolean {
  return markOf(strip) !== null;
}

/** The rails of a breadboard, each by its first hole; the halves of broken ones from left to right. */
export function railsOf(board: string): readonly (Hole & { readonly row: Rail })[] {
  const { rails, breakAfter } = shapeOf(board);
  if (!rails) return [];
  const columns = breakAfter === 0 ? [rails.first] : [rails.first, breakAfter + 2];
  return columns.flatMap((column) => rows.filter(isRail).map((row) => ({ board, column, row })));
}

/** The other half of a rail that is broken in the middle; null for strips that are none. */
export function otherHalf(rail: string): string | null {
  const m = /^(\w+)\.(left|right)-(.+)$/.exec(rail);
  return m && `${m[1]}.${m[2] === 'left' ? 'right' : 'left'}-${m[3]}`;
}

/** The first hole of a rail by its strip's name; null when the name is none of a rail. */
export function railNamed(name: string): Hole | null {
  const m = RAIL_NAME.exec(name);
  const [, board = '', side, row] = m ?? [];
  if (!m || !readBreadboard(board)) return null;
  const { rails, breakAfter } = shapeOf(board);
  if (!rails || (side !== undefined && breakAfter === 0)) return null;
  return { board, column: side === 'right' ? breakAfter + 2 : rails.first, row: row as Rail };
}

/** A hole of a strip by the strip's name, as `stripOf` writes it; null when the name is none of a strip. */
export function stripNamed(name: string): Hole | null {
  if (isRailStrip(name)) return railNamed(name);
  const [, board = '', column, row] = STRIP_NAME.exec(name) ?? [];
  const hole = { board, column: Number(column), row: row as Row };
  return readBreadboard(board) && isHole(board, hole.column, hole.row) ? hole : null;
}

/** Every hole of the strip that a hole is in, in board order. */
export const holesOfStrip = (hole: Hole): readonly Hole[] => holesOfStripNamed(stripOf(hole));

const holesOfStripNamed: (strip: string) => readonly Hole[] = remembered((strip) => {
  const hole = stripNamed(strip);
  if (!hole) return [];
  const { board, column, row } = hole;
  const lower = rowY[row] > 8;
  const holes = isRail(row)
    ? columnNumbers(board).map((c) => ({ board, column: c, row }))
    : rows.filter((r) => !isRail(r) && rowY[r] > 8 === lower).map((r) => ({ board, column, row: r }));
  return holes.filter((h) => isHole(board, h.column, h.row) && stripOf(h) === strip);
}, MOST_STRIPS);

/** The columns of a breadboard, 1 upwards. */
export function columnNumbers(board: string): number[] {
  return Array.from({ length: columnsOf(board) }, (_, i) => i + 1);
}

/** Where a breadboard lies on the mat, in tenths of an inch: what its column 0 and its top rail add to a hole's place. */
export const breadboardXY: (board: string) => Point = remembered((board) => ({
  x: board.endsWith('r') ? columnsOf(board) + BOARD_GAP : 0,
  y: ((readBreadboard(board)?.slot ?? 1) - 1) * BOARD_PITCH,
}));

/** Columns from the last hole of a breadboard to the first of its neighbour on the right. */
export const BOARD_GAP = 3;

/** Where a hole lies on the mat, in tenths of an inch: x counts columns, y from the first board's top rail. */
export function holeXY(hole: Hole): { readonly x: number; readonly y: number } {
  const at = breadboardXY(hole.board);
  return { x: at.x + hole.column, y: at.y + rowY[hole.row] };
}

/** The hole nearest to a place on the mat, of the given breadboards, if one lies within half a pitch of it. */
export function holeNear(x: number, y: number, breadboards: readonly { readonly id: string }[]): Hole | null {
  for (const { id } of breadboards) {
    const at = breadboardXY(id);
    if (y < at.y - 1 || y >= at.y + BOARD_PITCH - 1) continue;
    const hole = holeAt(id, Math.round(x - at.x), Math.round(y - at.y));
    if (hole) return hole;
  }
  return null;
}
