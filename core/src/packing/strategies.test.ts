import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { extractNets } from '../board';
import { readDesign } from '../catalogue';
import type { Netlist } from '../design';
import { networkOf, printSheet } from '../design';
import { isError } from '../finding';
import { inspect } from '../inspection';
import { compile, firstDifference, sweep } from '../logic';
import { plan } from '../planning';
import { agrees, walkTable } from '../simulation';
import { highsSolver } from '../solver';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { blockNumbers } from './blocks';
import { whatIsWrong } from './check';
import { exhaust } from './exhaust';
import { jumpersOf, missingFrom, pathOf } from './figures';
import { FunctionNet, functionsOf } from './functions';
import { networkOfPacking, type Packing, type Strategy, type UnitUse } from './packing';
import { packByStrategy } from './strategies';
import { anySupplies, type Supplies, strategies } from './strategy-goals';
import { choosable } from './units';

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(`not read: ${text}`);
const classic = '7400 7402 7404 7408 7410 7411 7420 7427 7432 7451 7486'.split(' ');
const classicOnly: Supplies = {
  ...anySupplies,
  excluded: [...choosable, ...blockNumbers].filter((n) => !classic.includes(n)),
};

/** Many functions of five inputs: more than the effort of a test settles. */
const arrivals = `in A B C D E
out P Q R S
P = (A ^ B) & C | D & ~E | A & E
Q = A & ~C | (B ^ D) & E
R = (A | D) ^ (B & E) ^ C
S = ~(A & C | B & D | E)`;

async function packed(
  text: string,
  strategy: Strategy,
  { supplies = anySupplies, effort = 0.5 }: { supplies?: Supplies; effort?: number } = {},
): Promise<Packing> {
  const { packing, findings } = await packByStrategy(netlistOf(text), { family: 'HC', strategy, supplies }, solve, {
    limits: { effort },
  });
  return packing ?? expect.fail(findings.map((f) => f.code).join());
}

describe('the true minimum', () => {
  it('of every function of 3 inputs: of the 80 up to the order of inputs 3 need no package, 47 one, 30 two', () => {
    const seen = new Map<number, number>();
    const orders = [
      [0, 1, 2],
      [0, 2, 1],
      [1, 0, 2],
      [1, 2, 0],
      [2, 0, 1],
      [2, 1, 0],
    ] as const;
    const permuted = (f: number, order: readonly number[]): number => {
      let g = 0;
      for (let r = 0; r < 8; r++) {
        const s = order.reduce((at, from, to) => at | (((r >> from) & 1) << to), 0);
        g |= ((f >> r) & 1) << s;
      }
      return g;
    };
    for (let f = 0; f < 256; f++) {
      if (orders.some((o) => permuted(f, o) < f)) continue;
      const functions = new FunctionNet(['A', 'B', 'C']);
      const root = functions.add(Int32Array.of(f), 1);
      const given = root < 2 || (functions.isSource(root >> 1) && root % 2 === 0);
      let packages = 0;
      if (!given)
        for (packages = 1; packages <= 2; packages++) {
          const answer = exhaust(functions, [root], { chips: classic, stock: new Map(), packages }, { steps: 1e8 });
          if (answer.found) break;
          expect(answer.none).toBe(true);
        }
      seen.set(packages, (seen.get(packages) ?? 0) + 1);
    }
    expect([...seen].sort()).toEqual([
      [0, 3],
      [1, 47],
      [2, 30],
    ]);
  });

  it.each([
    [
      '2-bit comparator',
      'in A B C D\nout G E L\nG = A & ~C | ~(A ^ C) & B & ~D\nE = ~(A ^ C) & ~(B ^ D)\nL = ~(G | E)',
      2,
    ],
    ['half adder', 'in A B\nout S C\nS = A ^ B\nC = A & B', 2],
    ['half subtractor, as products', 'in A B\nout D L\nD = A & ~B | ~A & B\nL = ~A & B', 2],
    ['1-bit comparator', 'in A B\nout G E L\nG = A & ~B\nE = ~(A ^ B)\nL = ~A & B', 1],
    ['full adder', 'in A B C\nout S D\nS = A ^ B ^ C\nD = A & B | A & C | B & C', 2],
    [
      'full adder, as minterms',
      'in A B C\nout S D\ntable S D of A B C\n000 : 00\n001 : 10\n010 : 10\n011 : 01\n100 : 10\n101 : 01\n110 : 01\n111 : 11',
      2,
    ],
    ['2-bit adder', 'in A B C D\nout S T U\nT = B ^ D\nc = B & D\nS = A ^ C ^ c\nU = A & C | c & (A | C)', 2],
    [
      '2x2-bit multiplier',
      'in A B C D\nout P Q R S\nS = B & D\nR = (A & D) ^ (B & C)\nQ = A & C & ~(B & D)\nP = A & B & C & D',
      3,
    ],
  ])(
    'of the %s is found and settled, whatever form the sheet has',
    async (_, text, packages) => {
      const packing = await packed(text, 'fewest', { supplies: classicOnly, effort: 2 });
      expect(packing.packages.length).toBe(packages);
      expect([packing.proof, packing.bound]).toEqual(['all', packages]);
    },
    60_000,
  );
});

