import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary } from '../catalogue';
import { isError, says } from '../finding';
import { compile, compileMachine, HIGH, LOW, MachineRun, type Network, sweep, valueAt } from '../logic';
import { arbitraryFittedSheet } from '../testing/fitted';
import { readSheet } from './design';
import { lex } from './lexer';
import { parseSheet } from './parser';
import { printSheet } from './printer';
import { fittingSpans, renamed, signalsOf } from './symbols';

const read = (text: string) => readSheet(text, chipLibrary);
const codes = (text: string): string[] => read(text).findings.map((f) => f.code);

/** The columns of a faultless sheet's outputs, rows 0 up; `-` where it does not matter, Z where it floats. */
function columns(text: string): Record<string, string> {
  const { design, findings } = read(text);
  expect(findings.filter(isError)).toEqual([]);
  const { inputs, gates, outputs } = design.behaviour ?? expect.fail('no behaviour');
  const nets = outputs.flatMap((o) => [o.net, o.dontCare ?? '0', o.floats ?? '0']);
  const network: Network = { inputs, gates, outputs: nets };
  const table = sweep(compile(network));
  return Object.fromEntries(
    outputs.map(({ name }, o) => {
      const cell = (r: number): string => {
        if (valueAt(table, 3 * o + 1, r)) return '-';
        return valueAt(table, 3 * o + 2, r) ? 'Z' : String(valueAt(table, 3 * o, r));
      };
      return [name, Array.from({ length: table.rows }, (_, r) => cell(r)).join('')];
    }),
  );
}

/** Steps a clocked sheet: sets inputs by name and reads outputs as a word. */
function stepper(text: string) {
  const { design, findings } = read(text);
  expect(findings).toEqual([]);
  const behaviour = design.behaviour ?? expect.fail('no behaviour');
  const run = new MachineRun(compileMachine(behaviour));
  return (levels: Record<string, number>): string => {
    for (const [name, level] of Object.entries(levels)) run.setInput(behaviour.inputs.indexOf(name), level);
    run.settle();
    return behaviour.outputs.map((_, o) => ({ [LOW]: '0', [HIGH]: '1' })[run.outputLevel(o)] ?? 'X').join('');
  };
}

/** One whole pulse of CK; what is shown after it. */
function pulse(step: (levels: Record<string, number>) => string): string {
  step({ CK: 1 });
  return step({ CK: 0 });
}

describe('tables', () => {
  it('as cells are the column that is written', () => {
    expect(columns('in A B C\nout Y\ntable Y of A B C : 0110 1-01')).toEqual({ Y: '01101-01' });
  });

  it('as rows fill what they say, and the rest as others says', () => {
    const text = 'in A B C\nout X Y\ntable X Y of A B C\n  0 - - : 1 0\n  110 : 0-\n  others : 01';
    expect(columns(text)).toEqual({ X: '11110000', Y: '000011-1' });
  });

  it('read back as any column that is printed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 7 }), fc.infiniteStream(fc.constantFrom('0', '1', '-')), (n, stream) => {
        const names = 'ABCDEFG'.slice(0, n).split('');
        const cells = [...stream.take(2 ** n)].join('');
        expect(columns(`in ${names.join(' ')}\nout Y\ntable Y of ${names.join(' ')} : ${cells}`)).toEqual({ Y: cells });
      }),
      { numRuns: 60 },
    );
  });

  it('of twenty inputs are taken as rows without being listed', () => {
    const names = Array.from({ length: 20 }, (_, i) => `a${i}`);
    const rows = ['1'.repeat(20), '0'.repeat(20)].map((r) => `  ${r} : 1`).join('\n');
    const { design } = read(`in ${names.join(' ')}\nout Y\ntable Y of ${names.join(' ')}\n${rows}\n  others : 0`);
    expect(design.netlist?.gates.filter((g) => g.kind === 'and').map((g) => g.inputs.length)).toEqual([20, 20]);
  });

  it.each([
    ['in A B\nout Y\ntable Y of A B : 011', 'sheet/table-cells'],
    ['in A B\nout Y\ntable Y of A B\n', 'sheet/table-empty'],
    ['in A B\nout Y\ntable Y of A B\n0- : 1\n-0 : 0\nothers : 1', 'sheet/rows-clash'],
    ['in A B\nout Y\ntable Y of A B\n0 : 1\nothers : 1', 'sheet/row-width'],
    ['in A B\nout Y\ntable Y of A B\n00 : 1', 'sheet/rows-unlisted'],
    ['in A B\nout Y\nY = A & B\n00 : 1', 'sheet/stray-row'],
    ['in A B\nout Y Z\ntable Y Z of A B : 0110', 'sheet/cells-of-many'],
  ])('%j', (text, code) => {
    expect(codes(text)).toContain(code);
  });
});

