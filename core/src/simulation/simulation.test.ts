import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, emptyBoard, extractNets, type SeatedPart } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { compileCircuit } from './circuit';
import { EventHeap } from './event-heap';
import { PoweredBoard } from './powered-board';

const supply: SeatedPart = { ref: 'P1', part: 'supply', at: 'b1.top+3', rotation: 0, value: 5 };

/** A powered board of parts and jumpers (`from > to`), and questions about it. */
function bench(parts: readonly SeatedPart[], jumpers: readonly string[], powered = true) {
  const list = jumpers.map((text, i) => {
    const [from = '', to = ''] = text.split(' > ');
    return [`w${i}`, { id: `w${i}`, from, to }] as const;
  });
  const all = powered ? [supply, ...parts] : parts;
  const board: Board = {
    ...emptyBoard,
    parts: Object.fromEntries(all.map((p) => [p.ref, p])),
    jumpers: Object.fromEntries(list),
  };
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const simulator = new PoweredBoard(board, nets, { circuit });
  const at = (pin: string) => simulator.levelOf(nets.ofPin.get(pin) ?? expect.fail(`${pin} is in no net`));
  return { simulator, circuit, settle: () => simulator.settle(), at };
}

const chip = (ref: string, part: string, column: number): SeatedPart => ({
  ref,
  part,
  at: `b1.e${column}`,
  rotation: 0,
});
/** Supply and ground of a 14-pin chip whose pin 1 is in a column. */
const power = (column: number): string[] => [
  `b1.j${column} > b1.top+${column}`,
  `b1.a${column + 6} > b1.top-${column + 6}`,
];
const resistor = (ref: string, at: string, value: number): SeatedPart => ({
  ref,
  part: 'resistor',
  at,
  rotation: 0,
  value,
});

describe('levels and their strength', () => {
  it('a switch that is on supplies its signal; off, the pull-down holds it low, weakly', () => {
    const b = bench(
      [{ ref: 'S1', part: 'switch', at: 'b1.f5', rotation: 0 }, resistor('R1', 'b1.a5', 10_000)],
      ['b1.j5 > b1.top+5', 'b1.top-61 > b1.bottom-61'],
    );
    b.settle();
    expect(b.at('S1.2')).toBe(LOW);
    b.simulator.setSwitch(0, true);
    b.settle();
    expect(b.at('S1.2')).toBe(HIGH);
  });

  it('without a pull-down the signal floats, and what reads it is unknown', () => {
    const b = bench(
      [{ ref: 'S1', part: 'switch', at: 'b1.f5', rotation: 0 }, chip('U1', '74HC04', 10)],
      ['b1.j5 > b1.top+5', 'b1.a5 > b1.a10', ...power(10)],
    );
    b.settle();
    expect(b.at('S1.2')).toBe(UNKNOWN);
    expect(b.simulator.point.isKnown('S1.2')).toBe(false);
    expect(b.at('U1.2')).toBe(UNKNOWN);
  });

  it('two outputs that disagree make nothing known; that agree, their level', () => {
    const wiring = [...power(10), ...power(21), 'b1.a11 > b1.b22'];
    const low = ['b1.a10 > b1.top-9', 'b1.a21 > b1.top-19'];
    const fight = ['b1.a10 > b1.top-9', 'b1.a21 > b1.top+19'];
    const parts = [chip('U1', '74HC04', 10), chip('U2', '74HC04', 21)];
    const agreeing = bench(parts, [...wiring, ...low]);
    agreeing.settle();
    expect(agreeing.at('U1.2')).toBe(HIGH);
    const fighting = bench(parts, [...wiring, ...fight]);
    fighting.settle();
    expect(fighting.at('U1.2')).toBe(UNKNOWN);
  });

  it('supply outranks outputs, outputs outrank resistors', () => {
    const b = bench(
      [chip('U1', '74HC04', 10), resistor('R1', 'b1.a11', 1000)],
      [...power(10), 'b1.b10 > b1.top-9', 'b1.top-61 > b1.bottom-61'],
    );
    b.settle();
    expect(b.at('U1.2')).toBe(HIGH);
  });

  it('two resistors divide: the smaller one wins when it is much smaller, otherwise nobody knows', () => {
    const divided = (up: number, down: number): number => {
      const b = bench(
        [resistor('R1', 'b1.a5', down), { ...resistor('R2', 'b1.top+9', up), rotation: 0 }],
        ['b1.top-61 > b1.bottom-61', 'b1.b5 > b1.i9'],
      );
      b.settle();
      return b.at('R1.1');
    };
    expect(divided(1000, 100_000)).toBe(HIGH);
    expect(divided(100_000, 1000)).toBe(LOW);
    expect(divided(1000, 1000)).toBe(UNKNOWN);
  });

  it('a chip without supply or ground drives nothing', () => {
    for (const missing of [0, 1]) {
      const b = bench(
        [chip('U1', '74HC04', 10)],
        power(10).filter((_, i) => i !== missing),
      );
      b.settle();
      expect(b.at('U1.2')).toBe(UNKNOWN);
    }
  });

  it('supply joined to ground leaves nothing known', () => {
    const b = bench([chip('U1', '74HC04', 10)], [...power(10), 'b1.top+30 > b1.top-30']);
    b.settle();
    expect(b.simulator.shorted).toBe(true);
    expect(b.at('U1.2')).toBe(UNKNOWN);
  });
});

