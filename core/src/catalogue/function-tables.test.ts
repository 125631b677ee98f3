import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { ChipBench } from '../testing/chip-bench';

/**
 * Function tables of flip-flops, latches, one-shots and timers, as the data sheets print them: inputs,
 * a bar, outputs. H, L: levels; X: either; u, d: a rising or falling edge; q, Q: as before, and its
 * complement; t: the other way; Z: off. Each row is tried with every X both ways, from either stored
 * level, and in each unit of the package.
 */
interface Tabled {
  readonly units: readonly string[];
  readonly head: string;
  readonly rows: readonly string[];
}

const two = ['1', '2'];
const jkRows = (
  edge: string,
  away: string,
  { set, clear, both }: { readonly set: string; readonly clear: string; readonly both: string },
): string[] => [
  ...(set === '' ? [] : [`L H X X X | H L`, `H L X X X | L H`, `L L X X X | ${both}`]),
  ...(set === '' ? [`L X X X | L H`] : []),
  ...['L L | q Q', 'H L | H L', 'L H | L H', 'H H | t T'].map((row) => `${set}${clear} ${edge} ${row}`.trim()),
  ...[away, 'L', 'H'].map((clock) => `${set}${clear} ${clock} X X | q Q`.trim()),
];
const dRows = [
  'L H X X | H L',
  'H L X X | L H',
  'L L X X | H H',
  'H H u H | H L',
  'H H u L | L H',
  'H H L X | q Q',
  'H H H X | q Q',
  'H H d X | q Q',
];