describe('don’t-cares', () => {
  it('stand behind an equation, or for rows that never come', () => {
    expect(columns('in A B\nout Y\nY = A & B dc ~A & B')).toEqual({ Y: '0-01' });
    expect(columns('in A B\nout X Y\nnever A & B\nX = A\nY = B')).toEqual({ X: '001-', Y: '010-' });
  });

  it('take no gates of their own', () => {
    expect(read('in A B\nout Y\nY = A | B dc ~A & B').design.netlist?.gates).toHaveLength(1);
  });
});

it('signals may be called what programs are full of', () => {
  for (const name of ['constructor', 'toString', '__proto__', 'hasOwnProperty'])
    expect(columns(`in ${name} A\nout Y\nY = ${name} & A`), name).toEqual({ Y: '0001' });
});

describe('buses', () => {
  it('stand for their wires, one bit beside the other', () => {
    expect(columns('in A[1:0]\nout Y[1:0]\nY = ~A')).toEqual({ Y1: '1100', Y0: '1010' });
    expect(columns('in A[1:0] E\nout Y[1:0]\nY[1:0] = A[0:1] & E')).toEqual({ Y1: '00010001', Y0: '00000101' });
    for (const all of ['A[2:0]', 'A', '~~A', 'A | A'])
      expect(columns(`in A[2:0]\nout ALL\nALL = and(${all})`)).toEqual({ ALL: '00000001' });
    expect(columns('in A[1:0] B[1:0]\nout EQ\nEQ = nor(A ^ B)')).toEqual({ EQ: '1000010000100001' });
  });

  it.each([
    ['in A[3:0] B[1:0]\nout Y[3:0]\nY = A & B', 'sheet/bus-width'],
    ['in A[3:0]\nout Y\nY = A', 'sheet/bus-width'],
    ['in A[3:0]\nout Y\nY = and(A[2])', 'sheet/function-arity'],
    ['in A\nout Y\nY = nand(A)', 'sheet/function-arity'],
    ['in A\nout Y\nY = A & nor(~A)', 'sheet/function-arity'],
    ['in A CK\nout Y\nY = A at rise or(CK)', 'sheet/function-arity'],
    ['in A[99:0]\nout Y\nY = A[0]', 'sheet/bus-too-wide'],
    ['in A[3:0] A3\nout Y\nY = and(A[3:0], A3)', 'sheet/declared-twice'],
  ])('%j', (text, code) => {
    expect(codes(text)).toContain(code);
  });
});

const adder = 'block half\nin A B\nout S C\nS = A ^ B\nC = A & B\nend\n';

