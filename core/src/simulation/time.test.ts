import { describe, expect, it } from 'vitest';
import { type Board, extractNets } from '../board';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { capacitor, MINUS, PLUS, resistor, wired } from '../testing/wired';
import { PoweredBoard, type PowerOptions } from './powered-board';

interface Edge {
  readonly ns: number;
  readonly level: number;
}

/** A board under power, with the edges of some pins' nets taken down as time runs. */
function running(board: Board, pins: readonly string[], options: PowerOptions = {}) {
  const nets = extractNets(board);
  const live = new PoweredBoard(board, nets, options);
  const netOf = (pin: string): number => nets.ofPin.get(pin) ?? expect.fail(pin);
  const edges = new Map<string, Edge[]>(pins.map((pin) => [pin, []]));
  const last = new Map(pins.map((pin) => [pin, live.levelOf(netOf(pin))]));
  live.observe(() => {
    for (const pin of pins) {
      const level = live.levelOf(netOf(pin));
      if (level !== last.get(pin)) edges.get(pin)?.push({ ns: live.timeNs, level });
      last.set(pin, level);
    }
  });
  const put = (ref: string, on: boolean): void => {
    live.setSwitch(
      live.circuit.switches.findIndex((s) => s.ref === ref),
      on,
    );
  };
  /** Presses and lets go, or the other way, so many times, with a pause after each. */
  const toggle = (ref: string, times: number, pauseNs: number): void => {
    for (let i = 0; i < times; i++) {
      put(ref, i % 2 === 0);
      live.runUntil(live.timeNs + pauseNs);
    }
  };
  const level = (pin: string): number => live.levelOf(netOf(pin));
  return {
    live,
    put,
    toggle,
    level,
    volts: (pin: string) => live.voltsOf(netOf(pin)),
    edges: (pin: string) => edges.get(pin) ?? [],
  };
}

/** Period, and high share, over whole periods, the first one left out: it begins with an empty capacitor. */
function rhythm(edges: readonly Edge[]): { readonly periodNs: number; readonly highShare: number } {
  const rises = edges.filter((e) => e.level === HIGH).slice(1);
  const [first, last] = [rises[0]?.ns ?? expect.fail('never rises twice'), rises.at(-1)?.ns ?? 0];
  const inside = edges.filter(({ ns }) => ns >= first && ns <= last);
  const high = inside.reduce((sum, e, i) => {
    const next = inside[i + 1];
    return sum + (e.level === HIGH && next ? next.ns - e.ns : 0);
  }, 0);
  return { periodNs: (last - first) / (rises.length - 1), highShare: high / (last - first) };
}

/** The pulses of one level: their lengths in nanoseconds. */
const pulses = (edges: readonly Edge[], of = HIGH): number[] =>
  edges.flatMap((e, i) => (e.level === of && edges[i + 1] ? [(edges[i + 1]?.ns ?? 0) - e.ns] : []));

const within = (share: number, wanted: number) => (found: number) => Math.abs(found / wanted - 1) <= share;

/** Supply and ground of a chip: `power('U1', 14, 7)`. */
const power = (ref: string, plus: number, minus: number): string[] => [
  `${ref}.${plus} > ${PLUS}`,
  `${ref}.${minus} > ${MINUS}`,
];

const timerOf = (r1: string, r2: string, c: string, ...more: string[]): Board =>
  wired(
    'seat 555 b1.e20',
    ...power('U1', 8, 1),
    `U1.4 > ${PLUS}`,
    'U1.2 > U1.6',
    ...resistor(1, r1, 'U1.7', PLUS),
    ...resistor(2, r2, 'U1.6', 'U1.7'),
    ...capacitor(1, c, 'U1.6', MINUS),
    ...more,
  );

