import Papa from 'papaparse';
import { type Finding, finding } from '../finding';
import { cellAt, inputAt, type Table } from '../logic';
import { printCsv } from './csv';
import { printStatement } from './printer';
import type { Statement } from './sheet';
import { canName } from './symbols';

const MAX_CSV_ROWS = 5000;
const MAX_CSV_LENGTH = 4_000_000;

/** A truth table as CSV (RFC 4180): inputs, an empty column, outputs; a row a line, rows 0 up. */
export function tableToCsv(inputs: readonly string[], outputs: readonly string[], table: Table): string {
  const rows = Array.from({ length: table.rows }, (_, r) => [
    ...inputs.map((_n, i) => String(inputAt(inputs.length, i, r))),
    '',
    ...outputs.map((_n, o) => cellAt(table, o, r)),
  ]);
  return printCsv([[...inputs, '', ...outputs], ...rows]);
}

/**
 * Reads a table from CSV as the text of a sheet with one table of rows. An empty column parts inputs from
 * outputs; without one, as many columns from the left are inputs as tell the rows apart. Rows that are
 * not there are don't-cares, as in any table of rows.
 */
export function tableFromCsv(text: string): { sheet: string | null; findings: Finding[] } {
  const no = (found: Finding) => ({ sheet: null, findings: [found] });
  if (text.length > MAX_CSV_LENGTH)
    return no(finding('sheet/too-long', [], { length: text.length, limit: MAX_CSV_LENGTH }));
  const lines = Papa.parse<string[]>(text.trim(), { skipEmptyLines: 'greedy' }).data.map((l) => l.map((c) => c.trim()));
  const [heads = [], ...rows] = lines;
  if (rows.length > MAX_CSV_ROWS) return no(finding('csv/too-large', [], { rows: rows.length, limit: MAX_CSV_ROWS }));
  const ragged = rows.findIndex((r) => r.length !== heads.length);
  if (ragged >= 0)
    return no(finding('csv/ragged', [], { line: ragged + 2, cells: rows[ragged]?.length ?? 0, wanted: heads.length }));
  const gap = heads.indexOf('');
  const split = gap >= 0 ? gap : inputsOf(heads, rows);
  if (split === null || split === 0 || (gap >= 0 ? gap + 1 : split) >= heads.length)
    return no(finding('csv/no-outputs', [], {}));
  const [inputs, outputs] = [heads.slice(0, split), heads.slice(gap >= 0 ? gap + 1 : split)];
  const names = [...inputs, ...outputs];
  const bad = names.find((n, i) => !canName(n) || names.indexOf(n) !== i);
  if (bad !== undefined)
    return no(finding('csv/bad-name', [], { name: bad === '' ? 'without a name' : bad.slice(0, 40) }));
  const statements: Statement[] = [
    { kind: 'in', signals: inputs.map((name) => ({ name })) },
    { kind: 'out', signals: outputs.map((name) => ({ name })) },
    { kind: 'table', outputs: outputs.map((name) => ({ name })), inputs: inputs.map((name) => ({ name })) },
  ];
  for (const [i, row] of rows.entries()) {
    const cells = (gap >= 0 ? row.filter((_, k) => k !== gap) : row).map((c) => (/^[xX*]$/.test(c) ? '-' : c));
    const wrong = cells.find((c) => !/^[01-]$/.test(c));
    if (wrong !== undefined)
      return no(finding('csv/bad-cell', [], { line: i + 2, cell: wrong === '' ? 'nothing' : wrong.slice(0, 20) }));
    statements.push({ kind: 'row', inputs: cells.slice(0, split).join(''), outputs: cells.slice(split).join('') });
  }
  return { sheet: `${statements.map((s) => printStatement(s)).join('\n')}\n`, findings: [] };
}

/** The fewest columns from the left that tell all rows apart. */
function inputsOf(heads: readonly string[], rows: readonly (readonly string[])[]): number | null {
  for (let n = 1; n < heads.length; n++)
    if (new Set(rows.map((r) => r.slice(0, n).join())).size === rows.length && rows.length <= 2 ** n) return n;
  return null;
}
