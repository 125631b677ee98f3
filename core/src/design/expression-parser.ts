import { elementAt } from '../element-at';
import type { Finding, Span } from '../finding';
import type { Connective, Expr } from '../logic';
import { Cursor, spanOf } from './cursor';
import type { Token } from './lexer';

/** The deepest nesting of brackets, and the widest bus. */
const MAX_DEPTH = 100;
/** The most bits of a bus. */
export const MAX_BUS = 64;

/** Function names of the language. */
const functions: ReadonlySet<string> = new Set(['not', 'and', 'or', 'xor', 'nand', 'nor', 'xnor']);

/** Words that cannot name a signal. */
export const keywords: ReadonlySet<string> = new Set(['in', 'out', ...functions]);

const infixes = [
  { mark: '|', gate: 'or' },
  { mark: '^', gate: 'xor' },
  { mark: '&', gate: 'and' },
] as const;

const around = (a: Expr, b: Expr): Span => ({ from: a.at?.from ?? 0, to: b.at?.to ?? 0 });

/** Reads expressions by recursive descent, one call a level of binding. */
export class ExpressionParser extends Cursor {
  protected depth = 0;

  /** Levels 0 to 2 are or, xor, and; a chain of one operator becomes one connective. */
  protected infix(level: number): Expr {
    const operator = infixes[level];
    if (!operator) return this.unary();
    const of = [this.infix(level + 1)];
    while (this.takeIf('op', operator.mark)) of.push(this.infix(level + 1));
    const [first] = of as [Expr];
    if (of.length === 1) return first;
    return { kind: 'gate', gate: operator.gate, of, infix: true, at: around(first, elementAt(of, of.length - 1)) };
  }

  /** An operand with its complements, and nothing infix: `~CLR`, `Q'`, `(A | B)`. */
  protected unary(): Expr {
    const start = this.peek;
    let e: Expr;
    if (this.takeIf('op', '~')) {
      const of = this.deeper(start, () => this.unary());
      return { kind: 'not', of, at: { from: start.from, to: of.at?.to ?? start.to } };
    }
    e = this.primary();
    for (let mark = this.takeIf('op', "'"); mark; mark = this.takeIf('op', "'")) {
      const { from, to } = mark;
      e = this.deeper(mark, () => ({ kind: 'not', of: e, at: { from: e.at?.from ?? from, to } }), true);
    }
    return e;
  }

  private primary(): Expr {
    const token = this.peek;
    if (token.kind === 'const') {
      this.take();
      return { kind: 'const', value: token.text === '1' ? 1 : 0, at: spanOf(token) };
    }
    if (token.kind === '(') return this.bracketed(this.take());
    if (token.kind === 'name' && functions.has(token.text)) return this.call(this.take());
    this.refuseStray(token);
    const { name, at } = this.name('a signal', 'a name, or an expression in brackets');
    return { kind: 'name', name, at };
  }

  private bracketed(open: Token): Expr {
    const inner = this.deeper(open, () => this.infix(0));
    const close = this.close(open);
    return { ...inner, at: { from: open.from, to: close.to } };
  }

  private call(name: Token): Expr {
    const open = this.expect('(', '(', `${name.text}(A, B)`);
    const of = this.deeper(open, () => {
      const list = [this.infix(0)];
      while (this.takeIf(',')) list.push(this.infix(0));
      return list;
    });
    const at = { from: name.from, to: this.close(open).to };
    // One argument may be a bus, with as many inputs as it has wires: elaboration knows.
    if (name.text !== 'not') return { kind: 'gate', gate: name.text as Connective, of, infix: false, at };
    if (of.length === 1) return { kind: 'not', of: elementAt(of, 0), at };
    const facts = { name: name.text, given: `${of.length} inputs`, needs: 'exactly one' };
    throw this.error('sheet/function-arity', { ...name, ...at }, facts);
  }

  protected close(open: Token): Token {
    if (this.peek.kind === ')') return this.take();
    if (this.atLineEnd) throw this.error('sheet/unclosed-bracket', open, {});
    throw this.leftover();
  }

  /** A signal's name, with the range of a bus behind it if there is one: `A[3:0]`, `A[2]`. */
  protected name(expected: string, example: string): { name: string; at: Span } {
    const token = this.expect('name', expected, example);
    if (keywords.has(token.text)) throw this.error('sheet/keyword-as-name', token, { name: token.text });
    const open = this.peek.kind === '[' && this.peek.from === token.to ? this.take() : undefined;
    if (!open) return { name: token.text, at: spanOf(token) };
    const high = this.index();
    const low = this.takeIf(':') ? this.index() : null;
    const at = { from: token.from, to: this.expect(']', ']', `${token.text}[3:0]`).to };
    if (Math.abs(high - (low ?? high)) >= MAX_BUS)
      throw this.error('sheet/bus-too-wide', at, { name: token.text, limit: MAX_BUS });
    return { name: `${token.text}[${low === null ? high : `${high}:${low}`}]`, at };
  }

  private index(): number {
    const token = this.peek;
    if ((token.kind !== 'const' && token.kind !== 'number') || token.text.length > 4)
      this.expect('number', 'the number of a wire', '[3:0] or [2]');
    return Number(this.take().text);
  }

  /** Counts nesting; marks behind a name (A'''…) add up over the line, since they recurse later. */
  private deeper<T>(at: Token, read: () => T, keep = false): T {
    if (++this.depth > MAX_DEPTH) throw this.error('sheet/too-deep', at, { limit: MAX_DEPTH });
    const result = read();
    if (!keep) this.depth--;
    return result;
  }
}

class ExpressionReader extends ExpressionParser {
  read(): { readonly expr: Expr | null; readonly findings: readonly Finding[] } {
    const expr = this.recovering(() => this.infix(0)) ?? null;
    return { expr: this.findings.length === 0 ? expr : null, findings: this.findings };
  }
}

/** Reads one expression of the sheet language, such as `Q3 & ~Q1`; null, and a finding with its place, where it is none. */
export function readExpression(text: string): { readonly expr: Expr | null; readonly findings: readonly Finding[] } {
  return new ExpressionReader(text.slice(0, MAX_EXPRESSION)).read();
}

/** The most characters of an expression that is read by itself. */
const MAX_EXPRESSION = 400;