describe('a potentiometer turned under power', () => {
  const divider = (ohms: string, ...more: string[]): Board =>
    wired('seat potentiometer b1.b3', `value RV1 ${ohms}`, `RV1.1 > ${PLUS}`, `RV1.3 > ${MINUS}`, ...more);
  const turnedTo = (bench: ReturnType<typeof running>, position: number): number => {
    bench.live.setDial('RV1', position);
    bench.live.settle();
    return bench.volts('RV1.2') ?? expect.fail('nobody knows its volts');
  };

  it('divides its supply by how far it is turned, loaded or not, as Ohm says', () => {
    const [supply, whole, load] = [5, 10e3, 4700];
    const bare = running(divider('10k'), []);
    const loaded = running(divider('10k', ...resistor(1, '4k7', 'RV1.2', MINUS)), []);
    for (const position of [0, 1, 25, 50, 80, 99, 100]) {
      const below = whole * (1 - position / 100);
      expect(turnedTo(bare, position)).toBeCloseTo((supply * below) / whole, 2);
      const held = (below * load) / (below + load);
      expect(turnedTo(loaded, position)).toBeCloseTo((supply * held) / (held + whole - below), 2);
    }
  });

  it('gives the same volts again at the same place, whichever way it came there', () => {
    const bench = running(divider('1k', 'seat led', 'D1.A > RV1.2', `D1.K > ${MINUS}`), []);
    const places = [30, 70, 30, 100, 0, 70, 50];
    const seen = new Map<number, number>();
    for (const place of places) {
      const volts = turnedTo(bench, place);
      expect(volts).toBeCloseTo(seen.get(place) ?? volts, 9);
      seen.set(place, volts);
    }
    expect(new Set([...seen.values()].map((v) => v.toFixed(3))).size).toBe(seen.size);
  });

  it('carries a gate over its threshold, and shorts the supply where its wiper is tied to the far rail', () => {
    const gate = ['seat 74HC04 b1.e20', ...power('U1', 14, 7), 'RV1.2 > U1.1'];
    const bench = running(divider('10k', ...gate), []);
    const levels = [10, 90].map((position) => {
      turnedTo(bench, position);
      return bench.level('U1.2');
    });
    expect(levels).toEqual([LOW, HIGH]);
    const tied = running(divider('10k', `RV1.2 > ${MINUS}`), []);
    const shorted = [50, 0, 50].map((position) => {
      tied.live.setDial('RV1', position);
      tied.live.settle();
      return tied.live.point.isShorted;
    });
    expect(shorted).toEqual([false, true, false]);
  });

  it('turned while a 555 runs, sets its rhythm from there on', () => {
    const bench = running(
      wired(
        'seat 555 b1.e20',
        'seat potentiometer b1.b3',
        'value RV1 100k',
        ...power('U1', 8, 1),
        `U1.4 > ${PLUS}`,
        'U1.2 > U1.6',
        ...resistor(1, '10k', 'U1.7', PLUS),
        'RV1.1 > U1.7',
        'RV1.2 > U1.6',
        ...capacitor(1, '100n', 'U1.6', MINUS),
      ),
      ['U1.3'],
    );
    for (const position of [50, 100, 20]) {
      bench.live.setDial('RV1', position);
      const wanted = Math.LN2 * (1e4 + 2 * 1e5 * (position / 100)) * 1e-7 * 1e9;
      const since = bench.live.timeNs;
      bench.live.runUntil(since + 8 * wanted);
      const { periodNs } = rhythm(bench.edges('U1.3').filter(({ ns }) => ns > since));
      expect(periodNs, `at ${position}`).toSatisfy(within(0.02, wanted));
    }
  });
});

