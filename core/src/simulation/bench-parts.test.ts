import { describe, expect, it } from 'vitest';
import { type Board, extractNets, leadsOf } from '../board';
import { benchParts, innerOf, typeOf } from '../catalogue';
import { inspect } from '../inspection';
import { applyEdit, newJob, readCommand } from '../job';
import { HIGH, LOW } from '../logic';
import { wired } from '../testing/wired';
import { compileCircuit } from './circuit';
import { measure } from './measure';
import { PoweredBoard } from './powered-board';
import { runBoard } from './run';

/** The board under power with some actuators on: what each lamp does, and the level at a pin. */
function powered(board: Board, ...on: string[]) {
  const nets = extractNets(board);
  const circuit = compileCircuit(board);
  const simulator = new PoweredBoard(board, nets, { circuit });
  for (const ref of on)
    simulator.setSwitch(
      circuit.switches.findIndex((s) => s.ref === ref),
      true,
    );
  simulator.settle();
  return {
    lamps: Object.fromEntries(circuit.leds.map(({ ref }, i) => [ref, simulator.ledState(i)])),
    level: (pin: string) => simulator.levelOf(nets.ofPin.get(pin) ?? -1),
  };
}

describe('every part of the catalogue', () => {
  it.each(benchParts.map((p) => p.id))(
    '%s finds a seat of its own, all leads in free strips, and can be turned',
    (id) => {
      const board = wired('seat 74HC00', `seat ${id}`);
      const part = Object.values(board.parts).at(-1) ?? expect.fail();
      expect(part.part).toBe(id);
      for (const { hole, pin } of leadsOf(part)) expect(hole, pin).not.toBeNull();
      const found = inspect(board, extractNets(board), null, 'HC').map((f) => f.code);
      expect(found).not.toContain('pins-in-one-strip');
      expect(found).not.toContain('button-always-closed');
      const rotation = readCommand(board, `rotate ${part.ref}`);
      expect(rotation.ok && applyEdit({ ...newJob('x'), board }, rotation.edit).ok, 'turn').toBe(
        !['diode', 'zener', 'capacitor'].includes(id),
      );
    },
  );

  it('names only pins that it has', () => {
    for (const type of benchParts) {
      const ids = new Set(type.pins.map((p) => p.id));
      const { joined, contacts, lamps, resistors, signalPin } = innerOf(type);
      const named = [
        ...joined.flat(),
        ...contacts.flatMap((c) => [c.a, c.b]),
        ...lamps.flatMap((l) => [l.anode, l.cathode]),
        ...resistors.flatMap((r) => [r.a, r.b]),
        ...(signalPin === null ? [] : [signalPin]),
      ];
      for (const id of named) expect(ids, `${type.id} ${id}`).toContain(id);
    }
  });
});