describe('blocks', () => {
  it('are written out where they are used, outputs by their own name or by the block’s', () => {
    const text = `${adder}in X Y Z\nout S C\nuse half as h1 (A = X, B = Y)\nuse half as h2 (A = h1.S, B = Z, S = S)\nC = h1.C | h2.C`;
    expect(columns(text)).toEqual({ S: '01101001', C: '00010111' });
  });

  it('may use blocks, and take buses', () => {
    const text =
      'block inv\nin A[1:0]\nout Y[1:0]\nY = ~A\nend\nblock twice\nin A[1:0]\nout Y[1:0]\nuse inv as i (A = A, Y = m)\nuse inv as j (A = m, Y = Y)\nm[1:0] = m[1:0]\nend\n';
    expect(codes(`${text}in P[1:0]\nout Q[1:0]\nuse twice as t (A = P, Y = Q)`)).toContain('sheet/defined-twice');
    const plain = text
      .replace('m[1:0] = m[1:0]\n', '')
      .replace('Y = m)', 'Y[1] = m1, Y[0] = m0)')
      .replace('A = m,', 'A[1] = m1, A[0] = m0,');
    expect(columns(`${plain}in P[1:0]\nout Q[1:0]\nuse twice as t (A = P, Y = Q)`)).toEqual({ Q1: '0011', Q0: '0101' });
  });

  it.each([
    [`${adder}in X Y\nout S\nuse half as h (A = X, S = S)`, 'sheet/pins-open'],
    [`${adder}in X Y\nout S\nuse half as h (A = X, B = Y, Q = S)`, 'sheet/unknown-pin'],
    [`${adder}in X Y\nout S\nuse half as h (A = X, B = Y, A = Y, S = S)`, 'sheet/pin-twice'],
    [`${adder}in X Y\nout S\nuse half as h (A = X, B = Y, S = ~S)`, 'sheet/output-joined'],
    [`${adder}in X Y\nout S\nuse half as h (A = X, B = Y, S = S)\nuse half as h (A = X, B = Y)`, 'sheet/used-twice'],
    ['in X\nout S\nuse nothing as h (A = X)', 'sheet/unknown-part'],
    [
      'block a\nin X\nout Y\nuse a as b (X = X, Y = Y)\nend\nin X\nout Y\nuse a as c (X = X, Y = Y)',
      'sheet/blocks-too-deep',
    ],
    ['block a\nin X', 'sheet/block-open'],
    ['in A\nout Y\nY = A\nend', 'sheet/stray-end'],
    ['block a\nblock b\nend\nend', 'sheet/block-in-block'],
  ])('%j', (text, code) => {
    expect(codes(text)).toContain(code);
  });
});

describe('stored signals', () => {
  it('take their value at an edge, and not between', () => {
    const step = stepper('in D CK\nout Q\nQ = D at rise CK');
    expect([step({ D: 1, CK: 0 }), step({ CK: 1 }), step({ D: 0 }), step({ CK: 0 }), step({ CK: 1 })]).toEqual([
      'X',
      '1',
      '1',
      '1',
      '0',
    ]);
  });

  it('follow while a latch is open; clear and preset act at once, the first strongest', () => {
    const step = stepper('in D EN R S\nout Q\nQ = D while EN clear R preset S');
    expect([
      step({ D: 1, EN: 1, R: 0, S: 0 }),
      step({ EN: 0, D: 0 }),
      step({ R: 1 }),
      step({ S: 1 }),
      step({ R: 0 }),
      step({ S: 0 }),
    ]).toEqual(['1', '1', '0', '0', '1', '1']);
  });

  it('may ripple from one to the next, and a bus of them counts', () => {
    const step = stepper('in CK R\nout q1 q0\nq0 = ~q0 at fall CK clear R\nq1 = ~q1 at fall q0 clear R');
    step({ CK: 0, R: 1 });
    step({ R: 0 });
    expect([1, 2, 3, 4].map(() => pulse(step))).toEqual(['01', '10', '11', '00']);
  });

  it.each([
    ['in A CK\nout Y\nY = A at CK', 'sheet/expected'],
    ['in A R\nout Y\nY = A clear R', 'sheet/force-without-storage'],
    ['in A CK E\nout Y\nY = A at rise CK when E', 'sheet/stored-output'],
    ['in A C D\nout Y\nY = A at rise C at rise D', 'sheet/clause-twice'],
    ['in A\nout Y\nY = ~Y & A', 'sheet/loop'],
  ])('%j', (text, code) => {
    expect(codes(text)).toContain(code);
  });
});

