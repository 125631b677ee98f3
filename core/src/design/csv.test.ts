import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { printCsv } from './csv';

describe('CSV', () => {
  it('has no field that a spreadsheet would compute, and loses none', () => {
    const field = fc.oneof(
      fc.string(),
      fc.constantFrom('=1+1', '+A1', '-A1', '@SUM(A1)', '\t=1', '-', '-3', 'a,b', '"'),
    );
    fc.assert(
      fc.property(fc.array(fc.array(field, { minLength: 2, maxLength: 4 }), { minLength: 1 }), (rows) => {
        const read = Papa.parse<string[]>(printCsv(rows).replace(/\r\n$/, ''), { newline: '\r\n' }).data;
        expect(read.length).toBe(rows.length);
        for (const [r, row] of rows.entries())
          for (const [i, wanted] of row.entries()) {
            const got = read[r]?.[i] ?? '';
            expect([wanted, `'${wanted}`]).toContain(got);
            expect(/^[=@\t\r]|^[+-].*[^\d.]/.test(got), got).toBe(false);
          }
      }),
    );
  });
});
