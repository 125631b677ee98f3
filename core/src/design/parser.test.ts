import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Finding } from '../finding';
import { printExpr } from '../logic';
import { parseSheet } from './parser';

/** The one equation of a line, printed plainly. */
function read(line: string): string {
  const { sheet, findings } = parseSheet(line);
  expect(findings).toEqual([]);
  const { statement } = sheet.lines[0] ?? {};
  return statement?.kind === 'equation' ? printExpr(statement.expr) : expect.fail('no equation');
}

/** The stretch of text that a finding underlines. */
function underlined(text: string, finding: Finding | undefined): string {
  const place = finding?.places[0];
  return place?.kind === 'text' ? text.slice(place.span.from, place.span.to) : expect.fail('no place');
}

describe('equations', () => {
  it.each([
    ['plain operators, and before xor before or', 'Y = A | B ^ C & D', 'A | B ^ C & D'],
    ['brackets only where they are needed', 'Y = (A | B) & (C)', '(A | B) & C'],
    ['a person’s own grouping', 'Y = A & (B & C)', 'A & (B & C)'],
    ['the forms of textbooks', "Y = A'·B + C ⊕ D", '~A & B | C ^ D'],
    ['complements of brackets and of complements', "Y = (A + B)''", '~~(A | B)'],
    ['typographic primes and other signs', 'Y = A’ * !B + ¬C', '~A & ~B | ~C'],
    ['functions of any number of inputs', 'Y = nand(A, B, C) | xor(A, not(B))', 'nand(A, B, C) | xor(A, ~B)'],
    ['constants', 'Y = A & 1 | 0', 'A & 1 | 0'],
    ['names that begin with digits', '1Y = nand(1A, 1B)', 'nand(1A, 1B)'],
  ])('reads %s', (_, line, printed) => {
    expect(read(line)).toBe(printed);
  });

  it('joins a chain of one operator into one gate', () => {
    const { sheet } = parseSheet('P = K & ~E & U & L');
    expect(sheet.lines[0]?.statement).toMatchObject({ expr: { gate: 'and', of: { length: 4 } } });
  });
});

describe('declarations and comments', () => {
  it('reads labels, commas or none, and keeps comments', () => {
    const { sheet, findings } = parseSheet('in K "key turned"  E, U # the levers\n\nout G');
    expect(findings).toEqual([]);
    expect(sheet.lines).toMatchObject([
      {
        statement: { kind: 'in', signals: [{ name: 'K', label: 'key turned' }, { name: 'E' }, { name: 'U' }] },
        comment: '# the levers',
      },
      {},
      { statement: { kind: 'out', signals: [{ name: 'G' }] } },
    ]);
  });
});

describe('mistakes are found where they are', () => {
  it.each([
    ['Y = A &', 'sheet/expected', ''],
    ['Y = A & & B', 'sheet/expected', '&'],
    ['Y = (A | B', 'sheet/unclosed-bracket', '('],
    ['Y = A B', 'sheet/two-operands', 'B'],
    ['Y = A)', 'sheet/expected', ')'],
    ['Y A', 'sheet/expected', 'A'],
    ['Y = A @ B', 'sheet/stray-character', '@'],
    ['Y = 12', 'sheet/stray-character', '12'],
    ['= A', 'sheet/not-a-statement', '='],
    ['in K "key', 'sheet/open-string', '"key'],
    ['in', 'sheet/expected', ''],
    ['nand = A', 'sheet/keyword-as-name', 'nand'],
    ['Y = not(A, B)', 'sheet/function-arity', 'not(A, B)'],
    ['Y = nand A', 'sheet/expected', 'A'],
  ])('%s', (text, code, at) => {
    const { findings } = parseSheet(text);
    expect(findings.map((f) => f.code)).toEqual([code]);
    expect(underlined(text, findings[0])).toBe(at);
  });

  it('a wrong line leaves the lines around it as they are', () => {
    const { sheet, findings } = parseSheet('in A\nY = = A\nout Y');
    expect(findings).toHaveLength(1);
    expect(sheet.lines.map((l) => l.statement?.kind)).toEqual(['in', undefined, 'out']);
  });

  it('nesting and length are bounded', () => {
    const deep = parseSheet(
      `Y = ${'('.repeat(5000)}A${')'.repeat(5000)}\nZ = ${'~'.repeat(5000)}A\nX = A${"'".repeat(5000)}`,
    );
    expect(deep.findings.map((f) => f.code)).toEqual(['sheet/too-deep', 'sheet/too-deep', 'sheet/too-deep']);
    expect(parseSheet('A'.repeat(1_000_001)).findings.map((f) => f.code)).toEqual(['sheet/too-long']);
  });

  it('any text at all gives findings inside the text, and never throws', () => {
    const pieces = fc.constantFrom(
      'in ',
      'out ',
      'A',
      'B1',
      '=',
      '&',
      '|',
      '^',
      '~',
      "'",
      '(',
      ')',
      ',',
      '"',
      '#',
      '\n',
      '0',
      '7',
      'nand',
      '·',
      '\u{1F6A4}',
    );
    const text = fc.oneof(
      fc.string({ unit: 'binary' }),
      fc.array(pieces, { maxLength: 60 }).map((p) => p.join('')),
    );
    fc.assert(
      fc.property(text, (t) => {
        for (const f of parseSheet(t).findings)
          for (const place of f.places) {
            if (place.kind !== 'text') expect.fail('not in the text');
            expect(place.span.from).toBeGreaterThanOrEqual(0);
            expect(place.span.to).toBeGreaterThanOrEqual(place.span.from);
            expect(place.span.to).toBeLessThanOrEqual(t.length);
          }
      }),
      { numRuns: 500 },
    );
  });
});
