import { atText, type Finding, finding, type Span } from '../finding';
import type { Connective, Expr } from '../logic';
import { lex, type Token } from './lexer';
import type { Line, Sheet, Signal, Statement } from './sheet';

/** The most characters of a sheet that are read, and the deepest nesting of brackets. */
export const MAX_SHEET_LENGTH = 1_000_000;
const MAX_DEPTH = 100;

/** Function names of the language, with how many inputs they take at least. */
const functions: Readonly<Record<string, number>> = { not: 1, and: 2, or: 2, xor: 2, nand: 2, nor: 2, xnor: 2 };

/** Words that cannot name a signal. */
export const keywords: ReadonlySet<string> = new Set(['in', 'out', ...Object.keys(functions)]);

/**
 * Reads the text of a sheet. Lines that are right are kept whatever is wrong with the others; each
 * line that is wrong gives one finding with its span in the text. Grammar: docs/sheet.md.
 */
export function parseSheet(text: string): { sheet: Sheet; findings: Finding[] } {
  if (text.length > MAX_SHEET_LENGTH) {
    const place = atText({ from: MAX_SHEET_LENGTH, to: text.length });
    const long = finding('sheet/too-long', [place], { length: text.length, limit: MAX_SHEET_LENGTH });
    return { sheet: { lines: [] }, findings: [long] };
  }
  return new Parser(lex(text)).sheet();
}

/** Thrown inside the parser to give up a line; never leaves this file. */
class LineError extends Error {
  constructor(readonly finding: Finding) {
    super(finding.code);
  }
}

class Parser {
  private i = 0;
  private depth = 0;
  private readonly findings: Finding[] = [];

  constructor(private readonly tokens: readonly Token[]) {}

  sheet(): { sheet: Sheet; findings: Finding[] } {
    const lines: Line[] = [this.line()];
    while (this.peek.kind === 'newline') {
      this.i++;
      lines.push(this.line());
    }
    return { sheet: { lines }, findings: this.findings };
  }

  private line(): Line {
    this.depth = 0;
    const statement = this.recovering(() => this.statement());
    const comment = this.peek.kind === 'comment' ? this.take().text.trimEnd() : undefined;
    return { ...(statement && { statement }), ...(comment !== undefined && { comment }) };
  }

  /** Runs `read`; when it gives up, notes the finding and skips to the line's comment or end. */
  private recovering(read: () => Statement | undefined): Statement | undefined {
    try {
      const statement = read();
      if (!this.atLineEnd) throw this.leftover();
      return statement;
    } catch (e) {
      if (!(e instanceof LineError)) throw e;
      this.findings.push(e.finding);
      while (!this.atLineEnd) this.i++;
      return undefined;
    }
  }

  private statement(): Statement | undefined {
    const first = this.peek;
    if (this.atLineEnd) return undefined;
    if (first.kind === 'name' && (first.text === 'in' || first.text === 'out')) {
      this.i++;
      return { kind: first.text, signals: this.declared() };
    }
    if (first.kind !== 'name') {
      this.refuseStray(first);
      throw this.error('sheet/not-a-statement', first, { found: shown(first) });
    }
    return this.equation();
  }

  private declared(): Signal[] {
    const signals: Signal[] = [];
    do {
      const { name, at } = this.name('a name', 'a letter or word, such as K');
      const label = this.peek.kind === 'string' ? this.take().text : undefined;
      if (this.peek.kind === 'open-string') throw this.error('sheet/open-string', this.peek, {});
      signals.push({ name, at, ...(label !== undefined && { label }) });
      if (this.peek.kind === ',') this.i++;
    } while (!this.atLineEnd);
    return signals;
  }

  private equation(): Statement {
    const target = this.name('a name', 'NAME = …');
    this.expect('=', '=', `${target.name} = …`);
    return { kind: 'equation', target, expr: this.infix(0) };
  }

  private name(expected: string, example: string): { name: string; at: Span } {
    const token = this.expect('name', expected, example);
    if (keywords.has(token.text)) throw this.error('sheet/keyword-as-name', token, { name: token.text });
    return { name: token.text, at: span(token) };
  }

  /** Levels 0 to 2 are or, xor, and; a chain of one operator becomes one connective. */
  private infix(level: number): Expr {
    const operator = infixes[level];
    if (!operator) return this.unary();
    const of = [this.infix(level + 1)];
    while (this.peek.kind === 'op' && this.peek.text === operator.mark) {
      this.i++;
      of.push(this.infix(level + 1));
    }
    const [first] = of as [Expr];
    if (of.length === 1) return first;
    return { kind: 'gate', gate: operator.gate, of, infix: true, at: around(first, of[of.length - 1] as Expr) };
  }

