import Papa from 'papaparse';

/** A field that a spreadsheet would take for a formula, but for plain numbers. Source: OWASP, CSV injection. */
const FORMULA = /^[=+\-@\t\r]/;
const NUMBER = /^[+-]?\d+(\.\d+)?$/;

/**
 * Rows as CSV (RFC 4180), lines ended by CR LF. A field that begins with `=`, `+`, `-`, `@` or a tab and is no number gets a quote
 * before it, so that a spreadsheet shows it and does not compute it.
 */
export function printCsv(rows: readonly (readonly (string | number)[])[]): string {
  const harmless = (field: string | number): string | number =>
    typeof field === 'string' && FORMULA.test(field) && field !== '-' && !NUMBER.test(field) ? `'${field}` : field;
  return `${Papa.unparse(
    rows.map((row) => row.map(harmless)),
    { newline: '\r\n' },
  )}\r\n`;
}
