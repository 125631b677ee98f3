import { describe, expect, it } from 'vitest';
import { sweep, valueAt } from '../logic';
import { catalogue, partType } from './catalogue';
import { partNumber, readPartNumber } from './family';

/**
 * Function tables of the data sheets, written down apart from the catalogue: for each unit its input
 * pins, its output pin, and what the output is for a number of high inputs.
 */
type Sheet = { units: readonly [inputs: string, output: string][]; high: (count: number, width: number) => boolean };
const and = (count: number, width: number): boolean => count === width;
const or = (count: number): boolean => count > 0;
const not = (f: (c: number, w: number) => boolean) => (c: number, w: number) => !f(c, w);
const quad: Sheet['units'] = [
  ['1 2', '3'],
  ['4 5', '6'],
  ['9 10', '8'],
  ['12 13', '11'],
];
const triple: Sheet['units'] = [
  ['1 2 13', '12'],
  ['3 4 5', '6'],
  ['9 10 11', '8'],
];
const dual: Sheet['units'] = [
  ['1 2 4 5', '6'],
  ['9 10 12 13', '8'],
];
const sheets: Readonly<Record<string, Sheet>> = {
  '7400': { units: quad, high: not(and) },
  '7402': {
    units: [
      ['2 3', '1'],
      ['5 6', '4'],
      ['8 9', '10'],
      ['11 12', '13'],
    ],
    high: not(or),
  },
  '7404': {
    units: [
      ['1', '2'],
      ['3', '4'],
      ['5', '6'],
      ['9', '8'],
      ['11', '10'],
      ['13', '12'],
    ],
    high: not(or),
  },
  '7408': { units: quad, high: and },
  '7410': { units: triple, high: not(and) },
  '7411': { units: triple, high: and },
  '7420': { units: dual, high: not(and) },
  '7421': { units: dual, high: and },
  '7427': { units: triple, high: not(or) },
  '7430': { units: [['1 2 3 4 5 6 11 12', '8']], high: not(and) },
  '7432': { units: quad, high: or },
  '7486': { units: quad, high: (count) => count % 2 === 1 },
};

const chips = catalogue.filter((p) => p.kind === 'chip');

describe('the chips of the catalogue', () => {
  it('are those of the data sheets', () => {
    expect(chips.map((c) => c.id)).toEqual(Object.keys(sheets));
  });

  it.each(chips)('$id has the units, pins and function table of its data sheet', ({ id, units }) => {
    const sheet = sheets[id] as Sheet;
    const found = units.map((u) => [
      [...u.inputs].sort((a, b) => Number(a) - Number(b)).join(' '),
      u.outputs.join(' '),
    ]);
    expect([...found].sort()).toEqual([...sheet.units.map((u) => [...u])].sort());
    for (const unit of units) {
      const table = sweep(unit.program);
      for (let row = 0; row < table.rows; row++) {
        const count = row.toString(2).replaceAll('0', '').length;
        expect(valueAt(table, 0, row) === 1, `row ${row}`).toBe(sheet.high(count, unit.inputs.length));
      }
    }
  });

  it.each(chips)(
    '$id has supply on 14, ground on 7, and each other pin once in a unit or nowhere',
    ({ pins, units }) => {
      expect(pins.find((p) => p.role === 'supply')?.id).toBe('14');
      expect(pins.find((p) => p.role === 'ground')?.id).toBe('7');
      const used = units.flatMap((u) => [...u.inputs, ...u.outputs]).sort();
      const signal = pins.filter((p) => p.role === 'input' || p.role === 'output').map((p) => p.id);
      expect(used).toEqual([...signal].sort());
    },
  );

  it.each(chips)('$id counts its pins counter-clockwise from the notch at the left', ({ pins }) => {
    expect(pins.slice(0, 7).map((p) => [p.dx, p.dy])).toEqual([0, 1, 2, 3, 4, 5, 6].map((dx) => [dx, 0]));
    expect(pins.slice(7).map((p) => [p.dx, p.dy])).toEqual([6, 5, 4, 3, 2, 1, 0].map((dx) => [dx, -3]));
  });
});

describe('part numbers', () => {
  it('are written and read with their family', () => {
    for (const { id } of chips) expect(readPartNumber(partNumber(id, 'HC'))).toEqual({ base: id, family: 'HC' });
    expect(partType('74HC02')?.id).toBe('7402');
  });

  it.each(['74HC99', '74XX00', 'constructor', '', 'HC00', '74HC', '__proto__'])('%j is no part', (text) => {
    expect(partType(text)).toBeNull();
  });
});
