import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { assign } from './assign';
import type { Duty } from './candidate';
import { exhaust } from './exhaust';
import { FunctionSearch } from './function-search';
import { FunctionNet } from './functions';
import { NarrowVectors } from './narrow-vectors';
import { UnitVectors } from './unit-vectors';

const ALL = 255;
const sources = [0b11110000, 0b11001100, 0b10101010];
const plainKinds = ['not', 'and', 'or', 'nand', 'nor', 'xor', 'xnor'] as const;
const dutyOf = (kind: (typeof plainKinds)[number]): Duty => ({ kind, width: kind === 'not' ? 1 : 2 }) as Duty;

/** What a unit makes of the words on its pins, by definition. */
function valueOn({ kind, width }: Duty, pins: readonly number[]): number {
  const product = (of: readonly number[]): number => of.reduce((a, b) => a & b, ALL);
  const sum = (of: readonly number[]): number => of.reduce((a, b) => a | b, 0);
  const odd = pins.reduce((a, b) => a ^ b, 0);
  const values = {
    not: ALL & ~elementAt(pins, 0),
    and: product(pins),
    nand: ALL & ~product(pins),
    or: sum(pins),
    nor: ALL & ~sum(pins),
    xor: odd,
    xnor: ALL & ~odd,
    aoi: ALL & ~(product(pins.slice(0, width)) | product(pins.slice(width))),
  };
  return values[kind];
}

/** Every word that a unit makes of some signals, its pins on any of them or tied. */
function made(duty: Duty, signals: readonly number[]): Set<number> {
  const pins = duty.kind === 'aoi' ? 2 * duty.width : duty.width;
  const found = new Set<number>();
  const fill = (taken: readonly number[]): void => {
    if (taken.length === pins) found.add(valueOn(duty, taken));
    else for (const s of [0, ALL, ...signals]) fill([...taken, s]);
  };
  fill([]);
  return found;
}

const isNew = (g: number, signals: readonly number[]): boolean => g !== 0 && g !== ALL && !signals.includes(g);

const arbitrarySignals = fc
  .uniqueArray(fc.integer({ min: 1, max: 254 }), { minLength: 1, maxLength: 4 })
  .map((more) => [...new Set([...sources.slice(1), ...more])]);
const arbitraryDuty = fc.constantFrom<Duty>(
  ...plainKinds.map(dutyOf),
  { kind: 'nand', width: 3 },
  { kind: 'nor', width: 3 },
  { kind: 'and', width: 3 },
  { kind: 'aoi', width: 2 },
);

const marksOf = (signals: readonly number[]): Uint8Array => {
  const marks = new Uint8Array(ALL + 1);
  for (const s of signals) marks[s] = 1;
  return marks;
};