const tables: Readonly<Record<string, Tabled>> = {
  '7473': { units: two, head: 'CLRn CLK J K | Q Qn', rows: jkRows('d', 'u', { set: '', clear: 'H', both: '' }) },
  '74107': { units: two, head: 'CLRn CLK J K | Q Qn', rows: jkRows('d', 'u', { set: '', clear: 'H', both: '' }) },
  '7476': {
    units: two,
    head: 'PREn CLRn CLK J K | Q Qn',
    rows: jkRows('d', 'u', { set: 'H ', clear: 'H', both: 'H H' }),
  },
  '74112': {
    units: two,
    head: 'PREn CLRn CLK J K | Q Qn',
    rows: jkRows('d', 'u', { set: 'H ', clear: 'H', both: 'H H' }),
  },
  '74113': {
    units: two,
    head: 'PREn CLK J K | Q Qn',
    rows: [
      'L X X X | H L',
      'H d L L | q Q',
      'H d H L | H L',
      'H d L H | L H',
      'H d H H | t T',
      'H u X X | q Q',
      'H H X X | q Q',
    ],
  },
  '74375': { units: ['1', '2'], head: 'D C12 | Q Qn', rows: ['L H | L H', 'H H | H L', 'X L | q Q'] },
  '74375 ': { units: ['3', '4'], head: 'D C34 | Q Qn', rows: ['L H | L H', 'H H | H L', 'X L | q Q'] },
  '74378': {
    units: [...'123456'],
    head: 'ENn CLK D | Q',
    rows: ['H X X | q', 'L u H | H', 'L u L | L', 'X L X | q', 'H u X | q'],
  },
  '74379': {
    units: [...'1234'],
    head: 'ENn CLK D | Q Qn',
    rows: ['H X X | q Q', 'L u H | H L', 'L u L | L H', 'X L X | q Q', 'H u X | q Q'],
  },
  ...Object.fromEntries(
    ['74533', '74563'].map((base) => [
      base,
      { units: [...'12345678'], head: 'OEn LE D | Q', rows: ['L H H | L', 'L H L | H', 'L L X | q', 'H X X | Z'] },
    ]),
  ),
  ...Object.fromEntries(
    ['74534', '74564'].map((base) => [
      base,
      {
        units: [...'12345678'],
        head: 'OEn CLK D | Q',
        rows: ['L u H | L', 'L u L | H', 'L L X | q', 'L d X | q', 'H X X | Z'],
      },
    ]),
  ),
  '7474': { units: two, head: 'PREn CLRn CLK D | Q Qn', rows: dRows },
  '74109': {
    units: two,
    head: 'PREn CLRn CLK J Kn | Q Qn',
    rows: [
      'L H X X X | H L',
      'H L X X X | L H',
      'L L X X X | H H',
      'H H u L L | L H',
      'H H u H L | t T',
      'H H u L H | q Q',
      'H H u H H | H L',
      'H H L X X | q Q',
      'H H d X X | q Q',
    ],
  },
  '7475': { units: ['1', '2'], head: 'D C12 | Q Qn', rows: ['L H | L H', 'H H | H L', 'X L | q Q'] },
  '7475 ': { units: ['3', '4'], head: 'D C34 | Q Qn', rows: ['L H | L H', 'H H | H L', 'X L | q Q'] },
  '74175': {
    units: ['1', '2', '3', '4'],
    head: 'CLRn CLK D | Q Qn',
    rows: ['L X X | L H', 'H u H | H L', 'H u L | L H', 'H L X | q Q', 'H d X | q Q'],
  },
  '74174': {
    units: ['1', '2', '3', '4', '5', '6'],
    head: 'CLRn CLK D | Q',
    rows: ['L X X | L', 'H u H | H', 'H u L | L', 'H L X | q', 'H d X | q'],
  },
  '74273': {
    units: [...'12345678'],
    head: 'CLRn CLK D | Q',
    rows: ['L X X | L', 'H u H | H', 'H u L | L', 'H L X | q', 'H d X | q'],
  },
  '74279': {
    units: ['1', '3'],
    head: 'S1n S2n Rn | Q',
    rows: ['L X L | H', 'X L L | H', 'L X H | H', 'X L H | H', 'H H L | L', 'H H H | q'],
  },
  '74279 ': { units: ['2', '4'], head: 'Sn Rn | Q', rows: ['L L | H', 'L H | H', 'H L | L', 'H H | q'] },
  '74373': { units: [...'12345678'], head: 'OEn LE D | Q', rows: ['L H H | H', 'L H L | L', 'L L X | q', 'H X X | Z'] },
  '74573': { units: [...'12345678'], head: 'OEn LE D | Q', rows: ['L H H | H', 'L H L | L', 'L L X | q', 'H X X | Z'] },
  '74374': {
    units: [...'12345678'],
    head: 'OEn CLK D | Q',
    rows: ['L u H | H', 'L u L | L', 'L L X | q', 'L d X | q', 'H X X | Z'],
  },
  '74574': {
    units: [...'12345678'],
    head: 'OEn CLK D | Q',
    rows: ['L u H | H', 'L u L | L', 'L L X | q', 'L d X | q', 'H X X | Z'],
  },
  '74377': {
    units: [...'12345678'],
    head: 'ENn CLK D | Q',
    rows: ['H X X | q', 'L u H | H', 'L u L | L', 'X L X | q', 'H u X | q'],
  },
  '74173': {
    units: ['1', '2', '3', '4'],
    head: 'CLR CLK G1n G2n D OE1n OE2n | Q',
    rows: [
      'H X X X X L L | L',
      'L L X X X L L | q',
      'L u H X X L L | q',
      'L u X H X L L | q',
      'L u L L L L L | L',
      'L u L L H L L | H',
      'X X X X X H X | Z',
      'X X X X X X H | Z',
    ],
  },
  '555': {
    units: [''],
    head: 'RESETn TRIG THRES | OUT DISCH',
    rows: ['L X X | L L', 'H L X | H Z', 'H H H | L L', 'H H L | q z'],
  },
  '556': {
    units: two,
    head: 'RESETn TRIG THRES | OUT DISCH',
    rows: ['L X X | L L', 'H L X | H Z', 'H H H | L L', 'H H L | q z'],
  },
  '74121': {
    units: [''],
    head: 'A1 A2 B T | Q Qn',
    rows: [
      'L X H L | q Q',
      'X L H L | q Q',
      'X X L L | q Q',
      'H H X L | q Q',
      'H d H L | H L',
      'd H H L | H L',
      'd d H L | H L',
      'L X u L | H L',
      'X L u L | H L',
      'L X H H | L H',
    ],
  },
  '74122': {
    units: [''],
    head: 'CLRn A1 A2 B1 B2 T | Q Qn',
    rows: [
      'L X X X X L | L H',
      'H H H X X L | q Q',
      'H X X L X L | q Q',
      'H X X X L L | q Q',
      'H L X u H L | H L',
      'H L X H u L | H L',
      'H X L u H L | H L',
      'H X L H u L | H L',
      'H H d H H L | H L',
      'H d d H H L | H L',
      'H d H H H L | H L',
      'u L X H H L | H L',
      'u X L H H L | H L',
      'H L L H H H | L H',
    ],
  },
  '4538': {
    units: two,
    head: 'CLRn A Bn T | Q Qn',
    rows: [
      'L X X L | L H',
      'H H X L | q Q',
      'H X L L | q Q',
      'H L d L | H L',
      'H u H L | H L',
      'u L H L | L H',
      'u H L L | L H',
      'H L H H | L H',
    ],
  },
  '74123': {
    units: two,
    head: 'CLRn A B T | Q Qn',
    rows: [
      'L X X L | L H',
      'H H X L | q Q',
      'H X L L | q Q',
      'H L u L | H L',
      'H d H L | H L',
      'u L H L | H L',
      'H L H H | L H',
    ],
  },
  '74221': {
    units: two,
    head: 'CLRn A B T | Q Qn',
    rows: [
      'L X X L | L H',
      'H H X L | q Q',
      'H X L L | q Q',
      'H L u L | H L',
      'H d H L | H L',
      'u L H L | H L',
      'H L H H | L H',
    ],
  },
};

