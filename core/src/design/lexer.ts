import type { Span } from '../finding';

/** Kinds of token. `op` covers & | ^ ~ ' and their textbook forms, all reduced to those five. */
export type TokenKind =
  | 'name'
  | 'const'
  | 'number'
  | '-'
  | 'string'
  | 'open-string'
  | 'op'
  | '('
  | ')'
  | '['
  | ']'
  | ','
  | ':'
  | '='
  | 'newline'
  | 'comment'
  | 'stray'
  | 'end';

/** A token with its span; `text` is the operator's plain form, a string's inside, else as written. */
export interface Token extends Span {
  readonly kind: TokenKind;
  readonly text: string;
}

const operators: Readonly<Record<string, string>> = {
  '&': '&',
  '·': '&',
  '*': '&',
  '∧': '&',
  '|': '|',
  '+': '|',
  '∨': '|',
  '^': '^',
  '⊕': '^',
  '~': '~',
  '!': '~',
  '¬': '~',
  "'": "'",
  '’': "'",
  '′': "'",
};

const pattern =
  /[ \t\r\f\v\u00a0]+|(?<newline>\n)|(?<comment>#[^\n]*)|(?<string>"[^"\n]*"?)|(?<name>[0-9]*[A-Za-z_][A-Za-z0-9_]*(?:\.[A-Za-z0-9_]+)?)|(?<number>[0-9]+)|(?<mark>[-()[\],:=])|(?<other>[\s\S])/uy;

/**
 * Cuts a sheet into tokens; every character is white space or part of one token, so nothing is lost.
 * Names are letters, digits and _ with at least one letter, and may begin with digits (`1A`), as the
 * pins of data sheets do; a dot joins a used part's reference and its pin (`C1.QA`). Never fails: what
 * means nothing becomes a `stray` token.
 */
export function lex(text: string): Token[] {
  const tokens: Token[] = [];
  pattern.lastIndex = 0;
  for (let m = pattern.exec(text); m !== null; m = pattern.exec(text)) {
    const token = read(m);
    if (token) tokens.push(token);
    if (pattern.lastIndex >= text.length) break;
  }
  tokens.push({ kind: 'end', text: 'the end', from: text.length, to: text.length });
  return tokens;
}

function read(m: RegExpExecArray): Token | null {
  const span = { from: m.index, to: m.index + m[0].length };
  const g = m.groups as Record<string, string | undefined>;
  if (g.newline) return { kind: 'newline', text: '\n', ...span };
  if (g.comment) return { kind: 'comment', text: m[0], ...span };
  if (g.string) return readString(m[0], span);
  if (g.name) return { kind: 'name', text: m[0], ...span };
  if (g.number) return { kind: m[0] === '0' || m[0] === '1' ? 'const' : 'number', text: m[0], ...span };
  if (g.mark) return { kind: g.mark as TokenKind, text: m[0], ...span };
  if (!g.other) return null;
  const op = operators[g.other];
  return op === undefined ? { kind: 'stray', text: m[0], ...span } : { kind: 'op', text: op, ...span };
}

function readString(written: string, span: Span): Token {
  const closed = written.length > 1 && written.endsWith('"');
  return closed
    ? { kind: 'string', text: written.slice(1, -1), ...span }
    : { kind: 'open-string', text: written.slice(1), ...span };
}
