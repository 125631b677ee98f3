import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import { elementAt } from '../element-at';
import { cellAt, tableOf } from '../logic';
import { arbitrarySheet } from '../testing/random';
import { formatted } from './format';
import { parseSheet } from './parser';
import { printSheet } from './printer';
import { definitionOf, renamed, signalsOf } from './symbols';
import { canSetCells, withCell } from './table-edit';

const design = (text: string) => readDesign(text).design.behaviour ?? expect.fail(`not read: ${text}`);
const column = (text: string, o: number): string => {
  const table = tableOf(design(text));
  return Array.from({ length: table.rows }, (_, r) => cellAt(table, o, r)).join('');
};

describe('a cell that is set', () => {
  it('is what was set, and no other cell of any output changes', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.nat(), fc.nat(), fc.constantFrom('0', '1', '-'), (sheet, r, c, mark) => {
        const text = printSheet(sheet);
        const { inputs, outputs } = design(text);
        const o = c % outputs.length;
        const name = outputs[o]?.name ?? '';
        const table = tableOf(design(text));
        const row = r % table.rows;
        expect(canSetCells(text, name, inputs.length)).toBe(true);
        const after = withCell(text, inputs, name, { table, output: o, row, mark: mark as '0' });
        outputs.forEach((_, k) => {
          // An output that reads another follows it where that is on the sheet; only the set column is held.
          if (k !== o) return;
          const wanted = [...column(text, k)].map((v, i) => (i === row ? mark : v)).join('');
          expect(column(after, k)).toBe(wanted);
        });
        expect(after.split('\n').slice(0, 3)).toEqual(text.split('\n').slice(0, 3));
      }),
      { numRuns: 60 },
    );
  });

  it('turns the equation into a table where it stood, with its comment', () => {
    const text = 'in A B\nout Y Z\nY = A & B  # both\nZ = A';
    expect(withCell(text, ['A', 'B'], 'Y', { table: tableOf(design(text)), output: 0, row: 0, mark: '1' })).toBe(
      'in A B\nout Y Z\ntable Y of A B : 1001  # both\nZ = A',
    );
  });

  it('takes its column out of a table of several, or replaces rows by cells', () => {
    const text = 'in A B\nout X Y\ntable X Y of A B\n  00 : 10\n  others : 01';
    const after = withCell(text, ['A', 'B'], 'X', { table: tableOf(design(text)), output: 0, row: 3, mark: '1' });
    expect([column(after, 0), column(after, 1)]).toEqual(['1001', '0111']);
    const own = 'in A B\nout X\ntable X of A B\n  00 : 1  # first\n  others : 0';
    expect(withCell(own, ['A', 'B'], 'X', { table: tableOf(design(own)), output: 0, row: 3, mark: '-' })).toBe(
      'in A B\nout X\ntable X of A B : 100-\n# first',
    );
  });

  it('is not offered for what is stored or shared', () => {
    expect(canSetCells('in D C\nout Q\nQ = D at rise C', 'Q', 2)).toBe(false);
    expect(canSetCells('in D C\nout Q\nQ = D when C', 'Q', 2)).toBe(false);
  });
});

describe('renaming', () => {
  it('changes a signal everywhere and nothing else', () => {
    const text = 'in  A[1:0] B  # A and B\nout Y\nuse 7400 as A1 (1A = A[0], 1B = B, 1Y = m)\nY = m & A[1]';
    expect(renamed(text, 'A', 'K')).toBe(
      'in  K[1:0] B  # A and B\nout Y\nuse 7400 as A1 (1A = K[0], 1B = B, 1Y = m)\nY = m & K[1]',
    );
    expect([
      renamed(text, 'A', 'B'),
      renamed(text, 'A', 'nand'),
      renamed(text, 'A', '1'),
      renamed(text, 'Q', 'R'),
    ]).toEqual([null, null, null, null]);
  });

  it('and back gives the same sheet', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.nat(), (sheet, pick) => {
        const text = printSheet(sheet);
        const names = signalsOf(parseSheet(text).sheet);
        const name = elementAt(names, pick % names.length);
        const there = renamed(text, name, 'ZZ9') ?? expect.fail('not renamed');
        expect(readDesign(there).findings.map((f) => f.code)).toEqual(readDesign(text).findings.map((f) => f.code));
        expect(renamed(there, 'ZZ9', name)).toBe(text);
      }),
    );
  });

  it('leaves blocks alone', () => {
    const text = 'block b\nin A\nout Y\nY = ~A\nend\nin A\nout Z\nuse b as u (A = A, Y = Z)';
    expect(renamed(text, 'A', 'K')).toBe('block b\nin A\nout Y\nY = ~A\nend\nin K\nout Z\nuse b as u (A = K, Y = Z)');
  });
});

describe('jumping to a signal', () => {
  const at = (text: string, name: string): string => {
    const span = definitionOf(text, name);
    return span ? text.slice(0, span.to).split('\n').length + text.slice(span.from, span.to) : 'nowhere';
  };
  it('finds what makes it', () => {
    const text = 'in A B\nout Y Q0\nY = m\nm = A & B\nuse 7493 as C1 (CKA = A, QA = Q0)';
    expect(['Y', 'm', 'A', 'Q0', 'C1', 'C1.QB', 'x'].map((n) => at(text, n))).toEqual([
      '3Y',
      '4m',
      '1A',
      '5QA',
      '5C1',
      '5C1',
      'nowhere',
    ]);
  });
});

describe('a sheet set neatly', () => {
  it('says the same, keeps its comments, and stays as it is when set again', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.boolean(), (sheet, textbook) => {
        const text = printSheet(sheet, textbook ? 'textbook' : 'ascii').replaceAll(' & ', '&');
        const neat = formatted(text);
        expect(formatted(neat)).toBe(neat);
        expect(parseSheet(neat).sheet.lines.map((l) => l.comment)).toEqual(sheet.lines.map((l) => l.comment));
        expect(readDesign(neat).design.netlist?.gates.map((g) => g.says)).toEqual(
          readDesign(text).design.netlist?.gates.map((g) => g.says),
        );
      }),
    );
  });

  it('lines up equals signs and comments, and leaves a line with a mistake', () => {
    expect(formatted('in A   B\nout Y Long\nY=A&B# both\nLong=A|B   # either\nZ = = A')).toBe(
      'in  A  B\nout Y  Long\nY    = A & B   # both\nLong = A | B   # either\nZ = = A'
        .replace('B   # both', 'B  # both')
        .replace('B   # either', 'B  # either'),
    );
  });
});
