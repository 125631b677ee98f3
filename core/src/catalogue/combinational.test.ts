import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { ChipBench } from '../testing/chip-bench';
import { findChip } from './catalogue';
import { chips } from './chips';

/**
 * What the data sheets say of parts without memory, written down apart from the catalogue and in
 * other words (numbers and counts instead of equations). Every part is run through all of its rows.
 */
type Value = 0 | 1 | 'Z';
type Pins = (name: string) => number;
type Reference = (p: Pins) => Record<string, Value | boolean>;

/** Names written with spaces between them, taken apart once: each is asked for in every row. */
const listed = new Map<string, readonly string[]>();
const list = (names: string): readonly string[] => {
  const known = listed.get(names) ?? names.split(' ');
  listed.set(names, known);
  return known;
};
const count = (p: Pins, names: string): number => list(names).reduce((n, name) => n + p(name), 0);
const all = (p: Pins, names: string): boolean => count(p, names) === list(names).length;
const any = (p: Pins, names: string): boolean => count(p, names) > 0;
/** The number on some pins, the first the most significant. */
const number = (p: Pins, names: string): number => list(names).reduce((n, name) => n * 2 + p(name), 0);
const open = (low: boolean): Value => (low ? 0 : 'Z');
const when = (enabled: boolean, value: boolean | number): Value => (enabled ? (value ? 1 : 0) : 'Z');

/** The same gate in units 1 to n, over input letters. */
const gates =
  (n: number, letters: string, value: (p: Pins, inputs: string) => Value | boolean): Reference =>
  (p) =>
    Object.fromEntries(
      Array.from({ length: n }, (_, i) => {
        const inputs = [...letters].map((l) => `${i + 1}${l}`).join(' ');
        return [`${i + 1}Y`, value(p, inputs)];
      }),
    );
const nand = (p: Pins, i: string): boolean => !all(p, i);
const nor = (p: Pins, i: string): boolean => !any(p, i);
const odd = (p: Pins, i: string): boolean => count(p, i) % 2 === 1;
/** One output of some chosen by a number, low or high, all others the other way. */
const oneOf = (names: (k: number) => string, total: number, chosen: number | null, level: 0 | 1) =>
  Object.fromEntries(
    Array.from({ length: total }, (_, k) => [names(k), k === chosen ? level : ((1 - level) as 0 | 1)]),
  );

const digitSegments = ['abcdef', 'bc', 'abged', 'abgcd', 'fgbc', 'afgcd', 'fgecd', 'abc', 'abcdefg', 'abcfg'];
const odditySegments = ['deg', 'cdg', 'bfg', 'adfg', 'defg', ''];
const tails = digitSegments.map((s, k) => (k === 6 ? `a${s}` : k === 9 ? `d${s}` : s));

/** The 7447 and its kin: which segments are lit, and whether ripple blanking pulls pin 4 low. */
const lit = (p: Pins, shapes: readonly string[]): { on: string; ripple: boolean } => {
  const code = number(p, 'D C B A');
  const ripple = p('LTn') === 1 && p('RBIn') === 0 && code === 0;
  if (p('BIn') === 0 || ripple) return { on: '', ripple };
  return { on: p('LTn') === 0 ? 'abcdefg' : elementAt(shapes, code), ripple };
};
const segments = (on: string, level: (lit: boolean) => Value | boolean) =>
  Object.fromEntries([...'abcdefg'].map((s) => [s, level(on.includes(s))]));

const adder: Reference = (p) => {
  const sum = number(p, 'A4 A3 A2 A1') + number(p, 'B4 B3 B2 B1') + p('C0');
  return Object.fromEntries(['S1', 'S2', 'S3', 'S4', 'C4'].map((n, k) => [n, ((sum >> k) & 1) === 1]));
};

