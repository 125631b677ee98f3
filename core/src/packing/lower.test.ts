import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { buildCard } from '../card';
import { type FamilyId, familyIds, readDesign, typeOf } from '../catalogue';
import { elementAt } from '../element-at';
import { isError } from '../finding';
import { inspect } from '../inspection';
import { compileMachine, HIGH, LOW, MachineRun } from '../logic';
import { plan } from '../planning';
import { compileCircuit, PoweredBoard, panelOf } from '../simulation';
import { solve } from '../testing/interlock';
import { whatIsWrong } from './check';
import { chainChipNumbers } from './counter-forms';
import { jkFormOf, type Term } from './flip-flop-forms';
import { lowered } from './lower';
import type { Packing, Strategy } from './packing';
import { rippleOf } from './ripple';
import { packByStrategy } from './strategies';
import { anySupplies } from './strategy-goals';

/** A sheet packed and planned: its board, switch by switch, beside the sheet's own machine. */
async function bench(text: string, strategy: Strategy = 'written') {
  const { netlist, behaviour } = readDesign(text).design;
  if (!netlist || !behaviour) return expect.fail(`not read: ${text}`);
  const { packing: made, findings } = await packByStrategy(
    netlist,
    { family: 'HC', strategy, supplies: anySupplies },
    solve,
    { limits: { effort: 1 } },
  );
  if (!made) return expect.fail(findings.map((f) => f.code).join());
  expect(whatIsWrong(netlist, made)).toBeNull();
  const { board, packing } = plan(made);
  if (!board) return expect.fail('no board');
  const nets = extractNets(board);
  expect(inspect(board, nets, packing, 'HC').filter(isError)).toEqual([]);
  const circuit = compileCircuit(board);
  const simulator = new PoweredBoard(board, nets, { circuit });
  const outputs = behaviour.outputs.map((o) => o.name);
  const panel = panelOf(board, circuit, behaviour.inputs, outputs);
  const machine = compileMachine(behaviour);
  const run = new MachineRun(machine);
  const set = (i: number, on: boolean): void => {
    simulator.setSwitch(elementAt(panel.switches, i), on);
    expect(simulator.settle().settled).toBe(true);
    run.setInput(i, on ? HIGH : LOW);
    run.settle();
  };
  /** What the board shows where the sheet says a level, and what the sheet says. */
  const compare = (): [string, string] => {
    const said = outputs.map((_, o) => run.outputLevel(o));
    const seen = panel.leds.map((l) => (simulator.ledState(l) === 'lit' ? HIGH : LOW));
    const known = said.flatMap((level, o) => (level === LOW || level === HIGH ? [o] : []));
    return [known.map((o) => seen[o]).join(''), known.map((o) => said[o]).join('')];
  };
  for (const i of behaviour.inputs.keys()) set(i, false);
  const { stages } = buildCard(board, packing, netlist);
  return { set, compare, stages, inputs: behaviour.inputs, parts: packing.packages.map((p) => p.part) };
}

const sheets: [name: string, text: string, parts: string[]][] = [
  [
    'flip-flops with clear and preset',
    'in D CK R S\nout Q P\nQ = D at rise CK clear R preset S\nP = ~P at rise CK preset S clear R',
    ['74HC74'],
  ],
  ['a falling edge', 'in D CK R\nout Q\nQ = D at fall CK clear R', ['74HC74']],
  [
    'a shift register of one clock',
    'in D CK R\nout A B C\nA = D at rise CK clear R\nB = A at rise CK clear R\nC = B at rise CK clear R',
    ['74HC175'],
  ],
  [
    'a counter of five bits',
    'in CK R\nout A B C D E\nA = ~A at rise CK clear R\nB = B ^ A at rise CK clear R\nC = C ^ (A & B) at rise CK clear R\nD = D ^ (A & B & C) at rise CK clear R\nE = E ^ (A & B & C & D) at rise CK clear R',
    ['74HC273'],
  ],
  ['latches', 'in D EN R F\nout Q P\nQ = D while EN clear R\nP = ~D while F', ['74HC75']],
  ['set and reset', 'in S R\nout Q\nQ = 1 while S clear R', ['74HC75']],
  ['J and K on the falling edge', 'in J K CK R\nout Q\nQ = J & ~Q | ~K & Q at fall CK clear R', ['74HC107']],
  ['J and K on the rising edge', 'in J K CK R\nout Q P\nQ = J & ~Q | K & Q at rise CK clear R\nP = ~Q', ['74HC109']],
  ['T, with a preset', 'in T CK R S\nout Q\nQ = T ^ Q at fall CK clear R preset S', ['74HC112']],
  [
    'a ripple counter of three bits, and complements of it',
    'in CK R\nout A B C D\nA = ~A at fall CK clear R\nB = ~B at fall A clear R\nC = ~C at fall B clear R\nD = nor(A, C) & ~B',
    ['74HC107'],
  ],
  [
    'a count to five, whose flip-flops share a clock',
    'in CK R\nout B C D\nB = ~B & ~D at fall CK clear R\nC = C ^ B at fall CK clear R\nD = B & C & ~D at fall CK clear R',
    ['74HC175'],
  ],
];

