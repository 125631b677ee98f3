import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { inspect } from '../inspection';
import { inverter, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { PoweredBoard } from './powered-board';

/** Volts at pins for each way that the switches of a board may stand, the first switch most significant. */
function voltsOf(board: Board, inputs: number, ...pins: string[]): number[][] {
  const live = new PoweredBoard(board, extractNets(board));
  return Array.from({ length: 2 ** inputs }, (_, row) => {
    for (let i = 0; i < inputs; i++) live.setSwitch(i, ((row >> (inputs - 1 - i)) & 1) === 1);
    expect(live.settle().settled).toBe(true);
    expect(live.shorted).toBe(false);
    return pins.map((pin) => live.point.voltsAt(pin) ?? Number.NaN);
  });
}

const tableOf = (rows: readonly number[][]): string => rows.map(([v = 2.5]) => (v > 2.5 ? 1 : 0)).join('');

describe('gates of discrete parts', () => {
  it('resistor-transistor logic inverts, and a NOR is one transistor for each input on a common load', () => {
    const not = wired(...switches(1), ...inverter(1, 2, 'S1.2'));
    const [low = [], high = []] = voltsOf(not, 1, 'Q1.3', 'Q1.2');
    expect(low[0]).toBeGreaterThan(4.99);
    expect(high[0]).toBeLessThan(0.2);
    expect(high[1]).toBeGreaterThan(0.6);
    expect(high[1]).toBeLessThan(0.8);
    const nor = wired(
      ...switches(2),
      ...inverter(1, 3, 'S1.2'),
      ...['seat npn', `Q2.1 > ${MINUS}`, 'Q2.3 > Q1.3'],
      ...resistor(5, '10k', 'S2.2', 'Q2.2'),
    );
    expect(tableOf(voltsOf(nor, 2, 'Q1.3'))).toBe('1000');
  });

  it('the two kinds of high differ where the collector resistor is as large as the base resistors', () => {
    const loaded = (load: string): number => {
      const board = wired(...switches(1), ...inverter(1, 2, 'S1.2', { load }), ...inverter(2, 4, 'Q1.3', { load }));
      return voltsOf(board, 1, 'Q1.3')[0]?.[0] ?? Number.NaN;
    };
    const alone =
      voltsOf(wired(...switches(1), ...inverter(1, 2, 'S1.2', { load: '10k' })), 1, 'Q1.3')[0]?.[0] ?? Number.NaN;
    expect(alone).toBeGreaterThan(4.99);
    expect(loaded('10k')).toBeGreaterThan(2.5);
    expect(loaded('10k')).toBeLessThan(3.1);
    expect(loaded('1k')).toBeGreaterThan(4.5);
  });

  it('diode logic is an OR of highs and an AND of lows, each a junction short of its rail', () => {
    const gate = (...parts: string[]): Board => wired(...switches(2), ...parts);
    const or = gate(
      ...['seat diode', 'seat diode', 'D1.A > S1.2', 'D2.A > S2.2', 'D1.K > D2.K'],
      ...resistor(3, '100k', 'D1.K', MINUS),
    );
    const rows = voltsOf(or, 2, 'D1.K');
    expect(tableOf(rows)).toBe('0111');
    for (const [v = 0] of rows.slice(1)) {
      expect(v).toBeGreaterThan(4.2);
      expect(v).toBeLessThan(4.6);
    }
    const and = gate(
      ...['seat diode', 'seat diode', 'D1.K > S1.2', 'D2.K > S2.2', 'D1.A > D2.A'],
      ...resistor(3, '1M', 'D1.A', PLUS),
    );
    const lows = voltsOf(and, 2, 'D1.A');
    expect(tableOf(lows)).toBe('0001');
    for (const [v = 0] of lows.slice(0, 3)) {
      expect(v).toBeGreaterThan(0.2);
      expect(v).toBeLessThan(0.7);
    }
  });

  it('an emitter follower gives a junction less than its base, and a MOSFET with a load inverts', () => {
    const follower = wired(
      ...switches(1),
      ...['seat npn', `Q1.3 > ${PLUS}`, 'S1.2 > Q1.2'],
      ...resistor(2, '1k', 'Q1.1', MINUS),
    );
    const [off = [], on = []] = voltsOf(follower, 1, 'Q1.1');
    expect(off[0]).toBeLessThan(0.05);
    expect(on[0]).toBeGreaterThan(4.1);
    expect(on[0]).toBeLessThan(4.45);
    const nmos = wired(
      ...switches(1),
      'seat nmos',
      `Q1.1 > ${MINUS}`,
      'S1.2 > Q1.2',
      ...resistor(2, '1k', 'Q1.3', PLUS),
    );
    const [high = [], low = []] = voltsOf(nmos, 1, 'Q1.3');
    expect(high[0]).toBeGreaterThan(4.99);
    expect(low[0]).toBeLessThan(0.05);
  });

  it('diode-transistor logic is a NAND: diodes pull the base current away, two more hold the transistor off', () => {
    const nand = wired(
      ...switches(2),
      ...['seat diode', 'seat diode', 'seat diode', 'seat diode', 'seat npn'],
      ...['D1.K > S1.2', 'D2.K > S2.2', 'D1.A > D2.A', 'D3.A > D1.A', 'D3.K > D4.A', 'D4.K > Q1.2', `Q1.1 > ${MINUS}`],
      ...resistor(3, '4k7', 'D1.A', PLUS),
      ...resistor(4, '1k', 'Q1.3', PLUS),
      ...resistor(5, '10k', 'Q1.2', MINUS),
      // The pull-downs must carry what the diodes give: 10 kΩ would not.
      'value R1 220',
      'value R2 220',
    );
    const rows = voltsOf(nand, 2, 'Q1.3', 'D1.A', 'Q1.2');
    expect(tableOf(rows)).toBe('1110');
    expect(rows[3]?.[0]).toBeLessThan(0.2);
    // One diode above the input that is low; three junctions above ground when both are high.
    expect(rows[0]?.[1]).toBeGreaterThan(0.6);
    expect(rows[0]?.[1]).toBeLessThan(1);
    expect(rows[3]?.[1]).toBeGreaterThan(1.7);
    expect(rows[3]?.[1]).toBeLessThan(2.2);
  });

  it('NMOS and CMOS invert from rail to rail; CMOS takes next to nothing at rest, NMOS what its load gives', () => {
    const nmos = wired(
      ...switches(1),
      'seat nmos',
      `Q1.1 > ${MINUS}`,
      'Q1.2 > S1.2',
      ...resistor(2, '1k', 'Q1.3', PLUS),
    );
    const cmos = wired(
      ...switches(1),
      ...['seat nmos', 'seat pmos', `Q1.1 > ${MINUS}`, `Q2.3 > ${PLUS}`, 'Q1.2 > S1.2', 'Q2.2 > S1.2', 'Q1.3 > Q2.1'],
    );
    for (const board of [nmos, cmos]) {
      const [[low = 0] = [], [high = 5] = []] = voltsOf(board, 1, 'Q1.3');
      expect([low, high]).toEqual([expect.closeTo(5, 1), expect.closeTo(0, 1)]);
    }
    const takes = (board: Board, on: boolean): number => {
      const live = new PoweredBoard(board, extractNets(board));
      live.setSwitch(0, on);
      live.settle();
      return live.supplyMa;
    };
    expect(takes(nmos, true)).toBeCloseTo(5 + 0.5, 1);
    expect(takes(cmos, true)).toBeCloseTo(0.5, 2);
    expect(takes(cmos, false)).toBeLessThan(0.01);
  });

  it('a CMOS NAND of four MOSFETs computes and rests without current', () => {
    const nand = wired(
      ...switches(2),
      ...['seat nmos', 'seat nmos', 'seat pmos', 'seat pmos'],
      ...[`Q1.1 > ${MINUS}`, 'Q1.3 > Q2.1', 'Q2.3 > Q3.1', 'Q3.1 > Q4.1', `Q3.3 > ${PLUS}`, `Q4.3 > ${PLUS}`],
      ...['S1.2 > Q1.2', 'Q1.2 > Q3.2', 'S2.2 > Q2.2', 'Q2.2 > Q4.2'],
    );
    expect(tableOf(voltsOf(nand, 2, 'Q2.3'))).toBe('1110');
  });
});

describe('parts of many kinds', () => {
  it('LEDs of each colour take what their own curve leaves, and are drawn as what they are', () => {
    const ma = (part: string): number => {
      const board = wired(`seat ${part} b1.c40`, `D1.A > ${PLUS}`, 'seat resistor b1.a41', 'value R1 330');
      const live = new PoweredBoard(board, extractNets(board));
      live.settle();
      expect(live.lamp(0).state).toBe('lit');
      return live.lamp(0).ma;
    };
    const [red, yellow, green, blue, white] = ['led', 'led-yellow', 'led-green', 'led-blue', 'led-white'].map(ma);
    expect(red).toBeCloseTo((5 - 1.9) / 0.33, 0);
    expect([red, yellow, green, blue]).toEqual([red, yellow, green, blue].sort((a = 0, b = 0) => b - a));
    expect(blue).toBeCloseTo((5 - 3) / 0.33, 0);
    expect(white).toBe(blue);
  });

  it('a buzzer sounds across the supply without a resistor, and is too weak to sound behind one that leaves it too little', () => {
    const state = (ohms: string, plus = 1): string => {
      const board = wired('seat buzzer', ...resistor(1, ohms, `Z1.${plus}`, PLUS), `Z1.${3 - plus} > ${MINUS}`);
      const live = new PoweredBoard(board, extractNets(board));
      live.settle();
      return live.lamp(0).state;
    };
    expect([state('1'), state('220'), state('10k'), state('1', 2)]).toEqual(['lit', 'lit', 'dim', 'dark']);
    const bare = wired('seat buzzer', `Z1.1 > ${PLUS}`, `Z1.2 > ${MINUS}`);
    const live = new PoweredBoard(bare, extractNets(bare));
    live.settle();
    expect(live.supplyMa).toBeCloseTo(25, 0);
    expect(inspect(bare, extractNets(bare), null, 'HC')).toEqual([]);
  });

  it('a Zener diode holds its volts behind a resistor, and is a diode the other way round', () => {
    const held = (anode: string, cathode: string): number => {
      const board = wired(
        'value P1 9',
        'seat zener',
        ...resistor(1, '1k', `D1.${cathode}`, PLUS),
        `D1.${anode} > ${MINUS}`,
      );
      return voltsOf(board, 0, `D1.${cathode}`)[0]?.[0] ?? Number.NaN;
    };
    expect(held('A', 'K')).toBeCloseTo(5.1, 1);
    expect(held('K', 'A')).toBeCloseTo(0.7, 1);
  });

  it('a battery feeds a board as a supply does', () => {
    const board = wired('pull P1', 'seat battery b1.top+3', 'value P1 6', ...resistor(1, '1k', PLUS, MINUS));
    const live = new PoweredBoard(board, extractNets(board));
    live.settle();
    expect([live.point.voltsAt('R1.1'), live.supplyMa]).toEqual([expect.closeTo(6, 3), expect.closeTo(6, 3)]);
  });
});