/** F of the 74181 for active-high data: a logic function, or the sum that its function table states. */
const alu: Reference = (p) => {
  const [a, b, s] = [number(p, 'A3 A2 A1 A0'), number(p, 'B3 B2 B1 B0'), number(p, 'S3 S2 S1 S0')];
  const not = (x: number): number => 15 - x;
  const logic = [
    not(a),
    not(a | b),
    not(a) & b,
    0,
    not(a & b),
    not(b),
    a ^ b,
    a & not(b),
    not(a) | b,
    not(a ^ b),
    b,
    a & b,
    15,
    a | not(b),
    a | b,
    a,
  ];
  const sums: [number, number][] = [
    [a, 0],
    [a | b, 0],
    [a | not(b), 0],
    [15, 0],
    [a, a & not(b)],
    [a | b, a & not(b)],
    [a, not(b)],
    [a & not(b), 15],
    [a, a & b],
    [a, b],
    [a | not(b), a & b],
    [a & b, 15],
    [a, a],
    [a | b, a],
    [a | not(b), a],
    [a, 15],
  ];
  const [x, y] = elementAt(sums, s);
  const sum = x + y + (1 - p('CN'));
  const f = p('M') === 1 ? elementAt(logic, s) : sum & 15;
  const words = Object.fromEntries([0, 1, 2, 3].map((k) => [`F${k}`, ((f >> k) & 1) === 1]));
  const more = p('M') === 1 ? {} : { CN4: sum < 16 };
  return { ...words, AEQB: open(f !== 15), ...more };
};