describe('strategies', () => {
  const all = strategies.map((w) => w.strategy).filter((w) => w !== 'drawer');

  it('find the same on a machine on which all takes a thousand times as long', async () => {
    const [monotonic, date] = [performance.now.bind(performance), Date.now];
    // Solved anew each time: the tests' own solver keeps what it answered.
    const anew = highsSolver();
    const made = async (strategy: Strategy) =>
      (
        await packByStrategy(netlistOf(arrivals), { family: 'HC', strategy, supplies: anySupplies }, anew, {
          limits: { effort: 0.2 },
        })
      ).packing;
    for (const strategy of ['fewest', 'kinds', 'jumpers'] as const) {
      const quiet = await made(strategy);
      expect(quiet).not.toBeNull();
      vi.spyOn(performance, 'now').mockImplementation(() => 1000 * monotonic());
      vi.spyOn(Date, 'now').mockImplementation(() => 1000 * date());
      expect(await made(strategy)).toEqual(quiet);
      vi.restoreAllMocks();
    }
  });

  it('end when the person wants it, with the best so far', async () => {
    const until = Date.now();
    for (const strategy of all) {
      const { packing } = await packByStrategy(
        netlistOf(arrivals),
        { family: 'HC', strategy, supplies: anySupplies },
        solve,
        {
          limits: {
            effort: 1000,
            until,
          },
        },
      );
      // As written and what betters it have their own small program; without any answer nothing is claimed.
      expect(packing?.proof ?? 'best').toBe('best');
    }
  });

  it('each compute any sheet, by the networks of their units', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, fc.constantFrom(...all), async (sheet, strategy) => {
        const { netlist } = readDesign(printSheet(sheet)).design;
        if (!netlist || netlist.gates.length > 9) return;
        const { packing } = await packByStrategy(netlist, { family: 'HC', strategy, supplies: classicOnly }, solve, {
          limits: { effort: 0.4 },
        });
        if (!packing) return;
        const [wanted, made] = [networkOf(netlist), networkOfPacking(packing)].map((n) => sweep(compile(n)));
        expect(firstDifference(wanted as never, made as never)).toBeNull();
        const written = (
          await packByStrategy(netlist, { family: 'HC', strategy: 'written', supplies: anySupplies }, solve)
        ).packing;
        if (strategy === 'fewest' && written)
          expect(packing.packages.length).toBeLessThanOrEqual(written.packages.length);
      }),
      { numRuns: 25 },
    );
  }, 120_000);

  const sheet = 'in A B C\nout S D N\nS = A ^ B ^ C\nD = A & B | A & C | B & C\nN = ~(A | B | C)';

  it.each(all)(
    '%s: planned, its board has nothing to mend and walks as the sheet wants',
    async (strategy) => {
      const packing = await packed(sheet, strategy);
      const { board } = plan(packing);
      if (!board) expect.fail('no board');
      const nets = extractNets(board);
      expect(inspect(board, nets, packing, 'HC').filter(isError)).toEqual([]);
      const netlist = netlistOf(sheet);
      const table = sweep(compile(networkOf(netlist)));
      for (const { row, seen } of walkTable(board, nets, { inputs: netlist.inputs, outputs: ['S', 'D', 'N'] })) {
        const wanted = [0, 1, 2].map((o) => (((table.columns[o]?.[row >>> 5] ?? 0) >>> (row & 31)) & 1) as 0 | 1);
        expect(agrees(seen, wanted), `row ${row}`).toBe(true);
      }
    },
    30_000,
  );

  it.each(['nand', 'nor', 'fewest'] as const)(
    '%s: an exclusive or of seven inputs is built from what there is',
    async (strategy) => {
      const text = 'in A B C D E F G\nout Y\nY = A ^ B ^ C ^ D ^ E ^ F ^ G';
      expect(
        (await packed(text, strategy, { supplies: { ...anySupplies, excluded: ['74280'] } })).packages.length,
      ).toBeGreaterThan(1);
    },
    60_000,
  );

  it('of outputs that are inputs or constants take no chip, and say so', async () => {
    const packing = await packed('in A B\nout Y Z\nY = A\nZ = 1', 'fewest');
    expect([packing.packages, packing.proof, packing.outputs.map((o) => o.net)]).toEqual([[], 'all', ['A', '1']]);
  });

  it('keep what they promise', async () => {
    const of = async (strategy: Strategy) => packed(sheet, strategy);
    const [written, fewest, nand, kinds, short, wires] = [
      await of('written'),
      await of('fewest'),
      await of('nand'),
      await of('kinds'),
      await of('shortest'),
      await of('jumpers'),
    ];
    expect(new Set(nand.packages.map((p) => p.part.slice(4)))).toEqual(
      new Set(nand.packages.map((p) => p.part.slice(4)).filter((n) => ['00', '10', '20', '30'].includes(n))),
    );
    expect(fewest.packages.length).toBeLessThanOrEqual(Math.min(written.packages.length, nand.packages.length));
    const others = [written, fewest, nand, wires];
    expect(new Set(kinds.packages.map((p) => p.part)).size).toBe(1);
    for (const p of others) expect(pathOf(short).gates).toBeLessThanOrEqual(pathOf(p).gates);
    for (const p of [written, fewest, nand, short]) expect(jumpersOf(wires)).toBeLessThanOrEqual(jumpersOf(p));
  }, 60_000);

  it('from the drawer takes no more of anything than there is, and says when it cannot', async () => {
    const drawer = new Map([
      ['7400', 1],
      ['7402', 3],
      ['7404', 1],
    ]);
    const packing = await packed('in A B\nout Y\nY = A ^ B', 'drawer', { supplies: { ...anySupplies, drawer } });
    expect(missingFrom(packing, drawer)).toEqual([]);
    const large = 'in A B C D E F\nout Y\nY = A ^ B ^ C ^ D ^ E ^ F';
    const { packing: none, findings } = await packByStrategy(
      netlistOf(large),
      { family: 'HC', strategy: 'drawer', supplies: { ...anySupplies, drawer: new Map([['7400', 1]]) } },
      solve,
      { limits: { effort: 2 } },
    );
    expect(findings.map((f) => f.code)).toEqual(['pack/drawer-lacks']);
    // The nearest: what is lacking could not be less, and is told exactly.
    expect(none && missingFrom(none, new Map([['7400', 1]])).map((m) => m.need - m.have)).toEqual([2]);
    const written = await packed(large, 'written');
    expect(missingFrom(written, drawer)).toEqual([{ part: '74HC86', need: 2, have: 0 }]);
  }, 30_000);

  it('leave out the chips struck out', async () => {
    const packing = await packed('in A B\nout Y\nY = A ^ B', 'fewest', {
      supplies: { ...anySupplies, excluded: ['7486', '747266'] },
    });
    expect(packing.packages.map((p) => p.part)).not.toContain('74HC86');
  });
});