const other: Readonly<Record<string, string>> = { L: 'H', H: 'L' };

/** Every way to give the Xs a level: lists of a column's level before and after. */
function ways(cells: readonly string[]): (readonly [number, number])[][] {
  return cells.reduce<(readonly [number, number])[][]>(
    (lists, cell) => {
      const levels: (readonly [number, number])[] = {
        H: [[1, 1]],
        L: [[0, 0]],
        X: [
          [0, 0],
          [1, 1],
        ],
        u: [[0, 1]],
        d: [[1, 0]],
      }[cell] as never;
      return lists.flatMap((list) => levels.map((l) => [...list, l]));
    },
    [[]],
  );
}

function expected(symbol: string, before: string): string {
  if (symbol === 'q' || symbol === 'Q' || symbol === 'z') return before;
  return symbol === 't' || symbol === 'T' ? (other[before] as string) : symbol;
}

/** A pin of a unit: `1CLRn`, or one that the units share, as it is. */
const named = (bench: ChipBench, unit: string, name: string): string =>
  bench.inputNames.includes(unit + name) || bench.outputNames.includes(unit + name) ? unit + name : name;

describe('parts with memory do what each row of their function tables says', () => {
  it.each(Object.entries(tables))('%s', (base, { units, head, rows }) => {
    const [inputs, outputs] = head.split(' | ').map((side) => side.split(' ')) as [string[], string[]];
    for (const unit of units)
      for (const row of rows) {
        const [given, wanted] = row.split(' | ').map((side) => side.split(' ')) as [string[], string[]];
        expect([given.length, wanted.length], row).toEqual([inputs.length, outputs.length]);
        for (const way of ways(given))
          for (const stored of [0, 1]) {
            const bench = new ChipBench(base.trim());
            const all = Object.fromEntries(bench.inputNames.map((n) => [n, 0]));
            const at = (moment: 0 | 1) =>
              Object.fromEntries(inputs.map((n, i) => [named(bench, unit, n), way[i]?.[moment] as number]));
            bench.set(all).set(at(0)).store(stored);
            const before = outputs.map((o) => bench.read(named(bench, unit, o)));
            bench.set(at(1));
            outputs.forEach((o, i) => {
              const found = bench.read(named(bench, unit, o));
              expect(found, `unit ${unit}: ${row}, stored ${stored}, ${o}`).toBe(
                expected(elementAt(wanted, i), before[i] as string),
              );
            });
          }
      }
  });
});

describe('what is stored', () => {
  it('is unknown at power up, and known once it is cleared', () => {
    const bench = new ChipBench('7474').set({ '1PREn': 1, '1CLRn': 1, '1CLK': 0, '1D': 1 });
    expect(bench.word('1Q 1Qn')).toBe('XX');
    expect(bench.set({ '1CLRn': 0 }).word('1Q 1Qn')).toBe('LH');
  });

  it.each(['7474', '7476', 'SN7476', '7472', '74109', '74112', '74276'])(
    'of a %s is unknown when preset and clear let go at once, and known when one lets go after the other',
    (base) => {
      const bench = new ChipBench(base);
      const [preset, clear, output] = ['PREn', 'CLRn', 'Q'].map((name) => named(bench, '1', name)) as [
        string,
        string,
        string,
      ];
      bench.set(Object.fromEntries(bench.inputNames.map((n) => [n, 0])));
      expect(bench.read(output)).toBe('H');
      expect(bench.set({ [preset]: 1, [clear]: 1 }).read(output)).toBe('X');
      for (const [first, last, shown] of [
        [preset, clear, 'L'],
        [clear, preset, 'H'],
      ] as const) {
        bench.set({ [preset]: 0, [clear]: 0 }).set({ [first]: 1 });
        expect(bench.read(output)).toBe(shown);
        expect(bench.set({ [last]: 1 }).read(output)).toBe(shown);
      }
    },
  );

  it('stays while the outputs float, and is taken up behind them', () => {
    const bench = new ChipBench('74374').set({ OEn: 1, CLK: 0, '1D': 1 });
    expect(bench.set({ CLK: 1 }).read('1Q')).toBe('Z');
    expect(bench.set({ OEn: 0 }).read('1Q')).toBe('H');
  });
});
