import { type Notation, printExpr } from '../logic';
import type { Sheet, Signal, Statement } from './sheet';

/**
 * Writes a sheet out, line for line, comments kept. `parseSheet(printSheet(s))` gives `s` again,
 * spans apart, in either notation.
 */
export function printSheet(sheet: Sheet, notation: Notation = 'ascii'): string {
  return sheet.lines
    .map(({ statement, comment }) =>
      [statement && printStatement(statement, notation), comment].filter((part) => part !== undefined).join('  '),
    )
    .join('\n');
}

function printStatement(s: Statement, notation: Notation): string {
  if (s.kind === 'equation') return `${s.target.name} = ${printExpr(s.expr, notation)}`;
  return `${s.kind.padEnd(3)} ${s.signals.map(printSignal).join('  ')}`;
}

const printSignal = ({ name, label }: Signal): string => (label === undefined ? name : `${name} "${label}"`);
