import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { buildCard } from '../card';
import { readDesign } from '../catalogue';
import { elementAt } from '../element-at';
import { isError } from '../finding';
import { inspect } from '../inspection';
import { compileMachine, HIGH, LOW, MachineRun } from '../logic';
import { plan } from '../planning';
import { compileCircuit, PoweredBoard, panelOf } from '../simulation';
import { solve } from '../testing/interlock';
import { whatIsWrong } from './check';
import type { Strategy } from './packing';
import { anySupplies, packByStrategy } from './strategies';

/** A sheet packed and planned: its board, switch by switch, beside the sheet's own machine. */
async function bench(text: string, strategy: Strategy = 'written') {
  const { netlist, behaviour } = readDesign(text).design;
  if (!netlist || !behaviour) return expect.fail(`not read: ${text}`);
  const { packing: made, findings } = await packByStrategy(
    netlist,
    { family: 'HC', strategy, supplies: anySupplies },
    solve,
    { limits: { effort: 3 } },
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
    const inverter = stages.find((s) => s.title.startsWith('Q.not1')) ?? expect.fail('no stage');
    expect(inverter.test).toBe('It is one step of Q.');
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
