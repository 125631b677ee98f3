import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import { type Netlist, printSheet } from '../design';
import { elementAt } from '../element-at';
import { compile, firstDifference, sweep } from '../logic';
import { solve } from '../testing/interlock';
import { arbitraryNetwork, arbitrarySheet } from '../testing/random';
import { blockNumbers } from './blocks';
import { whatIsWrong } from './check';
import { chooseNet, rootsOf } from './choose';
import { improvedNets } from './improve-net';
import { PackageCount, PLACES, placeOfDuty } from './package-count';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';
import { dutyOfNode, type NetState } from './unit-net';
import { netOfDesign, networkOfNet } from './unit-network';
import { choosable, unitKindsOf } from './units';

const classic = '7400 7402 7404 7408 7410 7411 7420 7427 7432 7451 7486'.split(' ');
const nands = ['7400', '7410', '7420'];
const nors = ['7402', '7427'];
const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(text);

const majority =
  'in A B C D E\nout Y\nY = A&B&C | A&B&D | A&B&E | A&C&D | A&C&E | A&D&E | B&C&D | B&C&E | B&D&E | C&D&E';
/** The product of two numbers of three bits, as it is added up by hand. */
const multiplier = `in A2 A1 A0 B2 B1 B0
out P5 P4 P3 P2 P1 P0
P0 = A0 & B0
P1 = (A1 & B0) ^ (A0 & B1)
c1 = (A1 & B0) & (A0 & B1)
s2 = (A2 & B0) ^ (A1 & B1)
d2 = (A2 & B0) & (A1 & B1)
s3 = s2 ^ (A0 & B2)
d3 = s2 & (A0 & B2)
P2 = s3 ^ c1
c2 = s3 & c1
q = (A2 & B1) ^ (A1 & B2)
e = (A2 & B1) & (A1 & B2)
q2 = q ^ (d2 | d3)
e2 = q & (d2 | d3)
P3 = q2 ^ c2
c3 = q2 & c2
z = (A2 & B2) ^ (e | e2)
z2 = (A2 & B2) & (e | e2)
P4 = z ^ c3
P5 = z2 | z & c3`;

/** The nets that are found, in their order. */
const found = (netlist: Netlist, chips: readonly string[], moves: number, seed = 1): NetState[] => [
  ...improvedNets(netlist, { roots: rootsOf(netlist), chips, moves, seed }),
];
/** How many packages a net comes to as the search counts them. */
function counted({ nodes }: NetState, chips: readonly string[]): number {
  const counts = new Int32Array(PLACES);
  for (const { kind, ins } of nodes) {
    const place = placeOfDuty(dutyOfNode(kind, ins.length));
    counts[place] = elementAt(counts, place) + 1;
  }
  return new PackageCount(unitKindsOf(chips)).of(counts);
}

describe('a design as a net of units', () => {
  it('computes what the design does, whichever chips there are, or says that they do not suffice', () => {
    fc.assert(
      fc.property(arbitrarySheet, fc.constantFrom(classic, nands, nors, ['7402'], choosable), (sheet, chips) => {
        const netlist = netlistOf(printSheet(sheet));
        const sources = netlist.inputs;
        const packages = new PackageCount(unitKindsOf(chips));
        const net = netOfDesign(netlist, { sources, roots: rootsOf(netlist) }, packages) ?? expect.fail('chips lack');
        const wanted = sweep(compile({ inputs: sources, gates: netlist.gates, outputs: rootsOf(netlist) }));
        expect(firstDifference(wanted, sweep(compile(networkOfNet(net, sources))))).toBeNull();
        for (const { kind, ins } of net.nodes) expect(ins.length).toBeLessThanOrEqual(packages.mostInputs(kind));
      }),
      { numRuns: 150 },
    );
    const xor = netlistOf('in A B\nout Y\nY = A ^ B');
    expect(netOfDesign(xor, { sources: ['A', 'B'], roots: ['Y'] }, new PackageCount(unitKindsOf(['7408'])))).toBeNull();
  });
});

