import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { capacitor, MINUS, PLUS, resistor, wired } from '../testing/wired';
import { PoweredBoard } from './powered-board';
import { runBoard } from './run';
import { Trace, TraceRow } from './trace';
import { traceCsvOf, vcdOf } from './trace-files';

/** A switch that is named R, an inverter behind R and C, and a lamp Y behind that. */
const board = wired(
  'seat 74HC14 b1.e20',
  `U1.14 > ${PLUS}`,
  `U1.7 > ${MINUS}`,
  'seat switch',
  'label S1 R',
  `S1.1 > ${PLUS}`,
  ...resistor(1, '10k', 'S1.2', MINUS),
  ...resistor(2, '10k', 'S1.2', 'U1.1'),
  ...capacitor(1, '10n', 'U1.1', MINUS),
  'seat led b1.c40',
  'label D1 Y',
  'U1.2 > D1.A',
  'seat resistor b1.a41',
  'value R3 1k',
);
const moves = [
  { name: 'R', on: true, atNs: 1e6 },
  { name: 'R', on: false, atNs: 3e6 },
];

/** A reader of value change dumps, written from IEEE 1364-2005, clause 18, and from nothing that writes them. */
function readDump(text: string) {
  const tokens = text.split(/\s+/).filter((t) => t !== '');
  const names = new Map<string, string>();
  const changes = new Map<string, (readonly [tick: number, value: string])[]>();
  let unit = '';
  let [i, now] = [0, -1];
  const section = (): string[] => {
    const end = tokens.indexOf('$end', i);
    if (end < 0) throw new Error('a section does not end');
    const words = tokens.slice(i, end);
    i = end + 1;
    return words;
  };
  const note = (code: string, value: string): void => {
    const name = names.get(code) ?? expect.fail(`no variable ${code}`);
    changes.set(name, [...(changes.get(name) ?? []), [now, value]]);
  };
  while (i < tokens.length) {
    const token = tokens[i++] ?? '';
    if (token === '$timescale') unit = section().join(' ');
    else if (token === '$var') {
      const [kind, , code = '', name = ''] = section();
      expect(['wire', 'real']).toContain(kind);
      expect(code).toMatch(/^[!-~]+$/);
      expect(names.has(code)).toBe(false);
      names.set(code, name);
    } else if (token === '$dumpvars' || token === '$end') continue;
    else if (token.startsWith('$')) section();
    else if (token.startsWith('#')) {
      const tick = Number(token.slice(1));
      expect(tick).toBeGreaterThanOrEqual(now);
      now = tick;
    } else if (/^[01xz]/.test(token)) note(token.slice(1), token[0] ?? '');
    else if (token.startsWith('r')) note(tokens[i++] ?? '', token.slice(1));
    else throw new Error(`not of the standard: ${token}`);
  }
  return { unit, names: [...names.values()], changes, endTick: now };
}

