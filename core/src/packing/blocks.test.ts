import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { readDesign } from '../catalogue';
import { type Netlist, networkOf, printSheet } from '../design';
import { elementAt } from '../element-at';
import { isError } from '../finding';
import { inspect } from '../inspection';
import { compile, firstDifference, sweep } from '../logic';
import { plan } from '../planning';
import { agrees, walkTable } from '../simulation';
import { AMPLE, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { blockNumbers, framesOf, packageOf } from './blocks';
import { ranksOf } from './candidate';
import { whatIsWrong } from './check';
import { pruned } from './choice-program';
import { proofText } from './figures';
import { functionsOf } from './functions';
import { networkOfPacking, type Packing } from './packing';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';
import { choosable } from './units';

const netlistOf = (text: string): Netlist => readDesign(text).design.netlist ?? expect.fail(`not read: ${text}`);
async function fewest(text: string, excluded: readonly string[] = [], effort = 4): Promise<Packing> {
  const supplies = { ...anySupplies, excluded };
  const { packing, findings } = await packByStrategy(
    netlistOf(text),
    { family: 'HC', strategy: 'blocks', supplies },
    solve,
    { limits: { effort } },
  );
  return packing ?? expect.fail(findings.map((f) => f.code).join());
}
const parts = (p: Packing): string => p.packages.map((x) => x.part.slice(4)).join(' ');

const ripple = [
  'in A0 A1 A2 A3 B0 B1 B2 B3\nout S0 S1 S2 S3 C',
  'S0 = A0 ^ B0\nc0 = A0 & B0',
  ...[1, 2, 3].map((i) => {
    const carry = i === 3 ? 'C' : `c${i}`;
    return `S${i} = A${i} ^ B${i} ^ c${i - 1}\n${carry} = A${i} & B${i} | c${i - 1} & (A${i} | B${i})`;
  }),
].join('\n');
const comparator = [
  'in A0 A1 A2 B0 B1 B2\nout G E L',
  'e2 = ~(A2 ^ B2)\ne1 = ~(A1 ^ B1)\ne0 = ~(A0 ^ B0)',
  'G = A2 & ~B2 | e2 & A1 & ~B1 | e2 & e1 & A0 & ~B0',
  'E = e2 & e1 & e0\nL = ~(G | E)',
].join('\n');
const decoder = `in A B C\nout ${Array.from({ length: 8 }, (_, k) => `Y${k}`).join(' ')}\n${Array.from(
  { length: 8 },
  (_, k) => `Y${k} = nand(${['A', 'B', 'C'].map((n, i) => ((k >> i) & 1 ? n : `~${n}`)).join(', ')})`,
).join('\n')}`;
const quarters = `in S A B C D E F G H\nout W X Y Z\n${['WAB', 'XCD', 'YEF', 'ZGH']
  .map(([y, a, b]) => `${y} = ~S & ${a} | S & ${b}`)
  .join('\n')}`;
const halves = `in S T A B C D\nout Y Z\nY = ~S & ~T & A | S & ~T & B | ~S & T & C | S & T & D\nZ = ~S & ~T & D | S & ~T & C | ~S & T & A | S & T & B`;
const eight = `in S T U A B C D E F\nout Y\nY = ${['A', 'B', 'C', 'D', 'E', 'F', 'A', '~B']
  .map((d, k) => `${['S', 'T', 'U'].map((s, i) => ((k >> i) & 1 ? s : `~${s}`)).join(' & ')} & ${d}`)
  .join(' | ')}`;

describe('larger blocks', () => {
  it.each([
    ['a 4-bit adder', ripple, '283'],
    ['a parity of nine', 'in A B C D E F G H I\nout Y\nY = A ^ B ^ C ^ D ^ E ^ F ^ G ^ H ^ I', '280'],
    ['words compared', comparator, '85'],
    ['a decoder', decoder, '138'],
    ['four selectors of two', quarters, '157'],
    ['two selectors of four', halves, '153'],
  ])(
    '%s is one package, proved; planned, its board has nothing to mend and walks as the sheet wants',
    async (_, text, part) => {
      const packing = await fewest(text, [], AMPLE);
      expect([parts(packing), packing.proof === 'best']).toEqual([part, false]);
      const netlist = netlistOf(text);
      const { board } = plan(packing);
      if (!board) expect.fail('no board');
      const nets = extractNets(board);
      expect(inspect(board, nets, packing, 'HC').filter(isError)).toEqual([]);
      const names = netlist.outputs.map((o) => o.name);
      const table = sweep(compile(networkOf(netlist)));
      let seenRows = 0;
      for (const { row, seen } of walkTable(board, nets, { inputs: netlist.inputs, outputs: names })) {
        const wanted = names.map((_, o) => (((table.columns[o]?.[row >>> 5] ?? 0) >>> (row & 31)) & 1) as 0 | 1);
        expect(agrees(seen, wanted), `row ${row}`).toBe(true);
        seenRows++;
      }
      expect(seenRows).toBe(2 ** netlist.inputs.length);
    },
    60_000,
  );

  it('take data from inverters and other gates: an 8-to-1 selector with a complement at one input', async () => {
    const packing = await fewest(eight);
    expect(packing.packages.length).toBe(2);
    expect(parts(packing)).toMatch(/151/);
  }, 60_000);

  it('are left out when they are struck out, and a claim over all sets is made of gate chips alone', async () => {
    const packing = await fewest(decoder, ['74138']);
    expect(parts(packing)).not.toMatch(/138/);
    const adder = 'in A B C\nout S D\nS = A ^ B ^ C\nD = A & B | A & C | B & C';
    expect(parts(await fewest(adder))).toBe('283');
    const gates = await fewest(adder, ['74283']);
    expect([gates.packages.length, gates.proof]).toEqual([2, 'gates']);
    expect(proofText(gates)).toMatch(/^No fewer than 2 gate chips .* matched as far as they fit\.$/);
    // A strategy of gates alone does not say that it has looked at others.
    expect(proofText({ ...gates, strategy: 'fewest' })).toMatch(/^No fewer than 2 gate chips .* were left out\.$/);
    const alone = await fewest(adder, blockNumbers);
    expect([alone.packages.length, alone.proof]).toEqual([2, 'all']);
  }, 60_000);

  it('with inverters alone beside them compute whatever they are chosen for', async () => {
    let chosen = 0;
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { netlist } = readDesign(printSheet(sheet)).design;
        if (!netlist || netlist.gates.length > 9) return;
        const excluded = choosable.filter((n) => n !== '7404' && n !== '7408');
        const { packing } = await packByStrategy(
          netlist,
          { family: 'HC', strategy: 'blocks', supplies: { ...anySupplies, excluded } },
          solve,
          {
            limits: {
              effort: 0.1,
            },
          },
        );
        if (!packing) return;
        expect(whatIsWrong(netlist, packing)).toBeNull();
        const [wanted, made] = [networkOf(netlist), networkOfPacking(packing)].map((n) => sweep(compile(n)));
        expect(firstDifference(wanted as never, made as never)).toBeNull();
        if (packing.packages.some((p) => blockNumbers.includes(p.part.replace('74HC', '74')))) chosen++;
      }),
      { numRuns: 60 },
    );
    expect(chosen).toBeGreaterThan(5);
  }, 120_000);
});