describe('outputs that share a wire', () => {
  it('float while none of them is on', () => {
    expect(columns('in A B EA EB\nout Y\nnever EA & EB\nY = A when EA\nY = B when EB').Y).toBe('Z00-Z10-Z01-Z11-');
  });

  it('make an AND when they are open-collector', () => {
    expect(columns('in A B\nout Y\nY = ~A open\nY = ~B open')).toEqual({ Y: '1000' });
  });

  it('must be of one sort', () => {
    expect(codes('in A B E\nout Y\nY = A when E\nY = B')).toContain('sheet/defined-twice');
  });
});

describe('parts by number', () => {
  it('count as their data sheets say, wired as the sheet says', () => {
    const step = stepper(
      'in CK R\nout Q[3:0]\nuse 7493 as C1 (CKA = CK, CKB = Q0, R01 = R, R02 = 1, QA = Q0, QB = Q1, QC = Q2, QD = Q3)',
    );
    step({ CK: 0, R: 1 });
    step({ R: 0 });
    const words = Array.from({ length: 17 }, () => pulse(step));
    expect(words.slice(0, 3)).toEqual(['0001', '0010', '0011']);
    expect(words[15]).toBe('0000');
  });

  it('are kept whole in the netlist, and written out in what it does', () => {
    const { design } = read(
      'in A B C G\nout Y\nuse 74HC138 as U1 (A = A, B = B, C = C, G1 = G, G2An = 0, G2Bn = 0, Y5n = Y)',
    );
    expect(design.netlist?.cells).toMatchObject([{ kind: 'part', ref: 'U1', part: '74138' }]);
    expect(design.netlist?.gates).toEqual([]);
    expect(
      columns('in A B C G\nout Y\nuse 74138 as U1 (A = A, B = B, C = C, G1 = G, G2An = 0, G2Bn = 0, Y5n = Y)').Y,
    ).toBe('1111111111101111');
  });

  it('may share a wire, three-state or both ways', () => {
    const bus =
      'in D[1:0] W\nout X[1:0]\nuse 74125 as U1 (1A = D1, 1OEn = W, 1Y = b, 2A = 0, 2OEn = 1, 3A = 0, 3OEn = 1, 4A = 0, 4OEn = 1)\nuse 74125 as U2 (1A = D0, 1OEn = ~W, 1Y = b, 2A = 0, 2OEn = 1, 3A = 0, 3OEn = 1, 4A = 0, 4OEn = 1)\nX[1] = b\nX[0] = ~b';
    expect(columns(bus)).toEqual({ X1: '00011011', X0: '11100100' });
  });
});

describe('any sheet', () => {
  const words = fc.constantFrom(
    'in ',
    'out ',
    'A',
    'B[3:0]',
    'B[2]',
    'B',
    '=',
    '&',
    '~',
    "'",
    '(',
    ')',
    ',',
    '\n',
    '0',
    '01-',
    ':',
    'table ',
    'of ',
    'others ',
    'block ',
    'end',
    'use ',
    'as ',
    '7493',
    'half',
    'C1',
    '.QA',
    'at ',
    'rise ',
    'while ',
    'clear ',
    'when ',
    'open ',
    'dc ',
    'never ',
    'nand',
  );
  const text = fc.array(words, { maxLength: 80 }).map((w) => w.join(''));

  it('of any words of the language gives findings inside the text, and never throws', () => {
    fc.assert(
      fc.property(text, (t) => {
        const { findings } = read(t);
        for (const { places } of findings)
          for (const place of places)
            if (place.kind === 'text') {
              expect(place.span.from).toBeGreaterThanOrEqual(0);
              expect(place.span.to).toBeLessThanOrEqual(t.length);
            }
      }),
      { numRuns: 2000 },
    );
  });

  it('prints to a text that reads as the same sheet, and printing that again changes nothing', () => {
    fc.assert(
      fc.property(text, (t) => {
        const { sheet } = parseSheet(t);
        const printed = printSheet(sheet);
        expect(printSheet(parseSheet(printed).sheet)).toBe(printed);
      }),
      { numRuns: 1000 },
    );
  });
});