const references: Readonly<Record<string, Reference>> = {
  '7400': gates(4, 'AB', nand),
  '7401': gates(4, 'AB', (p, i) => open(all(p, i))),
  '7412': gates(3, 'ABC', (p, i) => open(all(p, i))),
  '7413': gates(2, 'ABCD', nand),
  '7415': gates(3, 'ABC', (p, i) => open(!all(p, i))),
  '7416': gates(6, 'A', (p, i) => open(any(p, i))),
  '7417': gates(6, 'A', (p, i) => open(!any(p, i))),
  '7422': gates(2, 'ABCD', (p, i) => open(all(p, i))),
  '7425': (p) => numbered(2, (u) => [`${u}Y`, p(`${u}G`) === 0 || count(p, `${u}A ${u}B ${u}C ${u}D`) === 0]),
  '7426': gates(4, 'AB', (p, i) => open(all(p, i))),
  '7428': gates(4, 'AB', nor),
  '7433': gates(4, 'AB', (p, i) => open(any(p, i))),
  '7440': gates(2, 'ABCD', nand),
  '4049': gates(6, 'A', nand),
  '4050': gates(6, 'A', any),
  '74366': (p) => numbered(6, (k) => [`Y${k}`, when(count(p, 'OE1n OE2n') === 0, 1 - p(`A${k}`))]),
  '74368': (p) => ({
    ...numbered(4, (k) => [`1Y${k}`, when(p('1OEn') === 0, 1 - p(`1A${k}`))]),
    ...numbered(2, (k) => [`2Y${k}`, when(p('2OEn') === 0, 1 - p(`2A${k}`))]),
  }),
  '74540': (p) => numbered(8, (k) => [`Y${k}`, when(count(p, 'OE1n OE2n') === 0, 1 - p(`A${k}`))]),
  '74640': (p) => {
    const [on, toB] = [p('OEn') === 0, p('DIR') === 1];
    const of = (from: string, to: string, drives: boolean) =>
      numbered(8, (k) => [`${to}${k}`, when(on && drives, 1 - p(`${from}${k}`))]);
    return { ...of('A', 'B', toB), ...of('B', 'A', !toB) };
  },
  '7446': (p) => display(p, digitSegments, (on) => open(on)),
  '74248': (p) => display(p, tails, (on) => on),
  '74141': (p) =>
    Object.fromEntries(Array.from({ length: 10 }, (_, k) => [`Y${k}n`, open(k === number(p, 'D C B A'))])),
  '74145': (p) =>
    Object.fromEntries(Array.from({ length: 10 }, (_, k) => [`Y${k}n`, open(k === number(p, 'D C B A'))])),
  '74150': (p) => ({ W: p('Gn') === 1 || p(`E${number(p, 'D C B A')}`) === 0 }),
  '74258': (p) => numbered(4, (u) => [`${u}Y`, when(p('OEn') === 0, 1 - p(p('S') ? `${u}B` : `${u}A`))]),
  '74352': (p) => numbered(2, (u) => [`${u}Y`, p(`${u}Gn`) === 1 || p(`${u}C${number(p, 'B A')}`) === 0]),
  '74353': (p) => numbered(2, (u) => [`${u}Y`, when(p(`${u}Gn`) === 0, 1 - p(`${u}C${number(p, 'B A')}`))]),
  '74682': (p) => {
    const [a, b] = ['P', 'Q'].map((w) => number(p, [7, 6, 5, 4, 3, 2, 1, 0].map((k) => `${w}${k}`).join(' '))) as [
      number,
      number,
    ];
    return { PEn: a !== b, PGn: !(a > b) };
  },
  '74688': (p) => ({
    PEn: p('Gn') === 1 || [0, 1, 2, 3, 4, 5, 6, 7].some((k) => p(`P${k}`) !== p(`Q${k}`)),
  }),
  '7402': gates(4, 'AB', nor),
  '7403': gates(4, 'AB', (p, i) => open(all(p, i))),
  '7404': gates(6, 'A', nand),
  '7405': gates(6, 'A', (p, i) => open(any(p, i))),
  '7406': gates(6, 'A', (p, i) => open(any(p, i))),
  '7407': gates(6, 'A', (p, i) => open(!any(p, i))),
  '7408': gates(4, 'AB', all),
  '7409': gates(4, 'AB', (p, i) => open(!all(p, i))),
  '7410': gates(3, 'ABC', nand),
  '7411': gates(3, 'ABC', all),
  '7414': gates(6, 'A', nand),
  '7420': gates(2, 'ABCD', nand),
  '7421': gates(2, 'ABCD', all),
  '7427': gates(3, 'ABC', nor),
  '7430': (p) => ({ Y: nand(p, 'A B C D E F G H') }),
  '7432': gates(4, 'AB', any),
  '7437': gates(4, 'AB', nand),
  '7438': gates(4, 'AB', (p, i) => open(all(p, i))),
  '7451': (p) => ({
    '1Y': !(all(p, '1A 1B 1C') || all(p, '1D 1E 1F')),
    '2Y': !(all(p, '2A 2B') || all(p, '2C 2D')),
  }),
  SN7451: (p) => ({
    '1Y': ![`1A 1B`, '1C 1D'].some((i) => all(p, i)),
    '2Y': !['2A 2B', '2C 2D'].some((i) => all(p, i)),
  }),
  // As they come: nothing is programmed.
  '74188': (p) => blank(8, open(p('Gn') === 0)),
  '74288': (p) => blank(8, when(p('Gn') === 0, 0)),
  '74287': (p) => blank(4, when(!any(p, 'G1n G2n'), 0)),
  '74387': (p) => blank(4, open(!any(p, 'G1n G2n'))),
  '74471': (p) => blank(8, when(!any(p, 'G1n G2n'), 0)),
  '28C16': (p) => blank(8, when(!any(p, 'CEn OEn') && p('WEn') === 1, 1)),
  SN7454: (p) => ({ Y: !['A B', 'C D', 'E F', 'G H'].some((i) => all(p, i)) }),
  '7454': (p) => ({ Y: ![`A B`, 'C D E', 'F G H', 'I J'].some((i) => all(p, i)) }),
  '7486': gates(4, 'AB', odd),
  '74125': (p) => Object.fromEntries([1, 2, 3, 4].map((u) => [`${u}Y`, when(p(`${u}OEn`) === 0, p(`${u}A`))])),
  '74126': (p) => Object.fromEntries([1, 2, 3, 4].map((u) => [`${u}Y`, when(p(`${u}OE`) === 1, p(`${u}A`))])),
  '74132': gates(4, 'AB', nand),
  '74133': (p) => ({ Y: nand(p, 'A B C D E F G H I J K L M') }),
  '74136': gates(4, 'AB', (p, i) => open(!odd(p, i))),
  '74260': gates(2, 'ABCDE', nor),
  '74266': gates(4, 'AB', (p, i) => open(odd(p, i))),
  '4002': gates(2, 'ABCD', nor),
  '4072': gates(2, 'ABCD', any),
  '4075': gates(3, 'ABC', any),
  '747266': gates(4, 'AB', (p, i) => !odd(p, i)),
  '74240': (p) => halves(p, (a) => 1 - a, 0),
  '74241': (p) => halves(p, (a) => a, 1),
  '74244': (p) => halves(p, (a) => a, 0),
  '74245': (p) => {
    const out: Record<string, Value> = {};
    for (let k = 1; k <= 8; k++) {
      out[`B${k}`] = when(p('OEn') === 0 && p('DIR') === 1, p(`A${k}`));
      out[`A${k}`] = when(p('OEn') === 0 && p('DIR') === 0, p(`B${k}`));
    }
    return out;
  },
  '74365': (p) => numbered(6, (k) => [`Y${k}`, when(!any(p, 'OE1n OE2n'), p(`A${k}`))]),
  '74367': (p) => ({
    ...numbered(4, (k) => [`1Y${k}`, when(p('1OEn') === 0, p(`1A${k}`))]),
    ...numbered(2, (k) => [`2Y${k}`, when(p('2OEn') === 0, p(`2A${k}`))]),
  }),
  '74541': (p) => numbered(8, (k) => [`Y${k}`, when(!any(p, 'OE1n OE2n'), p(`A${k}`))]),
  '7442': (p) => oneOf((k) => `Y${k}n`, 10, number(p, 'D C B A'), 0),
  '7445': (p) => Object.fromEntries(Array.from({ length: 10 }, (_, k) => [`Y${k}n`, open(k === number(p, 'D C B A'))])),
  '7447': (p) => display(p, digitSegments, (on) => open(on)),
  '7448': (p) => display(p, digitSegments, (on) => on),
  '74247': (p) => display(p, tails, (on) => open(on)),
  '74138': (p) => oneOf((k) => `Y${k}n`, 8, p('G1') && !any(p, 'G2An G2Bn') ? number(p, 'C B A') : null, 0),
  '74238': (p) => oneOf((k) => `Y${k}`, 8, p('G1') && !any(p, 'G2An G2Bn') ? number(p, 'C B A') : null, 1),
  '74139': (p) => ({
    ...oneOf((k) => `1Y${k}n`, 4, p('1Gn') ? null : number(p, '1B 1A'), 0),
    ...oneOf((k) => `2Y${k}n`, 4, p('2Gn') ? null : number(p, '2B 2A'), 0),
  }),
  '74154': (p) => oneOf((k) => `Y${k}n`, 16, any(p, 'G1n G2n') ? null : number(p, 'D C B A'), 0),
  '74155': (p) => ({
    ...oneOf((k) => `1Y${k}n`, 4, p('1C') === 1 && p('1Gn') === 0 ? number(p, 'B A') : null, 0),
    ...oneOf((k) => `2Y${k}n`, 4, p('2Cn') === 0 && p('2Gn') === 0 ? number(p, 'B A') : null, 0),
  }),
  '74147': (p) => {
    const top = [9, 8, 7, 6, 5, 4, 3, 2, 1].find((k) => p(`I${k}n`) === 0) ?? 0;
    return Object.fromEntries(['An', 'Bn', 'Cn', 'Dn'].map((n, k) => [n, ((top >> k) & 1) === 0]));
  },
  '74148': (p) => {
    const top = [7, 6, 5, 4, 3, 2, 1, 0].find((k) => p(`I${k}n`) === 0) ?? null;
    const on = p('EIn') === 0;
    const code = on && top !== null ? 7 - top : 7;
    const bits = Object.fromEntries([0, 1, 2].map((k) => [`A${k}n`, ((code >> k) & 1) === 1]));
    return { ...bits, GSn: !(on && top !== null), EOn: !(on && top === null) };
  },
  // Of analogue switches: 1 where one is closed. Nothing closes while the negative supply is not at ground.
  '4051': (p) => oneOf((k) => `Y${k}`, 8, any(p, 'ENn VEE') ? null : number(p, 'S2 S1 S0'), 1),
  '4052': (p) => {
    const chosen = any(p, 'ENn VEE') ? null : number(p, 'S1 S0');
    return { ...oneOf((k) => `1Y${k}`, 4, chosen, 1), ...oneOf((k) => `2Y${k}`, 4, chosen, 1) };
  },
  '4053': (p) =>
    Object.fromEntries(
      [1, 2, 3].flatMap((n) =>
        [0, 1].map((k) => [`${n}Y${k}`, !any(p, 'ENn VEE') && p(`S${n}`) === k] as [string, boolean]),
      ),
    ),
  '4066': (p) => Object.fromEntries([1, 2, 3, 4].map((n) => [`${n}Y`, p(`${n}E`) === 1])),
  '74151': (p) => {
    const y = p('Gn') === 0 && p(`D${number(p, 'C B A')}`) === 1;
    return { Y: y, W: !y };
  },
  '74251': (p) => {
    const d = p(`D${number(p, 'C B A')}`);
    return { Y: when(p('Gn') === 0, d), W: when(p('Gn') === 0, 1 - d) };
  },
  '74153': (p) => numbered(2, (u) => [`${u}Y`, p(`${u}Gn`) === 0 && p(`${u}C${number(p, 'B A')}`) === 1]),
  '74253': (p) => numbered(2, (u) => [`${u}Y`, when(p(`${u}Gn`) === 0, p(`${u}C${number(p, 'B A')}`))]),
  '74157': (p) => numbered(4, (u) => [`${u}Y`, p('Gn') === 0 && p(p('S') ? `${u}B` : `${u}A`) === 1]),
  '74158': (p) => numbered(4, (u) => [`${u}Y`, !(p('Gn') === 0 && p(p('S') ? `${u}B` : `${u}A`) === 1)]),
  '74257': (p) => numbered(4, (u) => [`${u}Y`, when(p('OEn') === 0, p(p('S') ? `${u}B` : `${u}A`))]),
  '7483': adder,
  '74283': adder,
  '7485': (p) => {
    const [a, b] = [number(p, 'A3 A2 A1 A0'), number(p, 'B3 B2 B1 B0')];
    if (a !== b) return { GT: a > b, LT: a < b, EQ: false };
    // Inputs A>B, A<B, A=B for equal words, as the data sheet lists them.
    const cascade = number(p, 'IGT ILT IEQ');
    const [gt, lt, eq] = [...({ 4: '100', 2: '010', 0: '110', 6: '000' }[cascade] ?? '001')].map((c) => c === '1');
    return { GT: gt as boolean, LT: lt as boolean, EQ: eq as boolean };
  },
  '74180': (p) => {
    const even = count(p, 'A B C D E F G H') % 2 === 0;
    if (p('EVEN') === p('ODD')) return { SEVEN: p('EVEN') === 0, SODD: p('EVEN') === 0 };
    const same = even === (p('EVEN') === 1);
    return { SEVEN: same, SODD: !same };
  },
  '74181': alu,
  '74182': (p) => {
    // Carries by counting on: a stage hands on what it generates, or what comes in if it propagates.
    let carry = p('CN') === 1;
    const carries = [0, 1, 2].map((k) => {
      carry = p(`G${k}n`) === 0 || (p(`P${k}n`) === 0 && carry);
      return carry;
    });
    let generates = false;
    for (const k of [0, 1, 2, 3]) generates = p(`G${k}n`) === 0 || (p(`P${k}n`) === 0 && generates);
    const [CNX, CNY, CNZ] = carries as [boolean, boolean, boolean];
    return { CNX, CNY, CNZ, Gn: !generates, Pn: any(p, 'P0n P1n P2n P3n') };
  },
  '74280': (p) => {
    const even = count(p, 'A B C D E F G H I') % 2 === 0;
    return { EVEN: even, ODD: !even };
  },
};

