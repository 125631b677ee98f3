import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findChip, readDesign } from '../catalogue';
import { type Netlist, printSheet } from '../design';
import { says } from '../finding';
import { AMPLE, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import {
  addPackage,
  areEqual,
  type ByHand,
  dropPackage,
  dutyOf,
  lockGate,
  moveGate,
  parsePlace,
  placeOf,
  placesFor,
  printPlace,
  swapInputs,
} from './by-hand';
import { whatIsWrong } from './check';
import { type Locks, locksBroken, noLocks } from './locks';
import { pack } from './pack';
import type { Packing, Strategy } from './packing';
import { packByStrategy } from './strategies';
import { anySupplies, strategies } from './strategy-goals';
import { choosable, pinsFor, unitKindsOf } from './units';

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(`not read: ${text}`);
const done = (b: ByHand): { packing: Packing; locks: Locks } => (b.ok ? b : expect.fail(says(b.finding)));
const why = (b: ByHand): string => (b.ok ? expect.fail('it was possible') : b.finding.code);
const written = async (netlist: Netlist): Promise<Packing> =>
  (await pack(netlist, 'HC', solve)).packing ?? expect.fail('not packed');
const again = (netlist: Netlist, locks: Locks, strategy: Strategy, excluded: readonly string[] = []) =>
  packByStrategy(netlist, { family: 'HC', strategy, supplies: { ...anySupplies, locks, excluded } }, solve, {
    limits: { effort: AMPLE },
  });

const text = 'in A B C\nout Y Z N\nY = nand(A, B)\nZ = nand(B, C)\nN = ~C';
const netlist = netlistOf(text);

describe('a gate moved by hand', () => {
  it('goes to any unit that can do it, comes back in exchange, and the design is computed all the same', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.nat(), fc.nat(), async (sheet, which, where) => {
        const { netlist: design } = readDesign(printSheet(sheet)).design;
        if (!design || design.gates.length === 0 || design.gates.length > 12) return;
        let { packing, locks } = done(addPackage(await written(design), noLocks, 'HC', '7400'));
        const used = packing.packages.flatMap(({ ref, units }) =>
          units.flatMap((use, unit) => (use ? [{ ref, unit, net: use.output }] : [])),
        );
        const from = used[which % used.length] ?? expect.fail();
        const places = placesFor(packing, locks, design, from);
        const to = places[where % Math.max(1, places.length)];
        if (!to) return;
        ({ packing, locks } = done(moveGate(packing, locks, design, { from, to })));
        expect(whatIsWrong(design, packing)).toBeNull();
        expect(placeOf(packing, from.net)).toEqual(to);
        expect(locksBroken(packing, locks)).toBeNull();
      }),
      { numRuns: 60 },
    );
  }, 60_000);

  it('stays where it is through every packing afterwards, or the packing says which pin stands in the way', async () => {
    await fc.assert(
      fc.asyncProperty(
        arbitrarySheet,
        fc.nat(),
        fc.constantFrom(...strategies.map((w) => w.strategy)),
        async (sheet, n, strategy) => {
          const { netlist: design } = readDesign(printSheet(sheet)).design;
          if (!design || design.gates.length === 0 || design.gates.length > 10 || strategy === 'drawer') return;
          const packing = await written(design);
          const nets = packing.packages.flatMap((p) => p.units.flatMap((u) => (u ? [u.output] : [])));
          let locks: Locks = noLocks;
          for (const net of [nets[n % nets.length], nets[(n >> 8) % nets.length]]) {
            const pinned = lockGate(packing, locks, design, { net: net as string, on: true });
            if (pinned.ok) locks = pinned.locks;
          }
          const { packing: next, findings } = await again(design, locks, strategy);
          if (!next) {
            expect(findings.map((f) => f.code).join()).toMatch(/^pack\/(pin|held|no-way)/);
            expect(['written', 'fewest']).not.toContain(
              findings.some((f) => f.code === 'pack/pin-idle') ? '' : strategy,
            );
            return;
          }
          expect(locksBroken(next, locks)).toBeNull();
          expect(whatIsWrong(design, next)).toBeNull();
        },
      ),
      { numRuns: 80 },
    );
  }, 120_000);

  it('takes an inverter to any unit that inverts, with its inputs joined or tied', async () => {
    let { packing, locks } = done(addPackage(await written(netlist), noLocks, 'HC', '7486'));
    const from = placeOf(packing, 'N') ?? expect.fail();
    ({ packing, locks } = done(moveGate(packing, locks, netlist, { from, to: { ref: 'U2', unit: 2 } })));
    expect(packing.packages[1]?.units[2]?.inputs).toEqual(['C', '1']);
    expect(locks.pins).toEqual([{ net: 'N', ref: 'U2', unit: 2, part: '7486', inputs: ['C', '1'] }]);
    for (const strategy of ['written', 'fewest'] as const) {
      const { packing: next } = await again(netlist, locks, strategy);
      expect(placeOf(next ?? expect.fail(strategy), 'N')).toEqual({ ref: 'U2', unit: 2 });
    }
  });

  it('does what it did on whatever unit takes it: what a unit is used for is what puts it there', () => {
    for (const kind of unitKindsOf(choosable)) {
      const nets = Array.from(
        { length: kind.duty.kind === 'aoi' ? 2 * kind.duty.width : kind.duty.width },
        (_, i) => `n${i}`,
      );
      const { duty, nets: read } = dutyOf(kind, pinsFor(kind, kind.duty, nets));
      expect(duty).toEqual(kind.duty);
      expect(new Set(read)).toEqual(new Set(nets));
    }
  });
});

