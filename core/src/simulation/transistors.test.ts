import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { inverter, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { compileCircuit } from './circuit';
import { PoweredBoard } from './powered-board';

/** A board under power, its actuators moved one after the other: the level of a pin, and what an LED does. */
function powered(board: Board) {
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const simulator = new PoweredBoard(board, nets, { circuit });
  let last = simulator.settle();
  return {
    put: (ref: string, on: boolean): void => {
      simulator.setSwitch(
        circuit.switches.findIndex((s) => s.ref === ref),
        on,
      );
      last = simulator.settle();
    },
    level: (pin: string): number => simulator.levelOf(nets.ofPin.get(pin) ?? expect.fail(pin)),
    lamp: (ref: string) => simulator.ledState(circuit.leds.findIndex((l) => l.ref === ref)),
    isShorted: () => simulator.shorted,
    hasSettled: () => last.settled,
  };
}

/** What a board's pin shows for every setting of its switches, the first one most significant. */
function tableOf(board: Board, inputs: number, pin: string): number[] {
  const bench = powered(board);
  return Array.from({ length: 2 ** inputs }, (_, row) => {
    for (let i = 0; i < inputs; i++) bench.put(`S${i + 1}`, ((row >> (inputs - 1 - i)) & 1) === 1);
    expect(bench.hasSettled()).toBe(true);
    return bench.level(pin);
  });
}

describe('gates made of transistors', () => {
  it('an NPN with a resistor at its collector inverts', () => {
    expect(tableOf(wired(...switches(1), ...inverter(1, 2, 'S1.2')), 1, 'Q1.3')).toEqual([HIGH, LOW]);
  });

  it('two in series are a NAND, two side by side a NOR, and so are two resistors at one base', () => {
    const two = ['seat npn', 'seat npn', ...resistor(3, '10k', 'S1.2', 'Q1.2'), ...resistor(4, '10k', 'S2.2', 'Q2.2')];
    const load = resistor(5, '1k', 'Q1.3', PLUS);
    const series = wired(...switches(2), ...two, ...load, 'Q1.1 > Q2.3', `Q2.1 > ${MINUS}`);
    expect(tableOf(series, 2, 'Q1.3')).toEqual([HIGH, HIGH, HIGH, LOW]);
    const beside = wired(...switches(2), ...two, ...load, 'Q1.3 > Q2.3', `Q1.1 > ${MINUS}`, `Q2.1 > ${MINUS}`);
    expect(tableOf(beside, 2, 'Q1.3')).toEqual([HIGH, LOW, LOW, LOW]);
    const one = wired(
      ...switches(2),
      'seat npn',
      `Q1.1 > ${MINUS}`,
      ...resistor(3, '10k', 'S1.2', 'Q1.2'),
      ...resistor(4, '10k', 'S2.2', 'Q1.2'),
      ...resistor(5, '1k', 'Q1.3', PLUS),
    );
    expect(tableOf(one, 2, 'Q1.3')).toEqual([HIGH, LOW, LOW, LOW]);
  });

  it('an NPN as a follower, a PNP at the supply, a MOSFET at ground', () => {
    const follower = wired(
      ...switches(1),
      'seat npn',
      `Q1.3 > ${PLUS}`,
      'Q1.2 > S1.2',
      ...resistor(2, '1k', 'Q1.1', MINUS),
    );
    expect(tableOf(follower, 1, 'Q1.1')).toEqual([LOW, HIGH]);
    const pnp = wired(
      ...switches(1),
      'seat pnp',
      `Q1.1 > ${PLUS}`,
      ...resistor(2, '4k7', 'S1.2', 'Q1.2'),
      ...resistor(3, '1k', 'Q1.3', MINUS),
    );
    expect(tableOf(pnp, 1, 'Q1.3')).toEqual([HIGH, LOW]);
    const mosfet = wired(
      ...switches(1),
      'seat nmos',
      `Q1.1 > ${MINUS}`,
      'Q1.2 > S1.2',
      ...resistor(2, '1k', 'Q1.3', PLUS),
    );
    expect(tableOf(mosfet, 1, 'Q1.3')).toEqual([HIGH, LOW]);
  });

  it('any network of NORs, each a transistor with a resistor for every input, computes what NORs do', () => {
    const gate = fc.array(fc.nat(), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(fc.array(gate, { minLength: 1, maxLength: 5 }), (gates) => {
        const commands: string[] = ['board', 'board', 'b1.top-59 > b2.top-59', 'b1.top+58 > b2.top+58', ...switches(2)];
        let r = 3;
        const read = gates.map((picks, g) => [...new Set(picks.map((p) => p % (2 + g)))]);
        for (const [g, inputs] of read.entries()) {
          commands.push('seat npn', `Q${g + 1}.1 > ${MINUS}`, ...resistor(r++, '1k', `Q${g + 1}.3`, PLUS));
          for (const i of inputs)
            commands.push(...resistor(r++, '10k', i < 2 ? `S${i + 1}.2` : `Q${i - 1}.3`, `Q${g + 1}.2`));
        }
        const bench = powered(wired(...commands));
        for (const [a, b] of [
          [0, 0],
          [0, 1],
          [1, 1],
          [1, 0],
        ] as const) {
          bench.put('S1', a === 1);
          bench.put('S2', b === 1);
          const level: number[] = [a, b];
          for (const inputs of read) level.push(inputs.some((i) => level[i] === HIGH) ? LOW : HIGH);
          gates.forEach((_, g) => {
            expect(bench.level(`Q${g + 1}.3`)).toBe(level[2 + g]);
          });
        }
      }),
      { numRuns: 25 },
    );
  });
});

describe('diodes', () => {
  const two = ['seat diode', 'seat diode'];

  it('join highs to an OR and lows to an AND, and nothing the other way', () => {
    const or = wired(
      ...switches(2),
      ...two,
      'D1.A > S1.2',
      'D2.A > S2.2',
      'D1.K > D2.K',
      ...resistor(3, '100k', 'D1.K', MINUS),
    );
    expect(tableOf(or, 2, 'D1.K')).toEqual([LOW, HIGH, HIGH, HIGH]);
    const and = wired(
      ...switches(2),
      ...two,
      'D1.K > S1.2',
      'D2.K > S2.2',
      'D1.A > D2.A',
      ...resistor(3, '100k', 'D1.A', PLUS),
    );
    // A low here is the pull-down's, through the diode.
    expect(tableOf(and, 2, 'D1.A')).toEqual([LOW, LOW, LOW, HIGH]);
    const blocked = powered(wired(...switches(1), 'seat diode', 'D1.K > S1.2', ...resistor(2, '10k', 'D1.A', MINUS)));
    blocked.put('S1', true);
    expect(blocked.level('D1.A')).toBe(LOW);
  });
});

describe('transistors with chips and lamps', () => {
  it('an output drives a lamp through a transistor, which needs no more from it than its base takes', () => {
    const board = wired(
      ...switches(1),
      'seat 74HC04',
      `U1.14 > ${PLUS}`,
      `U1.7 > ${MINUS}`,
      'U1.1 > S1.2',
      'seat npn',
      `Q1.1 > ${MINUS}`,
      ...resistor(2, '4k7', 'U1.2', 'Q1.2'),
      'seat led',
      'D1.K > Q1.3',
      ...resistor(3, '330', 'D1.A', PLUS),
    );
    const bench = powered(board);
    bench.put('S1', false);
    expect(bench.lamp('D1')).toBe('lit');
    bench.put('S1', true);
    expect(bench.lamp('D1')).toBe('dark');
  });

  it('a chip reads what a transistor does, and the transistor what the chip does', () => {
    const board = wired(
      ...switches(1),
      ...inverter(1, 2, 'S1.2'),
      'seat 74HC04',
      ...[`U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, 'U1.1 > Q1.3'],
      ...inverter(2, 4, 'U1.2'),
    );
    expect(tableOf(board, 1, 'Q2.3')).toEqual([HIGH, LOW]);
  });
});

describe('a transistor whose emitter a chip moves', () => {
  it('conducts only while that is low', () => {
    const board = wired(
      ...switches(2),
      'seat 74HC04',
      ...[`U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, 'U1.1 > S2.2', 'seat npn', 'Q1.1 > U1.2'],
      ...resistor(3, '10k', 'S1.2', 'Q1.2'),
      ...resistor(4, '1k', 'Q1.3', PLUS),
    );
    // Low at the collector takes a high base and a low emitter, which is the inverse of the second switch.
    expect(tableOf(board, 2, 'Q1.3')).toEqual([HIGH, HIGH, HIGH, LOW]);
    expect(tableOf(board, 2, 'Q1.2')).toEqual([LOW, LOW, HIGH, LOW]);
  });
});

describe('what nobody can know', () => {
  /** Two inverters that hold each other; S1 and S2 pull a collector low through a transistor of their own. */
  const latch = wired(
    ...switches(2),
    'seat npn',
    'seat npn',
    'seat npn',
    'seat npn',
    ...[1, 2, 3, 4].map((q) => `Q${q}.1 > ${MINUS}`),
    ...resistor(3, '1k', 'Q1.3', PLUS),
    ...resistor(4, '1k', 'Q2.3', PLUS),
    ...resistor(5, '10k', 'Q1.3', 'Q2.2'),
    ...resistor(6, '10k', 'Q2.3', 'Q1.2'),
    ...resistor(7, '10k', 'S1.2', 'Q3.2'),
    ...resistor(8, '10k', 'S2.2', 'Q4.2'),
    'Q3.3 > Q1.3',
    'Q4.3 > Q2.3',
  );

  it('is which way a latch wakes up; once set it holds, and can be set the other way', () => {
    const bench = powered(latch);
    expect([bench.level('Q1.3'), bench.level('Q2.3')]).toEqual([UNKNOWN, UNKNOWN]);
    for (const [actuator, first] of [
      ['S1', LOW],
      ['S2', HIGH],
      ['S1', LOW],
    ] as const) {
      bench.put(actuator, true);
      bench.put(actuator, false);
      expect([bench.level('Q1.3'), bench.level('Q2.3')]).toEqual([first, first === LOW ? HIGH : LOW]);
    }
  });

  it('is what an open gate does; an open base does nothing', () => {
    const load = (q: string): string[] =>
      [`Q1.1 > ${MINUS}`, ...resistor(1, '1k', 'Q1.3', PLUS)].map((l) => l.replace('Q1', q));
    expect(powered(wired('seat nmos', ...load('Q1'))).level('Q1.3')).toBe(UNKNOWN);
    expect(powered(wired('seat npn', ...load('Q1'))).level('Q1.3')).toBe(HIGH);
  });

  it('is where a ring of three inverters stands; it comes to an end and says so', () => {
    const ring = [1, 2, 3].flatMap((q) => ['seat npn', `Q${q}.1 > ${MINUS}`, ...resistor(q, '1k', `Q${q}.3`, PLUS)]);
    const joined = [1, 2, 3].flatMap((q) => resistor(3 + q, '10k', `Q${q}.3`, `Q${(q % 3) + 1}.2`));
    const bench = powered(wired(...ring, ...joined));
    expect([1, 2, 3].map((q) => bench.level(`Q${q}.3`))).toEqual([UNKNOWN, UNKNOWN, UNKNOWN]);
  });

  it('is everything once a transistor shorts the supply', () => {
    const bench = powered(
      wired(...switches(1), 'seat npn', `Q1.1 > ${MINUS}`, `Q1.3 > ${PLUS}`, ...resistor(2, '1k', 'S1.2', 'Q1.2')),
    );
    expect(bench.isShorted()).toBe(false);
    bench.put('S1', true);
    expect(bench.isShorted()).toBe(true);
    bench.put('S1', false);
    expect(bench.isShorted()).toBe(false);
  });
});
