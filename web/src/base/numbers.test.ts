import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fixed, grouped, inOwnMarks, marksOf, readNumber } from './numbers';
import * as words from './words';

const german = marksOf('de');

describe('numbers as the reader writes them', () => {
  it.each([
    ['en', '4.93', '12,345'],
    ['de', '4,93', '12.345'],
    ['fr', '4,93', '12\u202f345'],
  ])('in %s', (language, volts, edges) => {
    const marks = marksOf(language);
    expect([fixed(4.93, 2, marks), grouped(12_345, marks)]).toEqual([volts, edges]);
  });

  it('in what is said: decimals, and neither pins nor holes, parts or files', () => {
    expect(inOwnMarks('U1.3 gives 2.4 V to b1.e5, and wants 3.15 V.', german)).toBe(
      'U1.3 gives 2,4 V to b1.e5, and wants 3,15 V.',
    );
    expect(inOwnMarks('0.5 ms (1.25 kHz), 74HC00, plan-1.5.txt, 1.2.3', german)).toBe(
      '0,5 ms (1,25 kHz), 74HC00, plan-1.5.txt, 1.2.3',
    );
  });

  it('are read again with either mark', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e6, noNaN: true }), fc.constantFrom('en', 'de'), (value, language) => {
        expect(readNumber(fixed(value, 3, marksOf(language)))).toBeCloseTo(value, 2);
      }),
    );
    expect(fixed(-0.5, 1, german)).toBe('-0,5');
    expect([readNumber(''), readNumber('4,7k')]).toEqual([0, Number.NaN]);
  });
});

it('no screen takes words with numbers in them from core, or writes decimals by itself', () => {
  const src = join(import.meta.dirname, '..');
  const taken: string[] = [];
  for (const name of readdirSync(src, { recursive: true, encoding: 'utf8' })) {
    if (!/\.tsx?$/.test(name) || /\.test\.|^base.(words|numbers)\.ts$|^(workers|testing)/.test(name)) continue;
    const text = readFileSync(join(src, name), 'utf8');
    const [, names = ''] = /import \{([^}]*)\} from '@saddlebag\/core';/.exec(text) ?? [];
    const said = names.split(',').map((n) => n.trim());
    if (said.some((n) => Object.hasOwn(words, n))) taken.push(`${name} takes words from core`);
    // A number within a drawing or a value that goes back into the job has the point.
    const isDrawing = /picture\.tsx$|waveform\.ts$|SvgText\.tsx$/.test(name);
    if (!isDrawing && text.split('\n').some((line) => /\.toFixed\(|\.toLocaleString\(/.test(line))) taken.push(name);
  }
  expect(taken).toEqual([]);
});
