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

/** The 168 pair: direction, two enables and the carry low, load at the clock. What a decade does beyond 9 is not asked. */
const bothWays = (top: number): Model<number> => ({
  start: [{ LDn: 0, CLK: 0, ENPn: 0, ENTn: 0, UD: 1, A: 0, B: 0, C: 0, D: 0 }, { CLK: 1 }, { CLK: 0 }, { LDn: 1 }],
  state: 0,
  rare: 'LDn',
  step: (q, rose, _, p) => {
    if (!rose('CLK')) return q;
    if (!p('LDn')) return number(p, 'D C B A') > top ? NaN : number(p, 'D C B A');
    return p('ENPn') || p('ENTn') ? q : (p('UD') ? above : below)(q, top);
  },
  outputs: (q, p) => unlessUnknown(q, { ...word(q, four), RCOn: !(q === (p('UD') ? top : 0) && !p('ENTn')) }),
});

/** The 196 pair: two sections, cleared or loaded while a pin is low; the second has five or eight states. */
const presettable = (n: number): Model<{ a: number; b: number }> => ({
  start: [{ CLRn: 1, LDn: 1, CKA: 0, CKB: 0, A: 0, B: 0, C: 0, D: 0 }, { CLRn: 0 }, { CLRn: 1 }],
  state: { a: 0, b: 0 },
  rare: 'CLRn LDn',
  step: (s, _, fell, p) => {
    if (!p('CLRn')) return { a: 0, b: 0 };
    if (!p('LDn')) return { a: p('A'), b: number(p, 'D C B') >= n ? NaN : number(p, 'D C B') };
    return { a: fell('CKA') ? 1 - s.a : s.a, b: fell('CKB') ? (s.b + 1) % n : s.b };
  },
  outputs: ({ a, b }) => ({ QA: a, ...(Number.isNaN(b) ? {} : word(b, 'QD QC QB')) }),
});

/** The 4518 pair: either clock counts while the other allows it. */
const enabledPair = (n: number): Model<number[]> => ({
  start: [
    { '1CLR': 0, '2CLR': 0, '1CLK': 0, '2CLK': 0, '1EN': 1, '2EN': 1 },
    { '1CLR': 1, '2CLR': 1 },
    { '1CLR': 0, '2CLR': 0 },
  ],
  state: [0, 0],
  rare: '1CLR 2CLR',
  step: (s, rose, fell, p) =>
    s.map((q, i) => {
      const u = i + 1;
      if (p(`${u}CLR`)) return 0;
      const counts = (rose(`${u}CLK`) && p(`${u}EN`) === 1) || (fell(`${u}EN`) && p(`${u}CLK`) === 0);
      return counts ? (q + 1) % n : q;
    }),
  outputs: (s) => ({ ...word(elementAt(s, 0), '1QD 1QC 1QB 1QA'), ...word(elementAt(s, 1), '2QD 2QC 2QB 2QA') }),
});

const latchedSixteen = (shows: (k: number, chosen: boolean) => [string, boolean]): Model<number> => ({
  start: [{ LE: 1, En: 0, A0: 0, A1: 0, A2: 0, A3: 0 }],
  state: 0,
  step: (q, _, __, p) => (p('LE') ? number(p, 'A3 A2 A1 A0') : q),
  outputs: (q, p) => Object.fromEntries(upTo(16).map((k) => shows(k, k === q && !p('En')))),
});

/** Words of four bits: when and where they are written, and what is read of them. All are written before anything is asked. */
const memory = (
  words: number,
  writes: (p: Pins) => { readonly write: boolean; readonly at: number },
  outputs: (words: number[][], p: Pins) => Record<string, number | string>,
): Model<number[][]> => {
  const names = words === 16 ? ['A3', 'A2', 'A1', 'A0'] : ['WB', 'WA'];
  const address = (k: number) => Object.fromEntries(names.map((n, i) => [n, (k >> (names.length - 1 - i)) & 1]));
  const rest = { WEn: 1, D1: 0, D2: 0, D3: 0, D4: 0, ...(words === 16 ? { CSn: 0 } : { REn: 0, RA: 0, RB: 0 }) };
  return {
    start: [
      { ...rest, ...address(0) },
      ...upTo(words).flatMap((k) => [address(k), { WEn: 0 }, { WEn: 1 }]),
      address(0),
    ],
    state: upTo(words).map(() => zeros(4)),
    step: (s, _, __, p) => {
      const { write, at } = writes(p);
      return write ? s.with(at, bits(p, ['D1', 'D2', 'D3', 'D4'])) : s;
    },
    outputs: outputs as never,
  };
};

