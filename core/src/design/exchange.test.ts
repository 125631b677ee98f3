import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary, readDesign } from '../catalogue';
import { isError } from '../finding';
import { cellAt, tableOf } from '../logic';
import { arbitrarySheet } from '../testing/random';
import { compareDesigns } from './compare';
import { printSheet } from './printer';
import { tableFromCsv, tableToCsv } from './table-csv';
import { fromVerilog } from './verilog-in';
import { toVerilog } from './verilog-out';

const behaviour = (text: string) => readDesign(text).design.behaviour ?? expect.fail(`not read:\n${text}`);
const there = (text: string): string => toVerilog(readDesign(text), 'lock', chipLibrary) ?? expect.fail('no Verilog');
const sameAs = (a: string, b: string) => compareDesigns({ behaviour: behaviour(a) }, { behaviour: behaviour(b) });

describe('Verilog', () => {
  it('of any sheet of gates reads back as a sheet that does the same', () => {
    fc.assert(
      fc.property(arbitrarySheet, (sheet) => {
        const text = printSheet(sheet);
        const { sheet: back, findings } = fromVerilog(there(text));
        expect(findings).toEqual([]);
        expect(sameAs(text, back).comparison?.first).toBeNull();
      }),
    );
  });

  it('keeps flip-flops, latches and shared outputs', () => {
    const text =
      'in D EN CK R\nout Q P Y Z\nQ = D at rise CK clear R preset EN\nP = D while EN clear R\nY = D when EN\nY = R when CK\nZ = D open\nZ = R open';
    const back = fromVerilog(there(text));
    expect(back.findings).toEqual([]);
    const [a, b] = [behaviour(text), behaviour(back.sheet)];
    expect(b.stored).toEqual(a.stored);
    expect(b.outputs.map((o) => [o.name, o.open, o.floats !== null])).toEqual(
      a.outputs.map((o) => [o.name, o.open, o.floats !== null]),
    );
  });

  it('writes a used part as an instance of a module that follows, and reads it as the part again', () => {
    const text = 'in A B C\nout Y\nuse 74138 as U1 (A = A, B = B, C = C, G1 = 1, G2An = 0, G2Bn = 0, Y5n = Y)';
    const verilog = there(text);
    expect(verilog).toMatch(/part_74138 U1 \(\.A\(A\)/);
    expect(sameAs(text, fromVerilog(verilog).sheet).comparison?.first).toBeNull();
  });

  it('is read as people write it: ports in the heading, assign, ?:, ranges, instances by order', () => {
    const verilog = `
      // a selector, written two ways
      module pick(input a, input b, input s, output y);
        assign y = s ? b : a; /* like this */
      endmodule
      module top (x, s, y);
        input [1:0] x; input s; output y;
        wire m = x[1] & 1'b1;
        pick p1 (x[0], m, s, y);
      endmodule`;
    const { sheet, findings } = fromVerilog(verilog);
    expect(findings).toEqual([]);
    expect(sameAs(sheet, 'in x[1:0] s\nout y\ny = s & x[1] | ~s & x[0]').comparison?.first).toBeNull();
  });

  it('a range holds for all names up to the next direction or range', () => {
    const { sheet, findings } = fromVerilog(
      'module m(input [1:0] a, b, [2:0] c, input d, output [1:0] y, z);\n  assign y = a & b;\n  assign z = c[1:0];\nendmodule',
    );
    expect(findings).toEqual([]);
    const { inputs, outputs } = readDesign(sheet).design;
    expect(inputs.map((s) => s.name).join(' ')).toBe('a1 a0 b1 b0 c2 c1 c0 d');
    expect(outputs.map((s) => s.name).join(' ')).toBe('y1 y0 z1 z0');
  });

  it.each(['a + b', 'a - b', 'a == b', 'a << 1', 'a ? b', '{a, b}', 'a & b c', 'a *b', 'a %b'])(
    'an assignment is read whole or not at all: y = %s is left out, and its line is said',
    (expr) => {
      const { sheet, findings } = fromVerilog(
        `module m(input a, b, output y, z);\n  assign z = a;\n  assign y = ${expr};\nendmodule`,
      );
      expect(findings.map((f) => [f.code, f.facts.line])).toEqual([['verilog/not-understood', 3]]);
      expect(sheet).toContain('z = a');
      expect(sheet).not.toMatch(/^y =/m);
    },
  );

  it('an operator before a bus takes all its wires', () => {
    const assigned =
      'x1 = &a, x2 = |a, x3 = ^a, x4 = ~&a, x5 = ~|a, x6 = ~^a, x7 = ^~a, x8 = b & &a, x9 = b && ^(a ^ c)';
    const { sheet, findings } = fromVerilog(
      `module m(input [2:0] a, c, input b, output x1, x2, x3, x4, x5, x6, x7, x8, x9);\nassign ${assigned};\nendmodule`,
    );
    expect(findings).toEqual([]);
    const written = [
      'x1 = and(a)',
      'x2 = or(a)',
      'x3 = xor(a)',
      'x4 = nand(a)',
      'x5 = nor(a)',
      'x6 = xnor(a)',
      'x7 = xnor(a)',
      'x8 = b & and(a)',
      'x9 = b & xor(a ^ c)',
    ];
    const outs = written.map((line) => line.slice(0, 2)).join(' ');
    expect(sameAs(sheet, `in a[2:0] c[2:0] b\nout ${outs}\n${written.join('\n')}`).comparison?.first).toBeNull();
  });

  it.each([
    ['y = &a', 'y = a'],
    ['y = ~|a', 'y = ~a'],
    ['y = ^~a', 'y = ~a'],
    ['y = ^(a & ~w)', 'y = a & ~w'],
    ['y = &v[1] | ^v[2:2]', 'y = v[1] | v[2]'],
    ['y = ^v[2:1] & &(|v)', 'y = xor(v[2:1]) & or(v)'],
  ])('an operator before a single wire is that wire: %s', (assigned, written) => {
    const { sheet, findings } = fromVerilog(
      `module m(input a, [2:0] v, output y);\nwire w;\nassign w = v[0];\nassign ${assigned};\nendmodule`,
    );
    expect(findings).toEqual([]);
    const same = `in a v[2:0]\nout y\nw = v[0]\n${written}`;
    expect(sameAs(sheet, same).comparison?.first, sheet).toBeNull();
  });

  it('exclusive nor is understood in both of its forms', () => {
    const { sheet, findings } = fromVerilog(
      'module m(input a, b, output y, z);\nassign y = a ~^ b, z = a ^~ b;\nendmodule',
    );
    expect(findings).toEqual([]);
    const { behaviour } = readDesign(sheet).design;
    const table = tableOf(behaviour ?? expect.fail(sheet));
    expect([0, 1, 2, 3].map((r) => [cellAt(table, 0, r), cellAt(table, 1, r)].join(''))).toEqual([
      '11',
      '00',
      '00',
      '11',
    ]);
  });

  it('what goes out comes back as the same: parts used by number stay parts, their loose outputs loose', () => {
    const text = 'in CK R\nout Q0 Q1\nuse 7493 as C1 (CKA = CK, CKB = Q0, R01 = R, R02 = R, QA = Q0, QB = Q1)';
    const { sheet, findings } = fromVerilog(there(text));
    expect(findings).toEqual([]);
    expect(sheet).toMatch(/^use 7493 as C1 \(CKA = CK, CKB = Q0, R01 = R, R02 = R, QA = Q0, QB = Q1\)/m);
    expect(sheet).not.toContain('block');
  });

  it('names what it does not understand, with its place, and reads the rest', () => {
    const verilog = 'module m(input a, output y);\n  initial y = 0;\n  assign y = ~a;\nendmodule\n';
    const { sheet, findings } = fromVerilog(verilog);
    expect(findings.map((f) => [f.code, f.facts.what])).toEqual([['verilog/not-understood', 'initial']]);
    const place = findings[0]?.places[0];
    expect(place?.kind === 'text' && verilog.slice(0, place.span.from).split('\n').length).toBe(2);
    expect(readDesign(sheet).findings.filter(isError)).toEqual([]);
  });

  it('of any words at all gives findings inside the text, and a sheet', () => {
    const words = fc.constantFrom(
      'module ',
      'm',
      '(',
      ')',
      ';',
      'input ',
      'output ',
      'wire ',
      '[3:0]',
      'a',
      'b',
      ',',
      'assign ',
      '=',
      '<=',
      '~',
      '&',
      '?',
      ':',
      '.',
      '{',
      'always ',
      '@*',
      '@(',
      'posedge ',
      'if ',
      'else ',
      'nand ',
      "1'b0",
      '4',
      'endmodule\n',
      'bufif1 ',
      '\\x+y ',
      '//',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.array(words, { maxLength: 60 }).map((w) => w.join('')),
          fc.string({ unit: 'binary' }),
        ),
        (text) => {
          const { findings, sheet } = fromVerilog(text);
          for (const { places } of findings)
            for (const p of places)
              if (p.kind === 'text') {
                expect(p.span.from).toBeGreaterThanOrEqual(0);
                expect(p.span.to).toBeLessThanOrEqual(text.length);
              }
          expect(() => readDesign(sheet)).not.toThrow();
        },
      ),
      { numRuns: 1000 },
    );
  });
});

