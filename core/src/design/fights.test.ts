import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chipLibrary } from '../catalogue';
import { readSheet } from './design';

const fightsIn = (text: string): readonly (readonly [name: unknown, where: unknown])[] =>
  readSheet(text, chipLibrary).findings.flatMap(({ code, facts }) =>
    code === 'sheet/outputs-fight' ? [[facts.name, facts.where] as const] : [],
  );

/** An input or its complement, to be read by a row of levels. */
interface Literal {
  readonly name: string;
  readonly inverted: boolean;
}
const names = ['A', 'B', 'C', 'D'];
const literal = fc.record({ name: fc.constantFrom(...names), inverted: fc.boolean() });
const driver = fc.record({ value: literal, enables: fc.array(literal, { minLength: 1, maxLength: 3 }) });
const written = ({ name, inverted }: Literal): string => (inverted ? `~${name}` : name);

describe('three-state outputs on one wire', () => {
  it('are told with the first row in which one drives high and another low, and only then', () => {
    fc.assert(
      fc.property(fc.array(driver, { minLength: 2, maxLength: 4 }), (drivers) => {
        const lines = drivers.map(
          ({ value, enables }) => `Y = ${written(value)} when ${enables.map(written).join(' & ')}`,
        );
        const levelIn = (row: number) => (l: Literal) =>
          ((row >> (names.length - 1 - names.indexOf(l.name))) & 1) ^ Number(l.inverted);
        const first = Array.from({ length: 16 }, (_, row) => row).find((row) => {
          const level = levelIn(row);
          const driven = drivers.filter(({ enables }) => enables.every(level)).map(({ value }) => level(value));
          return driven.includes(0) && driven.includes(1);
        });
        const [told, ...more] = fightsIn(`in ${names.join(' ')}\nout Y\n${lines.join('\n')}`);
        expect(more).toEqual([]);
        expect(told !== undefined, lines.join('\n')).toBe(first !== undefined);
        if (first === undefined || !told) return;
        // Inputs on which it does not hang are not named: they are 0 in the first row.
        const said = new Map(
          String(told[1])
            .replace('where ', '')
            .split(', ')
            .map((one) => one.split(' = ') as [string, string]),
        );
        const at = names.map((name) => said.get(name) ?? '0').join('');
        expect(Number.parseInt(at, 2), lines.join('\n')).toBe(first);
      }),
      { numRuns: 200 },
    );
  });

  it.each([
    ['rows that never occur', 'in A B EA EB\nnever EA & EB\nout Y\nY = A when EA\nY = B when EB'],
    ['open-collector outputs', 'in A B\nout Y\nY = A open\nY = B open'],
    ['what hangs on something stored', 'in A B CK\nout Y\nQ = ~Q at rise CK\nY = A when Q\nY = B when ~Q'],
  ])('are not told of %s', (_, text) => {
    expect(fightsIn(text)).toEqual([]);
  });

  it('are told with the line that says it does not happen, after which nothing is told', () => {
    const text = 'in A B EA EB EC\nout Y\nY = A when EA\nY = B when EB\nY = B when EC';
    const told = (sheet: string) =>
      readSheet(sheet, chipLibrary).findings.filter((f) => f.code === 'sheet/outputs-fight');
    const [first] = told(text);
    expect(first?.facts.never).toBe('never EA & EC');
    const more = told(`${text}\n${first?.facts.never}`);
    expect(more.map((f) => f.facts.never)).toEqual(['never EA & EB']);
    expect(told(`${text}\n${first?.facts.never}\n${more[0]?.facts.never}`)).toEqual([]);
  });

  it('are told where they always fight', () => {
    expect(fightsIn('in A\nout Y Z\nZ = A\nY = 1 when 1\nY = 0 when 1')).toEqual([['Y', 'always']]);
  });

  it('are told of parts that are used by number too', () => {
    const text = 'in A B EA EB\nout Y\nuse 74126 as U (1A=A,1OE=EA,2A=B,2OE=EB,3A=0,3OE=0,4A=0,4OE=0,1Y=Y,2Y=Y)';
    expect(fightsIn(text)).toEqual([['Y', 'where A = 0, B = 1, EA = 1, EB = 1']]);
  });
});