describe('what is stored in equations', () => {
  it.each(sheets)(
    '%s: in chips, the board does what the sheet says, through any presses of its switches',
    async (_, text, parts) => {
      const { set, compare, inputs, parts: made } = await bench(text);
      for (const p of parts) expect(made).toContain(p);
      // Forces first, so that what is stored is known.
      inputs.forEach((name, i) => {
        if (name !== 'R') return;
        set(i, true);
        set(i, false);
      });
      let seed = 12345;
      const on = inputs.map(() => false);
      for (let step = 0; step < 120; step++) {
        seed = Math.imul(seed ^ (seed >>> 15), 0x2c1b3c6d) + 12345;
        const i = (seed >>> 8) % inputs.length;
        on[i] = !on[i];
        set(i, on[i] === true);
        const [seen, said] = compare();
        expect(seen, `step ${step}: ${inputs[i]} ${on[i]}`).toBe(said);
      }
    },
    60_000,
  );

  it('is on the build card, the gates that its pins need among it', async () => {
    const { stages } = await bench('in D CK R\nout Q\nQ = D at rise CK clear R');
    const inverter = stages.find((s) => s.title.startsWith("R'")) ?? expect.fail('no stage');
    expect(inverter.test).toMatch(/^It is low where R is high, on U1 pin \d+: pins that act low need it\.$/);
  });

  it('is packed by functions too', async () => {
    const { set, compare, inputs } = await bench(sheets[3]?.[1] ?? '', 'fewest');
    const [ck, r] = [inputs.indexOf('CK'), inputs.indexOf('R')];
    set(r, true);
    set(r, false);
    for (let k = 0; k < 40; k++) {
      set(ck, k % 2 === 0);
      const [seen, said] = compare();
      expect(seen).toBe(said);
    }
  }, 60_000);
});

describe('wires that are shared in equations', () => {
  it.each([
    ['three-state', 'in A B E\nout Y\nY = A when E\nY = B when ~E', '74HC126'],
    ['open-collector', 'in A B\nout Y Z\nY = ~A open\nY = ~B open\nZ = ~Y', '74HC05'],
  ])('%s: in chips, the board does what the sheet says in every row', async (_, text, part) => {
    const { set, compare, inputs, parts } = await bench(text);
    expect(parts).toContain(part);
    for (let row = 0; row < 2 ** inputs.length; row++) {
      for (const i of inputs.keys()) set(i, ((row >>> i) & 1) === 1);
      const [seen, said] = compare();
      expect(seen, `row ${row}`).toBe(said);
    }
  });
});

/** A flip-flop's equation of each form, over its own output and two more signals. */
const forms = [
  '~Q',
  'Q ^ A',
  'A ^ Q',
  '~(Q ^ A)',
  'A & ~Q | ~B & Q',
  'Q & B | ~Q & A',
  '~Q & A & B | Q & ~A',
  '~Q | Q & A',
  '~Q & A',
  'Q & ~(A & B)',
];
const netlistOf = (text: string) => readDesign(text).design.netlist ?? expect.fail(`not read: ${text}`);

