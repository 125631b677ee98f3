import type { Expr } from '../logic';
import { readExpression } from './expression-parser';
import { editLines, lineMaking } from './line-edit';
import { parseSheet } from './parser';

/**
 * The sheet with one product more in the sum that makes a signal: `Y = A & B | ~A & C` and `B & C` give `Y = A & B | ~A & C | B & C`. Null where
 * no equation of the sheet's own makes it, or it is stored, or the product is none.
 */
export function withProduct(text: string, name: string, product: string): string | null {
  const { sheet } = parseSheet(text);
  const line = lineMaking(sheet, name);
  const statement = sheet.lines[line]?.statement;
  const { expr } = readExpression(product);
  if (statement?.kind !== 'equation' || statement.clauses || !expr) return null;
  return editLines(text, [{ line, statements: [{ ...statement, expr: sumOf(statement.expr, expr) }] }]);
}

function sumOf(a: Expr, b: Expr): Expr {
  const isSum = a.kind === 'gate' && a.gate === 'or' && a.infix;
  return { kind: 'gate', gate: 'or', infix: true, of: isSum ? [...a.of, b] : [a, b] };
}