function numbered(n: number, of: (k: number) => [string, Value | boolean]): Record<string, Value | boolean> {
  return Object.fromEntries(Array.from({ length: n }, (_, i) => of(i + 1)));
}

const blank = (bits: number, level: Value): Record<string, Value> =>
  Object.fromEntries(Array.from({ length: bits }, (_, k) => [`Q${k}`, level]));

/** The octal buffers: two halves, the second enabled low (0) or high (1). */
function halves(p: Pins, value: (a: number) => number, second: 0 | 1): Record<string, Value> {
  const two = p(second === 1 ? '2OE' : '2OEn') === second;
  return Object.fromEntries(
    [1, 2, 3, 4].flatMap((k) => [
      [`1Y${k}`, when(p('1OEn') === 0, value(p(`1A${k}`)))],
      [`2Y${k}`, when(two, value(p(`2A${k}`)))],
    ]),
  );
}

function display(p: Pins, digits: readonly string[], level: (lit: boolean) => Value | boolean) {
  const { on, ripple } = lit(p, [...digits, ...odditySegments]);
  return { ...segments(on, level), BIn: open(ripple) };
}

const shown = (v: Value | boolean): string => (v === 'Z' ? 'Z' : v ? 'H' : 'L');

describe('parts without memory do in every row what their data sheets say', () => {
  it('every one of them', () => {
    const isPlain = (base: string): boolean =>
      findChip(base)?.units.every((u) => u.behaviour.stored.length === 0) === true;
    const plain = chips.map((c) => c.base).filter(isPlain);
    expect(Object.keys(references).sort()).toEqual(plain.sort());
  });

  it.each(Object.entries(references))('%s', (base, reference) => {
    const bench = new ChipBench(base);
    const names = bench.inputNames;
    // Beyond 18 inputs the units of a chip are separate: one number for all of them runs every row of each.
    const width = Math.min(names.length, 18);
    const outputs = bench.outputNames;
    const levels: Record<string, number> = Object.fromEntries(names.map((n) => [n, 0]));
    bench.set(levels);
    for (let r = 0; r < 2 ** width; r++) {
      // In the order of the Gray code, in which from row to row one input changes.
      const changed = 31 - Math.clz32(r & -r);
      const turned: Record<string, number> = {};
      names.forEach((n, i) => {
        if (r > 0 && i % width === changed) turned[n] = 1 - (levels[n] as number);
      });
      Object.assign(levels, turned);
      bench.set(turned);
      const wanted = reference((n) => levels[n] as number);
      for (const name of outputs) {
        const value = wanted[name];
        if (value === undefined) continue;
        if (bench.read(name) !== shown(value))
          expect.fail(`row ${JSON.stringify(levels)}: ${name} is ${bench.read(name)}`);
      }
    }
    expect(Object.keys(wanted(reference, names)).sort()).toEqual([...outputs].filter((o) => !skipped(base, o)).sort());
  });
});

