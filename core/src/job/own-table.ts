import { type CellMark, cellAt, type Table } from '../logic';

/** What a person wrote in a cell: a level, `-` for off or no matter, `.` for nothing yet. */
export type OwnMark = '0' | '1' | '-' | '.';

/**
 * A truth table as a person fills it in, before comparing it with the sheet's: for each output the
 * marks of rows 0 up, the first input most significant.
 */
export interface OwnTable {
  readonly inputs: readonly string[];
  readonly outputs: readonly { readonly name: string; readonly marks: string }[];
}

/** The most inputs of a table that a person fills in: 256 rows. */
export const MAX_OWN_INPUTS = 8;

/** A table with nothing written in it yet; null for more inputs than a person fills in, or no output. */
export function emptyTable(inputs: readonly string[], outputs: readonly string[]): OwnTable | null {
  if (inputs.length > MAX_OWN_INPUTS || outputs.length === 0) return null;
  const marks = '.'.repeat(2 ** inputs.length);
  return { inputs, outputs: outputs.map((name) => ({ name, marks })) };
}

/** Whether an own table is one of these inputs and outputs, in this order. */
export function tableFits(own: OwnTable, inputs: readonly string[], outputs: readonly string[]): boolean {
  return own.inputs.join() === inputs.join() && own.outputs.map((o) => o.name).join() === outputs.join();
}

/** The mark of one cell: output and row count from 0; `.` for a cell that is not filled in. */
export function ownMark(own: OwnTable, output: number, row: number): OwnMark {
  return (own.outputs[output]?.marks[row] ?? '.') as OwnMark;
}

/** The table with one cell written. */
export function withMark(own: OwnTable, output: number, row: number, mark: OwnMark): OwnTable {
  const outputs = own.outputs.map((o, i) => {
    if (i !== output || row < 0 || row >= o.marks.length) return o;
    return { ...o, marks: o.marks.slice(0, row) + mark + o.marks.slice(row + 1) };
  });
  return { ...own, outputs };
}

/** Whether what a person wrote says what the sheet has: `-` is right where nothing drives or nothing matters. */
export function isRight(mark: OwnMark, cell: CellMark): boolean {
  return mark === cell || (cell === '-' && mark !== '.') || (cell === 'Z' && mark === '-');
}

/** How an own table compares with the sheet's: how many cells are right, wrong and still open, and the first wrong one. */
export interface Marked {
  readonly right: number;
  readonly wrong: number;
  readonly open: number;
  readonly first: { readonly row: number; readonly output: number } | null;
}

/** Compares an own table with the sheet's of the same inputs and outputs, row by row. */
export function compareTables(own: OwnTable, table: Table): Marked {
  let [right, wrong, open] = [0, 0, 0];
  let first: Marked['first'] = null;
  for (let row = 0; row < table.rows; row++)
    own.outputs.forEach((_, output) => {
      const mark = ownMark(own, output, row);
      if (mark === '.') open++;
      else if (isRight(mark, cellAt(table, output, row))) right++;
      else {
        wrong++;
        first ??= { row, output };
      }
    });
  return { right, wrong, open, first };
}
