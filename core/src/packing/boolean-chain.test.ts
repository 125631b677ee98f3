import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { readDesign } from '../catalogue';
import type { Netlist } from '../design';
import { networkOf } from '../design';
import { elementAt } from '../element-at';
import { compile, sweep, tableOf, wantedAt } from '../logic';
import { plan } from '../planning';
import { agrees, walkTable } from '../simulation';
import { solve } from '../testing/interlock';
import { trialOf } from '../workflow/trial';
import { blockNumbers } from './blocks';
import { chainsOf } from './boolean-chain';
import { whatIsWrong } from './check';
import { freedom } from './figures';
import { FunctionNet, functionsOf } from './functions';
import { networkOfPacking } from './packing';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';
import { choosable } from './units';

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(`not read: ${text}`);
const classic = '7400 7402 7404 7408 7410 7411 7420 7427 7432 7451 7486'.split(' ');
const classicOnly = { ...anySupplies, excluded: [...choosable, ...blockNumbers].filter((n) => !classic.includes(n)) };

/** A decimal digit on seven segments; the last six rows never come. */
const segments = [
  'in D C B A',
  'out sa sb sc sd se sf sg',
  ...['1011011111', '1111100111', '1101111111', '1011011011', '1010001010', '1000111011', '0011111011'].map(
    (rows, i) => `table s${'abcdefg'[i]} of D C B A : ${rows}------`,
  ),
].join('\n');

/** The rows, in which D C B A count from 0, where each segment is lit. */
const lit = ['0235678 9', '0123478 9', '013456789', '0235689', '0268', '045689', '2345689'].map((s) =>
  s.replace(' ', ''),
);
const product = (row: number): string =>
  ['D', 'C', 'B', 'A'].map((x, i) => ((row >> (3 - i)) & 1 ? x : `~${x}`)).join(' & ');
const minterms = [
  'in D C B A',
  'out sa sb sc sd se sf sg',
  'never D & (C | B)',
  ...lit.map((rows, i) => `s${'abcdefg'[i]} = ${[...rows].map((r) => product(Number(r))).join(' | ')}`),
].join('\n');
/** Shorter sums, as in textbooks: other functions in the rows that never come. */
const equations = [
  'in D C B A',
  'out sa sb sc sd se sf sg',
  'never D & (C | B)',
  'sa = D | B | ~(C ^ A)',
  'sb = ~C | ~(B ^ A)',
  'sc = C | ~B | A',
  'sd = D | ~C & ~A | ~C & B | B & ~A | C & ~B & A',
  'se = ~A & (B | ~C)',
  'sf = D | ~B & ~A | C & ~B | C & ~A',
  'sg = D | C ^ B | B & ~A',
].join('\n');

/** Tables of one to three outputs of four inputs, whose rows with a mark are free in all of them. */
const arbitraryTables = fc
  .record({
    free: fc.array(fc.boolean(), { minLength: 16, maxLength: 16 }),
    rows: fc.array(fc.array(fc.boolean(), { minLength: 16, maxLength: 16 }), { minLength: 1, maxLength: 3 }),
  })
  .map(({ free, rows }) => {
    const cells = rows.map((bits) => bits.map((b, r) => (free[r] ? '-' : b ? '1' : '0')).join(''));
    const tables = cells.map((c, o) => `table Y${o} of A B C D : ${c}`);
    return `in A B C D\nout ${cells.map((_, o) => `Y${o}`).join(' ')}\n${tables.join('\n')}`;
  });

