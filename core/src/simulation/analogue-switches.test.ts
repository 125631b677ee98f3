import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { capacitor, MINUS, PLUS, resistor, switches, wired } from '../testing/wired';
import { compileSweep } from './board-sweep';
import { compileCircuit } from './circuit';
import { PoweredBoard, type PowerOptions } from './powered-board';
import { panelOf, walkTable } from './walk';

const power = (ref: string, plus: number, minus: number): string[] => [
  `${ref}.${plus} > ${PLUS}`,
  `${ref}.${minus} > ${MINUS}`,
];

/** A board under power: switches by name, volts and levels by pin. */
function powered(board: Board, options: PowerOptions = {}) {
  const nets = extractNets(board);
  const live = new PoweredBoard(board, nets, options);
  const netOf = (pin: string): number => nets.ofPin.get(pin) ?? expect.fail(pin);
  return {
    live,
    put: (ref: string, on: boolean) => {
      const index = live.circuit.switches.findIndex((s) => s.ref === ref);
      live.setSwitch(index, on);
      live.settle();
    },
    volts: (pin: string) => live.voltsOf(netOf(pin)),
    level: (pin: string) => live.levelOf(netOf(pin)),
  };
}

/** One 4066 whose first switch joins two nets with a pull each, moved by S1. */
const divider = wired(
  'seat 74HC4066 b1.e20',
  ...power('U1', 14, 7),
  ...switches(1),
  'S1.2 > U1.13',
  ...resistor(2, '10k', 'U1.1', PLUS),
  ...resistor(3, '10k', 'U1.2', MINUS),
);

describe('an analogue switch', () => {
  it('joins its pins both ways while its control is high, with the ohms of its data sheet', () => {
    const bench = powered(divider);
    expect([bench.volts('U1.1'), bench.volts('U1.2')]).toEqual([expect.closeTo(5, 3), expect.closeTo(0, 3)]);
    bench.put('S1', true);
    const [above, below] = [bench.volts('U1.1') ?? expect.fail(), bench.volts('U1.2') ?? expect.fail()];
    const amps = 5 / (2e4 + 45);
    expect(above).toBeCloseTo(5 - 1e4 * amps, 6);
    expect((above - below) / amps).toBeCloseTo(45, 3);
    bench.put('S1', false);
    expect([bench.volts('U1.1'), bench.volts('U1.2')]).toEqual([expect.closeTo(5, 3), expect.closeTo(0, 3)]);
  });

  it('is open and closed for all that anyone knows while its control is: what it reaches is unknown, but where both ways agree', () => {
    // The control hangs on nothing.
    const lines = ['seat 74HC4066 b1.e20', ...power('U1', 14, 7), 'seat 74HC04 b1.e35', ...power('U2', 14, 7)];
    const differing = powered(
      wired(...lines, ...resistor(1, '1k', 'U1.1', PLUS), ...resistor(2, '100k', 'U1.2', MINUS), 'U1.2 > U2.1'),
    );
    expect([differing.level('U2.1'), differing.level('U2.2')]).toEqual([UNKNOWN, UNKNOWN]);
    const alike = powered(
      wired(...lines, ...resistor(1, '1k', 'U1.1', PLUS), ...resistor(2, '100k', 'U1.2', PLUS), 'U1.2 > U2.1'),
    );
    expect([alike.level('U2.1'), alike.level('U2.2')]).toEqual([HIGH, LOW]);
  });

  it('lets what hangs on it float while it is open, and knows nothing of it while its chip has no supply', () => {
    const lines = ['seat 74HC4066 b1.e20', ...switches(1), 'S1.2 > U1.13', `U1.1 > ${PLUS}`];
    const bench = powered(wired(...lines, ...power('U1', 14, 7)));
    expect(bench.level('U1.2')).toBe(UNKNOWN);
    bench.put('S1', true);
    expect(bench.level('U1.2')).toBe(HIGH);
    expect(powered(wired(...lines, `U1.7 > ${MINUS}`)).level('U1.2')).toBe(UNKNOWN);
  });

  it('charges a capacitor while it is closed and leaves it its volts while it is open', () => {
    const bench = powered(
      wired(
        ...['seat 74HC4066 b1.e20', ...power('U1', 14, 7), ...switches(1), 'S1.2 > U1.13'],
        ...[...resistor(2, '1k', 'U1.1', PLUS), ...capacitor(1, '1u', 'U1.2', MINUS)],
      ),
    );
    const { live } = bench;
    const index = live.circuit.switches.findIndex((s) => s.ref === 'S1');
    live.setSwitch(index, true);
    const begun = live.timeNs;
    live.runUntil(begun + 1e6);
    live.setSwitch(index, false);
    live.runUntil(begun + 1.1e6);
    const held = bench.volts('U1.2') ?? expect.fail();
    expect(held).toBeCloseTo(5 * (1 - Math.exp(-1 / 1.045)), 2);
    live.runUntil(begun + 100e6);
    expect(bench.volts('U1.2')).toBeCloseTo(held, 2);
  });
});

