import { describe, expect, it } from 'vitest';
import { compileMachine } from '../logic';
import { pinouts } from '../testing/pinouts';
import { byName, catalogue, chipLibrary, findChip, partType } from './catalogue';
import { chips } from './chips';
import { families, familyIds, otherPartOf, partNumber, readPartNumber } from './family';
import { supplyMa } from './supply-current';

const parts = chips.map((c) => partType(partNumber(c.base, c.families[0] ?? 'HC')) ?? expect.fail(c.base));

/** `A 1 4, Q#0 3 2` as `1A 1`, `2A 4`, `Q0 3`, `Q1 2`. */
function spelledOut(pinout: string): string[] {
  return pinout.split(', ').flatMap((entry) => {
    const [name, ...numbers] = entry.split(' ') as [string, ...string[]];
    return numbers.map((n, i) => {
      if (numbers.length === 1 || name === 'NC') return `${name} ${n}`;
      if (name.includes('#0')) return `${name.replace('#0', String(i))} ${n}`;
      return name.includes('#') ? `${name.replace('#', String(i + 1))} ${n}` : `${i + 1}${name} ${n}`;
    });
  });
}

describe('the chips of the catalogue', () => {
  it('have the pins of their data sheets, written down a second time by what each pin does', () => {
    expect(parts.map((p) => p.id).sort()).toEqual(Object.keys(pinouts).sort());
    for (const part of parts) {
      const found = part.pins.map((p) => `${p.name} ${p.id}`).sort(byName);
      expect(found, part.id).toEqual(spelledOut(pinouts[part.id] ?? '').sort(byName));
    }
  });

  it.each(parts)('$id has supply and ground, and each other pin once in a unit or nowhere', ({ pins, units }) => {
    expect(pins.filter((p) => p.role === 'supply')).toHaveLength(1);
    expect(pins.filter((p) => p.role === 'ground')).toHaveLength(1);
    const ins = units.flatMap((u) => u.inputs);
    const outs = units.flatMap((u) => u.outputs.filter((_, o) => u.drives[o] !== 'analogue-switch'));
    const of = (...roles: string[]) => pins.filter((p) => roles.includes(p.role)).map((p) => p.id);
    expect([...outs].sort(byName)).toEqual(of('output', 'both').sort(byName));
    expect([...new Set(ins)].sort(byName)).toEqual(of('input', 'both').sort(byName));
    for (const unit of units) expect(unit.drives).toHaveLength(unit.outputs.length);
  });

  it.each(parts)(
    '$id has analogue switches only between pins that carry no level of their own',
    ({ pins, units, inner }) => {
      const moved = units.flatMap((u) => u.outputs.filter((_, o) => u.drives[o] === 'analogue-switch'));
      const { devices = [] } = inner ?? {};
      expect(devices.map(({ a }) => a).sort(byName)).toEqual(moved.sort(byName));
      for (const { a, b } of devices)
        for (const id of [a, b]) expect(pins.find((p) => p.id === id)?.role).toBe('analogue');
    },
  );

  it.each(parts)('$id counts its pins counter-clockwise from the notch at the left', ({ pins, chip }) => {
    const half = pins.length / 2;
    const row = Array.from({ length: half }, (_, dx) => dx);
    expect(pins.slice(0, half).map((p) => [p.dx, p.dy])).toEqual(row.map((dx) => [dx, 0]));
    expect(pins.slice(half).map((p) => [p.dx, p.dy])).toEqual(row.reverse().map((dx) => [dx, -(chip?.rows ?? 3)]));
  });

  it('have units as people count them, and like units are alike', () => {
    const of = (base: string) => partType(partNumber(base, 'LS'))?.units ?? [];
    expect([of('7400').length, of('7474').length, of('74240').length, of('7493').length, of('74283').length]).toEqual([
      4, 2, 2, 1, 1,
    ]);
    expect(new Set(of('7474').map((u) => u.like)).size).toBe(1);
    expect(new Set(of('7451').map((u) => u.like)).size).toBe(2);
    expect(of('7403')[0]).toMatchObject({ drives: ['open-collector'], gate: null, symbol: 'nand' });
    expect(of('74125')[0]).toMatchObject({ drives: ['three-state'], gate: null, symbol: 'buffer' });
  });

  it('say what catches people out, in a sentence, and no two the same title for one behaviour', () => {
    for (const c of chips) expect(c.caveat).toMatch(/^[A-Z0-9].{20,}\.$/);
    expect(new Set(chips.map((c) => c.title)).size).toBe(chips.length);
  });

  it('can be used in a sheet by any form of their number', () => {
    for (const text of ['7493', '93', '74HC93', 'SN74LS93N']) expect(chipLibrary(text)?.base).toBe('7493');
    expect(chipLibrary('led')).toBeNull();
    for (const { behaviour } of parts.flatMap((p) => p.units)) expect(() => compileMachine(behaviour)).not.toThrow();
  });
});

