import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { says } from '../finding';
import { readJobFile } from '../job-reader';
import { inputAt, UNKNOWN } from '../logic';
import { MINUS, resistor, switches, wired } from '../testing/wired';
import { measure } from './measure';
import { levelShown } from './panel';
import { PoweredBoard } from './powered-board';
import { placeNamed, subjectOf, unclearFinding, walkTable } from './walk';

const folder = `${import.meta.dirname}/../../../samples`;
const samples = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .map((name) => {
    const read = readJobFile(readFileSync(`${folder}/${name}`, 'utf8'));
    return [name.replace('.saddlebag.json', ''), read.ok ? read.job.board : expect.fail(name)] as const;
  });

const powered = (board: Board, on: readonly string[] = []): PoweredBoard => {
  const made = new PoweredBoard(board, extractNets(board));
  for (const name of on)
    made.setSwitch(
      made.circuit.switches.findIndex((s) => s.ref === name),
      true,
    );
  expect(made.settle().settled).toBe(true);
  return made;
};

describe.each(samples)('the volts of %s', (name, board) => {
  it('say in every row what strengths say, but where the volts are no level', () => {
    const nets = extractNets(board);
    const { inputs, outputs } = subjectOf(board, nets);
    const byStrength = [...walkTable(board, nets, { inputs: inputs.slice(0, 6), outputs: outputs })];
    const live = new PoweredBoard(board, nets);
    const switches = inputs.slice(0, 6).map((input) => placeNamed(board, 'give', input)?.called ?? '');
    const lamps = outputs.map((output) => placeNamed(board, 'show', output));
    for (const { row, seen } of byStrength) {
      switches.forEach((s, i) => {
        live.setSwitch(
          live.circuit.switches.findIndex((a) => a.ref === s),
          inputAt(switches.length, i, row) === 1,
        );
      });
      live.settle();
      const now = lamps.map((lamp) => {
        const { state } = live.lamp(live.circuit.leds.findIndex((l) => l.ref === lamp?.called));
        return levelShown(state, lamp?.inverted);
      });
      if (name !== 'apprentice-bench') expect([row, now]).toEqual([row, seen]);
      else for (const [o, level] of now.entries()) expect([seen[o], UNKNOWN]).toContain(level);
    }
  });
});

