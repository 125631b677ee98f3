import { elementAt } from '../element-at';
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

const operators: Readonly<Record<string, string | undefined>> = {
  __proto__: null as never,
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

const marks = new Set('-()[],:=');
const isDigit = (c: number): boolean => c >= 48 && c <= 57;
const isLetter = (c: number): boolean => (c >= 65 && c <= 90) || (c >= 97 && c <= 122) || c === 95;
const isWordPart = (c: number): boolean => isLetter(c) || isDigit(c);
/** Space, tab, carriage return, form feed, vertical tab, no-break space. */
const isSpace = (c: number): boolean => c === 32 || c === 9 || (c >= 11 && c <= 13) || c === 160;

/**
 * Cuts a sheet into tokens; every character is white space or part of one token, so nothing is lost.
 * Names are letters, digits and _ with at least one letter, and may begin with digits (`1A`), as the
 * pins of data sheets do; a dot joins a used part's reference and its pin (`C1.QA`). Never fails: what
 * means nothing becomes a `stray` token. Looks at each character once: sheets may be long.
 */
export function lex(text: string): Token[] {
  const tokens: Token[] = [];
  for (let at = 0; at < text.length; ) {
    const c = text.charCodeAt(at);
    if (isSpace(c)) {
      at++;
      continue;
    }
    const token = isWordPart(c) ? word(text, at) : mark(text, at);
    tokens.push(token);
    at = token.to;
  }
  tokens.push({ kind: 'end', text: 'the end', from: text.length, to: text.length });
  return tokens;
}

/** The place after the last character from `at` on that belongs to a kind. */
function after(text: string, at: number, belongs: (c: number) => boolean): number {
  let to = at;
  while (to < text.length && belongs(text.charCodeAt(to))) to++;
  return to;
}

/** A name, a number or a constant. */
function word(text: string, from: number): Token {
  const digits = after(text, from, isDigit);
  if (!isLetter(text.charCodeAt(digits))) {
    const number = text.slice(from, digits);
    return { kind: number === '0' || number === '1' ? 'const' : 'number', text: number, from, to: digits };
  }
  let to = after(text, digits, isWordPart);
  if (text.charCodeAt(to) === 46 && isWordPart(text.charCodeAt(to + 1))) to = after(text, to + 1, isWordPart);
  return { kind: 'name', text: text.slice(from, to), from, to };
}

function mark(text: string, from: number): Token {
  const first = elementAt(text, from);
  if (first === '\n') return { kind: 'newline', text: '\n', from, to: from + 1 };
  if (first === '#' || first === '"') return first === '#' ? comment(text, from) : string(text, from);
  if (marks.has(first)) return { kind: first as TokenKind, text: first, from, to: from + 1 };
  const whole = String.fromCodePoint(text.codePointAt(from) as number);
  const op = operators[whole];
  const to = from + whole.length;
  return op === undefined ? { kind: 'stray', text: whole, from, to } : { kind: 'op', text: op, from, to };
}

function comment(text: string, from: number): Token {
  const end = text.indexOf('\n', from);
  const to = end < 0 ? text.length : end;
  return { kind: 'comment', text: text.slice(from, to), from, to };
}

function string(text: string, from: number): Token {
  const to = after(text, from + 1, (c) => c !== 34 && c !== 10);
  const inside = text.slice(from + 1, to);
  return text[to] === '"'
    ? { kind: 'string', text: inside, from, to: to + 1 }
    : { kind: 'open-string', text: inside, from, to };
}