const segments = ['abcdef', 'bc', 'abged', 'abgcd', 'fgbc', 'afgcd', 'fgecd', 'abc', 'abcdefg', 'abcfg'];

/** What J and K ask of a stored bit: keep, set, reset, or the other one. */
const asked = (q: number, j: number, k: number): number => (j && k ? 1 - q : j ? 1 : k ? 0 : q);
/** A pulse-triggered flip-flop: what its master holds, and what its outputs show. */
interface MasterSlave {
  readonly master: number;
  readonly slave: number;
}
interface Asked {
  readonly preset: boolean;
  readonly clear: boolean;
  readonly clock: boolean;
  readonly j: boolean;
  readonly k: boolean;
}

/** Where J is seen while the output is low, or K while it is high, at any time of the pulse, the master turns; it does not turn back. */
function pulsed({ master, slave }: MasterSlave, fell: boolean, { preset, clear, clock, j, k }: Asked): MasterSlave {
  if (preset) return { master: 1, slave: 1 };
  if (clear) return { master: 0, slave: 0 };
  if (fell) return { master, slave: master };
  return { master: clock && (slave ? k : j) ? 1 - slave : master, slave };
}

/** Two of them in a package, with a preset beside the clear or without. */
const twoPulsed = (hasPreset: boolean): Model<readonly MasterSlave[]> => ({
  start: [
    Object.fromEntries(
      ['1', '2'].flatMap((n) =>
        [`CLRn 1`, `CLK 0`, `J 1`, `K 1`, ...(hasPreset ? ['PREn 1'] : [])].map((pin) => {
          const [name, level] = pin.split(' ');
          return [n + name, Number(level)];
        }),
      ),
    ),
    { '1CLRn': 0, '2CLRn': 0 },
    { '1CLRn': 1, '2CLRn': 1 },
  ],
  state: [
    { master: 0, slave: 0 },
    { master: 0, slave: 0 },
  ],
  rare: '1CLRn 2CLRn 1PREn 2PREn',
  step: (s, _, fell, p) =>
    s.map((one, i) => {
      const n = i + 1;
      const asked = { clear: !p(`${n}CLRn`), clock: p(`${n}CLK`) === 1, j: p(`${n}J`) === 1, k: p(`${n}K`) === 1 };
      return pulsed(one, fell(`${n}CLK`), { ...asked, preset: hasPreset && !p(`${n}PREn`) });
    }),
  outputs: (s, p) =>
    Object.fromEntries(
      s.flatMap(({ slave }, i) => [
        [`${i + 1}Q`, slave],
        [`${i + 1}Qn`, !slave || (hasPreset && p(`${i + 1}PREn`) + p(`${i + 1}CLRn`) === 0)],
      ]),
    ),
});