describe('an impossible wish says why', () => {
  it('when a unit cannot do it, is spare, or is none', async () => {
    const { packing, locks } = done(addPackage(await written(netlist), noLocks, 'HC', '7408'));
    const y = placeOf(packing, 'Y') ?? expect.fail();
    expect(why(moveGate(packing, locks, netlist, { from: y, to: { ref: 'U2', unit: 0 } }))).toBe('hand/unit-cannot');
    expect(why(moveGate(packing, locks, netlist, { from: { ref: 'U2', unit: 0 }, to: y }))).toBe('hand/spare-unit');
    expect(why(moveGate(packing, locks, netlist, { from: y, to: { ref: 'U2', unit: 4 } }))).toBe('hand/no-unit');
    expect(why(moveGate(packing, locks, netlist, { from: { ref: 'U7', unit: 0 }, to: y }))).toBe('hand/no-unit');
  });

  it('when what would come back in exchange does not fit', async () => {
    const design = netlistOf('in A B C\nout Y Z\nY = nand(A, B, C)\nZ = nand(A, B)');
    let { packing, locks } = done(addPackage(await written(design), noLocks, 'HC', '7400'));
    const z = placeOf(packing, 'Z') ?? expect.fail();
    ({ packing, locks } = done(moveGate(packing, locks, design, { from: z, to: { ref: 'U2', unit: 0 } })));
    expect(
      why(
        moveGate(packing, locks, design, { from: { ref: 'U2', unit: 0 }, to: placeOf(packing, 'Y') ?? expect.fail() }),
      ),
    ).toBe('hand/unit-cannot');
  });

  it('when a part used by number or a step of the packing is meant', async () => {
    const design = netlistOf('in D CK\nout Q\nQ = D at rise CK');
    const packing = await written(design);
    const q = placeOf(packing, 'Q') ?? expect.fail();
    expect(why(moveGate(packing, noLocks, design, { from: q, to: { ...q, unit: 1 } }))).toBe('hand/by-number');
    const wide = netlistOf('in A B C D E\nout Y\nY = A & B & C & D & E');
    const split = await written(wide);
    const step = split.packages[0]?.units[0]?.output ?? expect.fail();
    expect(step).not.toBe('Y');
    expect(why(lockGate(split, noLocks, wide, { net: step, on: true }))).toBe('hand/not-the-sheets');
  });

  it('when a way to build has no such chip, the chip is struck out, or two gates come to one signal', async () => {
    const packing = await written(netlist);
    const { locks } = done(lockGate(packing, noLocks, netlist, { net: 'Y', on: true }));
    const codes = async (p: ReturnType<typeof again>) => (await p).findings.map((f) => f.code);
    expect(await codes(again(netlist, locks, 'nor'))).toEqual(['pack/pin-chip']);
    expect(await codes(again(netlist, locks, 'written', ['7400']))).toEqual(['pack/pin-chip']);
    expect(await codes(again(netlist, locks, 'fewest', ['7400']))).toEqual(['pack/pin-chip']);
    const twin = netlistOf('in A B\nout Y Z\nY = nand(A, B)\nZ = or(~A, ~B)');
    const pins = ['Y', 'Z'].map((net, unit) => ({ net, ref: 'U1', part: '7400', unit, inputs: ['A', 'B'] }));
    const both = { pins, added: [] };
    expect(await codes(again(twin, both, 'fewest'))).toEqual(['pack/pin-same']);
  });

  it('when a pinned gate is no longer on the sheet it is told and passed over', async () => {
    const { locks } = done(lockGate(await written(netlist), noLocks, netlist, { net: 'Z', on: true }));
    const { packing, findings } = await again(netlistOf('in A B\nout Y\nY = nand(A, B)'), locks, 'written');
    expect(packing?.packages).toHaveLength(1);
    expect(findings.map((f) => [f.code, f.severity])).toEqual([['pack/pin-gone', 'note']]);
  });

  it('when more packages are asked for than the drawer holds', async () => {
    const { locks } = done(addPackage(await written(netlist), noLocks, 'HC', '7408'));
    const supplies = { ...anySupplies, locks, drawer: new Map([['7400', 3]]) };
    const { findings } = await packByStrategy(netlist, { family: 'HC', strategy: 'drawer', supplies }, solve, {
      limits: { effort: 2 },
    });
    expect(findings.map((f) => f.code)).toEqual(['pack/held-short']);
  });
});

