import { describe, expect, it } from 'vitest';
import { findChip } from './catalogue';
import { chips, familiesGivenFor, outputDelaysOf } from './chips';
import { timingRequirementsOf } from './chips/timing-requirements';
import { delaysOf, edgesOf, functionTableOf, interchangeable, kindsOfUnit, limitsOf, timingOf } from './datasheet';
import { families, partNumber } from './family';
import { searchParts } from './search';

const first = (base: string) => findChip(base)?.units[0] ?? expect.fail(base);

describe('looking parts up', () => {
  it.each([
    ['three-input nor', '7427'],
    ['decade counter', '7490'],
    ['quad 2-input nand', '7400'],
    ['hex inverter', '7404'],
    ['dual d flip-flop', '7474'],
    ['multiplexer 8-to-1', '74151'],
    ['seven segment common cathode', '7448'],
    ['shift register', '7495'],
    ['open collector nand', '7403'],
    ['SN74LS93N', '7493'],
    ['93', '7493'],
    ['one-shot', '74121'],
    ['n-channel', 'nmos'],
    ['set reset latch', '74279'],
  ])('%s finds the %s first or among the first', (text, id) => {
    expect(
      searchParts(text)
        .slice(0, 4)
        .map((e) => e.id),
    ).toContain(id);
  });

  it('finds nothing for words that fit none, and everything for no words', () => {
    expect(searchParts('teapot')).toEqual([]);
    expect(searchParts(' ').length).toBeGreaterThan(120);
  });
});

describe('what a datasheet says', () => {
  it('has limits for every chip in every family it is made in', () => {
    for (const c of chips)
      for (const f of c.families) {
        const names = limitsOf(c, f).map((l) => l.name);
        expect(new Set(names).size).toBe(names.length);
        expect(names.length).toBeGreaterThan(9);
      }
  });

  it('says in what each level, current and time is promised, and over the whole range no more than at 25 °C', () => {
    for (const [id, { celsius, overRange, outputLowV, outputHighV, inputUa, supplyV, delaysAtV }] of Object.entries(
      families,
    )) {
      expect(celsius[0]).toBeLessThan(25);
      expect(celsius[1]).toBeGreaterThan(25);
      expect(delaysAtV >= supplyV[0] && delaysAtV <= supplyV[1], id).toBe(true);
      if (!overRange) continue;
      expect(overRange.outputLowV, id).toBeGreaterThan(outputLowV);
      expect(overRange.outputHighV, id).toBeLessThan(outputHighV);
      expect(overRange.inputUa, id).toBeGreaterThan(inputUa.low);
    }
    const line = (family: 'HC' | 'LS', name: string) =>
      limitsOf(chips.find((c) => c.base === '7474') ?? expect.fail(), family).find((l) => l.name.startsWith(name));
    expect(line('HC', 'Output high')).toEqual({
      name: 'Output high at least',
      value: '3.98 V',
      at: '4.5 V supply, 25 °C; 3.84 V from −40 to 85 °C',
    });
    expect(line('LS', 'Output high')?.at).toBe('4.75 V supply, 0 to 70 °C');
    expect([line('HC', 'Delay')?.at, line('LS', 'Delay')?.at]).toEqual([
      '4.5 V supply, 25 °C, 50 pF',
      '5 V supply, 25 °C, 15 pF',
    ]);
    expect(line('LS', 'Set-up')?.at).toBe('4.75 to 5.25 V, 0 to 70 °C');
  });

  it('counts like units once, and names inputs that may be exchanged', () => {
    const kinds = (base: string) => kindsOfUnit(findChip(base) ?? expect.fail()).map((k) => k.names.length);
    expect([kinds('7400'), kinds('7474'), kinds('7451')]).toEqual([[4], [2], [1, 1]]);
    expect(interchangeable(first('7410'))).toEqual([['1A', '1B', '1C']]);
    expect(interchangeable(first('7451'))).toEqual([
      ['1A', '1B', '1C'],
      ['1D', '1E', '1F'],
    ]);
    expect(interchangeable(first('74125'))).toEqual([]);
  });

  it('has a function table where there is one to have', () => {
    expect(functionTableOf(first('7400'))?.rows).toBe(4);
    expect(functionTableOf(first('7474'))).toBeNull();
  });

  it('says when a stored value changes', () => {
    expect(edgesOf(first('7474'))).toEqual([
      'changes as 1CLK rises; set at once while 1PREn is low; cleared at once while 1CLRn is low',
    ]);
    expect(edgesOf(first('74373'))).toEqual(['follows while LE is high']);
    expect(edgesOf(first('7493'))[0]).toContain('changes as CKA falls');
  });

  it('shows each part with memory over time, its outputs known after its reset and moving', () => {
    for (const c of chips) {
      const type = findChip(c.base) ?? expect.fail(c.base);
      for (const { unit } of kindsOfUnit(type)) {
        const waves = timingOf(unit);
        expect(waves.length > 0, c.base).toBe(unit.behaviour.stored.length > 0);
        if (waves.length === 0 || ['4020', '4040', '4060', '74121', '74123', '74221'].includes(c.base)) continue;
        const outputs = waves.filter((w) => !w.input);
        expect(
          outputs.some((w) => new Set(w.levels.slice(4)).size > 1),
          c.base,
        ).toBe(true);
      }
    }
  });
});

