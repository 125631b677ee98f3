import { describe, expect, it } from 'vitest';
import { type Board, emptyBoard, extractNets, type SeatedPart } from '../board';
import { inspect } from '../inspection';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { PoweredBoard } from './powered-board';

/** A powered board with one 14-pin chip at column 20, switches on some of its pins, and jumpers between pins' strips. */
function bench(
  part: string,
  switched: readonly string[],
  jumpers: readonly string[] = [],
  more: readonly SeatedPart[] = [],
) {
  const chip: SeatedPart = { ref: 'U1', part, at: 'b1.e20', rotation: 0 };
  const hole = (pin: string, depth: number): string => {
    const n = Number(pin);
    return n <= 7 ? `b1.${'dcba'[depth]}${19 + n}` : `b1.${'ghij'[depth]}${34 - n}`;
  };
  const switches = switched.flatMap((pin, i): SeatedPart[] => [
    { ref: `S${i + 1}`, part: 'switch', at: `b1.f${5 + 2 * i}`, rotation: 0, signal: pin },
    {
      ref: `R${i + 1}`,
      part: 'resistor',
      at: `b1.a${5 + 2 * i}`,
      rotation: 0,
      value: part.includes('HC') ? 10_000 : 220,
    },
  ]);
  const wires = [
    'b1.top-61 > b1.bottom-61',
    ...switched.map((_, i) => `b1.j${5 + 2 * i} > b1.top+${[5, 7, 9, 12, 13, 15][i]}`),
    ...switched.map((pin, i) => `b1.e${5 + 2 * i} > ${hole(pin, 0)}`),
    ...jumpers.map((text) => text.replace(/U1\.(\d+)/g, (_, pin: string) => hole(pin, 2))),
  ];
  const list: SeatedPart[] = [
    { ref: 'P1', part: 'supply', at: 'b1.top+3', rotation: 0, value: 5 },
    chip,
    ...switches,
    ...more,
  ];
  const board: Board = {
    ...emptyBoard,
    parts: Object.fromEntries(list.map((p) => [p.ref, p])),
    jumpers: Object.fromEntries(
      wires.map((text, i) => {
        const [from = '', to = ''] = text.split(' > ');
        return [`w${i + 1}`, { id: `w${i + 1}`, from, to }];
      }),
    ),
  };
  const nets = extractNets(board);
  const simulator = new PoweredBoard(board, nets);
  const at = (pin: string) => simulator.levelOf(nets.ofPin.get(`U1.${pin}`) ?? expect.fail(`${pin} is in no net`));
  const set = (pin: string, on: boolean) => {
    simulator.setSwitch(switched.indexOf(pin), on);
    return simulator.settle();
  };
  return { board, nets, simulator, at, set };
}

const power = ['b1.j20 > b1.top+19', 'b1.a26 > b1.bottom-27'];
/** The supply pins of a 7474, and preset of its first flip-flop tied high. */
const flipFlop = [...power, 'U1.4 > b1.top+25'];