describe('part numbers', () => {
  it('are written and read with their family', () => {
    for (const { base } of chips)
      for (const family of familyIds) {
        // The same number is another part in some families, and a memory without letters is of one alone.
        const made = findChip(base)?.chip?.families ?? [];
        if ((otherPartOf(base) || base.startsWith('28')) && !made.includes(family)) continue;
        const read = readPartNumber(partNumber(base, family));
        expect(read).toEqual({ base, family: base.startsWith('55') ? null : family });
      }
  });

  it.each([
    ['SN74LS00N', '7400', 'LS'],
    ['DM7493AN', '7493', '74'],
    ['MM74HC4017N', '4017', 'HC'],
    ['CD74HCT138E', '74138', 'HCT'],
    ['N74F74D', '7474', 'F'],
    ['sn 74als 245 an', '74245', 'ALS'],
    ['74HC7266', '747266', 'HC'],
    ['SN7473N', 'SN7473', '74'],
    ['SN74LS73AN', '7473', 'LS'],
    ['74S51', 'SN7451', 'S'],
    ['DM74LS51N', '7451', 'LS'],
    ['M74HC4002B1R', '4002', 'HC'],
    ['NE555P', '555', null],
    ['LM556CN', '556', null],
  ])('%s is a %s', (text, base, family) => {
    expect(readPartNumber(text)).toEqual({ base, family });
  });

  it.each(['74HC99', '74XX00', 'constructor', '', 'HC00', '74HC', '__proto__', '5555', 'CD4017BE'])(
    '%j is no part',
    (text) => {
      expect(partType(text)).toBeNull();
    },
  );

  it('may be short where a person looks one up', () => {
    expect(['93', '7266', '4017', '555', 'SN7473', '7473', '74HC'].map((t) => findChip(t)?.id ?? null)).toEqual([
      '7493',
      '747266',
      '4017',
      '555',
      'SN7473',
      '7473',
      null,
    ]);
  });
});

describe('drives of single chips', () => {
  it.each([
    ['74365', 'LS', [24, 2.6]],
    ['74366', 'LS', [24, 2.6]],
    ['74367', 'LS', [24, 2.6]],
    ['74368', 'LS', [24, 2.6]],
    ['74240', 'LS', [24, 15]],
    ['74240', 'HC', [6, 6]],
    ['74244', 'HC', [6, 6]],
    ['74251', 'LS', [8, 2.6]],
    ['74257', 'LS', [24, 2.6]],
    ['74257', 'HC', [6, 6]],
  ] as const)(
    'the outputs of the %s in %s sink and give what their own data sheet says',
    (base, family, milliamperes) => {
      expect(findChip(base)?.chip?.drive?.[family]).toEqual(milliamperes);
    },
  );
});

describe('families', () => {
  it('have levels that leave a margin, and outputs that drive several inputs of their own', () => {
    for (const f of Object.values(families)) {
      expect(f.outputLowV).toBeLessThan(f.inputLowV);
      expect(f.outputHighV).toBeGreaterThan(f.inputHighV);
      expect((f.outputMa.low * 1000) / f.inputUa.low).toBeGreaterThanOrEqual(10);
      expect(f.supplyV[1]).toBeLessThan(f.absoluteMaxV);
      expect(f.delayNs.typical).toBeLessThan(f.delayNs.most);
    }
  });
});

describe('the other things on a bench', () => {
  it('have leads that no two share, and bodies around them', () => {
    for (const { pins, body, kind } of catalogue().filter((p) => p.kind !== 'chip')) {
      expect(new Set(pins.map((p) => p.id)).size).toBe(pins.length);
      expect(new Set(pins.map((p) => `${p.dx} ${p.dy}`)).size, kind).toBe(pins.length);
      expect(Math.min(body.width, body.height)).toBeGreaterThan(0);
    }
  });
});

describe('what chips take from the supply', () => {
  it('has a figure for every gate chip in low-power Schottky, and next to nothing in CMOS', () => {
    for (const { id, chip, units } of parts.filter((p) => p.units.every((u) => u.gate)))
      if (chip?.families.includes('LS') && units.length > 0) {
        const ma = supplyMa(partNumber(id, 'LS'), 'HC') ?? expect.fail(id);
        // A unit takes between one and four milliamperes, inverters with hysteresis the most.
        expect(ma / units.length, id).toBeGreaterThan(0.8);
        expect(ma / units.length, id).toBeLessThan(4);
        expect(supplyMa(partNumber(id, 'HC'), 'LS')).toBeLessThan(0.1);
      }
    expect(supplyMa('74S00', 'HC')).toBeNull();
  });
});
