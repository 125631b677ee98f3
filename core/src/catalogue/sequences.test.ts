import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { ChipBench } from '../testing/chip-bench';

/**
 * Counters, shift registers and addressable latches against models written in numbers, from the data
 * sheets' function tables and count sequences. Inputs change one at a time, at random but seeded, over
 * thousands of steps: every row, every edge, and clear, preset and load over each other.
 */
type Pins = (name: string) => number;
interface Model<S> {
  /** Brings the chip and the model to a known state: inputs to set in turn. */
  readonly start: readonly Record<string, number>[];
  readonly state: S;
  /** What the change of one input makes of the state. */
  readonly step: (s: S, rose: (pin: string) => boolean, fell: (pin: string) => boolean, p: Pins) => S;
  readonly outputs: (s: S, p: Pins) => Record<string, boolean | number | 'Z'>;
  /** How often, in 100, an input is chosen that would keep clearing or loading it. */
  readonly rare?: string;
}

const word = (n: number, names: string): Record<string, boolean> => {
  const list = names.split(' ');
  return Object.fromEntries(list.map((name, i) => [name, ((n >> (list.length - 1 - i)) & 1) === 1]));
};
const number = (p: Pins, names: string): number => names.split(' ').reduce((n, name) => n * 2 + p(name), 0);
const four = 'QD QC QB QA';

/** Two sections with clocks of their own: by 2, and by `n` in the order of `counts`. */
const twoSections = (counts: readonly number[], nines: boolean): Model<{ a: number; b: number }> => ({
  start: [
    nines ? { R01: 0, R02: 0, R91: 0, R92: 0 } : { R01: 0, R02: 0 },
    { CKA: 0, CKB: 0 },
    { R01: 1, R02: 1 },
    { R01: 0 },
  ],
  state: { a: 0, b: 0 },
  rare: nines ? 'R01 R02 R91 R92' : 'R01 R02',
  step: (s, _, fell, p) => {
    if (nines && p('R91') && p('R92')) return { a: 1, b: 4 };
    if (p('R01') && p('R02')) return { a: 0, b: 0 };
    return { a: fell('CKA') ? 1 - s.a : s.a, b: fell('CKB') ? (s.b + 1) % counts.length : s.b };
  },
  outputs: ({ a, b }) => ({ QA: a, ...word(elementAt(counts, b), 'QD QC QB') }),
});

const upTo = (n: number): number[] => Array.from({ length: n }, (_, i) => i);
/** Beyond 9 a decade counter falls back as its state diagram says: 10, 11, 6; 12, 13, 4; 14, 15, 2. */
const decadeAfter = [1, 2, 3, 4, 5, 6, 7, 8, 9, 0, 11, 6, 13, 4, 15, 2];
const binaryAfter = upTo(16).map((n) => (n + 1) % 16);

const loadable = (after: readonly number[], top: number, clocked: boolean): Model<number> => ({
  start: [{ CLRn: 1, CLK: 0, LDn: 1, ENP: 1, ENT: 1, A: 0, B: 0, C: 0, D: 0 }, { CLRn: 0 }, { CLK: 1 }, { CLRn: 1 }],
  state: 0,
  rare: 'CLRn LDn',
  step: (q, rose, _, p) => {
    if (!clocked && !p('CLRn')) return 0;
    if (!rose('CLK')) return q;
    if (!p('CLRn')) return 0;
    if (!p('LDn')) return number(p, 'D C B A');
    return p('ENP') && p('ENT') ? elementAt(after, q) : q;
  },
  outputs: (q, p) => ({ ...word(q, four), ...(q <= top && { RCO: q === top && p('ENT') === 1 }) }),
});

/** One step down; what a decade does beyond 9 its data sheet leaves to a diagram: not asked here. */
const below = (q: number, top: number): number => (q > top ? NaN : q === 0 ? top : q - 1);
const above = (q: number, top: number): number => (q > top ? NaN : q === top ? 0 : q + 1);
const unlessUnknown = (q: number, more: Record<string, boolean | number>): Record<string, boolean | number> =>
  Number.isNaN(q) ? {} : more;