describe('what a unit makes of words', () => {
  it('is what its pins give in any way they can be joined or tied', () => {
    fc.assert(
      fc.property(arbitraryDuty, arbitrarySignals, fc.integer({ min: 1, max: 254 }), (duty, signals, g) => {
        const words = new UnitVectors(ALL);
        const list = Int32Array.from(signals);
        const offered = new Set<number>();
        words.each(duty, list, list.length, (w) => offered.add(w));
        const all = made(duty, signals);
        for (let t = 1; t < ALL; t++) {
          if (!isNew(t, signals)) continue;
          expect(offered.has(t)).toBe(all.has(t));
          expect(words.makes(duty, t, list, list.length, marksOf(signals))).toBe(all.has(t));
        }
        if (!isNew(g, signals)) return;
        const withG = made(duty, [...signals, g]);
        for (let t = 1; t < ALL; t++)
          if (isNew(t, [...signals, g]) && !all.has(t))
            expect(words.makesWith(duty, t, g, list, list.length, marksOf(signals))).toBe(withG.has(t));
      }),
      { numRuns: 60 },
    );
  });

  it('of two inputs, all kinds at once, is what the kinds make one by one; the words that help are just those', () => {
    const some = fc.uniqueArray(fc.constantFrom(...plainKinds), { minLength: 1, maxLength: 3 });
    fc.assert(
      fc.property(some, arbitrarySignals, fc.integer({ min: 1, max: 254 }), (kinds, signals, t) => {
        if (!isNew(t, signals)) return;
        const duties = kinds.map(dutyOf);
        const [plain, words] = [new NarrowVectors(ALL, duties), new UnitVectors(ALL)];
        const [list, n, marks] = [Int32Array.from(signals), signals.length, marksOf(signals)];
        expect(plain.makes(t, list, n, marks)).toBe(duties.some((d) => words.makes(d, t, list, n, marks)));
        const into = new Int32Array(4096);
        const helping = new Set(into.subarray(0, plain.enabling(t, list, n, into)));
        for (let g = 1; g < ALL; g++) {
          if (!isNew(g, [...signals, t])) continue;
          const helps = duties.some((d) => words.makesWith(d, t, g, list, n, marks));
          expect(plain.makesWith(t, g, list, n, marks)).toBe(helps);
          expect(helping.has(g)).toBe(helps);
        }
      }),
      { numRuns: 150 },
    );
  });
});

/** Whether some units make what is wanted, by trying every unit on every word that it can make, with no cleverness. */
function canMake(wanted: readonly number[], pool: readonly { duty: Duty; count: number }[]): boolean {
  const left = pool.map((p) => p.count);
  const tried = new Set<string>();
  const visit = (signals: readonly number[]): boolean => {
    const key = `${[...signals].sort((a, b) => a - b)} ${left}`;
    if (tried.has(key)) return false;
    tried.add(key);
    const missing = wanted.filter((w) => !signals.includes(w)).length;
    if (missing === 0) return true;
    if (left.reduce((a, b) => a + b, 0) < missing) return false;
    return pool.some(({ duty }, k) => {
      if (left[k] === 0) return false;
      (left[k] as number)--;
      const found = [...made(duty, signals)].some((g) => isNew(g, signals) && visit([...signals, g]));
      (left[k] as number)++;
      return found;
    });
  };
  return visit(sources);
}

