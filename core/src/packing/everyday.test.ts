import { describe, expect, it } from 'vitest';
import { readDesign, typeOf } from '../catalogue';
import { solve } from '../testing/interlock';
import { bestOfAll } from './best-of-all';
import type { Packing, Strategy } from './packing';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';

async function packed(sheet: string, strategy: Strategy): Promise<Packing> {
  const netlist = readDesign(sheet).design.netlist ?? expect.fail(sheet);
  const { packing, findings } = await packByStrategy(
    netlist,
    { family: 'HC', strategy, supplies: anySupplies },
    solve,
    {
      limits: { effort: 4 },
    },
  );
  return packing ?? expect.fail(JSON.stringify(findings));
}
const parts = (packing: Packing): string[] => packing.packages.map((p) => p.part).sort();

describe('at an equal count the everyday part wins', () => {
  it.each([
    ['an inverter', 'in A\nout Y\nY = ~A', ['74HC04']],
    ['a NAND', 'in A B\nout Y\nY = nand(A, B)', ['74HC00']],
    ['an OR of three', 'in A B C\nout Y\nY = A | B | C', ['74HC32']],
    [
      'six inverters',
      `in ${'ABCDEF'.split('').join(' ')}\nout ${[1, 2, 3, 4, 5, 6].map((n) => `Y${n}`).join(' ')}\n${[...'ABCDEF'].map((c, i) => `Y${i + 1} = ~${c}`).join('\n')}`,
      ['74HC04'],
    ],
    ['an AND', 'in A B\nout Y\nY = A & B', ['74HC08']],
    ['an exclusive or', 'in A B\nout Y\nY = A ^ B', ['74HC86']],
  ])('%s', async (_, sheet, wanted) => {
    expect(parts(await packed(sheet, 'fewest'))).toEqual(wanted);
    expect(parts(await packed(sheet, 'kinds'))).toEqual(wanted);
  });
});

describe('as written', () => {
  it('each gate sits on a unit of its own kind and width, wide ones are split, and names stay', async () => {
    const sheet = 'in A B C D E\nout W X Y Z\nW = ~A\nX = nand(A, B)\nY = A | B | C | D | E\nZ = nand(B, C, D)';
    const own = await packed(sheet, 'own');
    expect(parts(own)).toEqual(['74HC00', '74HC04', '74HC10', '74HC32']);
    expect(parts(await packed(sheet, 'written')).length).toBeLessThan(4);
    const made = own.packages.flatMap((p) => p.units.flatMap((u) => (u ? [u.output] : [])));
    for (const net of ['W', 'X', 'Y', 'Z']) expect(made).toContain(net);
    for (const net of made) expect(net).toMatch(/^[WXYZ](\.\d)?$/);
    for (const { units, ...named } of own.packages)
      for (const [u, use] of units.entries())
        if (use) expect(new Set(use.inputs).size).toBe(typeOf(named)?.units[u]?.inputs.length);
  });
});

describe('ways side by side', () => {
  it('none is worse at its own goal than what another found', async () => {
    const sheet = 'in A B C\nout Y Z\nY = A & B | C\nZ = nand(A, C)';
    const found = await Promise.all(
      (['fewest', 'kinds', 'jumpers'] as const).map(async (strategy) => ({
        strategy,
        packing: await packed(sheet, strategy),
      })),
    );
    const [fewest, kinds] = bestOfAll(found, anySupplies);
    const few = fewest?.packages.length ?? 0;
    expect(new Set(kinds?.packages.map((p) => p.part)).size).toBeLessThanOrEqual(
      new Set(fewest?.packages.map((p) => p.part)).size,
    );
    for (const { packing } of found) expect(few).toBeLessThanOrEqual(packing.packages.length);
    // A worse one that a way is stuck with gives way to what another has.
    const [, better] = bestOfAll(
      [
        { strategy: 'kinds', packing: found[1]?.packing ?? null },
        {
          strategy: 'fewest',
          packing: {
            ...(found[0]?.packing as Packing),
            packages: [...(found[0]?.packing.packages ?? []), ...(found[2]?.packing.packages ?? [])],
          },
        },
      ],
      anySupplies,
    );
    expect(better?.packages.length).toBe(found[1]?.packing.packages.length);
  });
});

describe('where the person names the chips', () => {
  it('wide gates are taken before a longer row of narrow ones', async () => {
    const wide = await packed('in A B C D\nout Y\nY = nand(A, B, C, D)', 'nand');
    expect(wide.packages.flatMap((p) => p.units.filter((u) => u)).length).toBe(1);
    const tall = await packed('in A B C\nout Y\nY = nor(A, B, C)', 'nor');
    expect(tall.packages.flatMap((p) => p.units.filter((u) => u)).length).toBe(1);
  });
});
