import { describe, expect, it } from 'vitest';
import { says } from '../finding';
import { readSheet } from './design';

const codes = (text: string): string[] => readSheet(text).findings.map((f) => f.code);

describe('what a sheet says is checked', () => {
  it.each([
    ['in A\nout Y\nY = A & B', 'sheet/unknown-signal'],
    ['in A A\nout Y\nY = A', 'sheet/declared-twice'],
    ['in A\nout Y\nY = A\nY = ~A', 'sheet/defined-twice'],
    ['in A B\nout Y\nY = A & B\nA = B', 'sheet/input-defined'],
    ['in A\nout Y Z\nY = A', 'sheet/output-undefined'],
    ['in A\nout Y\nY = A & Z\nZ = ~Y', 'sheet/loop'],
    ['in A B\nout Y\nY = A', 'sheet/unused-input'],
    ['in A\nout Y\nY = A\nm = ~A', 'sheet/unused-signal'],
    ['in A', 'sheet/no-output'],
  ])('%j', (text, code) => {
    expect(codes(text)).toEqual([code]);
  });

  it('names the name that was probably meant, and the way round a loop', () => {
    const [unknown] = readSheet('in Key\nout Y\nY = key').findings;
    expect(unknown?.facts.hint).toContain('Did you mean Key?');
    const [loop] = readSheet('in A\nout Y\nY = A & m\nm = ~n\nn = ~Y').findings;
    expect(loop && says(loop)).toContain('Y ← m ← n ← Y');
  });

  it('an error anywhere means no gates; a warning does not', () => {
    expect(readSheet('in A\nout Y\nY = A &').design.netlist).toBeNull();
    expect(readSheet('in A B\nout Y\nY = ~A').design.netlist?.gates).toHaveLength(1);
  });
});

describe('gates', () => {
  const gates = (text: string) =>
    readSheet(text).design.netlist?.gates.map((g) => `${g.output}=${g.kind}(${g.inputs})`);

  it('are taken as written, complements folded into the gate below', () => {
    expect(gates('in K E U L\nout P W\nP = K & ~E & U & L\nW = ~(U | L)')).toEqual([
      "E'=not(E)",
      "P=and(K,E',U,L)",
      'W=nor(U,L)',
    ]);
  });

  it('that are equal are made once, whatever the order of their inputs', () => {
    expect(gates('in A B\nout X Y Z\nX = A & B\nY = B & A\nZ = ~(A & B)')).toEqual(['X=and(A,B)', 'Z=nand(A,B)']);
  });

  it('need not exist: an output may be an input or a constant', () => {
    const { netlist } = readSheet('in A\nout X Y\nX = A\nY = 1').design;
    expect(netlist).toMatchObject({ gates: [], outputs: [{ net: 'A' }, { net: '1' }] });
  });

  it('between named ones get names that nobody has taken', () => {
    const { netlist } = readSheet('in A B t1\nout Y\nY = (A ^ B) & (A | t1)').design;
    expect(netlist?.gates.map((g) => g.output)).toEqual(['t2', 't3', 'Y']);
  });

  it('of a chain of 4000 equations are made without running out of stack', () => {
    const lines = Array.from({ length: 4000 }, (_, i) => `m${i + 1} = ~m${i} & A`);
    const text = `in A m0\nout m4000\n${lines.reverse().join('\n')}`;
    expect(readSheet(text).design.netlist?.gates).toHaveLength(8000);
  });
});