describe('under power', () => {
  it('a push-button joins its sides while it is pressed, each side on two pins', () => {
    const board = wired('seat push-button b1.e10', 'seat resistor b1.a21', 'S1.1 > b1.bottom+', 'S1.3 > R1.1');
    expect(powered(board).level('S1.2')).toBe(LOW);
    expect(powered(board, 'S1').level('S1.2')).toBe(HIGH);
    expect(extractNets(board).ofPin.get('S1.1')).toBe(extractNets(board).ofPin.get('S1.4'));
  });

  it('a change-over gives one level or the other, without a resistor', () => {
    const board = wired('seat change-over b1.b10', 'S1.1 > b1.bottom+', 'S1.3 > b1.bottom-');
    expect(powered(board).level('S1.2')).toBe(LOW);
    expect(powered(board, 'S1').level('S1.2')).toBe(HIGH);
    expect(inspect(board, extractNets(board), null, 'HC')).toEqual([]);
  });

  it('each contact of a DIP switch has its own actuator, and a resistor network pulls them down', () => {
    const pulls = [1, 2, 3].flatMap((n) => [`S1.${n} > b1.bottom+`, `S1.${17 - n} > RN1.${n + 1}`]);
    const board = wired('seat dip-switch b1.e10', 'seat network-common b1.b30', 'RN1.1 > b1.bottom-', ...pulls);
    const { level } = powered(board, 'S1.2');
    expect([16, 15, 14].map((pin) => level(`S1.${pin}`))).toEqual([LOW, HIGH, LOW]);
    expect(inspect(board, extractNets(board), null, 'HC')).toEqual([]);
  });

  it('a clock module is high while its actuator is on', () => {
    const board = wired('seat clock b1.b10', 'X1.1 > b1.bottom+', 'X1.2 > b1.bottom-');
    expect(powered(board).level('X1.3')).toBe(LOW);
    expect(powered(board, 'X1').level('X1.3')).toBe(HIGH);
  });

  it('a potentiometer divides in the middle: its wiper is neither high nor low', () => {
    const board = wired('seat potentiometer b1.b10', 'RV1.1 > b1.bottom+', 'RV1.3 > b1.bottom-');
    expect([HIGH, LOW]).not.toContain(powered(board).level('RV1.2'));
  });

  it('a potentiometer is measured and run where it is turned to; one that there is not is named', () => {
    const board = wired('seat potentiometer b1.b10', 'RV1.1 > b1.bottom+', 'RV1.3 > b1.bottom-');
    const dials = new Map([['RV1', 20]]);
    expect(measure(board, [], { dials }).measured?.pins['RV1.2']).toEqual({ volts: expect.closeTo(4, 2), level: '1' });
    const { run } = runBoard(board, { untilNs: 1e6, watch: ['RV1.2'], dials });
    const row = run?.trace.rows[0];
    expect([row?.levelAt(row.length - 1), row?.voltsAt(row.length - 1)]).toEqual([HIGH, expect.closeTo(4, 2)]);
    const strange = new Map([['RV2', 20]]);
    expect(measure(board, [], { dials: strange })).toMatchObject({ measured: null, unknown: ['RV2'] });
    expect(runBoard(board, { untilNs: 1e6, dials: strange })).toEqual({ run: null, unknown: ['RV2'] });
  });

  it.each([
    ['display-cathode', '74HC4511', 'b1.bottom-'],
    ['display-anode', '74LS47', 'b1.bottom+'],
  ])('a %s shows the digit that a %s decodes', (display, decoder, common) => {
    // Pins of display and decoder by segment, from both data sheets.
    const segments = { a: [7, 13], b: [6, 12], c: [4, 11], d: [2, 10], e: [1, 9], f: [9, 15], g: [10, 14] };
    const lay = Object.values(segments).flatMap(([pin, out], i) => [
      `seat resistor b1.${'f'}${40 + i}`,
      `U1.${out} > R${i + 1}.1`,
      `R${i + 1}.2 > H1.${pin}`,
    ]);
    const inputs = { 7: '+', 1: '-', 2: '+', 6: '-' };
    const controls = decoder === '74HC4511' ? { 3: '+', 4: '+', 5: '-' } : { 3: '+', 4: '+', 5: '+' };
    const ties = Object.entries({ ...inputs, ...controls }).map(([pin, rail]) => `U1.${pin} > b1.bottom${rail}`);
    const board = wired(
      `seat ${decoder} b1.e20`,
      `seat ${display} b1.e5`,
      'U1.16 > b1.top+',
      'U1.8 > b1.bottom-',
      `H1.3 > ${common}`,
      ...ties,
      ...lay,
    );
    const { lamps } = powered(board);
    const lit = Object.keys(segments).filter((s) => lamps[`H1.${s}`] === 'lit');
    expect(lit.join('')).toBe('acdfg');
    const codes = inspect(board, extractNets(board), null, 'HC').map((f) => f.code);
    for (const code of [
      'display-polarity',
      'display-shared-resistor',
      'led-no-resistor',
      'led-no-return',
      'led-reversed',
    ])
      expect(codes).not.toContain(code);
    expect(typeOf({ part: display })?.kind).toBe('display');
  });
});