describe('flip-flops of J, K and T form', () => {
  it.each(forms)("%s: J Q' + K' Q, as the form says, is the equation, in every row", (equation) => {
    const netlist = netlistOf(`in A B CK\nout Q\nQ = ${equation} at rise CK`);
    const [cell] = netlist.cells;
    if (cell?.kind !== 'stored') expect.fail('not stored');
    const makers = new Map(netlist.gates.map((g) => [g.output, g]));
    const form = jkFormOf(cell, (net) => makers.get(net)) ?? expect.fail('no form');
    for (let row = 0; row < 8; row++) {
      const levels = new Map([
        ['A', (row & 1) > 0],
        ['B', (row & 2) > 0],
        ['Q', (row & 4) > 0],
      ]);
      for (const { output, kind, inputs } of netlist.gates) {
        const read = inputs.map((net) => levels.get(net) === true);
        const count = read.filter(Boolean).length;
        const plain =
          kind.endsWith('xor') || kind === 'xnor'
            ? count % 2 === 1
            : kind.endsWith('or')
              ? count > 0
              : count === read.length;
        levels.set(output, ['not', 'nand', 'nor', 'xnor'].includes(kind) ? !plain : plain);
      }
      const term = ({ nets, isComplement }: Term): boolean => nets.every((net) => levels.get(net)) !== isComplement;
      const next = levels.get('Q') ? !term(form.k) : term(form.j);
      expect(next, `row ${row}`).toBe(levels.get(cell.data));
    }
  });

  it.each(['A & Q | B', 'A', 'A & B & Q | ~A', 'Q'])('%s has no such form', (equation) => {
    const netlist = netlistOf(`in A B CK\nout Q\nQ = ${equation} at rise CK`);
    const [cell] = netlist.cells;
    const makers = new Map(netlist.gates.map((g) => [g.output, g]));
    expect(cell?.kind === 'stored' && jkFormOf(cell, (net) => makers.get(net))).toBeNull();
  });

  it('are packed right in every family, and whatever is exchanged on a flip-flop is found', async () => {
    let found = 0;
    const equation = fc.constantFrom(...forms, 'A & B', 'A | Q', 'Q & A | B');
    const stored = fc.tuple(
      equation,
      fc.constantFrom('rise', 'fall'),
      fc.constantFrom('', ' clear R', ' preset S', ' clear R preset S'),
    );
    await fc.assert(
      fc.asyncProperty(
        fc.array(stored, { minLength: 1, maxLength: 6 }),
        fc.constantFrom<FamilyId>(...familyIds),
        fc.nat(),
        async (all, family, seed) => {
          const names = all.map((_, i) => `F${i}`);
          const lines = all.map(([text, edge, forces], i) => {
            const of = text.replaceAll('Q', `F${i}`).replaceAll('B', i > 0 ? `F${i - 1}` : 'B');
            return `F${i} = ${of} at ${edge} ${i % 3 === 2 ? `F${i - 1}` : 'CK'}${forces}`;
          });
          const netlist = netlistOf(`in A B CK R S\nout ${names.join(' ')} N\nN = ~F0\n${lines.join('\n')}`);
          const { packing, findings } = await packByStrategy(
            netlist,
            { family, strategy: 'written', supplies: anySupplies },
            solve,
            { limits: { effort: 0.3 } },
          );
          if (!packing) expect.fail(JSON.stringify(findings));
          expect(whatIsWrong(netlist, packing)).toBeNull();
          const wrong = withExchangedInputs(packing, seed);
          if (!wrong) return;
          expect(whatIsWrong(netlist, wrong), lines.join('; ')).not.toBeNull();
          found++;
        },
      ),
      { numRuns: 60 },
    );
    expect(found).toBeGreaterThan(20);
  }, 60_000);

  it('take no package but their own where they only divide: 24 bits in 12, in 13 where the first clock must be inverted', () => {
    const bits = Array.from({ length: 24 }, (_, i) => `Q${i} = ~Q${i} at fall ${i === 0 ? 'CK' : `Q${i - 1}`}`);
    const netlist = netlistOf(`in CK\nout Q23\n${bits.join('\n')}`);
    const made = (family: FamilyId) => {
      const { cells, gates } = lowered(netlist, { family });
      return [cells.map((cell) => (cell.kind === 'part' ? cell.part : '')), gates.map((g) => g.kind)];
    };
    expect(made('HC')).toEqual([Array(12).fill('74107'), []]);
    expect(made('AC')).toEqual([Array(12).fill('74112'), []]);
    expect(made('74')).toEqual([Array(12).fill('7474'), ['not']]);
  });

  it('are left to D flip-flops where the JK chips are excluded, or the drawer has none', () => {
    const netlist = netlistOf('in J K CK\nout Q\nQ = J & ~Q | ~K & Q at fall CK');
    const parts = (without: readonly string[]) =>
      lowered(netlist, { family: 'HC', without }).cells.map((c) => c.kind === 'part' && c.part);
    expect(parts([])).toEqual(['74107']);
    expect(parts(['74107'])).toEqual(['74112']);
    expect(parts(['74107', '74112', '74109'])).toEqual(['7474']);
  });

  it('leave a gate where it was put by hand', () => {
    const netlist = netlistOf('in D CK\nout Q N\nQ = D at rise CK\nN = ~Q');
    expect(lowered(netlist, { family: 'HC' }).gates).toEqual([]);
    const [kept] = lowered(netlist, { family: 'HC', kept: new Set([netlist.gates[0]?.output ?? '']) }).gates;
    expect(kept?.kind).toBe('not');
  });
});