const oneClock = (top: number): Model<number> => ({
  start: [{ LDn: 1, CLK: 0, ENn: 0, DU: 0, A: 0, B: 0, C: 0, D: 0 }, { LDn: 0 }, { LDn: 1 }],
  state: 0,
  rare: 'LDn',
  step: (q, rose, _, p) => {
    if (!p('LDn')) return number(p, 'D C B A') > top ? NaN : number(p, 'D C B A');
    return rose('CLK') && !p('ENn') ? (p('DU') ? below : above)(q, top) : q;
  },
  outputs: (q, p) => {
    const end = q === (p('DU') ? 0 : top);
    return unlessUnknown(q, { ...word(q, four), MAX: end, RCOn: !(end && !p('ENn') && !p('CLK')) });
  },
});

const twoClocks = (top: number): Model<number> => ({
  start: [{ CLR: 0, LDn: 1, UP: 1, DOWN: 1, A: 0, B: 0, C: 0, D: 0 }, { CLR: 1 }, { CLR: 0 }],
  state: 0,
  rare: 'CLR LDn',
  step: (q, rose, _, p) => {
    if (p('CLR')) return 0;
    if (!p('LDn')) return number(p, 'D C B A') > top ? NaN : number(p, 'D C B A');
    // The clock that does not count must be high.
    if (rose('UP')) return p('DOWN') ? above(q, top) : NaN;
    return rose('DOWN') ? (p('UP') ? below(q, top) : NaN) : q;
  },
  outputs: (q, p) =>
    unlessUnknown(q, { ...word(q, four), COn: !(q === top && !p('UP')), BOn: !(q === 0 && !p('DOWN')) }),
});

const ripple = (stages: number, shown: readonly number[], clock: string): Model<number> => ({
  start: [{ CLR: 0, [clock]: 0 }, { CLR: 1 }, { CLR: 0 }],
  state: 0,
  rare: 'CLR',
  step: (q, _, fell, p) => (p('CLR') ? 0 : fell(clock) ? (q + 1) % 2 ** stages : q),
  outputs: (q) => Object.fromEntries(shown.map((k) => [`Q${k}`, (q >> (k - 1)) & 1])),
});

/** A register as a list of bits, A first. */
const eight = ['A', 'B', 'C', 'D', 'E', 'F', 'G', 'H'];
const bits = (p: Pins, names: readonly string[]): number[] => names.map((n) => p(n));
const shown = (q: readonly number[]): Record<string, number> =>
  Object.fromEntries(q.map((b, i) => [`Q${eight[i]}`, b]));
const zeros = (n: number): number[] => Array.from({ length: n }, () => 0);
const into = (first: number, q: readonly number[]): number[] => [first, ...q.slice(0, -1)];

const segments = ['abcdef', 'bc', 'abged', 'abgcd', 'fgbc', 'afgcd', 'fgecd', 'abc', 'abcdefg', 'abcfg'];

