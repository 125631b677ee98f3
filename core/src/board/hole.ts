/**
 * Rows of a full-size board from the top: two rails, the upper half j to f, the channel, the lower
 * half e to a, two rails.
 */
export const rows = ['top+', 'top-', 'j', 'i', 'h', 'g', 'f', 'e', 'd', 'c', 'b', 'a', 'bottom+', 'bottom-'] as const;
export type Row = (typeof rows)[number];
export type Rail = 'top+' | 'top-' | 'bottom+' | 'bottom-';

/** A hole: its breadboard (`b1`), column from 1 to 63, and row. */
export interface Hole {
  readonly board: string;
  readonly column: number;
  readonly row: Row;
}

/** Columns of a full-size board. */
export const COLUMNS = 63;

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

/** Rails have 50 holes: ten groups of five, over columns 3 to 61, with every sixth column left out. */
export function hasRailHole(column: number): boolean {
  return column >= 3 && column <= 61 && (column - 3) % 6 !== 5;
}

const isHole = (column: number, row: Row): boolean =>
  Number.isInteger(column) && column >= 1 && column <= COLUMNS && (!isRail(row) || hasRailHole(column));

/** The hole at a place of a board, `y` in tenths of an inch below its top rail; null when there is none. */
export function holeAt(board: string, column: number, y: number): Hole | null {
  const row = rowAtY.get(y);
  return row !== undefined && isHole(column, row) ? { board, column, row } : null;
}

/** Writes a hole as people read it off a board: `b1.e17`, `b1.top+12`. */
export function printHole(hole: Hole): string {
  return `${hole.board}.${hole.row}${hole.column}`;
}

/** Holes that have been read before, by what was written: there are at most 830 a board. */
const read = new Map<string, Hole>();

/** Reads `b1.e17` or `b1.top+12`; null when it is written otherwise or no such hole exists. */
export function parseHole(text: string): Hole | null {
  const known = read.get(text);
  if (known) return known;
  const m = /^(b[1-9]\d?)\.([a-j]|(?:top|bottom)[+-])([1-9]\d?)$/.exec(text);
  if (!m) return null;
  const [, board, row, column] = m as unknown as [string, string, Row, string];
  if (!isHole(Number(column), row)) return null;
  const hole = { board, column: Number(column), row };
  read.set(text, hole);
  return hole;
}

/**
 * The strip a hole is in, as `b1.17e` (the lower five of column 17), `b1.17f` (the upper five) or a
 * rail `b1.top+`. All holes of a strip conduct to each other.
 */
export function stripOf(hole: Hole): string {
  if (isRail(hole.row)) return `${hole.board}.${hole.row}`;
  return `${hole.board}.${hole.column}${rowY[hole.row] > 8 ? 'e' : 'f'}`;
}

/** Every hole of the strip that a hole is in, in board order. */
export function holesOfStrip(hole: Hole): Hole[] {
  const { board, column, row } = hole;
  if (isRail(row))
    return Array.from({ length: COLUMNS }, (_, i) => ({ board, column: i + 1, row })).filter((h) =>
      hasRailHole(h.column),
    );
  const lower = rowY[row] > 8;
  return rows.filter((r) => !isRail(r) && rowY[r] > 8 === lower).map((r) => ({ board, column, row: r }));
}

/** Where a hole lies on the mat, in tenths of an inch: x is the column, y counts from the first board's top rail. */
export function holeXY(hole: Hole): { readonly x: number; readonly y: number } {
  return { x: hole.column, y: (Number(hole.board.slice(1)) - 1) * BOARD_PITCH + rowY[hole.row] };
}

/** The hole nearest to a place on the mat, if one lies within half a pitch of it. */
export function holeNear(x: number, y: number, boards: number): Hole | null {
  const index = Math.floor((y + 1) / BOARD_PITCH);
  if (index < 0 || index >= boards) return null;
  return holeAt(`b${index + 1}`, Math.round(x), Math.round(y - index * BOARD_PITCH));
}