describe('a 555 as an oscillator', () => {
  const ohms = { '1k': 1e3, '2k2': 2200, '4k7': 4700, '10k': 1e4, '100k': 1e5, '1M': 1e6 } as const;
  const farads = { '10n': 1e-8, '22n': 2.2e-8, '47n': 4.7e-8, '100n': 1e-7 } as const;
  it.each([
    ['10k', '100k', '100n'],
    ['10k', '10k', '10n'],
    ['100k', '10k', '22n'],
    ['2k2', '4k7', '47n'],
    ['1M', '1k', '10n'],
    ['1k', '1M', '10n'],
  ] as const)('with %s, %s and %s keeps to the formula', (r1, r2, c) => {
    const [a, b, f] = [ohms[r1], ohms[r2], farads[c]];
    const wanted = Math.LN2 * (a + 2 * b) * f * 1e9;
    const bench = running(timerOf(r1, r2, c), ['U1.3']);
    bench.live.runUntil(8 * wanted);
    const { periodNs, highShare } = rhythm(bench.edges('U1.3'));
    // The discharge transistor drops a tenth of a volt, as the real one does.
    expect(periodNs).toSatisfy(within(0.02, wanted));
    expect(highShare).toSatisfy(within(0.02, (a + b) / (a + 2 * b)));
  });

  it('works between a third and two thirds of the supply, and elsewhere when its control pin is pulled', () => {
    const bench = running(timerOf('10k', '100k', '100n'), ['U1.3']);
    bench.live.runUntil(40e6);
    for (const { ns, level } of bench.edges('U1.3').slice(1)) {
      const seen = running(timerOf('10k', '100k', '100n'), []);
      seen.live.runUntil(ns - 200);
      expect(seen.volts('U1.6')).toBeCloseTo(level === HIGH ? 5 / 3 : 10 / 3, 2);
    }
    // 10 kΩ beside the 10 kΩ inside bring the tap to half the supply: the timer runs faster.
    const pulled = running(timerOf('10k', '100k', '100n', ...resistor(3, '10k', 'U1.5', MINUS)), ['U1.3']);
    expect(pulled.volts('U1.5')).toBeCloseTo(2.5, 2);
    pulled.live.runUntil(200e6);
    const charge = 110e3 * 1e-7 * Math.log((5 - 1.25) / (5 - 2.5));
    const discharge = 100e3 * 1e-7 * Math.LN2;
    expect(rhythm(pulled.edges('U1.3')).periodNs).toSatisfy(within(0.02, (charge + discharge) * 1e9));
  });

  it('runs at 1 Hz for a day in events, not in steps', () => {
    const bench = running(timerOf('10k', '1M', '720n'), ['U1.3']);
    bench.live.runUntil(3600e9);
    const { periodNs } = rhythm(bench.edges('U1.3'));
    expect(periodNs).toSatisfy(within(0.02, 1.003e9));
    // Two for the output, two for the open collector, four crossings a period, some more.
    expect(bench.live.events / (3600e9 / periodNs)).toBeLessThan(12);
  });

  it('is held by its reset', () => {
    const bench = running(
      wired(
        'seat 555 b1.e20',
        'seat switch',
        `S1.1 > ${PLUS}`,
        ...resistor(4, '10k', 'S1.2', MINUS).map((line) => line.replaceAll('R4', 'R1')),
        'S1.2 > U1.4',
        ...power('U1', 8, 1),
        'U1.2 > U1.6',
        ...resistor(2, '10k', 'U1.7', PLUS),
        ...resistor(3, '10k', 'U1.6', 'U1.7'),
        ...capacitor(1, '10n', 'U1.6', MINUS),
      ),
      ['U1.3'],
    );
    bench.live.runUntil(1e6);
    expect([bench.edges('U1.3').length <= 1, bench.level('U1.3')]).toEqual([true, LOW]);
    bench.put('S1', true);
    bench.live.runUntil(3e6);
    expect(bench.edges('U1.3').length).toBeGreaterThan(10);
  });
});