/** The chains of functions of three inputs that `chainsOf` is to find, as the numbers of their functions: what is near is looked through from the beginning for each gate. */
function plainChains(words: readonly number[], runs: number): number[][] {
  const all = 0xff;
  const low = (f: number): number => (f & 1 ? ~f & all : f);
  const either = (f: number): number[] => [f, all & ~f];
  const products = (f: number, g: number): number[] => either(f).flatMap((a) => either(g).map((b) => low(a & b)));
  const makes = (f: number, g: number): number[] => [low(f ^ g), ...products(f, g)];
  let seed = 0x5eed;
  const chance = (): number => {
    seed = (Math.imul(seed, 1664525) + 1013904223) | 0;
    return (seed >>> 8) / 2 ** 24;
  };
  const found = new Map<string, number[]>();
  let shortest = 24;
  for (let run = 0; run < runs; run++) {
    const noise = 4 * chance();
    const signals = [0xf0, 0xcc, 0xaa];
    let missing = [...new Set(words.map(low))].filter((f) => !signals.includes(f));
    const chain: number[] = [];
    while (missing.length > 0 && chain.length + missing.length <= shortest + 2) {
      const pairs = signals.flatMap((g, i) => signals.slice(0, i).flatMap((f) => makes(f, g)));
      const near = new Set(pairs.filter((f) => f !== 0 && !signals.includes(f)));
      const worth = (t: number, g: number): number =>
        [...signals, 0].some((f) => makes(f, g).includes(t))
          ? 3
          : [...near].some((f) => makes(f, g).includes(t))
            ? 1
            : 0;
      const direct = missing.filter((t) => near.has(t));
      let taken = direct[Math.floor(chance() * direct.length)];
      if (taken === undefined) {
        const scores = [...near].map(
          (g) => [noise * chance() + missing.reduce((n, t) => n + worth(t, g), 0), g] as const,
        );
        const most = Math.max(...scores.map(([score]) => score));
        taken = scores.find(([score]) => score === most)?.[1] ?? expect.fail();
      }
      const next = taken;
      chain.push(next);
      signals.push(next);
      missing = missing.filter((t) => t !== next);
    }
    if (missing.length > 0) continue;
    shortest = Math.min(shortest, chain.length);
    found.set([...chain].sort((a, b) => a - b).join(), chain);
  }
  return [...found.values()].filter((c) => c.length <= shortest + 2).sort((a, b) => a.length - b.length);
}

describe('chains of gates of two inputs', () => {
  it('are those of a search that looks at everything anew for each gate', () => {
    const words = fc.uniqueArray(fc.integer({ min: 1, max: 254 }), { minLength: 1, maxLength: 4 });
    fc.assert(
      fc.property(words, (wanted) => {
        const functions = new FunctionNet(['A', 'B', 'C']);
        const roots = wanted.map((w) => functions.add(Int32Array.of(w), 1));
        const chains = chainsOf(functions, roots, 4);
        expect(chains.map((c) => c.map((s) => s.makes))).toEqual(plainChains(wanted, 4));
      }),
      { numRuns: 20 },
    );
  });

  it('make what is wanted, each step from what was made before', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 65534 }), { minLength: 1, maxLength: 3 }), (words) => {
        const functions = new FunctionNet(['A', 'B', 'C', 'D']);
        const roots = words.map((w) => functions.add(Int32Array.of(w), 1));
        const chains = chainsOf(functions, roots, 8);
        expect(chains.length).toBeGreaterThan(0);
        for (const chain of chains) {
          const have = new Set([0x0000, 0xff00, 0xf0f0, 0xcccc, 0xaaaa]);
          const either = (f: number): boolean => have.has(f) || have.has(0xffff & ~f);
          for (const { makes, of, kind } of chain) {
            expect(of.every(either)).toBe(true);
            const value = kind === 'xor' ? of[0] ^ of[1] : of[0] & of[1];
            expect([value, 0xffff & ~value]).toContain(makes);
            have.add(makes);
          }
          expect(words.every(either)).toBe(true);
        }
      }),
      { numRuns: 12 },
    );
  });

  it('are as short as is known for a full adder, and offered the shortest first', () => {
    const netlist = netlistOf('in A B C\nout S D\nS = A ^ B ^ C\nD = A & B | A & C | B & C');
    const functions = functionsOf(netlist);
    const lengths = chainsOf(
      functions,
      netlist.outputs.map((o) => functions.ofNet(o.net)),
      100,
    ).map((c) => c.length);
    expect(lengths[0]).toBe(5);
    expect(lengths).toEqual([...lengths].sort((a, b) => a - b));
  });
});