// biome-ignore lint/suspicious/noExplicitAny: models of many kinds of state stand in one list
const models: Readonly<Record<string, Model<any>>> = {
  '7490': twoSections(upTo(5), true),
  '74290': twoSections(upTo(5), true),
  '7492': twoSections([0, 1, 2, 4, 5, 6], false),
  '7493': twoSections(upTo(8), false),
  '74293': twoSections(upTo(8), false),
  '74160': loadable(decadeAfter, 9, false),
  '74161': loadable(binaryAfter, 15, false),
  '74162': loadable(decadeAfter, 9, true),
  '74163': loadable(binaryAfter, 15, true),
  '74190': oneClock(9),
  '74191': oneClock(15),
  '74192': twoClocks(9),
  '74193': twoClocks(15),
  '4020': ripple(14, [1, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14], 'CLK'),
  '4040': ripple(12, [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12], 'CLK'),
  '4060': {
    ...ripple(14, [4, 5, 6, 7, 8, 9, 10, 12, 13, 14], 'RS'),
    outputs: (q: number, p: Pins) => ({
      ...Object.fromEntries([4, 5, 6, 7, 8, 9, 10, 12, 13, 14].map((k) => [`Q${k}`, (q >> (k - 1)) & 1])),
      CTC: p('RS') === 1 && p('CLR') === 0,
      RTC: !(p('RS') === 1 && p('CLR') === 0),
    }),
  },
  '74390': {
    start: [
      { '1CLR': 0, '2CLR': 0, '1CKA': 0, '1CKB': 0, '2CKA': 0, '2CKB': 0 },
      { '1CLR': 1, '2CLR': 1 },
      { '1CLR': 0, '2CLR': 0 },
    ],
    state: [0, 0, 0, 0],
    rare: '1CLR 2CLR',
    step: (s: number[], _: unknown, fell: (p: string) => boolean, p: Pins) =>
      [1, 2].flatMap((u, i) => {
        const [a, b] = [elementAt(s, 2 * i), elementAt(s, 2 * i + 1)];
        if (p(`${u}CLR`)) return [0, 0];
        return [fell(`${u}CKA`) ? 1 - a : a, fell(`${u}CKB`) ? (b + 1) % 5 : b];
      }),
    outputs: (s: number[]) =>
      ({
        '1QA': s[0],
        ...word(elementAt(s, 1), '1QD 1QC 1QB'),
        '2QA': s[2],
        ...word(elementAt(s, 3), '2QD 2QC 2QB'),
      }) as never,
  },
  '74393': {
    start: [
      { '1CLR': 0, '2CLR': 0, '1CLK': 0, '2CLK': 0 },
      { '1CLR': 1, '2CLR': 1 },
      { '1CLR': 0, '2CLR': 0 },
    ],
    state: [0, 0],
    rare: '1CLR 2CLR',
    step: (s: number[], _: unknown, fell: (p: string) => boolean, p: Pins) =>
      s.map((q, i) => (p(`${i + 1}CLR`) ? 0 : fell(`${i + 1}CLK`) ? (q + 1) % 16 : q)),
    outputs: (s: number[]) => ({
      ...word(elementAt(s, 0), '1QD 1QC 1QB 1QA'),
      ...word(elementAt(s, 1), '2QD 2QC 2QB 2QA'),
    }),
  },
  '4017': {
    start: [{ CLR: 0, CLK: 0, CEn: 0 }, { CLR: 1 }, { CLR: 0 }],
    state: 0,
    rare: 'CLR',
    // Either clock counts while the other allows it: the rising CLK, or the falling enable.
    step: (q: number, rose: (p: string) => boolean, fell: (p: string) => boolean, p: Pins) =>
      p('CLR') ? 0 : (rose('CLK') && !p('CEn')) || (fell('CEn') && p('CLK')) ? (q + 1) % 10 : q,
    outputs: (q: number) => ({ ...Object.fromEntries(upTo(10).map((k) => [`Q${k}`, k === q])), CO: q < 5 }),
  },
  '7495': {
    start: [{ MODE: 1, CLK1: 0, CLK2: 0, SER: 0, A: 0, B: 0, C: 0, D: 0 }, { CLK2: 1 }, { CLK2: 0 }],
    state: zeros(4),
    step: (q: number[], rose: (p: string) => boolean, fell: (p: string) => boolean, p: Pins) => {
      // Turning the mode from a clock that is high to one that is low is a falling edge, too.
      const turned =
        (rose('MODE') && p('CLK1') === 1 && p('CLK2') === 0) || (fell('MODE') && p('CLK2') === 1 && p('CLK1') === 0);
      if (!turned && !fell(p('MODE') ? 'CLK2' : 'CLK1')) return q;
      return p('MODE') ? bits(p, ['A', 'B', 'C', 'D']) : into(p('SER'), q);
    },
    outputs: shown,
  },
  '74164': {
    start: [{ CLRn: 1, CLK: 0, A: 0, B: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: zeros(8),
    rare: 'CLRn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) =>
      !p('CLRn') ? zeros(8) : rose('CLK') ? into(p('A') & p('B'), q) : q,
    outputs: shown,
  },
  '74165': {
    start: [
      { LDn: 1, CLK: 0, INH: 0, SER: 0, ...Object.fromEntries(eight.map((n) => [n, 0])) },
      { LDn: 0 },
      { LDn: 1 },
    ],
    state: zeros(8),
    rare: 'LDn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('LDn')) return bits(p, eight);
      const clocked = (rose('CLK') && !p('INH')) || (rose('INH') && !p('CLK'));
      return clocked ? into(p('SER'), q) : q;
    },
    outputs: (q: number[]) => ({ QH: elementAt(q, 7), QHn: 1 - elementAt(q, 7) }),
  },
  '74166': {
    start: [
      { CLRn: 1, LDn: 1, CLK: 0, INH: 0, SER: 0, ...Object.fromEntries(eight.map((n) => [n, 0])) },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: zeros(8),
    rare: 'CLRn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(8);
      const clocked = (rose('CLK') && !p('INH')) || (rose('INH') && !p('CLK'));
      return !clocked ? q : p('LDn') ? into(p('SER'), q) : bits(p, eight);
    },
    outputs: (q: number[]) => ({ QH: elementAt(q, 7) }),
  },
  '74194': {
    start: [{ CLRn: 1, CLK: 0, S0: 0, S1: 0, SR: 0, SL: 0, A: 0, B: 0, C: 0, D: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: zeros(4),
    rare: 'CLRn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(4);
      if (!rose('CLK')) return q;
      const mode = number(p, 'S1 S0');
      return [q, into(p('SR'), q), [...q.slice(1), p('SL')], bits(p, ['A', 'B', 'C', 'D'])][mode];
    },
    outputs: shown,
  },
  '74195': {
    start: [{ CLRn: 1, CLK: 0, LDn: 1, J: 0, Kn: 0, A: 0, B: 0, C: 0, D: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: zeros(4),
    rare: 'CLRn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(4);
      if (!rose('CLK')) return q;
      if (!p('LDn')) return bits(p, ['A', 'B', 'C', 'D']);
      // J and K̄ low, low: reset; low, high: keep; high, low: turn; high, high: set.
      const a = [0, q[0], 1 - elementAt(q, 0), 1][number(p, 'J Kn')] as number;
      return into(a, q);
    },
    outputs: (q: number[]) => ({ ...shown(q), QDn: 1 - elementAt(q, 3) }),
  },
  '74595': {
    start: [{ SRCLRn: 1, SRCLK: 0, RCLK: 0, OEn: 0, SER: 0 }, { SRCLRn: 0 }, { SRCLRn: 1 }, { RCLK: 1 }, { RCLK: 0 }],
    state: [zeros(8), zeros(8)],
    rare: 'SRCLRn',
    step: ([q, out]: number[][], rose: (p: string) => boolean, _: unknown, p: Pins) => [
      !p('SRCLRn') ? zeros(8) : rose('SRCLK') ? into(p('SER'), q as number[]) : q,
      rose('RCLK') ? q : out,
    ],
    outputs: ([q, out]: number[][], p: Pins) =>
      ({
        ...Object.fromEntries((out as number[]).map((b, i) => [`Q${eight[i]}`, p('OEn') ? 'Z' : b])),
        QHS: q?.[7] as number,
      }) as never,
  },
  '74259': {
    start: [{ CLRn: 1, Gn: 1, D: 0, S0: 0, S1: 0, S2: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: zeros(8),
    rare: 'CLRn',
    step: (q: number[], _: unknown, __: unknown, p: Pins) => {
      const base = p('CLRn') ? q : zeros(8);
      return p('Gn') ? base : base.with(number(p, 'S2 S1 S0'), p('D'));
    },
    outputs: (q: number[]) => Object.fromEntries(q.map((b, i) => [`Q${i}`, b])),
  },
  '4511': {
    start: [{ LE: 0, LTn: 1, BIn: 1, A: 0, B: 0, C: 0, D: 0 }],
    state: 0,
    step: (q: number, _: unknown, __: unknown, p: Pins) => (p('LE') ? q : number(p, 'D C B A')),
    outputs: (q: number, p: Pins) => {
      const on = !p('LTn') ? 'abcdefg' : !p('BIn') ? '' : (segments[q] ?? '');
      return Object.fromEntries([...'abcdefg'].map((s) => [s, on.includes(s)]));
    },
  },
};

/** A small random number generator (mulberry32), so that a red run means a change. */
function seeded(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

describe('counters, shift registers and addressed latches follow their models', () => {
  it.each(Object.entries(models))('%s', (base, model) => {
    const bench = new ChipBench(base);
    const levels: Record<string, number> = Object.fromEntries(bench.inputNames.map((n) => [n, 0]));
    bench.set(levels);
    const p: Pins = (name) => levels[name] ?? expect.fail(`no input ${name}`);
    let state = model.state;
    for (const step of model.start) bench.set(Object.assign(levels, step) && step);
    const rare = model.rare?.split(' ') ?? [];
    const random = seeded(base.length * 7919 + Number(base));
    const said = new Set<string>();
    for (let i = 0; i < 6000; i++) {
      const name = elementAt(bench.inputNames, Math.floor(random() * bench.inputNames.length));
      // Most of the time resting inputs go back to rest, so that counts get long.
      const rest = model.start[0]?.[name];
      const next = rare.includes(name) && random() < 0.85 && rest !== undefined ? rest : 1 - p(name);
      const before = p(name);
      levels[name] = next;
      bench.set({ [name]: next });
      const changed = (from: number) => (pin: string) => pin === name && before === from && next !== from;
      state = model.step(state, changed(0), changed(1), p);
      for (const [out, value] of Object.entries(model.outputs(state, p))) {
        const wanted = value === 'Z' ? 'Z' : value ? 'H' : 'L';
        said.add(`${out}${wanted}`);
        if (bench.read(out) !== wanted)
          expect.fail(`step ${i}: after ${name} = ${next}, ${out} is ${bench.read(out)}, not ${wanted}`);
      }
    }
    // Long counters take more than 6000 steps to reach their last stages; those are run through below.
    const quiet = bench.outputNames.filter((o) => !said.has(`${o}H`) || !said.has(`${o}L`));
    expect(quiet.filter((o) => !(Number(o.slice(1)) > 5))).toEqual([]);
  });

  it.each([
    ['4020', 14, 'CLK'],
    ['4040', 12, 'CLK'],
    ['4060', 14, 'RS'],
  ])('%s counts through all of its stages and back to nothing', (base, stages, clock) => {
    const bench = new ChipBench(base)
      .set({ CLR: 0, [clock]: 0 })
      .set({ CLR: 1 })
      .set({ CLR: 0 });
    const outputs = bench.outputNames.filter((o) => /^Q\d/.test(o));
    for (let n = 1; n <= 2 ** stages; n++) {
      bench.set({ [clock]: 1 }).set({ [clock]: 0 });
      for (const o of outputs) {
        const wanted = (n >> (Number(o.slice(1)) - 1)) & 1 ? 'H' : 'L';
        if (bench.read(o) !== wanted) expect.fail(`after ${n}: ${o} is ${bench.read(o)}`);
      }
    }
  });
});
