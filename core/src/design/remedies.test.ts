import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import { isError } from '../finding';

describe('what beginners write in other words', () => {
  it.each([
    ['in A B\nout Y\nY = AB', 'Y = A·B'],
    ["in A B C\nout Y\nY = AB' + C", "Y = A·B' + C"],
    ['in A B\nout Y\nY = A AND B', 'Y = A & B'],
    ['in A B\nout Y\nY = A and not B', 'Y = A & ~B'],
    ['in A B\nout Y\nY = A && B', 'Y = A & B'],
    ['in A B\nout Y\nY = A || B', 'Y = A | B'],
    ['IN A B\nout Y\nY = A & B', 'in A B'],
    ['input A\nout Y\nY = A', 'in A'],
    ['in A\noutputs Y\nY = ~A', 'out Y'],
    ['in A B\nout Y\nY = /A & B', 'Y = ~A & B'],
    ['in A // the key\nout Y\nY = A', 'in A # the key'],
  ])('%s is told once, with the line as it is meant', (sheet, line) => {
    const { findings } = readDesign(sheet);
    const errors = findings.filter(isError);
    expect(errors.map((f) => [f.code, f.fix])).toEqual([['sheet/meant', line]]);
    const [place] = errors[0]?.places ?? [];
    const { from, to } = place?.kind === 'text' ? place.span : { from: 0, to: 0 };
    const mended = sheet.slice(0, from) + errors[0]?.fix + sheet.slice(to);
    expect(readDesign(mended).findings.filter(isError)).toEqual([]);
  });

  it.each(['in A B\nout Y\nY = A & XYZ', 'in A AB B\nout Y\nY = AAB & ZZ', 'in A\nout Y\nY = '])(
    'what has no sure remedy keeps its own finding: %s',
    (sheet) => {
      const { findings } = readDesign(sheet);
      expect(findings.some(isError)).toBe(true);
      expect(findings.map((f) => f.code)).not.toContain('sheet/meant');
    },
  );
});