describe('timers that are triggered', () => {
  const button = (r: number, to: string): string[] => [
    'seat switch',
    `S1.1 > ${MINUS}`,
    ...resistor(r, '10k', 'S1.2', PLUS),
    `S1.2 > ${to}`,
  ];

  it('a 555 gives one pulse of 1.1 RC', () => {
    const board = wired(
      'seat 555 b1.e20',
      ...power('U1', 8, 1),
      `U1.4 > ${PLUS}`,
      'U1.6 > U1.7',
      ...button(1, 'U1.2'),
      ...resistor(2, '100k', 'U1.7', PLUS),
      ...capacitor(1, '100n', 'U1.6', MINUS),
    );
    const bench = running(board, ['U1.3']);
    bench.live.runUntil(100e6);
    bench.toggle('S1', 2, 1e6);
    bench.live.runUntil(300e6);
    expect(pulses(bench.edges('U1.3')).at(-1)).toSatisfy(within(0.02, Math.log(3) * 1e5 * 1e-7 * 1e9));
    expect(bench.level('U1.3')).toBe(LOW);
  });

  it('the second half of a 556 is a timer of its own', () => {
    const board = wired(
      'seat 556 b1.e20',
      ...power('U1', 14, 7),
      `U1.10 > ${PLUS}`,
      'U1.8 > U1.12',
      ...resistor(1, '10k', 'U1.13', PLUS),
      ...resistor(2, '47k', 'U1.12', 'U1.13'),
      ...capacitor(1, '10n', 'U1.12', MINUS),
    );
    const bench = running(board, ['U1.9']);
    bench.live.runUntil(20e6);
    expect(rhythm(bench.edges('U1.9')).periodNs).toSatisfy(within(0.02, Math.LN2 * 104e3 * 1e-8 * 1e9));
  });

  /** A one-shot of which pin B is fed by a switch; pull-downs are small enough for TTL. */
  const shot = (
    part: string,
    pins: { b: string; low: readonly string[]; high: readonly string[]; rcx: string; cx: string },
  ): Board =>
    wired(
      `seat ${part} b1.e20`,
      ...(part === '74121' ? power('U1', 14, 7) : power('U1', 16, 8)),
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '220', 'S1.2', MINUS),
      `S1.2 > U1.${pins.b}`,
      ...pins.low.map((p) => `U1.${p} > ${MINUS}`),
      ...pins.high.map((p) => `U1.${p} > ${PLUS}`),
      ...resistor(2, '10k', `U1.${pins.rcx}`, PLUS),
      ...capacitor(1, '100n', `U1.${pins.rcx}`, `U1.${pins.cx}`),
    );
  const twin = { b: '2', low: ['1'], high: ['3'], rcx: '15', cx: '14' } as const;
  const single = { b: '5', low: ['3', '4'], high: [], rcx: '11', cx: '10' } as const;

  it.each([
    ['74121', single, '6', 0.7 * 1e4 * 1e-7, false],
    ['74LS123', twin, '13', 0.45 * 1e4 * 1e-7, true],
    ['74123', twin, '13', 0.28 * (1e4 + 700) * 1e-7, true],
    ['74LS221', twin, '13', 0.7 * 1e4 * 1e-7, false],
  ] as const)(
    'a %s pulses as long as its data sheet says, again or not while it does',
    (...[part, pins, q, seconds, retriggers]) => {
      const bench = running(shot(part, pins), [`U1.${q}`], { start: 'clear' });
      bench.live.runUntil(2e6);
      bench.toggle('S1', 2, 100e3);
      bench.live.runUntil(20e6);
      expect(pulses(bench.edges(`U1.${q}`)).at(-1)).toSatisfy(within(0.001, seconds * 1e9));
      // Half a pulse later the trigger comes again.
      bench.toggle('S1', 2, (seconds * 1e9) / 4);
      bench.toggle('S1', 2, (seconds * 1e9) / 4);
      bench.live.runUntil(40e6);
      expect(pulses(bench.edges(`U1.${q}`)).at(-1)).toSatisfy(within(0.001, seconds * 1e9 * (retriggers ? 1.5 : 1)));
    },
  );
});

