import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readDesign } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { compile, firstDifference, sweep } from '../logic';
import { solve } from '../testing/interlock';
import { arbitraryNetwork } from '../testing/random';
import { BlockCount } from './block-count';
import { blockKind, evaluateBlockKind, FIRST_BLOCK, firstKindOf, sameAsBlock } from './block-kinds';
import { BlockMoves } from './block-moves';
import { gatesOfBlock } from './block-network';
import { blockNumbers } from './blocks';
import { whatIsWrong } from './check';
import { chooseNet, rootsOf } from './choose';
import { improvedNets } from './improve-net';
import { packByStrategy, packingFrom } from './strategies';
import { anySupplies } from './strategy-goals';
import type { NetState } from './unit-net';
import { networkOfNet } from './unit-network';
import { choosable } from './units';

const chips = '7400 7402 7404 7408 7410 7411 7420 7427 7432 7451 7486'.split(' ');
const blocks = blockNumbers.filter((n) => firstKindOf(n) >= 0);
const allKinds = Array.from({ length: 15 }, (_, i) => FIRST_BLOCK + i);
const inputsOf = (kind: number): number => {
  const { address, row } = blockKind(kind);
  return row === null ? address + 2 ** address : address + 1;
};
const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(text);

/** A word of rows for each of so many signals, after those of 0 and 1. */
const someRows = (count: number) =>
  fc
    .array(fc.integer(), { minLength: count, maxLength: count })
    .map((rows) => [0, -1, ...rows].map((word) => Int32Array.of(word)));

/** Numbers below another, always the same ones for a seed. */
function drawing(seed: number): (below: number) => number {
  let state = seed;
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state % below;
  };
}

