import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import {
  addRow,
  type Cube,
  chain,
  type Expr,
  exprOfCover,
  exprOfCube,
  irredundantCover,
  type Rows,
  rowMask,
  rowsOf,
  wordsFor,
} from '../logic';

/** Most inputs of a table written as a string of cells, and of one written as rows. */
export const MAX_CELL_INPUTS = 12;
/** Most inputs of a table written as rows. */
export const MAX_ROW_INPUTS = 20;
/** Up to so many inputs a list of rows is gathered into a table; beyond, its rows stand as products. */
const MAX_GATHERED = 12;
const MAX_ROWS = 5000;

/** A row of a table as written: its inputs (null for `others`), its outputs, its place. */
export interface WrittenRow {
  readonly inputs: string | null;
  readonly outputs: string;
  readonly at: Span;
}

/** What a table makes of one output: where it is high, and where its value does not matter. */
export interface TabledOutput {
  readonly expr: Expr;
  readonly dontCare?: Expr;
}

/** Reads a string of cells, rows 0 up, as one output of the named inputs. */
export function tableOfCells(cells: string, inputs: readonly string[], at: Span): TabledOutput | Finding {
  const n = inputs.length;
  if (n > MAX_CELL_INPUTS) return finding('sheet/table-too-wide', [atText(at)], { inputs: n, limit: MAX_CELL_INPUTS });
  if (cells.length !== 2 ** n)
    return finding('sheet/table-cells', [atText(at)], { inputs: n, rows: 2 ** n, cells: cells.length });
  const on = new Int32Array(wordsFor(n));
  const free = new Int32Array(wordsFor(n));
  for (let r = 0; r < cells.length; r++) {
    if (cells[r] === '1') addRow(on, r);
    else if (cells[r] === '-') addRow(free, r);
  }
  return gathered(on, free, inputs);
}

/** The sum of products of a table, and of its don't-cares. */
function gathered(on: Rows, free: Rows, inputs: readonly string[]): TabledOutput {
  const n = inputs.length;
  const upper = on.map((w, i) => w | elementAt(free, i));
  const expr = exprOfCover(irredundantCover(on, upper, n), inputs);
  if (free.every((w) => w === 0)) return { expr };
  return { expr, dontCare: exprOfCover(irredundantCover(free, free, n), inputs) };
}

/** Reads a list of rows: an output for each column, and what is wrong with it. */
export function tableOfRows(
  rows: readonly WrittenRow[],
  inputs: readonly string[],
  outputs: number,
  at: Span,
): { outputs: TabledOutput[]; findings: Finding[] } {
  const findings = [...shapeOf(rows, inputs.length, outputs, at)];
  if (findings.length > 0) return { outputs: [], findings };
  const listed = rows.filter((r): r is WrittenRow & { inputs: string } => r.inputs !== null);
  const cubes = listed.map((r) => cubeOf(r.inputs));
  const others = rows.find((r) => r.inputs === null)?.outputs ?? null;
  findings.push(...clashes(listed, cubes));
  if (findings.length > 0) return { outputs: [], findings };
  const unlisted = inputs.length <= MAX_GATHERED ? complementOf(rowsOf(cubes, inputs.length), inputs.length) : null;
  if (others === null && (unlisted === null || unlisted.some((w) => w !== 0))) {
    const count = unlisted ? countRows(unlisted) : 'some';
    findings.push(finding('sheet/rows-unlisted', [atText(at)], { rows: count }));
  }
  const made = Array.from({ length: outputs }, (_, o): TabledOutput => {
    const at = (cell: string): Cube[] => cubes.filter((_, i) => listed[i]?.outputs[o] === cell);
    const rest = others?.[o] ?? '-';
    if (unlisted) {
      const add = (set: Rows, cell: string): Rows =>
        rest === cell ? set.map((w, i) => w | elementAt(unlisted, i)) : set;
      const n = inputs.length;
      const on = add(rowsOf(at('1'), n), '1');
      const free = add(rowsOf(at('-'), n), '-').map((w, i) => w & ~elementAt(on, i));
      return gathered(on, free, inputs);
    }
    return asWritten({ on: at('1'), free: at('-'), all: cubes }, rest, inputs);
  });
  return { outputs: made, findings };
}

/** A wide table's output with a product for each row, since its rows are too many to gather. */
function asWritten(
  { on, free, all }: { readonly on: readonly Cube[]; readonly free: readonly Cube[]; readonly all: readonly Cube[] },
  rest: string,
  inputs: readonly string[],
): TabledOutput {
  const unlisted: Expr = { kind: 'not', of: exprOfCover(all, inputs) };
  const sum = (cubes: readonly Cube[], more: boolean): Expr =>
    chain('or', [...cubes.map((c) => exprOfCube(c, inputs)), ...(more ? [unlisted] : [])]);
  const expr = sum(on, rest === '1');
  return free.length === 0 && rest !== '-' ? { expr } : { expr, dontCare: sum(free, rest === '-') };
}

function* shapeOf(rows: readonly WrittenRow[], inputs: number, outputs: number, at: Span): Generator<Finding> {
  if (inputs > MAX_ROW_INPUTS) yield finding('sheet/table-too-wide', [atText(at)], { inputs, limit: MAX_ROW_INPUTS });
  if (rows.length === 0) yield finding('sheet/table-empty', [atText(at)], {});
  if (rows.length > MAX_ROWS)
    yield finding('sheet/table-too-long', [atText(at)], { rows: rows.length, limit: MAX_ROWS });
  let others = 0;
  for (const row of rows) {
    if (row.inputs === null) others++;
    if (others > 1) yield finding('sheet/others-twice', [atText(row.at)], {});
    const wrong = (what: string, wanted: number, given: number): Finding =>
      finding('sheet/row-width', [atText(row.at)], { what, wanted, given });
    if (row.inputs !== null && row.inputs.length !== inputs) yield wrong('inputs', inputs, row.inputs.length);
    if (row.outputs.length !== outputs) yield wrong('outputs', outputs, row.outputs.length);
  }
}

function cubeOf(text: string): Cube {
  let [care, value] = [0, 0];
  for (const c of text) {
    care = (care << 1) | (c === '-' ? 0 : 1);
    value = (value << 1) | (c === '1' ? 1 : 0);
  }
  return { care, value };
}

/** Rows that overlap and ask for different values. */
function* clashes(rows: readonly WrittenRow[], cubes: readonly Cube[]): Generator<Finding> {
  for (let j = 1; j < cubes.length; j++) {
    const b = elementAt(cubes, j);
    for (let i = 0; i < j; i++) {
      const a = elementAt(cubes, i);
      if ((a.value ^ b.value) & a.care & b.care) continue;
      const [one, two] = [elementAt(rows, i), elementAt(rows, j)];
      if (one.outputs === two.outputs) continue;
      yield finding('sheet/rows-clash', [atText(two.at), atText(one.at)], { first: one.inputs ?? '' });
      return;
    }
  }
}

const complementOf = (rows: Rows, inputs: number): Rows => rows.map((w) => ~w & rowMask(inputs));

/** How many rows a set has. */
function countRows(rows: Rows): number {
  let count = 0;
  for (let word of rows) for (; word !== 0; word &= word - 1) count++;
  return count;
}