describe('delays of single outputs', () => {
  it.each(chips.map((chip) => [chip.base, chip] as const))(
    '%s: of its own outputs, the least before the most',
    (base, chip) => {
      const names = new Set(chip.pins.split(' '));
      for (const family of familiesGivenFor(base)) expect(chip.families).toContain(family);
      for (const family of chip.families) {
        for (const { pins, rise, fall } of outputDelaysOf(base, family)) {
          if (pins !== '*') for (const pin of pins.split(' ')) expect(names.has(pin), pin).toBe(true);
          for (const [typical, most] of [rise, fall]) expect(most).toBeGreaterThan(typical);
        }
      }
    },
  );

  it('are from a data sheet of the chip, in that family or another, for every chip but a few', () => {
    const without = chips.filter((chip) => chip.families.length > 0 && familiesGivenFor(chip.base).length === 0);
    // The data sheet of the driver for cold-cathode tubes gives no times.
    expect(without.map((chip) => chip.base)).toEqual(['74141']);
  });

  it('are worked out from the nearest family where its own data sheet is not at hand, and say so', () => {
    const type = findChip('74154') ?? expect.fail();
    // From the HC157, whose data sheet is at hand, to the HCT157: 11 ns to 9 ns.
    expect(outputDelaysOf('74157', 'HCT')).toEqual([
      { pins: '*', rise: [22, 31], fall: [22, 31], workedOutFrom: 'HC' },
    ]);
    expect(outputDelaysOf('74157', 'HC')[0]?.workedOutFrom).toBeNull();
    const line = limitsOf(type.chip ?? expect.fail(), 'HCT').find((l) => l.name.startsWith('Delay'));
    expect(line?.value).toMatch(/worked out from the 74(LS)?154$/);
  });

  it('are those of the output, then of the chip, then of the family', () => {
    const of = (base: string, output: string) => {
      const { rise, fall } = delaysOf(findChip(base) ?? expect.fail(base), 'LS', output);
      return [rise.typical, fall.typical];
    };
    expect([of('7493', 'QD'), of('7474', '1Q')]).toEqual([
      [34, 34],
      [13, 25],
    ]);
    // Of a long ripple counter each stage comes after the one before.
    const stages = [1, 4, 5, 12].map((n) => delaysOf(findChip('4040') ?? expect.fail(), 'HC', `Q${n}`).rise.typical);
    expect(stages).toEqual([16, 46, 56, 126]);
  });
});

describe('what clocked chips ask of their inputs', () => {
  it('stands there for every chip with a clock or trigger, in every family it is made in', () => {
    for (const chip of chips) {
      if (!/ at (rise|fall)/.test(chip.behaviour)) continue;
      for (const family of chip.families) {
        const needs = timingRequirementsOf(chip.base, family);
        if (!needs) expect.fail(partNumber(chip.base, family));
        for (const { mostMhz, highNs, lowNs } of Object.values(needs.clocks)) {
          // A clock at its greatest rate leaves room for its two widths, nearly: data sheets promise each by itself.
          expect((highNs ?? 0) + (lowNs ?? 0), partNumber(chip.base, family)).toBeLessThanOrEqual(
            1500 / (mostMhz ?? 1),
          );
        }
      }
    }
  });

  it('of another family is as much longer as its gates are slower', () => {
    expect(timingRequirementsOf('74109', 'HCT')).toMatchObject({ setUpNs: 24, workedOutFrom: 'HC' });
    expect(timingRequirementsOf('74109', 'HC')?.workedOutFrom).toBeUndefined();
  });
});
