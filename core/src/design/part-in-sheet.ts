import { parseSheet } from './parser';

/**
 * A sheet with the definition of a part put in: in place of the part of that name, from `part` to `end`, if the sheet has one, otherwise at its end. Everything
 * else stays as it was written.
 */
export function withPart(sheet: string, name: string, definition: string): string {
  const lines = sheet.split('\n');
  const statements = parseSheet(sheet).sheet.lines.map((line) => line.statement);
  const from = statements.findIndex((s) => s?.kind === 'part' && s.name.name === name);
  const length = from < 0 ? -1 : statements.slice(from).findIndex((s) => s?.kind === 'end');
  if (length >= 0) return [...lines.slice(0, from), definition, ...lines.slice(from + length + 1)].join('\n');
  return sheet.trim() === '' ? `${definition}\n` : `${sheet.replace(/\n*$/, '\n')}${definition}\n`;
}