describe('inputs', () => {
  it('that are equal can be swapped, and stay so while the gate is pinned', async () => {
    let { packing, locks } = done(lockGate(await written(netlist), noLocks, netlist, { net: 'Y', on: true }));
    const y = placeOf(packing, 'Y') ?? expect.fail();
    ({ packing, locks } = done(swapInputs(packing, locks, y, { i: 0, j: 1 })));
    const read = (p: Packing | null) => p?.packages.find((x) => x.ref === y.ref)?.units[y.unit]?.inputs;
    expect(read(packing)).toEqual(['B', 'A']);
    expect(whatIsWrong(netlist, packing)).toBeNull();
    expect(read((await again(netlist, locks, 'written')).packing)).toEqual(['B', 'A']);
  });

  it('are equal where swapping them leaves every row of the unit as it is', () => {
    const [aoi] = findChip('7451')?.units.filter((u) => u.inputs.length === 4) ?? [];
    if (!aoi) expect.fail('no unit');
    const equal = [0, 1, 2, 3].map((j) => areEqual(aoi, 0, j));
    expect(equal.filter(Boolean)).toHaveLength(2);
    expect(areEqual(findChip('7427')?.units[0] ?? expect.fail(), 0, 2)).toBe(true);
    expect(areEqual(findChip('7474')?.units[0] ?? expect.fail(), 0, 1)).toBe(false);
  });
});

describe('a package added by hand', () => {
  it('stays through every packing, takes gates, and can be taken away while it is spare', async () => {
    const added = done(addPackage(await written(netlist), noLocks, 'HC', 'SN74LS08N'));
    expect(added.packing.packages.map((p) => [p.ref, p.part])).toEqual([
      ['U1', '74HC00'],
      ['U2', '74HC08'],
    ]);
    for (const strategy of ['written', 'fewest', 'nand'] as const) {
      const { packing } = await again(netlist, added.locks, strategy);
      expect(
        packing?.packages.some((p) => p.ref === 'U2' && p.part === '74HC08'),
        strategy,
      ).toBe(true);
    }
    expect(done(dropPackage(added.packing, added.locks, 'U2')).locks).toEqual(noLocks);
    expect(why(dropPackage(added.packing, added.locks, 'U1'))).toBe('hand/still-used');
    expect(why(addPackage(added.packing, added.locks, 'HC', '7447'))).toBe('hand/not-choosable');
  });
});

it('units are written as people write them', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9999 }), fc.integer({ min: 0, max: 98 }), (n, unit) => {
      expect(parsePlace(printPlace({ ref: `U${n}`, unit }))).toEqual({ ref: `U${n}`, unit });
    }),
  );
  expect([parsePlace('U0.1'), parsePlace('U1'), parsePlace('x')]).toEqual([null, null, null]);
});