  private unary(): Expr {
    const start = this.peek;
    let e: Expr;
    if (start.kind === 'op' && start.text === '~') {
      this.i++;
      const of = this.deeper(start, () => this.unary());
      return { kind: 'not', of, at: { from: start.from, to: of.at?.to ?? start.to } };
    }
    e = this.primary();
    while (this.peek.kind === 'op' && this.peek.text === "'") {
      const mark = this.take();
      e = this.deeper(mark, () => ({ kind: 'not', of: e, at: { from: e.at?.from ?? mark.from, to: mark.to } }), true);
    }
    return e;
  }

  private primary(): Expr {
    const token = this.peek;
    if (token.kind === 'const') {
      this.i++;
      return { kind: 'const', value: token.text === '1' ? 1 : 0, at: span(token) };
    }
    if (token.kind === '(') return this.bracketed(this.take());
    if (token.kind === 'name' && token.text in functions) return this.call(this.take());
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
      while (this.peek.kind === ',') {
        this.i++;
        list.push(this.infix(0));
      }
      return list;
    });
    const at = { from: name.from, to: this.close(open).to };
    const least = functions[name.text] as number;
    if (name.text === 'not' ? of.length !== 1 : of.length < least) {
      const needs = name.text === 'not' ? 'exactly one' : 'two or more, with commas between';
      throw this.error('sheet/function-arity', { ...name, ...at }, { name: name.text, count: of.length, needs });
    }
    if (name.text === 'not') return { kind: 'not', of: of[0] as Expr, at };
    return { kind: 'gate', gate: name.text as Connective, of, infix: false, at };
  }

  private close(open: Token): Token {
    if (this.peek.kind === ')') return this.take();
    if (this.atLineEnd) throw this.error('sheet/unclosed-bracket', open, {});
    throw this.leftover();
  }

  /** Counts nesting; marks behind a name (A'''…) add up over the line, since they recurse later. */
  private deeper<T>(at: Token, read: () => T, keep = false): T {
    if (++this.depth > MAX_DEPTH) throw this.error('sheet/too-deep', at, { limit: MAX_DEPTH });
    const result = read();
    if (!keep) this.depth--;
    return result;
  }

  private leftover(): LineError {
    const token = this.peek;
    if (token.kind === 'stray') return this.error('sheet/stray-character', token, { text: token.text });
    if (token.kind === 'name' || token.kind === '(' || token.kind === 'const' || token.kind === 'string')
      return this.error('sheet/two-operands', token, { found: shown(token) });
    return this.error('sheet/expected', token, { expected: 'An operator', found: shown(token), example: '&, | or ^' });
  }

  private refuseStray(token: Token): void {
    if (token.kind === 'stray') throw this.error('sheet/stray-character', token, { text: token.text });
    if (token.kind === 'open-string') throw this.error('sheet/open-string', token, {});
  }

  private expect(kind: Token['kind'], expected: string, example: string): Token {
    const token = this.peek;
    if (token.kind === kind) return this.take();
    this.refuseStray(token);
    const what = expected.charAt(0).toUpperCase() + expected.slice(1);
    throw this.error('sheet/expected', token, { expected: what, found: shown(token), example });
  }

  private error(code: Parameters<typeof finding>[0], at: Span, facts: Record<string, string | number>): LineError {
    return new LineError(finding(code, [atText(at)], facts as never));
  }

  private get peek(): Token {
    return this.tokens[this.i] as Token;
  }

  private get atLineEnd(): boolean {
    const { kind } = this.peek;
    return kind === 'newline' || kind === 'comment' || kind === 'end';
  }

  private take(): Token {
    return this.tokens[this.i++] as Token;
  }
}

const infixes = [
  { mark: '|', gate: 'or' },
  { mark: '^', gate: 'xor' },
  { mark: '&', gate: 'and' },
] as const;

const span = (t: Token): Span => ({ from: t.from, to: t.to });
const around = (a: Expr, b: Expr): Span => ({ from: a.at?.from ?? 0, to: b.at?.to ?? 0 });

function shown(token: Token): string {
  if (token.kind === 'newline' || token.kind === 'end' || token.kind === 'comment') return 'the end of the line';
  return `“${token.text}”`;
}