describe('a run', () => {
  const { run } = runBoard(board, { untilNs: 5e6, moves });
  const { trace, signals, untilNs } = run ?? expect.fail('not run');

  it('moves switches when it is told to, and tells what every label did', () => {
    expect([untilNs, Object.keys(signals).sort()]).toEqual([5e6, ['R', 'Y']]);
    expect(signals.R).toMatchObject({ edges: 2, periodNs: null, highShare: null });
    // Off, it falls as the capacitor empties through its resistors.
    expect(signals.R?.shortestPulseNs).toBeGreaterThan(2e6);
    expect(signals.R?.shortestPulseNs).toBeLessThan(2.2e6);
    expect(signals.Y?.edges).toBe(2);
    // The capacitor has to reach 2.64 V, a time constant of 100 µs away, before the inverter sees the switch.
    const fall = trace.rows[1]?.timeAt(1) ?? 0;
    expect((fall - 1e6) / (-100e3 * Math.log(1 - 2.38 / 4.5))).toBeCloseTo(1, 1);
  });

  it('says what nothing is called, and runs nothing then', () => {
    expect(runBoard(board, { untilNs: 1, moves: [{ name: 'Q', on: true, atNs: 0 }], watch: ['Y', 'Z'] })).toEqual({
      run: null,
      unknown: ['Q', 'Z'],
    });
  });

  it('ends early where so much happens, and says so', () => {
    const ring = wired('seat 74HC04 b1.e20', `U1.14 > ${PLUS}`, `U1.7 > ${MINUS}`, 'U1.1 > U1.2');
    const { run: cut } = runBoard(ring, { untilNs: 1e9, start: { chance: 1 }, watch: ['U1.2'], mostEvents: 1000 });
    expect(cut?.findings.map((f) => f.code)).toEqual(['run-cut']);
    expect(cut?.untilNs).toBeLessThan(20_000);
    expect(cut?.signals['U1.2']).toMatchObject({ highShare: expect.closeTo(0.5, 2), periodNs: expect.closeTo(18, 6) });
  });

  it('goes out as a dump that a reader of the standard takes, change for change', () => {
    const { unit, names, changes, endTick } = readDump(vcdOf(trace, untilNs));
    expect([unit, endTick]).toEqual(['100 ps', 5e7]);
    expect(names).toEqual(trace.rows.flatMap(({ name }) => [name, `${name}_volts`]));
    for (const row of trace.rows) {
      const own = Array.from({ length: row.length }, (_, i) => [
        Math.round(10 * row.timeAt(i)),
        row.levelAt(i) === HIGH ? '1' : row.levelAt(i) === LOW ? '0' : 'x',
      ]);
      expect(changes.get(row.name)).toEqual(own);
    }
    const last = changes.get('Y_volts')?.at(-1);
    expect(Number(last?.[1])).toBeCloseTo(trace.rows[1]?.voltsAt((trace.rows[1]?.length ?? 0) - 1) ?? 0, 3);
  });

  it('goes out as a table, a line for each moment', () => {
    const { data, errors } = Papa.parse<string[]>(traceCsvOf(trace).trim());
    expect(errors).toEqual([]);
    expect(data[0]).toEqual(['time_ns', 'R', 'R_volts', 'Y', 'Y_volts']);
    const times = data.slice(1).map(([time]) => Number(time));
    expect(times).toEqual([...new Set(times)].sort((a, b) => a - b));
    const on = data.find(([time]) => time === '1000000');
    expect([on?.[1], Number(on?.[2])]).toEqual(['1', expect.closeTo(5, 2)]);
  });
});

describe('a trace', () => {
  it('notes the volts of what moves without passing a threshold', () => {
    const live = new PoweredBoard(board, extractNets(board));
    const net = live.nets.ofPin.get('U1.1') ?? expect.fail('no net');
    const trace = new Trace(live, [{ name: 'ramp', net }]);
    live.setSwitch(0, true);
    live.runUntil(1e6);
    trace.stop();
    const row = trace.rows[0] ?? expect.fail('no row');
    expect(row.length).toBeGreaterThan(40);
    for (let i = 1; i < row.length - 1; i++) {
      // Each as the law of charging has it at that moment.
      expect(row.voltsAt(i)).toBeCloseTo(5 * (1 - Math.exp(-row.timeAt(i) / 100e3)), 2);
      expect(row.voltsAt(i) - row.voltsAt(i - 1)).toBeLessThan(0.06);
    }
    expect(row.indexAt(-1)).toBe(-1);
    expect(row.timeAt(row.indexAt(50e3))).toBeLessThanOrEqual(50e3);
  });

  it('counts edges between known levels, and keeps what it can when it is full', () => {
    const row = new TraceRow('x', 0);
    const levels = [UNKNOWN, LOW, UNKNOWN, LOW, HIGH, UNKNOWN, HIGH, LOW];
    levels.forEach((level, i) => {
      row.note(10 * i, level, Number.NaN);
      row.note(10 * i + 1, level, Number.NaN);
    });
    expect([row.edges, row.shortestNs, row.length]).toEqual([2, 30, 8]);
    const full = new TraceRow('y', 0);
    for (let i = 0; i < 1_500_000; i++) full.note(i, i % 2, Number.NaN);
    expect([full.hasForgotten, full.edges, full.periodNs, full.highShare]).toEqual([true, 1_499_999, 2, 0.5]);
    expect(full.timeAt(full.length - 1)).toBe(1_499_999);
    expect(full.length).toBeLessThanOrEqual(1_000_000);
  });
});