describe('oscillators of gates', () => {
  const relaxation = (part: string, ohms: string, c: string): Board =>
    wired(
      `seat ${part} b1.e20`,
      ...power('U1', 14, 7),
      ...resistor(1, ohms, 'U1.2', 'U1.1'),
      ...capacitor(1, c, 'U1.1', MINUS),
    );

  it('a Schmitt inverter with R and C runs between its thresholds', () => {
    const bench = running(relaxation('74HC14', '100k', '10n'), ['U1.2']);
    bench.live.runUntil(20e6);
    const [falls, rises] = [1.4 / 0.9, 2.38 / 0.9];
    const wanted = 1e5 * 1e-8 * (Math.log((5 - falls) / (5 - rises)) + Math.log(rises / falls)) * 1e9;
    expect(rhythm(bench.edges('U1.2')).periodNs).toSatisfy(within(0.02, wanted));
    // The typical figure of its makers: about 1 / (0.8 RC).
    expect(rhythm(bench.edges('U1.2')).periodNs).toSatisfy(within(0.15, 0.8 * 1e5 * 1e-8 * 1e9));
  });

  it('so does a 7414, whose input current shifts it, and only with a small resistor', () => {
    const bench = running(relaxation('7414', '330', '1u'), ['U1.2']);
    bench.live.runUntil(20e6);
    // The TTL Data Book gives some 0.8 / (RC) hertz for R of 330 Ω.
    expect(rhythm(bench.edges('U1.2')).periodNs).toSatisfy(within(0.1, (330 * 1e-6 * 1e9) / 0.8));
    const stuck = running(relaxation('7414', '10k', '100n'), ['U1.2']);
    stuck.live.runUntil(50e6);
    expect(stuck.edges('U1.2').length).toBeLessThan(3);
  });

  it('a 74HC4060 runs by its own inverters at some 1 / (2.5 RC), and divides that', () => {
    const board = wired(
      'seat 74HC4060 b1.e20',
      ...power('U1', 16, 8),
      `U1.12 > ${MINUS}`,
      ...resistor(1, '10k', 'U1.10', 'R2.1').slice(0, 3),
      ...resistor(2, '100k', 'U1.11', 'C1.1').slice(0, 3),
      ...capacitor(1, '10n', 'R2.2', 'U1.9'),
      'R1.2 > R2.2',
    );
    const bench = running(board, ['U1.9', 'U1.7'], { start: 'clear' });
    bench.live.runUntil(50e6);
    const { periodNs } = rhythm(bench.edges('U1.9'));
    // Each half from one and a half supplies beyond the input's turning point down to it, by R and C.
    expect(periodNs).toSatisfy(within(0.03, 2 * Math.log(3) * 1e4 * 1e-8 * 1e9));
    expect(periodNs).toSatisfy(within(0.15, 2.5 * 1e4 * 1e-8 * 1e9));
    expect(rhythm(bench.edges('U1.7')).periodNs / periodNs).toBeCloseTo(16, 3);
  });

  it.each([3, 5, 7])('a ring of %d inverters runs at twice their delays', (n) => {
    const chips = n > 6 ? ['seat 74HC04 b1.e20', 'seat 74HC04 b1.e30', ...power('U2', 14, 7)] : ['seat 74HC04 b1.e20'];
    const pairs = ['U1.1 U1.2', 'U1.3 U1.4', 'U1.5 U1.6', 'U1.9 U1.8', 'U1.11 U1.10', 'U1.13 U1.12', 'U2.1 U2.2'].slice(
      0,
      n,
    );
    const joins = pairs.map((pair, i) => `${pair.split(' ')[1]} > ${pairs[(i + 1) % n]?.split(' ')[0]}`);
    const board = wired(...chips, ...power('U1', 14, 7), ...joins);
    const unknown = running(board, ['U1.1']);
    unknown.live.runUntil(1e4);
    expect([unknown.level('U1.1'), unknown.edges('U1.1')]).toEqual([UNKNOWN, []]);
    expect(unknown.live.unknownLoop).toBe('U1.2');
    for (const seed of [1, 2, 3]) {
      const bench = running(board, ['U1.1'], { start: { chance: seed } });
      bench.live.runUntil(50_000);
      expect(rhythm(bench.edges('U1.1')).periodNs).toBeCloseTo(2 * n * 9, 6);
      expect([bench.live.isMoving, bench.live.unknownLoop]).toEqual([true, null]);
    }
  });
});