/** The first pin of a 4051's contacts, by their numbers. */
const CHANNELS = [13, 14, 15, 12, 1, 5, 2, 4];
/** A 4051 whose contacts hang on rails as the bits of a number say; its select pins on switches, an LED shows Z. */
const selecting = (bits: number): Board =>
  wired(
    ...['seat 74HC4051 b1.e30', ...power('U1', 16, 8), `U1.6 > ${MINUS}`, `U1.7 > ${MINUS}`, ...switches(3)],
    ...['S1.2 > U1.11', 'S2.2 > U1.10', 'S3.2 > U1.9', 'label S1 A', 'label S2 B', 'label S3 C'],
    ...CHANNELS.map((pin, k) => `U1.${pin} > ${(bits >> k) & 1 ? PLUS : MINUS}`),
    ...['seat led b1.a55', 'label D1 Y', 'U1.3 > D1.A', ...resistor(4, '1k', 'D1.K', MINUS)],
  );

describe('a selector of analogue switches', () => {
  it('whose choice is unknown leaves what drives its pins known, and Z too where all pins agree', () => {
    const lines = ['seat 74HC4051 b1.e30', ...power('U1', 16, 8), `U1.6 > ${MINUS}`, `U1.7 > ${MINUS}`];
    const inverter = ['seat 74HC04 b1.e45', ...power('U2', 14, 7), `U2.1 > ${MINUS}`, 'U2.2 > U1.13', 'U2.2 > U2.5'];
    const others = CHANNELS.slice(1);
    const alike = powered(wired(...lines, ...inverter, ...others.map((pin) => `U1.${pin} > ${PLUS}`), 'U1.3 > U2.3'));
    expect([alike.level('U1.13'), alike.level('U2.6'), alike.level('U2.4')]).toEqual([HIGH, LOW, LOW]);
    const differing = powered(
      wired(...lines, ...inverter, ...others.map((pin) => `U1.${pin} > ${MINUS}`), 'U1.3 > U2.3'),
    );
    expect([differing.level('U1.13'), differing.level('U2.6'), differing.level('U2.4')]).toEqual([HIGH, LOW, UNKNOWN]);
  });

  it('shows what is on the pin that is chosen, in every row, by events and by the sweep of all rows', () => {
    fc.assert(
      fc.property(fc.nat(255), (bits) => {
        const board = selecting(bits);
        const nets = extractNets(board);
        const subject = { inputs: ['C', 'B', 'A'], outputs: ['Y'] };
        const rows = [...walkTable(board, nets, subject, true)];
        expect(rows.map(({ seen }) => seen[0])).toEqual(Array.from({ length: 8 }, (_, k) => (bits >> k) & 1));
        const circuit = compileCircuit(board);
        const panel = panelOf(board, circuit, subject.inputs, subject.outputs);
        expect(compileSweep(board, nets, { circuit, panel })).not.toBeNull();
        expect([...walkTable(board, nets, subject)]).toEqual(rows);
      }),
      { numRuns: 20, examples: [[0], [255], [0b10010110]] },
    );
  });

  it('is swept as the events have it, whatever its pins hang on', () => {
    const source = fc.constantFrom('S1.2', 'S2.2', 'S3.2', PLUS, MINUS, null);
    fc.assert(
      fc.property(fc.array(source, { minLength: 12, maxLength: 12 }), (sources) => {
        const pins = [...CHANNELS, 11, 10, 9, 6];
        const joins = pins.flatMap((pin, i) => (sources[i] ? [`U1.${pin} > ${sources[i]}`] : []));
        // A strip has four holes for jumpers: a switch feeds few pins.
        const most = ['S1.2', 'S2.2', 'S3.2'].every((s) => sources.filter((one) => one === s).length < 3);
        fc.pre(most);
        const board = wired(
          ...['seat 74HC4051 b1.e30', ...power('U1', 16, 8), `U1.7 > ${MINUS}`, ...switches(3)],
          ...['label S1 A', 'label S2 B', 'label S3 C', ...joins, 'seat 74HC04 b1.e45', ...power('U2', 14, 7)],
          ...['U1.3 > U2.1', 'seat led', 'label D1 Y', 'U2.2 > D1.A', ...resistor(4, '1k', 'D1.K', MINUS)],
        );
        const nets = extractNets(board);
        const subject = { inputs: ['C', 'B', 'A'], outputs: ['Y'] };
        const seen = (byEvents: boolean) => [...walkTable(board, nets, subject, byEvents)].map((row) => row.seen);
        expect(seen(false)).toEqual(seen(true));
      }),
      { numRuns: 60 },
    );
  });

  it('passes a level on the other way too, to the pin that is chosen and no other', () => {
    const bench = powered(
      wired(
        ...['seat 74HC4051 b1.e30', ...power('U1', 16, 8), `U1.6 > ${MINUS}`, `U1.7 > ${MINUS}`, ...switches(3)],
        ...['S1.2 > U1.11', 'S2.2 > U1.10', 'S3.2 > U1.9', `U1.3 > ${PLUS}`],
        ...CHANNELS.flatMap((pin, k) => resistor(4 + k, '10k', `U1.${pin}`, MINUS)),
      ),
    );
    for (let chosen = 0; chosen < 8; chosen++) {
      for (let k = 0; k < 3; k++) bench.put(`S${k + 1}`, ((chosen >> k) & 1) === 1);
      expect(CHANNELS.map((pin) => bench.level(`U1.${pin}`))).toEqual(
        CHANNELS.map((_, k) => (k === chosen ? HIGH : LOW)),
      );
    }
  });
});