describe('tables as CSV', () => {
  it('read back as the design they came from', () => {
    fc.assert(
      fc.property(arbitrarySheet, (sheet) => {
        const text = printSheet(sheet);
        const { inputs, outputs } = behaviour(text);
        const csv = tableToCsv(
          inputs,
          outputs.map((o) => o.name),
          tableOf(behaviour(text)),
        );
        const back = tableFromCsv(csv);
        expect(back.findings).toEqual([]);
        expect(sameAs(text, back.sheet ?? '').comparison?.first).toBeNull();
      }),
      { numRuns: 40 },
    );
  });

  it('need no empty column where the rows tell the inputs, and know X as don’t-care', () => {
    expect(tableFromCsv('A,B,Y\n0,0,0\n0,1,x\n1,0,1\n1,1,1\n').sheet).toBe(
      'in  A  B\nout Y\ntable Y of A B\n  00 : 0\n  01 : -\n  10 : 1\n  11 : 1\n',
    );
  });

  it.each([
    ['A,B,Y\n0,0,0\n0,0,1\n', 'csv/no-outputs'],
    ['A,B,,Y\n0,0,,2\n', 'csv/bad-cell'],
    ['A,A,,Y\n0,0,,1\n', 'csv/bad-name'],
    ['A,nand,,Y\n0,0,,1\n', 'csv/bad-name'],
    ['A,B,,Y\n0,0,1\n', 'csv/ragged'],
    ['', 'csv/no-outputs'],
    [`A,,Y\n${'0,,1\n'.repeat(5001)}`, 'csv/too-large'],
  ])('say what is wrong with them: %#', (text, code) => {
    expect(tableFromCsv(text).findings.map((f) => f.code)).toEqual([code]);
  });
});