describe('power-on reset', () => {
  it('a flip-flop with R and C at its clear starts cleared; without, nobody knows', () => {
    const board = (...more: string[]): Board =>
      wired(
        'seat 74HC74 b1.e20',
        ...power('U1', 14, 7),
        `U1.4 > ${PLUS}`,
        `U1.2 > ${PLUS}`,
        `U1.3 > ${MINUS}`,
        ...more,
      );
    const reset = running(board(...resistor(1, '100k', 'U1.1', PLUS), ...capacitor(1, '100n', 'U1.1', MINUS)), [
      'U1.5',
    ]);
    reset.live.runUntil(100e6);
    expect([reset.level('U1.5'), reset.level('U1.1')]).toEqual([LOW, HIGH]);
    expect(reset.live.isMoving).toBe(false);
    const tied = running(board(`U1.1 > ${PLUS}`), ['U1.5']);
    tied.live.runUntil(100e6);
    expect(tied.level('U1.5')).toBe(UNKNOWN);
    const starts = [1, 2, 3, 4, 5, 6, 7, 8].map((chance) =>
      running(board(`U1.1 > ${PLUS}`), [], { start: { chance } }).level('U1.5'),
    );
    expect(new Set(starts)).toEqual(new Set([LOW, HIGH]));
  });
});

describe('contacts that bounce', () => {
  /** A 74LS93 counting what comes to its clock, resets at ground. */
  const counter = (ref: string): string[] => [
    ...power(ref, 5, 10),
    `${ref}.2 > ${MINUS}`,
    `${ref}.3 > ${MINUS}`,
    `${ref}.12 > ${ref}.1`,
  ];
  const count = (bench: ReturnType<typeof running>, ref: string): number =>
    ['12', '9', '8', '11'].reduce((sum, pin, i) => sum + (bench.level(`${ref}.${pin}`) === HIGH ? 2 ** i : 0), 0);
  const counts = (board: Board, ref: string): number[] =>
    [1, 2, 3, 4, 5, 6].map((bounce) => {
      const bench = running(board, [], { bounce, start: 'clear' });
      bench.live.runUntil(100e6);
      bench.toggle('S1', 8, 100e6);
      return count(bench, ref);
    });

  it('are counted wrong by a counter', () => {
    const raw = wired(
      'seat 74LS93 b1.e20',
      ...counter('U1'),
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '220', 'S1.2', MINUS),
      'S1.2 > U1.14',
    );
    expect(counts(raw, 'U1').filter((n) => n !== 4).length).toBeGreaterThan(3);
    const still = running(raw, [], { start: 'clear' });
    still.toggle('S1', 8, 100e6);
    expect(count(still, 'U1')).toBe(4);
  });

  it('are counted right behind a latch of two NANDs', () => {
    const latched = wired(
      'seat 74LS93 b1.e20',
      ...counter('U1'),
      'seat 74LS00 b1.e30',
      ...power('U2', 14, 7),
      'seat change-over',
      `S1.2 > ${MINUS}`,
      ...resistor(1, '1k', 'S1.1', PLUS),
      ...resistor(2, '1k', 'S1.3', PLUS),
      'S1.1 > U2.1',
      'S1.3 > U2.5',
      'U2.3 > U2.4',
      'U2.6 > U2.2',
      'U2.6 > U1.14',
    );
    expect(new Set(counts(latched, 'U1'))).toEqual(new Set([4]));
  });

  it('are counted right behind R, C and a Schmitt input', () => {
    const smooth = wired(
      'seat 74HC14 b1.e30',
      ...power('U1', 14, 7),
      'seat 74HC393 b1.e20',
      ...power('U2', 14, 7),
      `U2.2 > ${MINUS}`,
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '10k', 'S1.2', MINUS),
      ...resistor(2, '10k', 'S1.2', 'U1.1'),
      ...capacitor(1, '2u', 'U1.1', MINUS),
      'U1.2 > U2.1',
    );
    const seen = [1, 2, 3, 4, 5, 6].map((bounce) => {
      const bench = running(smooth, ['U1.2'], { bounce });
      bench.live.runUntil(100e6);
      bench.toggle('S1', 8, 200e6);
      return pulses(bench.edges('U1.2'), LOW).length;
    });
    expect(new Set(seen)).toEqual(new Set([4]));
  });
});