describe('parts that store, on a board', () => {
  it('take their data at the edge that a switch makes, and keep it', () => {
    const b = bench('74HC74', ['1', '2', '3'], flipFlop);
    expect(bench('74HC74', ['2', '3'], [...flipFlop, 'U1.1 > b1.top+27']).at('5')).toBe(UNKNOWN);
    b.set('1', false);
    expect([b.at('5'), b.at('6')]).toEqual([LOW, HIGH]);
    b.set('1', true);
    b.set('2', true);
    expect(b.at('5')).toBe(LOW);
    b.set('3', true);
    expect([b.at('5'), b.at('6')]).toEqual([HIGH, LOW]);
    b.set('2', false);
    b.set('3', false);
    expect(b.at('5')).toBe(HIGH);
  });

  it('divide their clock by two when their complement is their data', () => {
    const b = bench('74HC74', ['1', '3'], [...flipFlop, 'U1.6 > U1.2']);
    b.set('1', false);
    b.set('1', true);
    const counts = Array.from({ length: 6 }, () => {
      b.set('3', true);
      const level = b.at('5');
      b.set('3', false);
      return level;
    });
    expect(counts).toEqual([HIGH, LOW, HIGH, LOW, HIGH, LOW]);
  });

  it('know nothing without supply', () => {
    const b = bench('74HC74', ['1', '2', '3'], ['b1.a26 > b1.bottom-27']);
    b.set('1', false);
    expect(b.at('5')).toBe(UNKNOWN);
  });

  it('of one-shots end their pulse when all else is at rest', () => {
    const b = bench(
      '74121',
      ['5'],
      ['b1.j20 > b1.top+19', 'b1.a26 > b1.bottom-27', 'U1.3 > b1.bottom-25', 'U1.4 > b1.bottom-24'],
    );
    b.set('5', true);
    expect(b.at('6')).not.toBe(HIGH);
    b.set('5', false);
    expect(b.set('5', true).settled).toBe(true);
    expect([b.at('6'), b.at('1')]).toEqual([LOW, HIGH]);
  });
});

describe('outputs that let go', () => {
  const pullUp: SeatedPart = { ref: 'R9', part: 'resistor', at: 'b1.top+40', rotation: 0, value: 1000 };

  it('an open-collector output pulls low, and is high by its resistor alone', () => {
    const b = bench('74HC03', ['1', '2'], [...power, 'U1.3 > b1.j40'], [pullUp]);
    b.set('1', true);
    expect(b.at('3')).toBe(HIGH);
    b.set('2', true);
    expect(b.at('3')).toBe(LOW);
    b.set('1', false);
    expect(b.at('3')).toBe(HIGH);
  });

  it('without a resistor nothing says what it is', () => {
    const b = bench('74HC03', ['1', '2'], power);
    b.set('1', true);
    expect(b.at('3')).toBe(UNKNOWN);
  });

  it('two of them on one wire are an AND, and nothing to mend', () => {
    const tied = [...power, 'U1.3 > b1.j40', 'U1.6 > b1.i40'];
    const b = bench('74HC03', ['1', '2', '4', '5'], tied, [pullUp]);
    b.set('1', true);
    expect(b.at('3')).toBe(HIGH);
    b.set('4', true);
    b.set('5', true);
    expect(b.at('3')).toBe(LOW);
    expect(inspect(b.board, b.nets, null, 'HC').map((f) => f.code)).not.toContain('outputs-joined');
    const plain = bench('74HC00', ['1', '2', '4', '5'], tied, [pullUp]);
    expect(inspect(plain.board, plain.nets, null, 'HC').map((f) => f.code)).toContain('outputs-joined');
  });

  it('three-state buffers take turns on a wire; both off it floats, both on and apart it is unknown', () => {
    // Buffers 1 (enable 1, data 2, output 3) and 2 (4, 5, 6) share their output.
    const b = bench('74HC125', ['1', '2', '4', '5'], [...power, 'U1.3 > U1.6']);
    const enables = (one: boolean, two: boolean) => {
      b.set('1', !one);
      b.set('4', !two);
      return b.at('3');
    };
    b.set('2', true);
    b.set('5', false);
    expect(enables(true, false)).toBe(HIGH);
    expect(enables(false, true)).toBe(LOW);
    expect(enables(false, false)).toBe(UNKNOWN);
    expect(enables(true, true)).toBe(UNKNOWN);
  });
});

describe('inputs left open', () => {
  it('read high in TTL, and nothing certain in CMOS', () => {
    const [ttl, cmos] = [bench('74LS04', [], power), bench('74HC04', [], power)];
    for (const b of [ttl, cmos]) b.simulator.settle();
    expect(ttl.at('2')).toBe(LOW);
    expect(cmos.at('2')).toBe(UNKNOWN);
  });
});