describe('rows that never matter', () => {
  it('are used: a decimal digit on seven segments takes four packages, and fewer cannot be', async () => {
    const { packing } = await packByStrategy(
      netlistOf(segments),
      { family: 'HC', strategy: 'fewest', supplies: classicOnly },
      solve,
      { limits: { effort: 40 } },
    );
    expect([packing?.packages.length, packing?.proof, packing?.bound]).toEqual([4, 'all', 4]);
    expect(packing && freedom(netlistOf(segments), packing)).toMatch(/^In the 6 rows that are don’t-care/);
  }, 180_000);

  it.each([
    ['equations, with what never comes', equations],
    ['minterms', minterms],
  ])('are the same from a sheet of %s, whose packing computes the digit', async (_, text) => {
    const rowsOf = (sheet: string): string[] => {
      const table = tableOf(readDesign(sheet).design.behaviour ?? expect.fail('not read'));
      return table.columns.map((_column, o) =>
        Array.from({ length: 16 }, (_row, row) => String(wantedAt(table, o, row) ?? '-')).join(''),
      );
    };
    expect(rowsOf(text)).toEqual(rowsOf(segments));
    // Less effort claims less, and computes the digit all the same.
    const { packing } = await packByStrategy(
      netlistOf(text),
      { family: 'HC', strategy: 'fewest', supplies: classicOnly },
      solve,
      { limits: { effort: 0.1 } },
    );
    if (!packing) return expect.fail('not packed');
    expect(whatIsWrong(netlistOf(text), packing)).toBeNull();
    expect(freedom(netlistOf(text), packing)).toMatch(/^In the 6 rows that are don’t-care/);
  });

  it('change no row that does matter, of the packing and of its board', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryTables, async (text) => {
        const { netlist, behaviour } = readDesign(text).design;
        if (!netlist || !behaviour) return expect.fail(text);
        const { packing } = await packByStrategy(
          netlist,
          { family: 'HC', strategy: 'fewest', supplies: classicOnly },
          solve,
          { limits: { effort: 1 } },
        );
        if (!packing) return expect.fail(text);
        expect(whatIsWrong(netlist, packing)).toBeNull();
        const wanted = tableOf(behaviour);
        const made = sweep(compile(networkOfPacking(packing)));
        for (let row = 0; row < 16; row++)
          for (const [o, column] of made.columns.entries()) {
            const value = (elementAt(column, 0) >>> row) & 1;
            expect([null, value]).toContain(wantedAt(wanted, o, row));
          }
        const { board } = plan(packing);
        if (!board) return expect.fail('no board');
        const outputs = netlist.outputs.map((o) => o.name);
        for (const { row, seen } of walkTable(board, extractNets(board), { inputs: netlist.inputs, outputs: outputs }))
          expect(
            agrees(
              seen,
              netlist.outputs.map((_, o) => wantedAt(wanted, o, row)),
            ),
          ).toBe(true);
      }),
      { numRuns: 20 },
    );
  }, 120_000);

  it('that are free for single outputs alone are not counted, and nothing is claimed of them', async () => {
    const netlist = netlistOf('in A B C\nout Y Z\ntable Y of A B C : 0110100-\ntable Z of A B C : 00010111');
    expect(netlist.unused).toEqual({ rows: [], more: true });
    const { packing } = await packByStrategy(
      netlist,
      { family: 'HC', strategy: 'fewest', supplies: classicOnly },
      solve,
      {
        limits: { effort: 2 },
      },
    );
    expect(packing?.proof).not.toBe('all');
  });

  it('are no rows to try a gate in', () => {
    const netlist = netlistOf('in A B C\nout Y\ntable Y of A B C : 011-----');
    const { inputs, gates } = networkOf(netlist);
    expect([inputs.length, gates.length > 0]).toEqual([3, true]);
    for (const g of netlist.gates) {
      const { high, low } = trialOf(netlist, g.output, 'U1.1');
      for (const row of [high, low]) if (row !== null) expect(row).toMatch(/^A=0 B=(0 C=[01]|1 C=0)$/);
    }
  });
});