describe('circuits of two transistors', () => {
  const pair = (...more: string[]): Board =>
    wired(
      'seat npn',
      'seat npn',
      `Q1.1 > ${MINUS}`,
      `Q2.1 > ${MINUS}`,
      ...resistor(1, '1k', 'Q1.3', PLUS),
      ...resistor(2, '1k', 'Q2.3', PLUS),
      ...more,
    );

  it('an astable runs at the time constants of its bases', () => {
    const board = pair(
      ...resistor(3, '47k', 'Q1.2', PLUS),
      ...resistor(4, '47k', 'Q2.2', PLUS),
      ...capacitor(1, '100n', 'Q1.3', 'Q2.2'),
      ...capacitor(2, '100n', 'Q2.3', 'Q1.2'),
    );
    const bench = running(board, ['Q1.3']);
    bench.live.runUntil(60e6);
    const sharp = bench.edges('Q1.3').filter((e) => e.level !== UNKNOWN);
    const falls = sharp.filter((e, i) => e.level === LOW && sharp[i - 1]?.level !== LOW).slice(1);
    const period = ((falls.at(-1)?.ns ?? 0) - (falls[0]?.ns ?? 0)) / (falls.length - 1);
    // Each base climbs from 0.65 V less what its collector fell, towards the supply, until it conducts.
    const wanted = 2 * 47e3 * 1e-7 * Math.log((5 + 5 - 0.65 - 0.05) / (5 - 0.65)) * 1e9;
    expect(period).toSatisfy(within(0.05, wanted));
  });

  it('a bistable keeps what it was set to', () => {
    const board = pair(
      ...resistor(3, '10k', 'Q1.3', 'Q2.2'),
      ...resistor(4, '10k', 'Q2.3', 'Q1.2'),
      'seat switch',
      `S1.1 > ${MINUS}`,
      'S1.2 > Q1.2',
      'seat switch',
      `S2.1 > ${MINUS}`,
      'S2.2 > Q2.2',
    );
    const bench = running(board, []);
    expect(bench.level('Q1.3')).toBe(UNKNOWN);
    for (const [ref, level] of [
      ['S1', HIGH],
      ['S2', LOW],
      ['S1', HIGH],
    ] as const) {
      bench.toggle(ref, 2, 1e3);
      expect(bench.level('Q1.3')).toBe(level);
    }
  });
});

describe('counters in time', () => {
  it('one that is cut at ten shows the tenth state for as long as its reset takes', () => {
    const board = wired(
      'seat 74LS93 b1.e20',
      ...power('U1', 5, 10),
      'U1.12 > U1.1',
      'U1.9 > U1.2',
      'U1.11 > U1.3',
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '220', 'S1.2', MINUS),
      'S1.2 > U1.14',
    );
    const bench = running(board, ['U1.9', 'U1.11'], { start: 'clear' });
    bench.toggle('S1', 20, 1e3);
    expect(['12', '9', '8', '11'].map((pin) => bench.level(`U1.${pin}`))).toEqual([LOW, LOW, LOW, LOW]);
    const passing = pulses(bench.edges('U1.9')).at(-1) ?? 0;
    expect(passing).toBeGreaterThan(5);
    expect(passing).toBeLessThan(60);
  });

  it('a ripple count read too early is wrong, and right a little later', () => {
    const board = wired(
      'seat 74LS93 b1.e20',
      ...power('U1', 5, 10),
      'U1.12 > U1.1',
      `U1.2 > ${MINUS}`,
      `U1.3 > ${MINUS}`,
      'seat switch',
      `S1.1 > ${PLUS}`,
      ...resistor(1, '220', 'S1.2', MINUS),
      'S1.2 > U1.14',
    );
    const bench = running(board, [], { start: 'clear' });
    bench.toggle('S1', 15, 1e3);
    const count = (): number =>
      ['12', '9', '8', '11'].reduce((sum, pin, i) => sum + (bench.level(`U1.${pin}`) === HIGH ? 2 ** i : 0), 0);
    expect(count()).toBe(7);
    bench.put('S1', false);
    const start = bench.live.timeNs;
    const seen = new Set<number>();
    for (let ns = 0; ns < 100; ns++) {
      bench.live.runUntil(start + ns);
      seen.add(count());
    }
    expect(seen.size).toBeGreaterThan(2);
    expect(count()).toBe(8);
  });
});