describe('a wrong packing', () => {
  const text = 'in A B C\nout Y Z\nY = nand(A, B)\nZ = Y ^ C';
  const change = (packing: Packing, edit: (use: UnitUse) => UnitUse | null): Packing => ({
    ...packing,
    packages: packing.packages.map((p, i) => (i > 0 ? p : { ...p, units: p.units.map((u) => (u ? edit(u) : u)) })),
  });

  it('is found: a unit missing, an input elsewhere, a loop, a net driven twice, pins too few, an output joined to ground', async () => {
    const packing = await packed(text, 'written');
    expect(whatIsWrong(netlistOf(text), packing)).toBeNull();
    const first = packing.packages[0]?.units.find((u) => u !== null) ?? expect.fail();
    const wrong = (edit: (use: UnitUse) => UnitUse | null) => whatIsWrong(netlistOf(text), change(packing, edit));
    expect(wrong(() => null)).toMatch(/not made/);
    expect(wrong((u) => ({ ...u, inputs: u.inputs.map(() => 'C') }))).toMatch(/another function/);
    expect(wrong((u) => ({ ...u, inputs: [u.output, ...u.inputs.slice(1)] }))).toMatch(/depends on itself/);
    expect(wrong((u) => ({ ...u, inputs: u.inputs.slice(1) }))).toMatch(/other pins/);
    expect(wrong((u) => ({ ...u, output: '0' }))).toMatch(/driven twice/);
    const twice = {
      ...packing,
      packages: [...packing.packages, { ref: 'U9', part: '74HC00', units: [first, null, null, null] }],
    };
    expect(whatIsWrong(netlistOf(text), twice)).toMatch(/driven twice/);
  });

  it('of any use in any packing is found when it changes what the design does', async () => {
    const sheetText = 'in A B C D\nout Y Z\nY = A & B | C & D\nZ = (A ^ C) & ~D';
    const packing = await packed(sheetText, 'fewest');
    const netlist = netlistOf(sheetText);
    const wanted = sweep(compile(networkOf(netlist)));
    const nets = [...functionsOf(netlist).nets()].map(([n]) => n).filter((n) => netlist.inputs.includes(n));
    for (const [p, pack] of packing.packages.entries())
      for (const [u, use] of pack.units.entries())
        for (const k of use?.inputs.keys() ?? [])
          for (const net of nets) {
            if (!use) continue;
            const inputs = use.inputs.map((n, i) => (i === k ? net : n));
            const units = pack.units.map((x, i) => (i === u ? { ...use, inputs } : x));
            const other = { ...packing, packages: packing.packages.map((x, i) => (i === p ? { ...x, units } : x)) };
            const same = firstDifference(wanted, sweep(compile(networkOfPacking(other)))) === null;
            expect(whatIsWrong(netlist, other) === null).toBe(same);
          }
  });
});