describe('levels at pins', () => {
  const inverter = (part: string, ...more: string[]): Board =>
    wired(`seat ${part} b1.e20`, 'U1.14 > b1.top+', 'U1.7 > b1.bottom-', ...more);
  const read = (board: Board, pin: string) => {
    const { point } = powered(board);
    return [point.levelAt(pin), point.voltsAt(pin)] as const;
  };

  it('a TTL input behind 10 kΩ to ground is no low, behind 1 kΩ it is; a CMOS input is low behind both', () => {
    const pulled = (part: string, ohms: string): Board => inverter(part, ...resistor(1, ohms, 'U1.1', MINUS));
    for (const [part, ohms, level] of [
      ['74LS04', '10k', '?'],
      ['74LS04', '1k', '0'],
      ['7404', '10k', '?'],
      ['7404', '220', '0'],
      ['74HC04', '10k', '0'],
      ['74HC04', '1M', '0'],
    ] as const) {
      const board = pulled(part, ohms);
      const { point } = powered(board);
      expect([part, ohms, point.levelAt('U1.1')]).toEqual([part, ohms, level]);
    }
  });

  it('an open TTL input reads high, an open CMOS input as nobody knows', () => {
    expect(read(inverter('74LS04'), 'U1.1')[0]).toBe('1');
    expect(read(inverter('74LS04'), 'U1.2')[0]).toBe('0');
    expect(read(inverter('74HC04'), 'U1.1')[0]).toBe('?');
    expect(read(inverter('74HC04'), 'U1.2')[0]).toBe('?');
  });

  it('levels, volts and lamps follow the current: what a load does to an output', () => {
    const loaded = (ohms: string): Board =>
      inverter('74HC04', 'U1.1 > b1.bottom-', 'seat led', ...resistor(1, ohms, 'D1.K', MINUS), 'D1.A > U1.2');
    const { point, ...none } = powered(loaded('1k'));
    expect(none).toBeDefined();
    expect(point.levelAt('U1.2')).toBe('1');
    expect(point.voltsAt('U1.2')).toBeGreaterThan(4.7);
    const bright = powered(loaded('330')).lamp(0);
    const faint = powered(loaded('10k')).lamp(0);
    const burnt = powered(loaded('10')).lamp(0);
    expect([bright.state, faint.state]).toEqual(['lit', 'dim']);
    expect(bright.ma).toBeGreaterThan(7);
    expect(faint.ma).toBeLessThan(0.4);
    expect(burnt.state).toBe('over');
    // The output is pulled down by so much, and its readers no longer see a level.
    expect(powered(loaded('10')).point.levelAt('U1.2')).toBe('?');
  });

  it('two outputs that fight have volts between, and nobody reads a level there', () => {
    const board = inverter('74HC04', 'U1.1 > b1.bottom-', 'U1.3 > b1.top+', 'U1.2 > U1.4', 'U1.2 > U1.5');
    const { point } = powered(board);
    expect(point.levelAt('U1.5')).toBe('?');
    expect(point.voltsAt('U1.2')).toBeGreaterThan(1.5);
    expect(point.voltsAt('U1.2')).toBeLessThan(3.2);
    expect(point.supplyMa).toBeGreaterThan(40);
  });

  it('TTL wins a fight downwards, as its totem pole has it', () => {
    const board = inverter('74LS04', 'U1.1 > b1.bottom-', 'U1.3 > b1.top+', 'U1.2 > U1.4');
    expect(powered(board).point.voltsAt('U1.2')).toBeLessThan(1.2);
  });

  it('2.7 V is a high to HCT and no level to HC', () => {
    for (const [reader, level] of [
      ['74HCT04', '1'],
      ['74HC04', '?'],
    ] as const) {
      const board = wired(
        ...['seat 74LS04 b1.e20', 'U1.14 > b1.top+', 'U1.7 > b1.bottom-', 'U1.1 > b1.bottom-'],
        ...[`seat ${reader} b1.e35`, 'U2.14 > b1.top+', 'U2.7 > b1.bottom-', 'U1.2 > U2.1'],
        ...resistor(1, '1k', 'U1.2', MINUS),
      );
      const { point } = powered(board);
      expect(point.voltsAt('U2.1')).toBeGreaterThan(2);
      expect(point.voltsAt('U2.1')).toBeLessThan(3.4);
      expect([reader, point.levelAt('U2.1')]).toEqual([reader, level]);
    }
  });

  it('a chip without supply, or the wrong way round, has outputs that nobody knows, and so has what hangs on them', () => {
    const led = ['seat led', ...resistor(1, '1k', 'D1.K', MINUS), 'D1.A > U1.2'];
    const bare = wired('seat 74HC04 b1.e20', 'U1.7 > b1.bottom-', 'U1.1 > b1.bottom-', ...led);
    const reversed = wired('seat 74HC04 b1.e20', 'U1.14 > b1.bottom-', 'U1.7 > b1.top+', 'U1.1 > b1.bottom-', ...led);
    for (const board of [bare, reversed]) {
      const live = powered(board);
      expect(live.point.levelAt('U1.2')).toBe('?');
      expect(live.lamp(0).state).toBe('unknown');
    }
  });

  it('is fed through a switch: with it on the chip works, with it off nothing is known', () => {
    const board = inverter('74HC04', 'U1.1 > b1.bottom-');
    const switched = wired(
      ...[
        'seat 74HC04 b1.e20',
        'U1.7 > b1.bottom-',
        'U1.1 > b1.bottom-',
        'seat switch',
        'S1.1 > b1.top+',
        'S1.2 > U1.14',
      ],
    );
    expect(powered(board).point.levelAt('U1.2')).toBe('1');
    expect(powered(switched, ['S1']).point.levelAt('U1.2')).toBe('1');
    expect(powered(switched).point.levelAt('U1.2')).toBe('?');
  });

  it('of a board whose supply is shorted, by a wire or by a switch, nothing is known', () => {
    const wire = inverter('74HC04', 'b1.top+21 > b1.bottom-21');
    expect(powered(wire).point.levelAt('U1.2')).toBe('?');
    const byHand = inverter('74HC04', 'U1.1 > b1.bottom-', 'seat switch', 'S1.1 > b1.top+', 'S1.2 > b1.bottom-');
    expect(powered(byHand).point.levelAt('U1.2')).toBe('1');
    expect(powered(byHand, ['S1']).point.levelAt('U1.2')).toBe('?');
  });
});

