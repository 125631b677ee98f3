import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import type { Expr } from '../logic';
import { keywords } from './expression-parser';
import { SheetNames } from './names';
import type { Token, TokenKind } from './verilog-tokens';

/** How deep expressions may nest, and the most wires of a range. */
const MAX_DEPTH = 100;
const MAX_RANGE = 64;

/** Whether a name ends in a range of several wires. */
const isWide = (name: string): boolean => name.endsWith(']') && !/\[(\d+)(?::\1)?\]$/.test(name);

/** Gives up a statement of Verilog; never leaves its reader. */
export class Refusal {
  constructor(readonly finding: Finding) {}
}

/** Reads the expressions of Verilog, token by token, as those of a sheet. */
export class VerilogExpressions {
  protected i = 0;
  protected depth = 0;
  protected readonly names = new SheetNames([...keywords, 'of', 'end', 'others']);
  /** The names of the module, as on the sheet, that are declared with a range. */
  protected readonly wide = new Set<string>();

  constructor(
    protected readonly tokens: readonly Token[],
    private readonly text: string,
  ) {}

  /** `[3:0]` as the sheet writes it; nothing when there is none. */
  protected range(): string {
    if (!this.is('[')) return '';
    const open = this.take();
    const high = this.number();
    const low = this.takes(':') ? this.number() : null;
    this.want(']');
    if (high > 9999 || (low ?? 0) > 9999 || Math.abs(high - (low ?? high)) >= MAX_RANGE)
      throw this.error(open, 'a range of this width');
    return low === null ? `[${high}]` : `[${high}:${low}]`;
  }

  protected number(): number {
    const t = this.take();
    if (t.kind !== 'number' || !/^\d{1,6}$/.test(t.text)) throw this.error(t, t.text);
    return Number(t.text);
  }

  protected bracketed(): Expr {
    this.want('(');
    const e = this.expression();
    this.want(')');
    return e;
  }

  /** Expressions with ~ & ^ | and ?:, loosest first. */
  protected expression(): Expr {
    if (++this.depth > MAX_DEPTH) {
      this.depth = 0;
      throw this.error(this.peek, 'an expression nested so deep');
    }
    const condition = this.binary(0);
    this.depth--;
    if (!this.is('?')) return condition;
    this.take();
    const yes = this.expression();
    this.want(':');
    const no = this.expression();
    const pick = (a: Expr, b: Expr): Expr => ({ kind: 'gate', gate: 'and', of: [a, b], infix: true });
    return {
      kind: 'gate',
      gate: 'or',
      of: [pick(condition, yes), pick({ kind: 'not', of: condition }, no)],
      infix: true,
    };
  }

  private binary(level: number): Expr {
    const operator = (['|', '^', '&'] as const)[level];
    if (operator === undefined) return this.unary();
    const of = [this.binary(level + 1)];
    while (this.is(operator) || (operator === '^' && this.is('~') && this.tokens[this.i + 1]?.text === '^')) {
      // `~^` and `^~` are one operator, exclusive nor; of several, each turns the whole round.
      const turned = this.takes('~');
      this.take();
      // `&&` is one operator; `a & &b` reads what `&` makes of all wires of b.
      if (operator !== '^' && this.is(operator) && this.isClose()) this.take();
      const other = operator === '^' && this.takes('~') ? !turned : turned;
      const next = this.binary(level + 1);
      of.push(other ? { kind: 'not', of: next } : next);
    }
    const gate = ({ '|': 'or', '^': 'xor', '&': 'and' } as const)[operator];
    return of.length === 1 ? elementAt(of, 0) : { kind: 'gate', gate, of, infix: true };
  }

  private unary(): Expr {
    let turned = false;
    for (; this.is('~') || this.is('!'); this.take()) turned = !turned;
    const gate = ({ '|': 'or', '^': 'xor', '&': 'and' } as const)[this.kind === 'mark' ? this.peek.text : ''];
    const e = gate ? this.reduction(gate) : this.primary();
    return turned ? { kind: 'not', of: e } : e;
  }

  /** All wires of what follows in one gate: `&a`, `^(a | b)`; `^~` is exclusive nor. Of one wire it is that wire. */
  private reduction(gate: 'and' | 'or' | 'xor'): Expr {
    this.take();
    const isTurned = gate === 'xor' && this.is('~') && this.isClose() && this.takes('~');
    if (++this.depth > MAX_DEPTH) throw this.error(this.peek, 'an expression nested so deep');
    const of = this.unary();
    const all: Expr = this.isOneWire(of) ? of : { kind: 'gate', gate, of: [of], infix: false };
    this.depth--;
    return isTurned ? { kind: 'not', of: all } : all;
  }

  private isOneWire(e: Expr): boolean {
    if (e.kind === 'name') return !this.wide.has(e.name) && !isWide(e.name);
    if (e.kind === 'not') return this.isOneWire(e.of);
    return e.kind !== 'gate' || !e.infix || e.of.every((one) => this.isOneWire(one));
  }

  /** Whether nothing stands between the token before and this one. */
  private isClose(): boolean {
    return this.tokens[this.i - 1]?.to === this.peek.from;
  }

  private primary(): Expr {
    const t = this.peek;
    if (this.is('(')) return this.bracketed();
    if (t.kind === 'number') {
      const value = /^(?:1'[bBdDhHoO])?([01])$/.exec(this.take().text)?.[1];
      if (value === undefined) throw this.error(t, `the number ${t.text}`);
      return { kind: 'const', value: value === '1' ? 1 : 0 };
    }
    if (t.kind !== 'name') throw this.error(t, t.text);
    return { kind: 'name', name: this.names.of(this.take().text) + this.range() };
  }

  /** Reads one thing after another with commas between. */
  protected each(read: () => void): void {
    read();
    while (this.is(',')) {
      this.take();
      read();
    }
  }

  protected error(at: Span, what: string): Refusal {
    const line = this.text.slice(0, at.from).split('\n').length;
    return new Refusal(finding('verilog/not-understood', [atText(at)], { line, what: what.slice(0, 60) }));
  }

  protected name(): string {
    const t = this.take();
    if (t.kind !== 'name') throw this.error(t, t.text);
    return t.text;
  }

  protected want(mark: string): void {
    if (!this.is(mark)) throw this.error(this.peek, `${this.peek.text} where ${mark} is wanted`);
    this.take();
  }

  protected takes(text: string): boolean {
    const here = this.is(text);
    if (here) this.take();
    return here;
  }

  protected is(text: string): boolean {
    return this.peek.text === text;
  }

  protected get kind(): TokenKind {
    return this.peek.kind;
  }

  protected get peek(): Token {
    return elementAt(this.tokens, Math.min(this.i, this.tokens.length - 1));
  }

  protected take(): Token {
    const t = this.peek;
    if (this.i < this.tokens.length - 1) this.i++;
    return t;
  }
}