describe('the search over nets', () => {
  it('finds nets that compute the same in every row, each counted as fewer packages; the same ones every time', () => {
    fc.assert(
      fc.property(arbitraryNetwork(14, 7), fc.nat({ max: 99 }), (text, seed) => {
        const netlist = netlistOf(text);
        const nets = found(netlist, classic, 1000, seed + 1);
        const wanted = sweep(compile({ inputs: netlist.inputs, gates: netlist.gates, outputs: rootsOf(netlist) }));
        for (const net of nets)
          expect(firstDifference(wanted, sweep(compile(networkOfNet(net, netlist.inputs))))).toBeNull();
        const counts = nets.map((net) => counted(net, classic));
        expect(counts.slice(0, -1)).toEqual([...new Set(counts.slice(0, -1))].sort((a, b) => b - a));
        expect(found(netlist, classic, 1000, seed + 1)).toEqual(nets);
      }),
      { numRuns: 15 },
    );
  });

  it('with more inputs than are looked at in all rows is put right by the rows that showed a fault', () => {
    // The output hangs on one row of 65,536 alone.
    const names = Array.from({ length: 16 }, (_, i) => `A${i}`);
    const netlist = netlistOf(`in ${names.join(' ')}\nout Y Z\nY = ${names.join(' & ')}\nZ = A0 ^ A1`);
    const nets = found(netlist, classic, 4000);
    const wanted = sweep(compile({ inputs: names, gates: netlist.gates, outputs: rootsOf(netlist) }));
    expect(nets.length).toBeGreaterThan(0);
    for (const net of nets) expect(firstDifference(wanted, sweep(compile(networkOfNet(net, names))))).toBeNull();
  });

  it('leaves rows that do not matter free, and no others', () => {
    const bit = fc.constantFrom('0', '1');
    const column = fc.array(bit, { minLength: 10, maxLength: 10 }).map((rows) => `${rows.join('')}------`);
    fc.assert(
      fc.property(fc.array(column, { minLength: 2, maxLength: 4 }), (columns) => {
        const names = columns.map((_, i) => `Y${i}`);
        const tables = columns.map((rows, i) => `table Y${i} of D C B A : ${rows}`);
        const netlist = netlistOf(`in D C B A\nout ${names.join(' ')}\n${tables.join('\n')}`);
        for (const net of found(netlist, classic, 400)) {
          const made = sweep(compile(networkOfNet(net, netlist.inputs))).columns;
          for (const [o, rows] of columns.entries())
            for (let r = 0; r < 10; r++)
              expect((elementAt(elementAt(made, o), 0) >>> r) & 1, `${names[o]} ${r}`).toBe(Number(rows[r]));
        }
      }),
      { numRuns: 20 },
    );
  });

  it('counts no fewer packages than the program then needs for the same net', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryNetwork(12, 6), async (text) => {
        const netlist = netlistOf(text);
        const request = { chips: classic, goals: ['packages' as const], limits: { effort: 2 } };
        for (const net of found(netlist, classic, 200)) {
          const made = await chooseNet(netlist, net, { family: 'HC', request }, solve);
          if (made) expect(made.packages.length).toBeLessThanOrEqual(counted(net, classic));
        }
      }),
      { numRuns: 12 },
    );
  });

  it.each([
    ['majority of five, from its ten products', majority, 3],
    ['the product of two numbers of three bits', multiplier, 7],
  ])('%s', (_, text, packages) => {
    const netlist = netlistOf(text);
    const best = Math.min(
      ...[1, 2].flatMap((seed) => found(netlist, classic, 9000, seed)).map((n) => counted(n, classic)),
    );
    expect(best).toBe(packages);
  });
});

describe('fewest chips at real sizes', () => {
  const excluded = [...choosable, ...blockNumbers].filter((n) => !classic.includes(n));
  const packed = async (netlist: Netlist, strategy: 'written' | 'fewest', without: readonly string[]) => {
    const supplies = { ...anySupplies, excluded: without };
    const limits = { effort: 0.7 };
    const { packing } = await packByStrategy(netlist, { family: 'HC', strategy, supplies }, solve, { limits });
    const sound = packing ?? expect.fail('nothing was found');
    expect(whatIsWrong(netlist, sound)).toBeNull();
    return sound.packages.length;
  };

  it('is well under one to one, and more chips allowed never give more packages', async () => {
    const shares: number[] = [];
    for (const text of fc.sample(arbitraryNetwork(40, 16), { seed: 11, numRuns: 2 })) {
      const netlist = netlistOf(text);
      const few = await packed(netlist, 'fewest', excluded);
      shares.push(few / (await packed(netlist, 'written', excluded)));
      expect(await packed(netlist, 'fewest', [])).toBeLessThanOrEqual(few);
    }
    expect(shares.reduce((a, b) => a + b) / shares.length).toBeLessThan(0.85);
  });
});