describe('what signals come from and are shown on', () => {
  const fittingsOf = (text: string) => readSheet(text).design.netlist?.fittings;

  it('stands at the end of a line and holds for all its signals, wire by wire', () => {
    expect(
      fittingsOf(
        'in A B "two" from button\nin CK from clock 20 kHz\nout Y[1:0] Z on lamp green\nout W on buzzer\nY = A & CK\nZ = B\nW = A',
      ),
    ).toEqual([
      { fitting: { kind: 'button' }, signals: ['A', 'B'] },
      { fitting: { kind: 'clock', hertz: 20_000 }, signals: ['CK'] },
      { fitting: { kind: 'lamp', colour: 'green' }, signals: ['Y1', 'Y0', 'Z'] },
      { fitting: { kind: 'buzzer' }, signals: ['W'] },
    ]);
    expect(fittingsOf('in A\nout s[6:0] on display low\ns = A')).toEqual([
      { fitting: { kind: 'display', low: true }, signals: ['s6', 's5', 's4', 's3', 's2', 's1', 's0'] },
    ]);
  });

  it('changes no design, and no sheet in which on and from are signals', () => {
    const plain = readSheet('in A B\nout Y\nY = A & B').design.netlist;
    const fitted = readSheet('in A B from button\nout Y on lamp blue\nY = A & B').design.netlist;
    expect({ ...fitted, gates: [], fittings: [] }).toEqual({ ...plain, gates: [] });
    expect(fitted?.gates.map((g) => g.says)).toEqual(plain?.gates.map((g) => g.says));
    const named = readSheet('in A from lamp\nout Y on\nY = from & A & lamp\non = A').design;
    expect([named.inputs, named.outputs].map((list) => list.map((s) => s.name))).toEqual([
      ['A', 'from', 'lamp'],
      ['Y', 'on'],
    ]);
    expect(named.fittings).toEqual([]);
  });

  it.each([
    ['out Y on lantern\nY = 1', 'sheet/unknown-fitting'],
    ['in A from button 3\nout Y\nY = A', 'sheet/behind-fitting'],
    ['in A from button B\nout Y\nY = A & B', 'sheet/behind-fitting'],
    ['out Y on lamp\nY = 1', 'sheet/unknown-colour'],
    ['out Y on lamp purple\nY = 1', 'sheet/unknown-colour'],
    ['in A from clock\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A from clock 0 Hz\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A from clock 11 MHz\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A from clock 5 s\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A from timer\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A from timer 1 MHz\nout Y\nY = A', 'sheet/bad-rate'],
    ['in A\nout s[5:0] on display\ns = A', 'sheet/display-signals'],
    ['in A\nout Y Z on buzzer\nY = A\nZ = ~A', 'sheet/one-buzzer'],
  ])('is refused with what to write: %j', (text, code) => {
    expect(codes(text)).toContain(code);
    for (const said of readSheet(text).findings.map(says)) expect(said).not.toMatch(/^the /);
  });

  it('prints as it was read, keeps signals apart from its words, and is kept through a renaming', () => {
    fc.assert(
      fc.property(arbitraryFittedSheet, (text) => {
        const printed = printSheet(parseSheet(text).sheet);
        expect(printSheet(parseSheet(printed).sheet)).toBe(printed);
        expect(fittingsOf(printed)).toEqual(fittingsOf(text));
        expect(signalsOf(parseSheet(text).sheet).every((name) => /^[aY]\d+$/.test(name))).toBe(true);
        const words = fittingSpans(lex(text)).map(({ from, to }) => text.slice(from, to));
        expect(words).toEqual([...text.matchAll(/ ((?:from|on) .*)/g)].map((m) => m[1]));
      }),
    );
    const renamedText = renamed('in lamp from button\nout on_ on lamp red\non_ = lamp', 'lamp', 'K');
    expect(renamedText).toBe('in K from button\nout on_ on lamp red\non_ = K');
    expect(renamed('in A\nout Y on lamp red\nY = A', 'A', 'on')).toBeNull();
  });
});
