import { type Notation, printExpr } from '../logic';
import { printFitting, printSeconds } from './fitting';
import type { Clauses, Sheet, Signal, Statement } from './sheet';

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

/** One statement as a line of the sheet. */
export function printStatement(s: Statement, notation: Notation = 'ascii'): string {
  switch (s.kind) {
    case 'in':
    case 'out':
      return [s.kind.padEnd(3), s.signals.map(printSignal).join('  '), s.fitted && printFitting(s.fitted.fitting)]
        .filter(Boolean)
        .join(' ');
    case 'equation':
      return [`${s.target.name} = ${printExpr(s.expr, notation)}`, ...printClauses(s.clauses ?? {}, notation)].join(
        ' ',
      );
    case 'never':
      return `never ${printExpr(s.expr, notation)}`;
    case 'table': {
      const head = `table ${names(s.outputs)} of ${names(s.inputs)}`;
      return s.cells === undefined ? head : `${head} : ${inFours(s.cells)}`;
    }
    case 'row':
      return `  ${s.inputs ?? 'others'} : ${s.outputs}`;
    case 'block':
      return `block ${s.name.name}`;
    case 'part':
      return `part ${printSignal(s.name)}${s.of ? ` of ${s.of.name}` : ''}`;
    case 'holds':
      return `  holds ${s.words.join(' ')}`;
    case 'pins':
      return `${s.wide ? 'wide ' : ''}pins ${names(s.names)}`;
    case 'end':
      return 'end';
    case 'use':
      return [
        `use ${s.part.name} as ${s.ref.name} (${s.pins.map((p) => `${p.pin} = ${printExpr(p.expr, notation)}`).join(', ')})`,
        ...(s.pulses ? [`for ${s.pulses.map(printSeconds).join(', ')}`] : []),
      ].join(' ');
  }
}

function printClauses({ storage, forces = [], when, open, dontCare }: Clauses, notation: Notation): string[] {
  const words: string[] = [];
  if (storage?.kind === 'while') words.push(`while ${printExpr(storage.enable, notation)}`);
  else if (storage) words.push(`at ${storage.kind} ${printExpr(storage.clock, notation)}`);
  for (const { to, when } of forces) words.push(`${to === 1 ? 'preset' : 'clear'} ${printExpr(when, notation)}`);
  if (when) words.push(`when ${printExpr(when, notation)}`);
  if (open) words.push('open');
  if (dontCare) words.push(`dc ${printExpr(dontCare, notation)}`);
  return words;
}

const printSignal = ({ name, label }: Signal): string => (label === undefined ? name : `${name} "${label}"`);
const names = (signals: readonly Signal[]): string => signals.map((s) => s.name).join(' ');

/** Cells of a table in groups of four, as people read them. */
function inFours(cells: string): string {
  return cells.replace(/(.{4})(?=.)/g, '$1 ');
}