const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i);
const rippling = (n: number, edge = 'fall') =>
  `in CK R\nout ${range(n)
    .map((i) => `Q${i}`)
    .join(' ')}\n${range(n)
    .map((i) => `Q${i} = ~Q${i} at ${i === 0 ? edge : 'fall'} ${i === 0 ? 'CK' : `Q${i - 1}`} clear R`)
    .join('\n')}`;
const counting = (n: number, enable = 'E') =>
  `in CK R E\nout ${range(n)
    .map((i) => `Q${i}`)
    .join(' ')}\n${range(n)
    .map((i) => `Q${i} = Q${i} ^ (${[enable, ...range(i).map((k) => `Q${k}`)].join(' & ')}) at rise CK clear R`)
    .join('\n')}`;
const shifting = (n: number, edge = 'rise') =>
  `in D CK R\nout ${range(n)
    .map((i) => `Q${i}`)
    .join(' ')}\n${range(n)
    .map((i) => `Q${i} = ${i === 0 ? 'D' : `Q${i - 1}`} at ${edge} CK clear R`)
    .join('\n')}`;

describe('counters and shift registers in equations', () => {
  it.each<[string, string, string[]]>([
    ['a ripple counter of six bits', rippling(6), ['74HC393']],
    ['one that counts rising edges', rippling(10, 'rise'), ['74HC4040', '74HC04']],
    ['a synchronous one of eight bits, with an enable', counting(8), ['74HC161', '74HC161']],
    ['a shift register of seven', shifting(7), ['74HC164']],
    ['one of ten, falling', shifting(10, 'fall'), ['74HC164']],
  ])('%s: in such chips when larger ones are allowed, the board does what the sheet says', async (_, text, parts) => {
    const { set, compare, inputs, parts: made } = await bench(text, 'blocks');
    for (const p of parts) expect(made).toContain(p);
    const [ck, r] = [inputs.indexOf('CK'), inputs.indexOf('R')];
    set(r, true);
    set(r, false);
    let seed = 777;
    for (let k = 0; k < 160; k++) {
      seed = Math.imul(seed ^ (seed >>> 15), 0x2c1b3c6d) + 12345;
      const other = (seed >>> 9) % 5 === 0 ? inputs.findIndex((_, i) => i !== ck && i !== r) : -1;
      set(ck, k % 2 === 0);
      if (other >= 0) set(other, (seed >>> 14) % 2 === 0);
      const [seen, said] = compare();
      expect(seen, `step ${k}`).toBe(said);
    }
    set(r, true);
    expect(compare()[0]).toBe(compare()[1]);
  });

  it('are right in every family that makes such a chip, and take fewer chips, or none more', async () => {
    const counts = new Map<string, number>();
    for (const family of familyIds)
      for (const text of [rippling(24), counting(5), shifting(8)]) {
        const netlist = netlistOf(text);
        const made = async (strategy: Strategy) => {
          const { packing } = await packByStrategy(netlist, { family, strategy, supplies: anySupplies }, solve, {
            limits: { effort: 0.25 },
          });
          if (!packing) return expect.fail(`${family} ${strategy}`);
          expect(whatIsWrong(netlist, packing)).toBeNull();
          return packing.packages.length;
        };
        const [plain, larger] = [await made('written'), await made('blocks')];
        expect(larger).toBeLessThanOrEqual(plain);
        if (text === rippling(24)) counts.set(family, larger);
      }
    expect([counts.get('HC'), counts.get('LS'), counts.get('74'), counts.get('AC')]).toEqual([2, 3, 6, 13]);
  }, 60_000);

  it.each([
    ['whose clears differ', shifting(6).replace('Q3 = Q2 at rise CK clear R', 'Q3 = Q2 at rise CK')],
    ['that skips a bit', counting(4).replace('E & Q0 & Q1 & Q2', 'E & Q0 & Q2')],
    ['that turns on rising outputs', rippling(5).replaceAll('fall', 'rise')],
    ['with a preset', rippling(4).replaceAll('clear R', 'preset R')],
  ])('one %s is not taken for one as a whole', (_, text) => {
    const netlist = netlistOf(text);
    const parts = lowered(netlist, { family: 'HC', larger: true }).cells;
    const held = parts.map((c) => (c.kind === 'part' && chainChipNumbers.includes(c.part) ? c.outputs.length : 0));
    expect(Math.max(...held)).toBeLessThan(netlist.outputs.length);
  });

  it('tell how many flip-flops clock one another, and how late the last of them is', async () => {
    const ripple = async (text: string, strategy: Strategy) => {
      const { packing } = await packByStrategy(
        netlistOf(text),
        { family: 'HC', strategy, supplies: anySupplies },
        solve,
        { limits: { effort: 0.25 } },
      );
      return packing && rippleOf(packing);
    };
    // Six 74HC107 halves of 19 ns, 32 at most; and the same in a 74HC393: 32 ns to its fourth bit, then 22 to the second of its other half.
    expect(await ripple(rippling(6), 'written')).toEqual({ stages: 6, typicalNs: 114, mostNs: 192 });
    expect(await ripple(rippling(6), 'blocks')).toEqual({ stages: 6, typicalNs: 54, mostNs: 96 });
    expect(await ripple(counting(6), 'written')).toBeNull();
    expect(await ripple(counting(6), 'blocks')).toBeNull();
  });
});

