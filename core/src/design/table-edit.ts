import { type CellMark, cellAt, type Table } from '../logic';
import { editLines, type LineEdit, lineMaking } from './line-edit';
import { parseSheet } from './parser';
import type { Statement } from './sheet';
import { MAX_CELL_INPUTS } from './table-statement';

/** Of some signals those whose columns can be set cell by cell: they have a line of their own, and few enough inputs. Reads the sheet once. */
export function settable(text: string, signals: readonly string[], inputs: number): ReadonlySet<string> {
  if (inputs > MAX_CELL_INPUTS || inputs === 0) return new Set();
  const { sheet } = parseSheet(text);
  return new Set(
    signals.filter((signal) => {
      const s = sheet.lines[lineMaking(sheet, signal)]?.statement;
      if (s?.kind === 'equation') return !s.clauses?.storage && !s.clauses?.when && !s.clauses?.open;
      return s?.kind === 'table';
    }),
  );
}

/** Whether cells of a signal's column can be set. */
export function canSetCells(text: string, signal: string, inputs: number): boolean {
  return settable(text, [signal], inputs).has(signal);
}

/**
 * The sheet with a cell of a signal's column set: the signal becomes a table of all inputs, in the
 * place where its equation stood, with its comment. `table` and `output` are the design's as they are.
 */
export function withCell(
  text: string,
  inputs: readonly string[],
  signal: string,
  {
    table,
    output,
    row,
    mark,
  }: { readonly table: Table; readonly output: number; readonly row: number; readonly mark: '0' | '1' | '-' },
): string {
  const cell = (r: number): CellMark => (r === row ? mark : cellAt(table, output, r));
  const cells = Array.from({ length: table.rows }, (_, r) => (cell(r) === 'Z' ? '-' : cell(r))).join('');
  return withCells(text, inputs, signal, cells);
}

/** The sheet with a signal made by a table of these inputs and cells, rows 0 up. */
export function withCells(text: string, inputs: readonly string[], signal: string, cells: string): string {
  const { sheet } = parseSheet(text);
  const line = lineMaking(sheet, signal);
  const own: Statement = {
    kind: 'table',
    outputs: [{ name: signal }],
    inputs: inputs.map((name) => ({ name })),
    cells,
  };
  const s = sheet.lines[line]?.statement;
  if (s?.kind !== 'table' || s.outputs.length === 1)
    return editLines(text, [...rowsBelow(text, line), { line, statements: [own] }]);
  // A table of several signals keeps the others.
  const left = s.outputs.flatMap((o, i) => (o.name === signal ? [] : [i]));
  const edits: LineEdit[] = [
    { line, statements: [own, { ...s, outputs: left.map((i) => s.outputs[i] as { name: string }) }] },
  ];
  for (const { line: below } of rowsBelow(text, line)) {
    const r = sheet.lines[below]?.statement;
    if (r?.kind === 'row')
      edits.push({ line: below, statements: [{ ...r, outputs: left.map((i) => r.outputs[i]).join('') }] });
  }
  return editLines(text, edits);
}

/** Edits that take away the rows of a table. */
function rowsBelow(text: string, line: number): LineEdit[] {
  const { sheet } = parseSheet(text);
  if (sheet.lines[line]?.statement?.kind !== 'table') return [];
  const edits: LineEdit[] = [];
  for (let below = line + 1; below < sheet.lines.length; below++) {
    const kind = sheet.lines[below]?.statement?.kind;
    if (kind === 'row') edits.push({ line: below, statements: [] });
    else if (kind) break;
  }
  return edits;
}
