import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readSheet } from '../design';
import { elementAt } from '../element-at';
import { findHazards } from './hazards';
import type { Behaviour } from './machine';

type Gate = Behaviour['gates'][number];

const kinds = ['and', 'or', 'nand', 'nor', 'xor', 'not'] as const;
/** Random networks of up to six gates over three inputs; the last gate is the output. */
const networks = fc
  .array(fc.record({ kind: fc.constantFrom(...kinds), a: fc.nat(), b: fc.nat() }), { minLength: 2, maxLength: 6 })
  .map((list): Behaviour => {
    const nets = ['A', 'B', 'C'];
    const gates = list.map(({ kind, a, b }, g): Gate => {
      const [x, y] = [elementAt(nets, a % nets.length), elementAt(nets, b % nets.length)];
      nets.push(`g${g}`);
      return { output: `g${g}`, kind, inputs: kind === 'not' ? [x] : [x, y] };
    });
    const net = elementAt(nets, nets.length - 1);
    return {
      inputs: ['A', 'B', 'C'],
      gates,
      stored: [],
      outputs: [{ name: 'Y', net, floats: null, open: false, dontCare: null }],
    };
  });

function gateValue(kind: string, [a = 0, b = a]: readonly number[]): number {
  if (kind === 'not') return 1 - a;
  const plain = kind === 'and' || kind === 'nand' ? a & b : kind === 'or' || kind === 'nor' ? a | b : a ^ b;
  return kind === 'nand' || kind === 'nor' ? 1 - plain : plain;
}

/** How often the output changes when one input turns over, by events, each wire to a gate having a delay of its own; written apart from the algebra. */
function changesSeen(
  { inputs, gates, outputs }: Behaviour,
  row: number,
  input: number,
  delayOf: (gate: number, pin: number) => number,
): number {
  const now = new Map(inputs.map((name, i) => [name, (row >> (inputs.length - 1 - i)) & 1]));
  for (const { output, kind, inputs: reads } of gates)
    now.set(
      output,
      gateValue(
        kind,
        reads.map((r) => now.get(r) ?? 0),
      ),
    );
  // What each gate sees at each pin, which comes after its wire's delay.
  const pins = gates.map(({ inputs: reads }) => reads.map((r) => now.get(r) ?? 0));
  const events: { time: number; gate: number; pin: number; level: number }[] = [];
  const tell = (net: string, level: number, time: number): void => {
    gates.forEach((g, gate) => {
      g.inputs.forEach((r, pin) => {
        if (r === net) events.push({ time: time + delayOf(gate, pin), gate, pin, level });
      });
    });
  };
  const name = elementAt(inputs, input);
  tell(name, 1 - (now.get(name) ?? 0), 0);
  let changes = outputs[0]?.net === name ? 1 : 0;
  while (events.length > 0) {
    events.sort((a, b) => a.time - b.time);
    const { time, gate, pin, level } = events.shift() ?? expect.fail();
    const own = elementAt(pins, gate);
    own[pin] = level;
    const { output, kind } = elementAt(gates, gate);
    const value = gateValue(kind, own);
    if (value === now.get(output)) continue;
    now.set(output, value);
    if (output === outputs[0]?.net) changes++;
    tell(output, value, time);
  }
  return changes;
}

const listed = (behaviour: Behaviour): Set<string> =>
  new Set(findHazards(behaviour, () => 1).hazards.map((h) => `${h.input} ${h.kind}`));

describe('hazards', () => {
  it('that appear at any delays are listed, and those that are listed where the output should stay appear at some', () => {
    const tally = { listed: 0, clean: 0 };
    fc.assert(
      fc.property(networks, fc.integer({ min: 1, max: 1e6 }), (behaviour, seed) => {
        let x = seed;
        const random = (): number => {
          x = (Math.imul(x, 1_664_525) + 1_013_904_223) >>> 0;
          return x / 2 ** 32;
        };
        const seen = new Set<string>();
        for (let n = 0; n < 250; n++) {
          const delays = behaviour.gates.map((g) => g.inputs.map(() => 10 ** (3 * random())));
          for (let row = 0; row < 8; row++)
            for (let i = 0; i < 3; i++) {
              const changes = changesSeen(behaviour, row, i, (g, p) => delays[g]?.[p] ?? 1);
              if (changes > 1) seen.add(`${behaviour.inputs[i]} ${changes % 2 === 1 ? 'dynamic' : 'static'}`);
            }
        }
        const all = listed(behaviour);
        for (const one of seen) {
          const [input, kind] = one.split(' ');
          const has =
            kind === 'dynamic'
              ? all.has(`${input} dynamic`)
              : all.has(`${input} static-0`) || all.has(`${input} static-1`);
          expect(has, `${one} of ${JSON.stringify(behaviour.gates)}`).toBe(true);
        }
        for (const one of all) {
          const [input, kind = ''] = one.split(' ');
          if (kind.startsWith('static'))
            expect([...seen], JSON.stringify(behaviour.gates)).toContain(`${input} static`);
        }
        tally[all.size > 0 ? 'listed' : 'clean']++;
      }),
      { numRuns: 60 },
    );
    expect(Math.min(tally.listed, tally.clean)).toBeGreaterThan(5);
  });

  it('of a selector written without its consensus is found, told with its width, and gone with the product that is offered', () => {
    const of = (sheet: string) => findHazards(readSheet(sheet).design.behaviour ?? expect.fail(), () => 9).hazards;
    const selector = 'in S A B\nout Y\nY = S & A | ~S & B';
    const found = of(selector);
    expect(found).toEqual([
      {
        net: expect.any(String),
        output: 'Y',
        target: null,
        kind: 'static-1',
        input: 'S',
        row: 3,
        rows: [3, 7],
        count: 2,
        widthNs: 27,
        remedy: 'A & B',
      },
    ]);
    expect(of(`${selector} | A & B`)).toEqual([]);
  });

  it('that reach a clock or a clear say so', () => {
    const behaviour =
      readSheet('in A B D R\nout Q\nQ = D at rise A & ~A | B clear R & ~R').design.behaviour ?? expect.fail();
    const targets = findHazards(behaviour, () => 10).hazards.flatMap(({ target, input, kind }) =>
      target ? [[target.at, input, kind]] : [],
    );
    expect(targets).toContainEqual(['clock', 'A', 'static-0']);
    expect(targets).toContainEqual(['clear', 'R', 'static-0']);
  });

  it('of too many sources are not looked for, and that is said', () => {
    const names = Array.from({ length: 15 }, (_, i) => `a${i}`);
    const { behaviour } = readSheet(`in ${names.join(' ')}\nout Y\nY = ${names.join(' & ')}`).design;
    expect(findHazards(behaviour ?? expect.fail(), () => 1)).toMatchObject({ hazards: [], isWhole: false });
  });
});
