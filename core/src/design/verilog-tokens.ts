import type { Span } from '../finding';

/** What a token is. */
export type TokenKind = 'name' | 'number' | 'mark' | 'end';

/** A word, number or mark of Verilog text, with where it stands; an escaped name without its backslash. */
export interface Token extends Span {
  readonly text: string;
  readonly kind: TokenKind;
}

const pattern =
  /\s+|\/\/[^\n]*|\/\*[\s\S]*?\*\/|`[^\n]*|(?<escaped>\\\S+)|(?<name>[A-Za-z_][A-Za-z0-9_$]*)|(?<number>\d*'[bBdDhHoO][0-9a-fA-FxXzZ_]+|\d+)|(?<mark><=|@\*|[\s\S])/uy;

/** Cuts Verilog text into tokens, without spaces, comments and compiler directives; the last is the end. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  pattern.lastIndex = 0;
  for (let m = pattern.exec(text); m !== null; m = pattern.exec(text)) {
    const span = { from: m.index, to: m.index + m[0].length };
    const { escaped, name, number, mark } = m.groups as Record<string, string | undefined>;
    if (escaped) tokens.push({ kind: 'name', text: escaped.slice(1), ...span });
    else if (name) tokens.push({ kind: 'name', text: name, ...span });
    else if (number) tokens.push({ kind: 'number', text: number, ...span });
    else if (mark?.trim()) tokens.push({ kind: 'mark', text: mark, ...span });
    if (pattern.lastIndex >= text.length) break;
  }
  tokens.push({ kind: 'end', text: 'the end', from: text.length, to: text.length });
  return tokens;
}
