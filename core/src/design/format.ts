import { notationOf } from './line-edit';
import { parseSheet } from './parser';
import { printStatement } from './printer';
import type { Line } from './sheet';

/**
 * A sheet set neatly: one space around operators, equals signs of neighbouring equations under each
 * other, rows of tables indented, comments behind statements in a column; words, order, notation, empty
 * lines and comments stay. Lines with a mistake stay as they are.
 */
export function formatted(text: string): string {
  const { sheet, findings } = parseSheet(text);
  const written = text.split('\n');
  const wrong = new Set<number>();
  let at = 0;
  const starts = written.map((line) => {
    const start = at;
    at += line.length + 1;
    return start;
  });
  for (const { places } of findings)
    for (const place of places)
      if (place.kind === 'text') wrong.add(starts.findLastIndex((start) => start <= place.span.from));
  const codes = sheet.lines.map((line, i) => (wrong.has(i) ? null : codeOf(line, written[i] ?? '')));
  for (const group of groups(sheet.lines, (l) => l.statement?.kind === 'equation')) {
    const width = Math.max(...group.map((i) => codes[i]?.indexOf(' = ') ?? 0));
    if (width > 24) continue;
    for (const i of group) {
      const code = codes[i];
      if (code) codes[i] = code.slice(0, code.indexOf(' = ')).padEnd(width) + code.slice(code.indexOf(' = '));
    }
  }
  for (const group of groups(sheet.lines, (l) => l.statement !== undefined)) {
    const commented = group.filter((i) => sheet.lines[i]?.comment !== undefined && codes[i]);
    const width = Math.max(0, ...commented.map((i) => codes[i]?.length ?? 0));
    for (const i of commented) codes[i] = `${codes[i]?.padEnd(Math.min(width, 72))}  ${sheet.lines[i]?.comment}`;
  }
  return sheet.lines.map((line, i) => (wrong.has(i) ? written[i] : (codes[i] ?? line.comment ?? ''))).join('\n');
}

function codeOf({ statement }: Line, written: string): string | null {
  return statement ? printStatement(statement, notationOf(written)) : null;
}

/** Runs of neighbouring lines that belong together, as lists of line numbers. */
function groups(lines: readonly Line[], belongs: (line: Line) => boolean): number[][] {
  const found: number[][] = [];
  lines.forEach((line, i) => {
    if (!belongs(line)) return;
    const last = found.at(-1);
    if (last?.at(-1) === i - 1) last.push(i);
    else found.push([i]);
  });
  return found;
}