describe('trying everything', () => {
  const arbitraryPool = fc
    .array(fc.tuple(arbitraryDuty, fc.integer({ min: 1, max: 2 })), { minLength: 1, maxLength: 2 })
    .map((some) => some.map(([duty, count]) => ({ duty, count })));

  it('finds what units can make and nothing else, as plain trying does', () => {
    let found = 0;
    fc.assert(
      fc.property(
        arbitraryPool,
        fc.uniqueArray(fc.integer({ min: 1, max: 254 }), { minLength: 1, maxLength: 2 }),
        fc.array(arbitraryDuty, { minLength: 1, maxLength: 2 }),
        fc.boolean(),
        (pool, random, chain, isRandom) => {
          // Words that some units do make are met too seldom by chance.
          const chained = [...sources];
          for (const duty of chain) chained.push([...made(duty, chained)].filter((g) => isNew(g, chained)).at(-1) ?? 1);
          const wanted = isRandom ? random : chained.slice(-1);
          if (wanted.some((w) => !isNew(w, sources)) || pool.reduce((n, p) => n + p.count, 0) > 3) return;
          const search = new FunctionSearch({ all: ALL, sources, wanted, pool, steps: { left: 1e9 } });
          const steps = Array.from({ length: Math.max(0, search.room + 1) }, (_, spare) => search.find(spare));
          const strategy = steps.find((s) => s !== null);
          expect(strategy !== undefined).toBe(canMake(wanted, pool));
          if (!strategy) return;
          found++;
          const signals = [...sources];
          const used = pool.map(() => 0);
          for (const { word, by } of strategy) {
            expect(made((pool[by] as { duty: Duty }).duty, signals).has(word)).toBe(true);
            (used[by] as number)++;
            signals.push(word);
          }
          expect(wanted.every((w) => signals.includes(w))).toBe(true);
          expect(used.every((n, k) => n <= (pool[k]?.count ?? 0))).toBe(true);
        },
      ),
      { numRuns: 120 },
    );
    expect(found).toBeGreaterThan(15);
  });

  it('finds whatever several functions wanted at once can be made of, with two functions beside them to choose', () => {
    const kinds = fc.uniqueArray(fc.constantFrom<Duty['kind']>('nand', 'nor', 'xor', 'and', 'or'), {
      minLength: 1,
      maxLength: 2,
    });
    const counts = { able: 0, unable: 0 };
    fc.assert(
      fc.property(kinds, fc.array(fc.nat(9999), { minLength: 4, maxLength: 4 }), fc.nat(254), (some, draws, other) => {
        const duties = some.map((kind) => ({ kind, width: 2 }) as Duty);
        const pool = duties.map((duty, k) => ({ duty, count: k === 0 ? 5 - duties.length : 1 }));
        // A chain of units gives functions that can be made; the last two are wanted, the very last perhaps another one.
        const chained = [...sources];
        for (const n of draws) {
          const all = [...made(elementAt(duties, n % duties.length), chained)].filter((g) => isNew(g, chained));
          chained.push(all[n % Math.max(1, all.length)] ?? 1);
        }
        const [a = 0, b = 0] = chained.slice(-2);
        const wanted = [...new Set([a, other % 3 === 0 ? other : b])];
        if (wanted.some((w) => !isNew(w, sources))) return;
        const search = new FunctionSearch({ all: ALL, sources, wanted, pool, steps: { left: 1e9 } });
        const isFound = Array.from({ length: search.room + 1 }, (_, spare) => search.find(spare)).some(
          (strategy) => strategy,
        );
        const able = canMake(wanted, pool);
        expect(isFound).toBe(able);
        counts[able ? 'able' : 'unable']++;
      }),
      { numRuns: 60 },
    );
    expect(Math.min(counts.able, counts.unable)).toBeGreaterThan(5);
  });

  it('makes do with the units there are when functions are held to them', () => {
    const words = new UnitVectors(ALL);
    const [a, b] = sources as [number, number, number];
    const nand = ALL & ~(a & b);
    const pool = [{ duty: { kind: 'nand', width: 2 } as Duty, count: 1 }];
    const functions = Int32Array.of(...sources, nand, a & b);
    expect(assign(words, { sources, wanted: [nand], functions, pool }, { left: 1e6 })?.map((m) => m.word)).toEqual([
      nand,
    ]);
    expect(assign(words, { sources, wanted: [a & b], functions, pool }, { left: 1e6 })).toBeNull();
  });

  it('claims nothing when its steps are spent', () => {
    const functions = new FunctionNet(['A', 'B', 'C', 'D']);
    const roots = [0x1ee1, 0x2d5a].map((w) => functions.add(Int32Array.of(w), 1));
    const answer = exhaust(
      functions,
      roots,
      { chips: ['7400', '7402', '7486'], stock: new Map(), packages: 2 },
      { steps: 1000 },
    );
    expect(answer).toEqual({ found: null, none: false });
  });

  it('never needs more packages when there are more of each to choose from', () => {
    const chips = ['7400', '7402', '7410', '7486'];
    const isFound = (word: number, stock: ReadonlyMap<string, number>): boolean => {
      const functions = new FunctionNet(['A', 'B', 'C']);
      const root = functions.add(Int32Array.of(word), 1);
      return exhaust(functions, [root], { chips, stock, packages: 1 }, { steps: 1e8 }).found !== null;
    };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 254 }), fc.subarray(chips, { minLength: 1 }), (word, some) => {
        const few = new Map(chips.map((n) => [n, some.includes(n) ? 1 : 0]));
        if (isFound(word, few)) expect(isFound(word, new Map())).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