const all = (p: Pins, names: string): number => Number(names.split(' ').every((name) => p(name) === 1));

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
  '74298': {
    start: [{ WS: 0, CLK: 1, A1: 0, A2: 0, B1: 0, B2: 0, C1: 0, C2: 0, D1: 0, D2: 0 }, { CLK: 0 }],
    state: zeros(4),
    step: (q: number[], _: unknown, fell: (p: string) => boolean, p: Pins) =>
      fell('CLK') ? ['A', 'B', 'C', 'D'].map((d) => p(`${d}${p('WS') + 1}`)) : q,
    outputs: shown,
  },
  '74168': bothWays(9),
  '74169': bothWays(15),
  '74196': presettable(5),
  '74197': presettable(8),
  '74490': {
    start: [
      { '1CLR': 0, '2CLR': 0, '1S9': 0, '2S9': 0, '1CLK': 0, '2CLK': 0 },
      { '1CLR': 1, '2CLR': 1 },
      { '1CLR': 0, '2CLR': 0 },
    ],
    state: [0, 0],
    rare: '1CLR 2CLR 1S9 2S9',
    step: (s: number[], _: unknown, fell: (p: string) => boolean, p: Pins) =>
      s.map((q, i) => (p(`${i + 1}S9`) ? 9 : p(`${i + 1}CLR`) ? 0 : fell(`${i + 1}CLK`) ? (q + 1) % 10 : q)),
    outputs: (s: number[]) => ({
      ...word(elementAt(s, 0), '1QD 1QC 1QB 1QA'),
      ...word(elementAt(s, 1), '2QD 2QC 2QB 2QA'),
    }),
  },
  '4518': enabledPair(10),
  '4520': enabledPair(16),
  '4024': ripple(7, [1, 2, 3, 4, 5, 6, 7], 'CLK'),
  '74590': {
    start: [{ CCLRn: 1, CCLK: 0, CCKENn: 0, RCLK: 0, OEn: 0 }, { CCLRn: 0 }, { CCLRn: 1 }, { RCLK: 1 }, { RCLK: 0 }],
    state: [0, 0],
    rare: 'CCLRn',
    step: ([q = 0, out = 0]: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => [
      !p('CCLRn') ? 0 : rose('CCLK') && !p('CCKENn') ? (q + 1) % 256 : q,
      rose('RCLK') ? q : out,
    ],
    outputs: ([q = 0, out = 0]: number[], p: Pins) =>
      ({
        ...Object.fromEntries(eight.map((n, i) => [`Q${n}`, p('OEn') ? 'Z' : (out >> i) & 1])),
        RCOn: q !== 255,
      }) as never,
  },
  '7470': {
    start: [{ CLRn: 1, PREn: 1, CLK: 0, J1: 0, J2: 0, Jn: 0, K1: 0, K2: 0, Kn: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: 0,
    rare: 'CLRn PREn',
    step: (q: number, rose: (p: string) => boolean, _: unknown, p: Pins) => {
      // The rising clock lets go of preset and clear: of both at once, nobody knows where it falls, until it is set or cleared.
      if (rose('CLK') && (Number.isNaN(q) || (!p('PREn') && !p('CLRn')))) return NaN;
      if (rose('CLK')) return asked(q, all(p, 'J1 J2') & (1 - p('Jn')), all(p, 'K1 K2') & (1 - p('Kn')));
      if (p('CLK') || (p('PREn') && p('CLRn'))) return q;
      return p('PREn') ? 0 : 1;
    },
    outputs: (q: number, p: Pins) => unlessUnknown(q, { Q: q, Qn: q === 0 || p('PREn') + p('CLRn') + p('CLK') === 0 }),
  },
  '7472': {
    start: [
      { CLRn: 1, PREn: 1, CLK: 0, ...Object.fromEntries('J1 J2 J3 K1 K2 K3'.split(' ').map((n) => [n, 1])) },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: { master: 0, slave: 0 },
    rare: 'CLRn PREn J1 J2 J3 K1 K2 K3',
    step: (s: MasterSlave, _: unknown, fell: (p: string) => boolean, p: Pins) =>
      pulsed(s, fell('CLK'), {
        preset: !p('PREn'),
        clear: !p('CLRn'),
        clock: p('CLK') === 1,
        j: all(p, 'J1 J2 J3') === 1,
        k: all(p, 'K1 K2 K3') === 1,
      }),
    outputs: ({ slave }: MasterSlave, p: Pins) => ({ Q: slave, Qn: !slave || p('PREn') + p('CLRn') === 0 }),
  },
  SN7473: twoPulsed(false),
  SN7476: twoPulsed(true),
  SN74107: twoPulsed(false),
  '7494': {
    start: [
      {
        CLR: 0,
        CLK: 0,
        SER: 0,
        PE1: 0,
        PE2: 0,
        ...Object.fromEntries([1, 2].flatMap((n) => [...'ABCD'].map((d) => [`P${n}${d}`, 0]))),
      },
      { CLR: 1 },
      { CLR: 0 },
    ],
    state: zeros(4),
    rare: 'CLR PE1 PE2',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      const next = p('CLR') ? zeros(4) : rose('CLK') ? into(p('SER'), q) : q;
      // Presets reach over the clear, which is to be used without them.
      return next.map((b, i) => ([1, 2].some((n) => p(`PE${n}`) && p(`P${n}${eight[i]}`)) ? 1 : b));
    },
    outputs: (q: number[]) => ({ QD: elementAt(q, 3) }),
  },
  '74199': {
    start: [
      { CLRn: 1, LDn: 1, CLK: 0, INH: 0, J: 0, Kn: 0, ...Object.fromEntries(eight.map((n) => [n, 0])) },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: zeros(8),
    rare: 'CLRn LDn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(8);
      if (!(rose('CLK') && !p('INH')) && !(rose('INH') && !p('CLK'))) return q;
      return p('LDn') ? into(asked(elementAt(q, 0), p('J'), 1 - p('Kn')), q) : bits(p, eight);
    },
    outputs: shown,
  },
  '74276': {
    start: [
      {
        CLRn: 1,
        PREn: 1,
        ...Object.fromEntries(upTo(4).flatMap((u) => ['J', 'Kn', 'CLK'].map((n) => [`${u + 1}${n}`, 0]))),
      },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: zeros(4),
    rare: 'CLRn PREn',
    step: (q: number[], _: unknown, fell: (p: string) => boolean, p: Pins) =>
      q.map((b, i) => {
        const pin = (name: string): number => p(`${i + 1}${name}`);
        return !p('PREn') ? 1 : !p('CLRn') ? 0 : fell(`${i + 1}CLK`) ? asked(b, pin('J'), 1 - pin('Kn')) : b;
      }),
    outputs: (q: number[]) => Object.fromEntries(q.map((b, i) => [`${i + 1}Q`, b])),
  },
  '74299': {
    start: [
      {
        CLRn: 1,
        CLK: 0,
        S0: 0,
        S1: 0,
        SR: 0,
        SL: 0,
        OE1n: 0,
        OE2n: 0,
        ...Object.fromEntries(eight.map((n) => [`Q${n}`, 0])),
      },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: zeros(8),
    rare: 'CLRn OE1n OE2n',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(8);
      if (!rose('CLK')) return q;
      const buses = eight.map((n) => `Q${n}`);
      return [q, into(p('SR'), q), [...q.slice(1), p('SL')], bits(p, buses)][number(p, 'S1 S0')];
    },
    outputs: (q: number[], p: Pins) => ({
      ...Object.fromEntries(
        q.map((b, i) => [`Q${eight[i]}`, p('OE1n') || p('OE2n') || number(p, 'S1 S0') === 3 ? 'Z' : b]),
      ),
      QAS: elementAt(q, 0),
      QHS: elementAt(q, 7),
    }),
  },
  '74646': {
    start: [
      {
        DIR: 1,
        OEn: 0,
        SAB: 0,
        SBA: 0,
        CAB: 0,
        CBA: 0,
        ...Object.fromEntries(
          upTo(8).flatMap((i) => [
            [`A${i + 1}`, 0],
            [`B${i + 1}`, 0],
          ]),
        ),
      },
      { CAB: 1, CBA: 1 },
    ],
    state: { A: zeros(8), B: zeros(8) },
    step: (kept: Record<'A' | 'B', number[]>, rose: (p: string) => boolean, _: unknown, p: Pins) => {
      const side = (name: string): number[] => upTo(8).map((i) => p(`${name}${i + 1}`));
      return { A: rose('CAB') ? side('A') : kept.A, B: rose('CBA') ? side('B') : kept.B };
    },
    outputs: (kept: Record<'A' | 'B', number[]>, p: Pins) =>
      Object.fromEntries(
        upTo(8).flatMap((i) => {
          const [fromA, fromB] = [
            p('SAB') ? elementAt(kept.A, i) : p(`A${i + 1}`),
            p('SBA') ? elementAt(kept.B, i) : p(`B${i + 1}`),
          ];
          const [toB, toA] = [!p('OEn') && p('DIR'), !p('OEn') && !p('DIR')];
          return [
            [`B${i + 1}`, toB ? fromA : 'Z'],
            [`A${i + 1}`, toA ? fromB : 'Z'],
          ];
        }),
      ),
  },
  '4543': {
    start: [{ LE: 1, BI: 0, PH: 0, A: 0, B: 0, C: 0, D: 0 }],
    state: 0,
    step: (q: number, _: unknown, __: unknown, p: Pins) => (p('LE') ? number(p, 'D C B A') : q),
    outputs: (q: number, p: Pins) => {
      // With tails: on 6 the top, on 9 the bottom is lit; nothing above 9.
      const lit = p('BI') || q > 9 ? '' : q === 6 ? 'acdefg' : q === 9 ? 'abcdfg' : (segments[q] ?? '');
      return Object.fromEntries([...'abcdefg'].map((s) => [s, lit.includes(s) !== (p('PH') === 1)]));
    },
  },
  '7491': {
    start: [{ CLK: 0, A: 0, B: 0 }, ...upTo(16).map((k) => ({ CLK: 1 - (k % 2) }))],
    state: zeros(8),
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) =>
      rose('CLK') ? into(p('A') && p('B') ? 1 : 0, q) : q,
    outputs: (q: number[]) => ({ QH: elementAt(q, 7), QHn: 1 - elementAt(q, 7) }),
  },
  '7496': {
    start: [{ CLRn: 1, CLK: 0, PE: 0, SER: 0, A: 0, B: 0, C: 0, D: 0, E: 0 }, { CLRn: 0 }, { CLRn: 1 }],
    state: zeros(5),
    rare: 'CLRn PE',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      const set = bits(p, ['A', 'B', 'C', 'D', 'E']);
      // Preset reaches over the clear where both act.
      const next = !p('CLRn') ? zeros(5) : rose('CLK') ? into(p('SER'), q) : q;
      return p('PE') ? next.map((b, i) => (set[i] ? 1 : b)) : next;
    },
    outputs: shown,
  },
  '74198': {
    start: [
      { CLRn: 1, CLK: 0, S0: 0, S1: 0, SR: 0, SL: 0, ...Object.fromEntries(eight.map((n) => [n, 0])) },
      { CLRn: 0 },
      { CLRn: 1 },
    ],
    state: zeros(8),
    rare: 'CLRn',
    step: (q: number[], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      if (!p('CLRn')) return zeros(8);
      if (!rose('CLK')) return q;
      return [q, into(p('SR'), q), [...q.slice(1), p('SL')], bits(p, eight)][number(p, 'S1 S0')];
    },
    outputs: shown,
  },
  '74597': {
    start: [
      { SCLRn: 1, SCLK: 0, RCLK: 0, LDn: 1, SER: 0, ...Object.fromEntries(eight.map((n) => [n, 0])) },
      { RCLK: 1 },
      { RCLK: 0 },
      { SCLRn: 0 },
      { SCLRn: 1 },
    ],
    state: [zeros(8), zeros(8)],
    rare: 'SCLRn LDn',
    step: ([held = [], q = []]: number[][], rose: (p: string) => boolean, _: unknown, p: Pins) => {
      const latched = rose('RCLK') ? bits(p, eight) : held;
      if (!p('LDn')) return [latched, latched];
      return [latched, !p('SCLRn') ? zeros(8) : rose('SCLK') ? into(p('SER'), q) : q];
    },
    outputs: ([, q = []]: number[][]) => ({ QH: elementAt(q, 7) }),
  },
  '4015': {
    start: [
      { '1CLR': 0, '2CLR': 0, '1CLK': 0, '2CLK': 0, '1D': 0, '2D': 0 },
      { '1CLR': 1, '2CLR': 1 },
      { '1CLR': 0, '2CLR': 0 },
    ],
    state: [zeros(4), zeros(4)],
    rare: '1CLR 2CLR',
    step: (s: number[][], rose: (p: string) => boolean, _: unknown, p: Pins) =>
      s.map((q, i) => (p(`${i + 1}CLR`) ? zeros(4) : rose(`${i + 1}CLK`) ? into(p(`${i + 1}D`), q) : q)),
    outputs: (s: number[][]) =>
      Object.fromEntries(s.flatMap((q, i) => q.map((b, k) => [`${i + 1}Q${eight[k]}`, b]))) as never,
  },
  '4094': {
    start: [{ STR: 1, SER: 0, CLK: 0, OE: 1 }, ...upTo(17).map((k) => ({ CLK: 1 - (k % 2) })), { CLK: 0 }],
    state: [zeros(8), zeros(8), [0]],
    step: (
      [q = [], out = [], late = []]: number[][],
      rose: (p: string) => boolean,
      fell: (p: string) => boolean,
      p: Pins,
    ) => {
      const next = rose('CLK') ? into(p('SER'), q) : q;
      return [next, p('STR') ? next : out, fell('CLK') ? [elementAt(q, 7)] : late];
    },
    outputs: ([q = [], out = [], late = []]: number[][], p: Pins) =>
      ({
        ...Object.fromEntries(eight.map((n, i) => [`Q${n}`, p('OE') ? elementAt(out, i) : 'Z'])),
        QS: elementAt(q, 7),
        QSn: elementAt(late, 0),
      }) as never,
  },
  '74137': {
    start: [{ GLn: 0, G1: 1, G2n: 0, A: 0, B: 0, C: 0 }],
    state: 0,
    step: (q: number, _: unknown, __: unknown, p: Pins) => (p('GLn') ? q : number(p, 'C B A')),
    outputs: (q: number, p: Pins) =>
      Object.fromEntries(upTo(8).map((k) => [`Y${k}n`, !(k === q && p('G1') === 1 && p('G2n') === 0)])),
  },
  '4514': latchedSixteen((k, chosen) => [`Y${k}`, chosen]),
  '4515': latchedSixteen((k, chosen) => [`Y${k}n`, !chosen]),
  '7489': memory(
    16,
    (p) => ({ write: !p('WEn') && !p('CSn'), at: number(p, 'A3 A2 A1 A0') }),
    (words, p) => {
      const bitsOf = (b: number): boolean =>
        !p('WEn') ? p(`D${b}`) === 1 : !p('CSn') && elementAt(elementAt(words, number(p, 'A3 A2 A1 A0')), b - 1) === 1;
      return Object.fromEntries([1, 2, 3, 4].map((b) => [`Q${b}n`, bitsOf(b) ? 0 : 'Z']));
    },
  ),
  '74189': memory(
    16,
    (p) => ({ write: !p('WEn') && !p('CSn'), at: number(p, 'A3 A2 A1 A0') }),
    (words, p) => {
      const word = elementAt(words, number(p, 'A3 A2 A1 A0'));
      const reads = !p('CSn') && p('WEn') === 1;
      return Object.fromEntries([1, 2, 3, 4].map((b) => [`Q${b}n`, reads ? 1 - elementAt(word, b - 1) : 'Z']));
    },
  ),
  '74170': memory(
    4,
    (p) => ({ write: !p('WEn'), at: number(p, 'WB WA') }),
    (words, p) => {
      const word = elementAt(words, number(p, 'RB RA'));
      return Object.fromEntries([1, 2, 3, 4].map((b) => [`Q${b}`, p('REn') || elementAt(word, b - 1) ? 'Z' : 0]));
    },
  ),
  '74670': memory(
    4,
    (p) => ({ write: !p('WEn'), at: number(p, 'WB WA') }),
    (words, p) => {
      const word = elementAt(words, number(p, 'RB RA'));
      return Object.fromEntries([1, 2, 3, 4].map((b) => [`Q${b}`, p('REn') ? 'Z' : elementAt(word, b - 1)]));
    },
  ),
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
    const random = seeded(base.length * 7919 + Number(base.replace(/\D/g, '')));
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
    // An output that only pulls low is off where others are high.
    const quiet = bench.outputNames.filter((o) => !(said.has(`${o}H`) || said.has(`${o}Z`)) || !said.has(`${o}L`));
    expect(quiet.filter((o) => !(Number(o.slice(1)) > 5) && !(base === '74590' && o > 'QC'))).toEqual([]);
  });

  it.each([
    ['4020', 14, 'CLK'],
    ['4040', 12, 'CLK'],
    ['4060', 14, 'RS'],
    ['4024', 7, 'CLK'],
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

  it('74590 counts to 255, says so, and shows what its register took', () => {
    const bench = new ChipBench('74590').set({ CCLRn: 0, CCLK: 0, RCLK: 0, CCKENn: 0, OEn: 0 }).set({ CCLRn: 1 });
    for (let n = 1; n <= 256; n++) {
      bench.set({ CCLK: 1 }).set({ CCLK: 0 }).set({ RCLK: 1 }).set({ RCLK: 0 });
      const seen = eight.map((o) => (bench.read(`Q${o}`) === 'H' ? 1 : 0));
      expect(seen.reduce<number>((sum, b, i) => sum + b * 2 ** i, 0)).toBe(n % 256);
      expect(bench.read('RCOn')).toBe(n === 255 ? 'L' : 'H');
    }
  });
});