/** A packing with two different inputs of one flip-flop exchanged; null where it has none whose exchange matters for sure. */
function withExchangedInputs(packing: Packing, seed: number): Packing | null {
  const places = packing.packages.flatMap((pack, p) =>
    pack.units.flatMap((use, u) => {
      const unit = typeOf(pack)?.units[u];
      const names = unit?.behaviour.inputs ?? [];
      const [data, clock] = [names.findIndex((n) => /^\dD$|^\dJ$/.test(n)), names.findIndex((n) => /CLK$/.test(n))];
      const isSpare = !use || use.output.includes('.');
      return isSpare || data < 0 || clock < 0 || use.inputs[data] === use.inputs[clock] ? [] : [{ p, u, data, clock }];
    }),
  );
  const place = places[seed % Math.max(1, places.length)];
  if (!place) return null;
  const { p, u, data, clock } = place;
  const packages = packing.packages.map((pack, at) =>
    at === p
      ? {
          ...pack,
          units: pack.units.map((use, k) => {
            if (!use || k !== u) return use;
            const inputs = [...use.inputs];
            [inputs[data], inputs[clock]] = [elementAt(inputs, clock), elementAt(inputs, data)];
            return { ...use, inputs };
          }),
        }
      : pack,
  );
  return { ...packing, packages };
}
