import type { Notation } from '../logic';
import { parseSheet } from './parser';
import { printStatement } from './printer';
import { opensSection, type Sheet, type Statement } from './sheet';

/** What becomes of one line of a sheet, counted from 0: its statement replaced by others, by none, or kept with more after it. */
export interface LineEdit {
  readonly line: number;
  readonly statements: readonly Statement[];
  readonly after?: boolean;
}

/**
 * Changes some lines of a sheet's text and leaves everything else as it is, letter for letter: other
 * lines, comments, indents, and the notation a line is written in. A line that loses its statement and
 * has no comment goes.
 */
export function editLines(text: string, edits: readonly LineEdit[]): string {
  const { sheet } = parseSheet(text);
  const lines: (string | null)[] = text.split('\n');
  for (const { line, statements, after } of [...edits].sort((a, b) => b.line - a.line)) {
    const written = lines[line] ?? '';
    const print = (s: Statement): string => printStatement(s, notationOf(written));
    if (after) {
      lines.splice(line + 1, 0, ...statements.map(print));
      continue;
    }
    const comment = sheet.lines[line]?.comment;
    const indent = /^\s*/.exec(written)?.[0] ?? '';
    const [first, ...more] = statements;
    if (!first && comment === undefined) lines.splice(line, 1);
    else {
      const before = comment === undefined ? '' : written.slice(0, written.lastIndexOf(comment));
      const indented = (s: Statement): string => indent + print(s).trimStart();
      const head = first ? withComment(indented(first), before, comment) : (comment as string);
      lines.splice(line, 1, head, ...more.map(indented));
    }
  }
  return lines.join('\n');
}

/** A statement with the comment it had, in the column where it stood when there is room. */
function withComment(code: string, before: string, comment: string | undefined): string {
  return comment === undefined ? code : `${code.padEnd(Math.max(before.length, code.length + 2))}${comment}`;
}

/** The notation a line is written in. */
export function notationOf(line: string): Notation {
  const code = line.replace(/#.*$/, '');
  return /[·⊕]|\w['’′]|\)['’′]/.test(code) || /\s\+\s/.test(code) ? 'textbook' : 'ascii';
}

/** The line, from 0, whose statement makes a signal by an equation or table of its own; -1 when none does. */
export function lineMaking(sheet: Sheet, name: string): number {
  let inBlock = false;
  return sheet.lines.findIndex(({ statement: s }) => {
    if (opensSection(s)) inBlock = true;
    if (s?.kind === 'end') inBlock = false;
    if (inBlock) return false;
    if (s?.kind === 'equation') return s.target.name === name;
    return s?.kind === 'table' && s.outputs.some((o) => o.name === name);
  });
}