describe('measuring', () => {
  it('names switches by signal or by reference, moves them one after the other, and says which it does not know', () => {
    const latch = wired(
      ...['seat 74HC00 b1.e20', 'U1.14 > b1.top+', 'U1.7 > b1.bottom-', 'U1.3 > U1.4', 'U1.6 > U1.2'],
      ...switches(2),
      ...['S1.2 > U1.1', 'S2.2 > U1.5', 'label S1 SETN', 'label S2 CLRN'],
    );
    const q = (...settings: [string, boolean][]) => measure(latch, settings).measured?.pins['U1.3']?.level;
    expect(q(['SETN', true], ['CLRN', true])).toBe('0');
    expect(q(['S2', true], ['S1', true])).toBe('1');
    expect(q(['SETN', true], ['CLRN', true], ['SETN', false], ['SETN', true])).toBe('1');
    expect(measure(latch, [['K', true]])).toMatchObject({ measured: null, unknown: ['K'] });
  });

  it('tells of a board that goes on by itself, and of a short', () => {
    const ring = wired(
      'seat 74HC00 b1.e20',
      'U1.14 > b1.top+',
      'U1.7 > b1.bottom-',
      'U1.3 > U1.2',
      'seat switch',
      'S1.1 > b1.top+',
      ...resistor(1, '10k', 'S1.2', MINUS),
      'S1.2 > U1.1',
    );
    const codesOf = (...args: Parameters<typeof measure>) => measure(...args).findings.map((f) => f.code);
    expect(codesOf(ring, [])).toEqual([]);
    expect(codesOf(ring, [['S1', true]])).toEqual(['measure-running']);
    expect(codesOf(ring, [['S1', true]], { atNs: 1000 })).toEqual([]);
    expect(codesOf(ring, [['S1', true]], { atNs: 1e9, mostEvents: 2000 })).toEqual(['run-cut']);
    const shorted = measure(wired('b1.top+21 > b1.bottom-21', 'seat led'), []);
    expect(shorted.findings.map((f) => f.code)).toEqual(['measure-shorted']);
    expect(shorted.measured?.pins['D1.A']).toEqual({ volts: null, level: '?' });
  });
});

describe('why a lamp shows no level', () => {
  const led = (ohms: string): string[] => ['seat led', ...resistor(1, ohms, 'D1.K', MINUS), 'D1.A > U1.2'];
  const board = (ohms: string, ...more: string[]): Board =>
    wired('seat 74HC04 b1.e20', 'U1.14 > b1.top+', 'U1.7 > b1.bottom-', ...more, ...led(ohms));

  it('is the pin that is open, or the lamp that burns where every pin reads a level', () => {
    expect(powered(board('1k')).unclear()).toEqual({ pin: 'U1.1', why: 'open' });
    const tied = ['U1.1', 'U1.3', 'U1.5', 'U1.9', 'U1.11', 'U1.13'].map((pin) => `${pin} > b1.bottom-`);
    expect(powered(board('1k', ...tied)).unclear()).toBeNull();
    const burning = powered(board('10', ...tied)).unclear();
    expect(burning).toMatchObject({ pin: 'D1', why: 'lamp-burns' });
    expect(burning && says(unclearFinding(burning))).toMatch(/^D1 takes \d\d mA, past its maximum/);
  });

  it('a rail is high at whatever volts its supply gives', () => {
    for (const volts of ['3V', '5V', '6V']) {
      const { point } = powered(
        wired(`value P1 ${volts}`, 'seat led', `D1.A > b1.top+`, ...resistor(1, '1k', 'D1.K', MINUS)),
      );
      expect([volts, point.levelAt('D1.A'), point.levelAt('P1.-')]).toEqual([volts, '1', '0']);
    }
  });
});