describe('a block as a unit of a net', () => {
  it('computes what its gates do, and constants make it the signal that they say', () => {
    const names = ['0', '1', ...'abcdefghijk'];
    fc.assert(
      fc.property(
        fc.constantFrom(...allKinds),
        fc.array(fc.nat({ max: 12 }), { minLength: 11, maxLength: 11 }),
        (kind, drawn) => {
          const ins = drawn.slice(0, inputsOf(kind));
          const inputs = names.slice(2);
          const gates = gatesOfBlock(
            kind,
            ins.map((s) => elementAt(names, s)),
            'made',
          );
          const { columns } = sweep(compile({ inputs, gates, outputs: ['made', ...inputs] }));
          const words = columns[0]?.length ?? 0;
          const bits = [new Int32Array(words), new Int32Array(words).fill(-1), ...columns.slice(1)];
          const made = new Int32Array(words);
          evaluateBlockKind(kind, ins, bits, made);
          expect([...made]).toEqual([...elementAt(columns, 0)]);
          const same = sameAsBlock(kind, ins);
          if (same >= 0) expect([...made]).toEqual([...elementAt(bits, same)]);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('takes packages by what shares an address: four pairs, two fours or one eight of a selector, eight rows of a decoder', () => {
    const [pair, four, eight, ofFour, ofEight] = ['74157', '74153', '74151', '74139', '74138'].map(firstKindOf);
    const count = new BlockCount();
    const put = (kind = 0, ...ins: number[]) => {
      count.tally(kind, ins, 1);
      return count.packages;
    };
    for (let i = 0; i < 4; i++) expect(put(pair, 2, 5, i)).toBe(1);
    expect([put(pair, 2, 6, 7), put(pair, 3, 6, 7)]).toEqual([2, 3]);
    expect([put(four, 2, 3, 0, 0, 0, 1), put(four, 2, 3, 0, 1, 0, 1), put(four, 2, 4, 0, 1, 0, 1)]).toEqual([4, 4, 5]);
    expect([put(eight, 2, 3, 4, 0, 0, 0, 0, 0, 0, 0, 1)]).toEqual([6]);
    for (let row = 0; row < 8; row++) expect(put(ofEight && ofEight + row, 2, 3, 4, 1)).toBe(7);
    expect([put(ofFour, 2, 3, 0), put(ofFour && ofFour + 1, 2, 3, 0), put(ofFour, 4, 3, 0)]).toEqual([8, 8, 8]);
    expect(put(ofFour, 4, 5, 0)).toBe(9);
    count.tally(ofFour ?? 0, [4, 5, 0], -1);
    expect(count.packages).toBe(8);
  });
});

describe('blocks that could stand for a function', () => {
  it('agree with it wherever it matters, with whatever serves for what is missing', () => {
    let whole = 0;
    let parts = 0;
    fc.assert(
      fc.property(someRows(9), fc.integer(), fc.integer(), fc.nat(), (bits, care, wish, seed) => {
        const [on, off] = [Int32Array.of(wish & care), Int32Array.of(~wish & care)];
        const signals = Array.from({ length: 9 }, (_, i) => i + 2);
        const moves = new BlockMoves(blocks, 1, drawing(seed)).find(
          { on, off },
          { signals, bits, there: [], firstNode: 6, tries: 3 },
        );
        for (const { gate, missing } of moves) {
          const extra = missing?.on[0] ?? 0;
          expect(extra & (missing?.off[0] ?? 0)).toBe(0);
          const made = Int32Array.of(0);
          evaluateBlockKind(
            gate.kind,
            gate.ins.map((s) => (s < 0 ? bits.length : s)),
            [...bits, Int32Array.of(extra)],
            made,
          );
          expect([elementAt(on, 0) & ~elementAt(made, 0), elementAt(off, 0) & elementAt(made, 0)]).toEqual([0, 0]);
          if (missing) parts++;
          else whole++;
        }
      }),
      { numRuns: 300 },
    );
    expect([whole > 0, parts > 0]).toEqual([true, true]);
  });
});

/** Two words of four bits by two lines: sixteen data lines and two of address. */
const fourWords = `in S1 S0 A[3:0] B[3:0] C[3:0] D[3:0]
out Y[3:0]
Y = S1' & S0' & A | S1' & S0 & B | S1 & S0' & C | S1 & S0 & D`;
/** Which of sixteen cells is chosen, and what two gates more make of it. */
const cells = `in A B C D E1 E2 E3 E4 E5
out ${Array.from({ length: 8 }, (_, i) => `Y${i}`).join(' ')} Z
${Array.from({ length: 8 }, (_, i) => `Y${i} = nand(${i & 4 ? 'C' : "C'"}, ${i & 2 ? 'B' : "B'"}, ${i & 1 ? 'A' : "A'"}, D)`).join('\n')}
Z = E1 & E2 & E3 | E4 & E5`;

describe('the search over nets with blocks', () => {
  const found = (netlist: Netlist, moves: number, seed: number, allowed: readonly string[] = blocks) => [
    ...improvedNets(netlist, { roots: rootsOf(netlist), chips, blocks: allowed, moves, seed }),
  ];

  /** The packages of a net, held to the design chip by chip. */
  const packed = async (netlist: Netlist, net: NetState): Promise<number> => {
    const request = { chips: [...chips, ...blocks], goals: ['packages' as const], limits: { effort: 2 } };
    const made = (await chooseNet(netlist, net, { family: 'HC', request }, solve)) ?? expect.fail('no packages');
    expect(whatIsWrong(netlist, packingFrom(netlist, 'HC', 'blocks', made))).toBeNull();
    return made.packages.length;
  };

  const fewest = async (netlist: Netlist, allowed: readonly string[]): Promise<number> => {
    const counts: number[] = [];
    for (const net of found(netlist, 3000, 1, allowed)) counts.push(await packed(netlist, net));
    return Math.min(...counts);
  };

  it('puts four words behind two packages of selectors', async () => {
    expect(await fewest(netlistOf(fourWords), blocks)).toBe(2);
  });

  it('takes a decoder where that saves packages of gates', async () => {
    const netlist = netlistOf(cells);
    expect(await fewest(netlist, ['74138'])).toBeLessThan(await fewest(netlist, []));
  });

  it('finds nets that packages hold as they are, whichever blocks they have', async () => {
    const seen = new Set<string>();
    await fc.assert(
      fc.asyncProperty(arbitraryNetwork(14, 7), fc.nat({ max: 99 }), async (text, seed) => {
        const netlist = netlistOf(text);
        const wanted = sweep(compile({ inputs: netlist.inputs, gates: netlist.gates, outputs: rootsOf(netlist) }));
        for (const net of found(netlist, 800, seed + 1)) {
          expect(firstDifference(wanted, sweep(compile(networkOfNet(net, netlist.inputs))))).toBeNull();
          await packed(netlist, net);
          for (const { kind } of net.nodes) if (kind >= FIRST_BLOCK) seen.add(blockKind(kind).number);
        }
      }),
      { numRuns: 12 },
    );
    expect([...seen].sort()).toEqual([...blocks].sort());
  });

  it('at real sizes blocks that are allowed never give more packages, and may give fewer', async () => {
    const excluded = [...choosable, ...blockNumbers].filter((n) => ![...chips, ...blocks].includes(n));
    const limits = { effort: 0.4 };
    for (const text of fc.sample(arbitraryNetwork(40, 16), { seed: 11, numRuns: 1 })) {
      const netlist = netlistOf(text);
      const counts: number[] = [];
      for (const strategy of ['fewest', 'blocks'] as const) {
        const supplies = { ...anySupplies, excluded };
        const { packing } = await packByStrategy(netlist, { family: 'HC', strategy, supplies }, solve, { limits });
        expect(packing && whatIsWrong(netlist, packing)).toBeNull();
        counts.push(packing?.packages.length ?? 0);
      }
      expect(elementAt(counts, 1)).toBeLessThanOrEqual(elementAt(counts, 0));
    }
  });
});
