import { describe, expect, it } from 'vitest';
import type { Searchable } from '../base/searchable';
import { found } from './found';

const one = (kind: Searchable['kind'], title: string, detail = '', rank?: number): Searchable => ({
  kind,
  title,
  detail,
  take: () => {},
  ...(rank !== undefined && { rank }),
});
const all = [
  one('step', 'Board', 'step of this job'),
  one('action', 'Lay out afresh', 'the board'),
  one('finding', 'Pin 4 of U1 is open', 'Lay a jumper there'),
  one('on the board', 'U1', '74HC00, four 2-input NANDs'),
  one('part', '7490', 'decade counter', 1),
  one('job', 'Café lamp', 'A B → Y'),
];
const titles = (words: string): string[] => found(all, words).map(({ title }) => title);

describe('what a search finds', () => {
  it('has all of the words, in the title or behind it; titles that begin with them come first', () => {
    expect(titles('u1')).toEqual(['U1', 'Pin 4 of U1 is open', '7490']);
    expect(titles('lay jumper')).toEqual(['7490', 'Pin 4 of U1 is open']);
    expect(titles('nands hc')).toEqual(['7490', 'U1']);
  });

  it('is found without its accents and capitals', () => {
    expect(titles('CAFE')).toEqual(['Café lamp', '7490']);
  });

  it('is everything at first, but not more of a kind than can be seen', () => {
    expect(titles('')).toHaveLength(all.length);
    const many = Array.from({ length: 40 }, (_, i) => one('on the board', `R${i}`, 'resistor'));
    expect(found(many, '').length).toBeLessThan(10);
    expect(found(many, 'resistor').length).toBeLessThan(10);
    expect(found(many, 'R39').map(({ title }) => title)).toEqual(['R39']);
  });
});