describe('LEDs', () => {
  const led = (extra: readonly SeatedPart[], jumpers: readonly string[], rotation: 0 | 180 = 0) => {
    const at = rotation === 0 ? 'b1.c30' : 'b1.c31';
    const b = bench([{ ref: 'D1', part: 'led', at, rotation }, ...extra], [...jumpers, 'b1.top-61 > b1.bottom-61']);
    b.settle();
    return b.simulator.ledState(0);
  };
  const lit = ['b1.a30 > b1.top+29'];
  it.each([
    ['lights through its resistor', led([resistor('R1', 'b1.a31', 1000)], lit), 'lit'],
    ['stays dark the wrong way round', led([resistor('R1', 'b1.a31', 1000)], lit, 180), 'dark'],
    ['is too dim behind a large resistor', led([resistor('R1', 'b1.a31', 100_000)], lit), 'dim'],
    ['burns without one', led([], [...lit, 'b1.a31 > b1.bottom-31']), 'over'],
    ['stays dark when its cathode leads nowhere', led([], lit), 'dark'],
    ['stays dark when nothing drives it', led([resistor('R1', 'b1.a31', 1000)], []), 'dark'],
  ])('%s', (_, state, wanted) => {
    expect(state).toBe(wanted);
  });
});

describe('time', () => {
  it('a chain of inverters takes one family delay each', () => {
    const b = bench(
      [
        chip('U1', '74HC04', 10),
        { ref: 'S1', part: 'switch', at: 'b1.f5', rotation: 0 },
        resistor('R1', 'b1.a5', 10_000),
      ],
      [
        ...power(10),
        'b1.j5 > b1.top+5',
        'b1.top-61 > b1.bottom-61',
        'b1.b5 > b1.b10',
        'b1.b11 > b1.b12',
        'b1.b13 > b1.b14',
      ],
    );
    const start = b.settle().timeNs;
    b.simulator.setSwitch(0, true);
    const { timeNs, settled } = b.settle();
    expect(settled).toBe(true);
    expect(timeNs - start).toBe(27);
    expect(b.at('U1.6')).toBe(LOW);
  });

  it('an inverter that reads itself never rests, says so, and is shown as unknown', () => {
    const b = bench(
      [
        chip('U1', '74HC00', 10),
        { ref: 'S1', part: 'switch', at: 'b1.f5', rotation: 0 },
        resistor('R1', 'b1.a5', 10_000),
      ],
      [...power(10), 'b1.j5 > b1.top+5', 'b1.top-61 > b1.bottom-61', 'b1.b5 > b1.b10', 'b1.b11 > b1.b12'],
    );
    expect(b.settle().settled).toBe(true);
    expect(b.at('U1.3')).toBe(HIGH);
    b.simulator.setSwitch(0, true);
    expect(b.settle().settled).toBe(false);
    expect(b.at('U1.3')).toBe(UNKNOWN);
    b.simulator.setSwitch(0, false);
    expect(b.settle().settled).toBe(true);
    expect(b.at('U1.3')).toBe(HIGH);
  });
});

describe('the event heap', () => {
  const moves = fc.array(fc.tuple(fc.nat({ max: 9 }), fc.option(fc.nat({ max: 20 }), { nil: Infinity })), {
    maxLength: 200,
  });

  it('gives the items by their times, whatever was moved and taken back before, and the lower number first', () => {
    fc.assert(
      fc.property(moves, (all) => {
        const heap = new EventHeap(10);
        const times = new Map<number, number>();
        for (const [item, time] of all) {
          heap.put(item, time);
          if (time === Infinity) times.delete(item);
          else times.set(item, time);
          expect([heap.has(item), heap.timeOf(item), heap.size]).toEqual([time < Infinity, time, times.size]);
          expect(heap.nextTime).toBe(Math.min(Infinity, ...times.values()));
        }
        const taken = [...times].map(() => {
          const [item, time] = [heap.first, heap.nextTime];
          heap.remove(item);
          return [item, time];
        });
        expect(taken).toEqual([...times].sort(([i, a], [j, b]) => a - b || i - j));
        expect(heap.first).toBe(-1);
      }),
    );
  });
});