it('a choice keeps what is wanted and what that reads, and nothing else', () => {
  const strategy = (makes: number, ...inputs: number[]) => ({
    makes,
    inputs,
    duty: { kind: 'and', width: 2 } as const,
  });
  const choice = {
    ways: [strategy(20, 2, 4), strategy(22, 20, 6), strategy(24, 2, 6)],
    inverters: [25, 23],
    service: new Map(),
  };
  const { ways, inverters } = pruned(choice, [23]);
  expect([ways.map((w) => w.makes), inverters]).toEqual([[20, 22], [23]]);
});

it('every use of a block that is offered makes what it says, by the network of the package alone', () => {
  let tried = 0;
  fc.assert(
    fc.property(arbitrarySheet, (sheet) => {
      const { netlist } = readDesign(printSheet(sheet)).design;
      if (!netlist || netlist.gates.length === 0 || netlist.gates.length > 12) return;
      const functions = functionsOf(netlist);
      const isGiven = (l: number): boolean => l < 2 || functions.isSource(l >> 1);
      const nameOf = (l: number): string => (l < 2 ? String(l) : elementAt(functions.sources, (l >> 1) - 1));
      for (const frame of framesOf(functions, netlist, blockNumbers, ranksOf(functions)))
        for (const use of frame.uses) {
          const [unit] = packageOf(frame, [use]).units;
          const type = frame.part.units[unit?.unit ?? 0];
          const reads = [...(unit?.reads.values() ?? [])];
          // Complements and gates would need units of their own.
          if (!unit || !type || reads.some((l) => !isGiven(l) || (l > 1 && l & 1))) continue;
          const nets = type.behaviour.outputs.map((o) => `out.${o.name}`);
          const made: Packing = {
            packages: [
              {
                ref: 'U1',
                part: `74HC${frame.part.id.slice(2)}`,
                units: frame.part.units.map((_, u) =>
                  u === unit.unit
                    ? {
                        gate: 'g',
                        part: 'block',
                        inputs: type.behaviour.inputs.map((n) => nameOf(unit.reads.get(n) ?? 0)),
                        output: elementAt(nets, 0),
                        others: nets.slice(1),
                      }
                    : null,
                ),
              },
            ],
            inputs: functions.sources,
            outputs: [...unit.makes].map(([pin]) => ({ name: pin, net: `out.${pin}` })),
            proved: false,
            design: '',
          };
          const { columns } = sweep(compile(networkOfPacking(made)));
          for (const [k, l] of [...unit.makes.values()].entries())
            expect([...(columns[k] ?? [])].map((w) => w & functions.mask)).toEqual([...functions.bits(l)]);
          tried++;
        }
    }),
    { numRuns: 80 },
  );
  expect(tried).toBeGreaterThan(20);
});
