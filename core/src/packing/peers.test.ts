import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import { printSheet } from '../design';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { whatIsWrong } from './check';
import { pack } from './pack';
import type { Package, Packing } from './packing';
import { equalUnits, withPackagesExchanged, withUnitsExchanged } from './peers';

const packed = async (text: string) => {
  const netlist = readDesign(text).design.netlist ?? expect.fail(text);
  return { netlist, packing: (await pack(netlist, 'HC', solve)).packing ?? expect.fail(text) };
};
const idle = (ref: string, part: string, units: number): Package => ({ ref, part, units: Array(units).fill(null) });

describe('units that may be exchanged', () => {
  it('are alike, of all chips of a number; of another number, family or width they are not', () => {
    const lists = equalUnits([
      idle('U1', '74HC00', 4),
      idle('U2', '74HC00', 4),
      idle('U3', '74HC112', 2),
      idle('U4', '74HC112', 2),
      idle('U5', '74LS00', 4),
      idle('U6', '74HC51', 2),
    ]);
    const texts = lists.map((slots) => slots.map((s) => `U${s.pack + 1}.${s.unit + 1}`).join(' '));
    expect(texts).toContain('U1.1 U1.2 U1.3 U1.4 U2.1 U2.2 U2.3 U2.4');
    expect(texts).toContain('U3.1 U3.2 U4.1 U4.2');
    // Another family is another part; the two halves of a 7451 are not alike.
    expect(texts).toContain('U5.1 U5.2 U5.3 U5.4');
    expect(texts.filter((t) => t.startsWith('U6'))).toEqual(['U6.1', 'U6.2']);
  });

  it('compute the same when they are exchanged, and are as they were when exchanged again', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.nat(9999), async (sheet, n) => {
        const { netlist, packing } = await packed(printSheet(sheet));
        const slots = equalUnits(packing.packages).filter((s) => s.length > 1);
        const list = slots[n % Math.max(1, slots.length)];
        const [a, b] = [list?.[(n >> 3) % list.length], list?.[(n >> 6) % list.length]];
        if (!a || !b) return;
        const other = withUnitsExchanged(packing, a, b);
        expect(whatIsWrong(netlist, other)).toBeNull();
        expect(withUnitsExchanged(other, a, b)).toEqual(packing);
        const same = (p: Packing, i: number): number[] =>
          p.packages.flatMap((x, k) => (k !== i && x.part === p.packages[i]?.part ? [k] : []));
        for (const k of same(packing, 0)) {
          const swapped = withPackagesExchanged(packing, 0, k);
          expect(whatIsWrong(netlist, swapped)).toBeNull();
          expect(swapped.packages.map((p) => p.ref)).toEqual(packing.packages.map((p) => p.ref));
          expect(withPackagesExchanged(swapped, 0, k)).toEqual(packing);
        }
      }),
      { numRuns: 40 },
    );
  });
});
