import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chips, type FamilyId, partNumber, readDesign } from '../catalogue';
import { solve } from '../testing/interlock';
import {
  asInDrawer,
  type DrawerEntry,
  drawerFromCsv,
  drawerPart,
  drawerToCsv,
  levelsMeet,
  looseValues,
  mixtureOf,
  stockOf,
} from './drawer';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';

const parts = chips.flatMap((c) => c.families.slice(0, 2).map((f) => partNumber(c.base, f)));
const arbitraryDrawer = fc.uniqueArray(
  fc.record({
    part: fc.constantFrom(...parts),
    count: fc.nat(9999),
    price: fc.option(
      fc.nat(5000).map((n) => n / 100),
      { nil: undefined },
    ),
  }),
  { selector: (e) => e.part, maxLength: 40 },
);
const plain = (e: { part: string; count: number; price?: number | undefined }): DrawerEntry => ({
  part: e.part,
  count: e.count,
  ...(e.price !== undefined && { price: e.price }),
});

describe('the drawer', () => {
  it('comes back from its CSV as it was', () => {
    fc.assert(
      fc.property(arbitraryDrawer, (entries) => {
        const read = drawerFromCsv(drawerToCsv(entries.map(plain)));
        expect(read.findings).toEqual([]);
        expect(read.entries).toEqual(entries.map(plain));
      }),
    );
  });

  it('of any text at all gives entries and findings, and never throws', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (text) => {
        const { entries, findings } = drawerFromCsv(text);
        const lines = text.split(/\r\n|\n|\r/).filter((l) => l.trim() !== '').length;
        expect(entries.length + findings.length).toBeLessThanOrEqual(Math.max(1, lines));
        for (const e of entries) expect(Number.isInteger(e.count) && e.count >= 0).toBe(true);
      }),
    );
  });

  it('takes numbers however they are printed, and adds up what is one part', () => {
    expect(drawerFromCsv('SN74HC00N,2\n74hc00,3\n"7493";1\r\nCD74HC4017E\t2').entries).toEqual([
      { part: '74HC00', count: 5 },
      { part: '7493', count: 1 },
      { part: '74HC4017', count: 2 },
    ]);
    expect(['00', 'teapot', 'led', '74HC99'].map(drawerPart)).toEqual(['74HC00', null, null, null]);
  });

  it('holds resistors and capacitors too, by kind and value however it is written', () => {
    const read = (text: string): (string | null)[] => text.split(' | ').map(drawerPart);
    expect(read('10k | resistor 10k | 10 kΩ | r 10k | 10k resistor | 10000 ohms | Resistors 10K')).toEqual(
      Array.from({ length: 7 }, () => 'resistor 10 kΩ'),
    );
    expect(read('4k7 | 470R | 1M | resistor 470')).toEqual([
      ...['resistor 4.7 kΩ', 'resistor 470 Ω', 'resistor 1000 kΩ', 'resistor 470 Ω'],
    ]);
    expect(read('100n | 100 nF | c 0.1u | capacitor 100 | 4u7F')).toEqual([
      ...['capacitor 100 nF', 'capacitor 100 nF', 'capacitor 100 nF', 'capacitor 100 nF', 'capacitor 4.7 µF'],
    ]);
    expect(read('470 | resistor | resistor 0 | capacitor lots | 7k')).toEqual([
      null,
      null,
      null,
      null,
      'resistor 7 kΩ',
    ]);
    fc.assert(
      fc.property(fc.constantFrom('resistor', 'capacitor'), fc.integer({ min: 1, max: 9_999_999 }), (kind, value) => {
        const named = drawerPart(`${kind} ${value}`);
        expect(drawerPart(named ?? '')).toBe(named);
      }),
    );
    const { entries } = drawerFromCsv('10k,5\nresistor 10 kΩ,7\n1u,0\n22n,1\n74HC00,2');
    expect(entries[0]).toEqual({ part: 'resistor 10 kΩ', count: 12 });
    expect(looseValues(entries)).toEqual({ ohms: [10_000], farads: [22e-9] });
  });

  it('counts families whose levels meet both ways, and gives each package the number that is there, its own family first', async () => {
    const families: FamilyId[] = ['74', 'LS', 'HC', 'HCT', 'ACT'];
    expect(families.filter((f) => levelsMeet(f, 'HC'))).toEqual(['HC', 'HCT', 'ACT']);
    expect(families.filter((f) => levelsMeet(f, 'LS'))).toEqual(['74', 'LS', 'HCT', 'ACT']);
    for (const a of families) for (const b of families) expect(levelsMeet(a, b)).toBe(levelsMeet(b, a));
    // HCT goes with both, but they not with each other: those of which there are more count.
    const both = [
      { part: '74LS00', count: 2 },
      { part: '74HC00', count: 5 },
      { part: '74HCT04', count: 1 },
    ];
    expect([...stockOf(both, 'HCT')]).toEqual([
      ['7400', 5],
      ['7404', 1],
    ]);
    expect(mixtureOf(both)).toEqual({ family: 'HC', others: ['HCT'] });
    expect(mixtureOf([{ part: 'resistor 10 kΩ', count: 9 }])).toBeNull();
    const entries = [
      { part: '74LS00', count: 9 },
      { part: '74HCT00', count: 5 },
      { part: '74HC00', count: 1 },
    ];
    expect([...stockOf(entries, 'HC')]).toEqual([['7400', 6]]);
    const { netlist } = readDesign(
      'in A B C\nout X Y Z V W\nX = nand(A, B)\nY = nand(A, C)\nZ = nand(B, C)\nV = nand(X, C)\nW = nand(Y, B)',
    ).design;
    const supplies = { ...anySupplies, drawer: stockOf(entries, 'HC') };
    const { packing } = await packByStrategy(
      netlist ?? expect.fail(),
      { family: 'HC', strategy: 'drawer', supplies },
      solve,
      { limits: { effort: 2 } },
    );
    const named = asInDrawer(packing ?? expect.fail(), entries, 'HC');
    expect(named.packages.map((p) => p.part)).toEqual(['74HC00', '74HCT00']);
    expect(asInDrawer(named, [], 'HC').packages).toEqual(named.packages);
  });

  it('is stock of one family only', () => {
    const stock = stockOf(
      [
        { part: '74HC00', count: 2 },
        { part: '74LS00', count: 5 },
        { part: 'NE555', count: 1 },
      ].map(plain),
      'HC',
    );
    expect([...stock]).toEqual([
      ['7400', 2],
      ['555', 1],
    ]);
  });

  it('names the line of what it does not understand', () => {
    const { findings } = drawerFromCsv('part,count\n74HC00,2\nteapot,1\n74HC02,-3\n74HC04,2,cheap');
    expect(findings.map((f) => [f.code, (f.facts as { line: number }).line])).toEqual([
      ['drawer/no-part', 3],
      ['drawer/bad-number', 4],
      ['drawer/bad-number', 5],
    ]);
  });
});