/** Which outputs a reference speaks of, asked with every input low. */
function wanted(reference: Reference, names: readonly string[]): Record<string, unknown> {
  return reference((n) => (names.includes(n) ? 0 : expect.fail(`the reference reads ${n}`)));
}

/** Carries of the 74181 for logic functions, and its group outputs, are tested with the 74182. */
function skipped(base: string, output: string): boolean {
  return base === '74181' && ['P', 'G'].includes(output);
}

describe('the 74181 with the 74182', () => {
  it('adds two bytes: the look-ahead carry of the group signals is the carry of the sum', () => {
    const [low, high, ahead] = [new ChipBench('74181'), new ChipBench('74181'), new ChipBench('74182')];
    const plus = { S3: 1, S2: 0, S1: 0, S0: 1, M: 0 };
    const nibble = (letter: string, n: number) =>
      Object.fromEntries([0, 1, 2, 3].map((k) => [`${letter}${k}`, (n >> k) & 1]));
    const bit = (c: string): number => (c === 'H' ? 1 : 0);
    for (let i = 0; i < 2000; i++) {
      const [a, b, c] = [(i * 89) & 255, (i * 151 + (i >> 3)) & 255, i & 1];
      low.set({ ...plus, ...nibble('A', a & 15), ...nibble('B', b & 15), CN: c });
      // For active-high data the carries of both chips are low-active, and P and G exchange their roles by name.
      const rest = { G1n: 1, P1n: 1, G2n: 1, P2n: 1, G3n: 1, P3n: 1 };
      ahead.set({ CN: c, G0n: bit(low.read('G')), P0n: bit(low.read('P')), ...rest });
      high.set({ ...plus, ...nibble('A', a >> 4), ...nibble('B', b >> 4), CN: bit(low.read('CN4')) });
      const sum = a + b + (1 - c);
      const word = high.word('F3 F2 F1 F0') + low.word('F3 F2 F1 F0');
      expect(word.replaceAll('H', '1').replaceAll('L', '0')).toBe((sum & 255).toString(2).padStart(8, '0'));
      expect(high.read('CN4')).toBe(sum > 255 ? 'L' : 'H');
      expect(ahead.read('CNX')).toBe(low.read('CN4'));
    }
  });
});
