import { elementAt } from '../element-at';
import { atText, type Finding, finding, type Span } from '../finding';
import { lex, type Token } from './lexer';

/** Thrown inside the parser to give up a line; `recovering` catches it. No Error: a stack for each line takes long. */
class LineError {
  constructor(readonly finding: Finding) {}
}

/**
 * A place in the tokens of a text, with the ways of going on: look, take, expect, or give up the line
 * with a finding. The parsers of expressions and of statements stand on it.
 */
export class Cursor {
  protected readonly findings: Finding[] = [];
  private readonly tokens: readonly Token[];
  private i = 0;

  constructor(text: string) {
    this.tokens = lex(text);
  }

  protected get peek(): Token {
    return elementAt(this.tokens, this.i);
  }

  /** The token `n` places on, or the end. */
  protected ahead(n: number): Token {
    return elementAt(this.tokens, Math.min(this.i + n, this.tokens.length - 1));
  }

  protected take(): Token {
    return elementAt(this.tokens, this.i++);
  }

  /** Takes the next token if it is of that kind, or that word. */
  protected takeIf(kind: Token['kind'], text?: string): Token | undefined {
    const token = this.peek;
    return token.kind === kind && (text === undefined || token.text === text) ? this.take() : undefined;
  }

  /** Whether a word stands as a name outside the lines that declare signals: it is one of the sheet's own then. */
  protected isOwnName(word: string): boolean {
    this.ownNames ??= namesOutsideDeclarations(this.tokens);
    return this.ownNames.has(word);
  }

  private ownNames: ReadonlySet<string> | undefined;

  protected get atLineEnd(): boolean {
    const { kind } = this.peek;
    return kind === 'newline' || kind === 'comment' || kind === 'end';
  }

  /** Runs `read`; when it gives up or leaves something, notes that and skips to the line's comment or end. */
  protected recovering<T>(read: () => T): T | undefined {
    try {
      const result = read();
      if (!this.atLineEnd) throw this.leftover();
      return result;
    } catch (e) {
      if (!(e instanceof LineError)) throw e;
      this.findings.push(e.finding);
      while (!this.atLineEnd) this.i++;
      return undefined;
    }
  }

  protected expect(kind: Token['kind'], expected: string, example: string): Token {
    const token = this.peek;
    if (token.kind === kind) return this.take();
    this.refuseStray(token);
    const what = expected.charAt(0).toUpperCase() + expected.slice(1);
    throw this.error('sheet/expected', token, { expected: what, found: shown(token), example });
  }

  protected leftover(): LineError {
    const token = this.peek;
    if (isStray(token)) return this.error('sheet/stray-character', token, { text: token.text });
    if (token.kind === 'name' || token.kind === '(' || token.kind === 'const' || token.kind === 'string')
      return this.error('sheet/two-operands', token, { found: shown(token) });
    return this.error('sheet/expected', token, { expected: 'An operator', found: shown(token), example: '&, | or ^' });
  }

  protected refuseStray(token: Token): void {
    if (isStray(token)) throw this.error('sheet/stray-character', token, { text: token.text });
    if (token.kind === 'open-string') throw this.error('sheet/open-string', token, {});
  }

  protected error(code: Parameters<typeof finding>[0], at: Span, facts: Record<string, string | number>): LineError {
    return new LineError(finding(code, [atText(at)], facts as never));
  }
}

/** Characters and numbers that begin nothing. */
const isStray = (t: Token): boolean => t.kind === 'stray' || t.kind === 'number' || t.kind === '-';

/** The span of a token or statement: from inclusive, to exclusive, in characters of the sheet. */
export const spanOf = (t: Span): Span => ({ from: t.from, to: t.to });

/** A token as findings quote it. */
export function shown(token: Token): string {
  if (token.kind === 'newline' || token.kind === 'end' || token.kind === 'comment') return 'the end of the line';
  return `“${token.text}”`;
}

function namesOutsideDeclarations(tokens: readonly Token[]): ReadonlySet<string> {
  const names = new Set<string>();
  let isFirst = true;
  let declares = false;
  for (const { kind, text } of tokens) {
    if (isFirst) declares = text === 'in' || text === 'out';
    if (kind === 'name' && !declares) names.add(text);
    isFirst = kind === 'newline';
  }
  return names;
}
