import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary } from '../catalogue';
import { elementAt } from '../element-at';
import { isError } from '../finding';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { compareDesigns } from './compare';
import { readSheet } from './design';
import { printSheet } from './printer';
import { type Form, forms, restatable, restate } from './restate';
import { whyInRow } from './why';

const read = (text: string) => readSheet(text, chipLibrary);
const behaviour = (text: string) => read(text).design.behaviour ?? expect.fail(`not read: ${text}`);
const same = (a: string, b: string) => compareDesigns({ behaviour: behaviour(a) }, { behaviour: behaviour(b) });

const interlock = `# interlock
in  K E U L
out G P W

G = K & E              # a gate
P = K·E'·U·L
W = ~(U | L)           # bell`;

describe('a sheet restated', () => {
  it('in any form still does the same, and keeps its comments and every other line', async () => {
    await fc.assert(
      fc.asyncProperty(
        arbitrarySheet,
        fc.constantFrom(...forms.map((f) => f.form)),
        fc.nat(),
        async (sheet, form, pick) => {
          const text = printSheet(sheet);
          const able = restatable(read(text));
          const some = pick % 3 === 0 ? able : [elementAt(able, pick % able.length)];
          const { restated, findings } = await restate(text, { signals: some, form }, chipLibrary);
          if (!restated) {
            expect(findings.map((f) => f.code)).toEqual([expect.stringMatching(/^restate\/(no-xor|not-so-wide)$/)]);
            return;
          }
          expect(read(restated.text).findings.filter(isError)).toEqual([]);
          expect(same(text, restated.text).comparison?.first).toBeNull();
          expect(restated.text.split('\n')[0]).toBe('# made at random');
          expect(restated.size.gates).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 150 },
    );
  });

  it('changes the line of its signal alone, in the notation and with the comment it had', async () => {
    const { restated } = await restate(interlock, { signals: ['W'], form: 'product' }, chipLibrary);
    expect(restated?.text).toBe(interlock.replace('~(U | L) ', '~U & ~L  '));
    expect(restated).toMatchObject({ proved: true, lines: ['W = ~U & ~L'] });
    const nand = await restate(interlock, { signals: ['P'], form: 'nand' }, chipLibrary);
    expect(nand.restated?.text).toContain('\nP = nand(nand(K, nand(E, E), U, L), 1)\n');
  });

  it('can be a selector or a decoder, and takes a name for it that is free', async () => {
    const { restated } = await restate(interlock, { signals: ['G', 'P'], form: 'decoder' }, chipLibrary);
    expect(restated?.lines[0]).toBe('use 74154 as dec1 (D = K, C = E, B = U, A = L, G1n = 0, G2n = 0)');
    expect(same(interlock, restated?.text ?? '').comparison?.first).toBeNull();
    const selector = await restate(restated?.text ?? '', { signals: ['W'], form: 'selector' }, chipLibrary);
    expect(selector.restated?.text).toContain('use 74153 as sel1 (');
    expect(same(interlock, selector.restated?.text ?? '').comparison?.first).toBeNull();
  });

  it('uses don’t-cares, and keeps saying them', async () => {
    const text = 'in A B C D\nout Y\ntable Y of A B C D : 0000 0001 11-- ----  # nines';
    const { restated } = await restate(text, { signals: ['Y'], form: 'sum' }, chipLibrary);
    expect(restated?.text).toContain('Y = A | B & C & D dc ');
    expect(restated?.text.endsWith('# nines')).toBe(true);
    expect(same(text, restated?.text ?? '').comparison?.first).toBeNull();
  });

  it('takes one column out of a table and leaves the others', async () => {
    const text = 'in A B\nout X Y\ntable X Y of A B\n  00 : 10\n  others : 01  # the rest';
    const { restated } = await restate(text, { signals: ['X'], form: 'sum' }, chipLibrary);
    expect(restated?.text).toBe('in A B\nout X Y\nX = ~A & ~B\ntable Y of A B\n  00 : 0\n  others : 1   # the rest');
  });

  it('restates what a flip-flop takes, and leaves its clock', async () => {
    const text = 'in J K CK\nout Q\nQ = J & ~Q | ~K & Q at fall CK';
    const { restated } = await restate(text, { signals: ['Q'], form: 'nand' }, chipLibrary);
    expect(restated?.text).toMatch(/Q = nand\(.*\) at fall CK$/);
  });

  it.each([
    ['in A B\nout Y\nY = A & B', 'K', 'sum', 'restate/no-line'],
    [
      `in ${Array.from({ length: 18 }, (_, i) => `a${i}`).join(' ')}\nout Y\nY = xor(${Array.from({ length: 18 }, (_, i) => `a${i}`).join(', ')})`,
      'Y',
      'sum',
      'restate/too-wide',
    ],
    ['in A B\nout Y\nY = A & B', 'Y', 'xor', 'restate/no-xor'],
    ['in A B C D E\nout Y\nY = and(A, B, C, D, E)', 'Y', 'decoder', 'restate/not-so-wide'],
  ])('says why it cannot: %#', async (text, name, form, code) => {
    const { restated, findings } = await restate(text, { signals: [name], form: form as Form }, chipLibrary);
    expect([restated, findings.map((f) => f.code)]).toEqual([null, [code]]);
  });

  it('is proved smallest with the solver at ten inputs', async () => {
    const names = [...'ABCDEFGHIJ'];
    const text = `in ${names.join(' ')}\nout Y\nY = ${names.map((n, i) => `${n} & ~${names[(i + 1) % 10]}`).join(' | ')} & ~(A & ~B)`;
    const { restated } = await restate(text, { signals: ['Y'], form: 'sum' }, chipLibrary, solve);
    expect(restated?.proved).toBe(true);
    expect(same(text, restated?.text ?? '').comparison?.first).toBeNull();
  });
});

describe('two designs compared', () => {
  it('differ first in the row a person would find first, with both values', () => {
    const { comparison } = same('in A B C\nout Y\nY = A & B | C', 'in A B C\nout Y\nY = A & B & C');
    expect(comparison?.first).toEqual({ row: 1, inputs: [0, 0, 1], cells: [{ output: 'Y', a: '1', b: '0' }] });
  });

  it('may name other inputs in another order, and signals that are no outputs', () => {
    const a = { behaviour: behaviour('in A B\nout Y\nY = A & ~B'), output: 'Y' };
    const b = { behaviour: behaviour('in B A\nout Z\nh = ~(~A | B)\nZ = ~h'), output: 'h' };
    expect(compareDesigns(a, b).comparison?.first).toBeNull();
  });

  it('agree where either does not care', () => {
    expect(
      same('in A B\nout Y\ntable Y of A B : 01-1', 'in A B\nout Y\ntable Y of A B : 0-01').comparison?.first,
    ).toBeNull();
  });

  it.each([
    ['in A\nout Y\nY = A', 'in A\nout Z\nZ = A', 'same/no-signal'],
    ['in D C\nout Y\nY = D at rise C', 'in D\nout Y\nY = D', 'same/stores'],
    [
      'in A\nout Y\nY = A',
      `in A ${Array.from({ length: 20 }, (_, i) => `b${i}`).join(' ')}\nout Y\nY = xor(A, ${Array.from({ length: 20 }, (_, i) => `b${i}`).join(', ')})`,
      'same/too-wide',
    ],
  ])('say why they cannot be: %#', (a, b, code) => {
    expect(same(a, b).findings.map((f) => f.code)).toEqual([code]);
  });
});

describe('the reason of a row', () => {
  it('goes from the expression to its value, gate by gate', () => {
    expect(whyInRow(read(interlock).design, 'P', 0b1011)).toEqual([
      { signal: 'P', value: 1, steps: ["K·E'·U·L", "1·0'·1·1", '1·1·1·1', '1'] },
    ]);
  });

  it('goes on to the signals between', () => {
    const text = 'in A B C\nout T\nh = A ^ B\nT = A·B + h·C';
    const reasons = whyInRow(read(text).design, 'T', 0b101);
    expect(reasons?.map((r) => [r.signal, r.value])).toEqual([
      ['T', 1],
      ['h', 1],
    ]);
    expect(reasons?.[0]?.steps).toEqual(['A·B + h·C', '1·0 + 1·1', '0 + 1', '1']);
  });

  it('ends in the value that the table has, whatever the sheet', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.nat(), (sheet, pick) => {
        const { design } = read(printSheet(sheet));
        const row = pick % 2 ** design.inputs.length;
        for (const { name } of design.outputs) {
          const [reason] = whyInRow(design, name, row) ?? [];
          expect(reason?.steps.at(-1)).toBe(String(reason?.value));
        }
      }),
    );
  });
});
