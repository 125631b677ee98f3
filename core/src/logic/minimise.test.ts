import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { solve } from '../testing/interlock';
import { truthOf } from '../testing/random';
import { type Cube, exprOfCover, irredundantCover, rowMask, rowsOf, wordsFor } from './cover';
import { factored, fromOneKind, productOfSums, sizeOf, withXor } from './forms';
import { listRows, literalsOf, minimise, offRows } from './minimise';
import { primesOf } from './primes';
import { coverOf } from './set-cover';
import { sumOfXorProducts } from './xor-sum';

/** A function by its cells, rows 0 up: 0, 1 or - where it does not matter. */
function fromCells(cells: string) {
  const inputs = Math.log2(cells.length);
  const [on, free] = [new Int32Array(wordsFor(inputs)), new Int32Array(wordsFor(inputs))];
  [...cells].forEach((c, r) => {
    if (c === '1') (on[r >>> 5] as number) |= 1 << (r & 31);
    if (c === '-') (free[r >>> 5] as number) |= 1 << (r & 31);
  });
  return { inputs, on, free };
}

const arbitraryCells = (most: number): fc.Arbitrary<string> =>
  fc
    .integer({ min: 1, max: most })
    .chain((n) =>
      fc
        .array(fc.constantFrom('0', '1', '1', '0', '-'), { minLength: 2 ** n, maxLength: 2 ** n })
        .map((cells) => cells.join('')),
    );

const names = (n: number): string[] => [...'ABCDEFGHIJ'].slice(0, n);

/** Whether an expression has the value of each cell that matters. */
function matches(cells: string, value: (env: Map<string, boolean>) => boolean): boolean {
  const n = Math.log2(cells.length);
  return [...cells].every((c, r) => {
    const env = new Map(names(n).map((name, i) => [name, ((r >> (n - 1 - i)) & 1) === 1]));
    return c === '-' || value(env) === (c === '1');
  });
}

const covers = (cells: string, cubes: readonly Cube[]): boolean => {
  const { inputs, on, free } = fromCells(cells);
  const rows = rowsOf(cubes, inputs);
  const off = offRows(on, free, inputs);
  return rows.every((w, i) => (elementAt(on, i) & ~w) === 0 && (w & elementAt(off, i)) === 0);
};

describe('covers', () => {
  it('have every row that must be high and none that must be low, and nothing to spare', () => {
    fc.assert(
      fc.property(arbitraryCells(8), (cells) => {
        const { inputs, on, free } = fromCells(cells);
        const upper = on.map((w, i) => w | elementAt(free, i));
        const cubes = irredundantCover(on, upper, inputs);
        expect(covers(cells, cubes)).toBe(true);
        cubes.forEach((_, i) => {
          const rest = rowsOf(
            cubes.filter((_c, j) => j !== i),
            inputs,
          );
          expect(on.some((w, k) => (w & ~elementAt(rest, k)) !== 0)).toBe(true);
        });
      }),
    );
  });
});

/** The fewest products by trying every set of implicants, smallest sets first; for up to 3 inputs. */
function fewestByTrying(cells: string): number {
  const { inputs, on, free } = fromCells(cells);
  const all: Cube[] = [];
  for (let care = 0; care < 2 ** inputs; care++)
    for (let value = 0; value < 2 ** inputs; value++)
      if (
        (value & ~care) === 0 &&
        covers([...cells].map((c, r) => ((r & care) === value ? (c === '0' ? '0' : '1') : '-')).join(''), [
          { care, value },
        ])
      )
        all.push({ care, value });
  const upper = on.map((w, i) => w | elementAt(free, i));
  const usable = all.filter((c) =>
    rowsOf([c], inputs).every((w, i) => (w & ~elementAt(upper, i) & rowMask(inputs)) === 0),
  );
  const tryAll = (left: number, from: number, rows: Int32Array): boolean => {
    if (on.every((w, i) => (w & ~elementAt(rows, i)) === 0)) return true;
    if (left === 0) return false;
    for (let i = from; i < usable.length; i++) {
      const more = rowsOf([elementAt(usable, i)], inputs);
      if (
        tryAll(
          left - 1,
          i + 1,
          rows.map((w, k) => w | elementAt(more, k)),
        )
      )
        return true;
    }
    return false;
  };
  let n = 0;
  while (!tryAll(n, 0, new Int32Array(on.length))) n++;
  return n;
}

describe('the smallest sum of products', () => {
  it('is as small as trying every sum finds it, and says it is proved', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryCells(3), async (cells) => {
        const { inputs, on, free } = fromCells(cells);
        const { products, proved } = await minimise({ inputs, on: [on], free: [free] });
        expect(proved).toBe(true);
        expect(covers(cells, products)).toBe(true);
        expect(products.length).toBe(fewestByTrying(cells));
      }),
      { numRuns: 60 },
    );
  });

  it('is right, and no larger than the irredundant cover, at up to eight inputs', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryCells(8), async (cells) => {
        const { inputs, on, free } = fromCells(cells);
        const { products } = await minimise({ inputs, on: [on], free: [free] });
        const upper = on.map((w, i) => w | elementAt(free, i));
        expect(covers(cells, products)).toBe(true);
        expect(products.length).toBeLessThanOrEqual(irredundantCover(on, upper, inputs).length);
      }),
      { numRuns: 40 },
    );
  });

  it('of several functions shares products: a decimal digit on seven segments takes nine', async () => {
    const digits = ['abcdef', 'bc', 'abdeg', 'abcdg', 'bcfg', 'acdfg', 'acdefg', 'abc', 'abcdefg', 'abcdfg'];
    const functions = [...'abcdefg'].map((s) =>
      fromCells(`${digits.map((d) => (d.includes(s) ? '1' : '0')).join('')}------`),
    );
    const { products, proved } = await minimise(
      { inputs: 4, on: functions.map((f) => f.on), free: functions.map((f) => f.free) },
      solve,
    );
    expect(proved).toBe(true);
    expect(products.length).toBe(9);
    functions.forEach((f, o) => {
      const own = products.filter((p) => (p.serves >> o) & 1);
      const rows = rowsOf(own, 4);
      expect(listRows(rows).filter((r) => listRows(offRows(f.on, f.free, 4)).includes(r))).toEqual([]);
      expect(listRows(f.on).filter((r) => !listRows(rows).includes(r))).toEqual([]);
    });
  });

  it('of ten inputs is proved by the solver where the own search gives up', async () => {
    let seed = 12345;
    const cells = Array.from({ length: 1024 }, () => {
      seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
      return (seed >> 16) % 5 === 0 ? '1' : '0';
    }).join('');
    const { inputs, on, free } = fromCells(cells);
    const { products, proved } = await minimise({ inputs, on: [on], free: [free] }, solve);
    expect(covers(cells, products)).toBe(true);
    expect(proved).toBe(true);
  });

  it('of more inputs is right and prime, and claims nothing', async () => {
    const n = 13;
    const on = new Int32Array(wordsFor(n));
    for (let r = 0; r < 2 ** n; r++)
      if ((r * 2654435761) >>> 29 === 0 || (r & 0xff0) === 0xff0) (on[r >>> 5] as number) |= 1 << (r & 31);
    const free = new Int32Array(on.length);
    const { products, proved } = await minimise({ inputs: n, on: [on], free: [free] });
    expect(proved).toBe(false);
    expect(rowsOf(products, n)).toEqual(on);
    for (const { care, value } of products)
      for (let k = 0; k < n; k++) {
        const bit = 1 << k;
        if ((care & bit) === 0) continue;
        const wider = rowsOf([{ care: care & ~bit, value: value & ~bit }], n);
        expect(wider.some((w, i) => (w & ~elementAt(on, i)) !== 0)).toBe(true);
      }
  });
});

describe('prime products', () => {
  it('are those the textbook names', () => {
    const { inputs, on, free } = fromCells('0110111-');
    const found = primesOf({ inputs, on: [on], free: [free] }).map(
      (p) => `${p.care.toString(2)}:${p.value.toString(2)}`,
    );
    expect(found.sort()).toEqual(['100:100', '11:1', '11:10'].sort());
  });
});

describe('coverings', () => {
  it('are as light as trying every choice finds them', async () => {
    const problem = fc.record({
      rows: fc.integer({ min: 1, max: 7 }),
      seeds: fc.array(fc.tuple(fc.integer({ min: 1, max: 127 }), fc.integer({ min: 1, max: 5 })), {
        minLength: 1,
        maxLength: 9,
      }),
    });
    await fc.assert(
      fc.asyncProperty(problem, async ({ rows, seeds }) => {
        const mask = 2 ** rows - 1;
        const sets = [...seeds.map(([set]) => set & mask), mask];
        const weights = [...seeds.map(([, w]) => w), 9];
        const columns = sets.map((set) => Array.from({ length: rows }, (_, r) => r).filter((r) => (set >> r) & 1));
        const { taken, proved } = await coverOf({ rows, columns, weights }, null);
        expect(proved).toBe(true);
        expect(taken.reduce((set, c) => set | elementAt(sets, c), 0)).toBe(mask);
        let least = Number.POSITIVE_INFINITY;
        for (let choice = 0; choice < 2 ** sets.length; choice++) {
          const [set, weight] = sets.reduce<[number, number]>(
            ([s, w], x, c) => ((choice >> c) & 1 ? [s | x, w + elementAt(weights, c)] : [s, w]),
            [0, 0],
          );
          if (set === mask && weight < least) least = weight;
        }
        expect(taken.reduce((w, c) => w + elementAt(weights, c), 0)).toBe(least);
      }),
    );
  });
});

describe('forms', () => {
  it('all have the value of every cell that matters', async () => {
    await fc.assert(
      fc.asyncProperty(arbitraryCells(6), async (cells) => {
        const { inputs, on, free } = fromCells(cells);
        const { products } = await minimise({ inputs, on: [on], free: [free] });
        const zeros = await minimise({ inputs, on: [offRows(on, free, inputs)], free: [free] });
        const own = names(inputs);
        const sum = exprOfCover(products, own);
        const product = productOfSums(zeros.products, own);
        const short = factored(products, own);
        const xor = await withXor(on, free, own);
        for (const e of [sum, product, short, ...(xor ? [xor] : [])]) {
          expect(matches(cells, (env) => truthOf(e, env))).toBe(true);
          for (const kind of ['nand', 'nor'] as const) {
            const one = fromOneKind(e, kind);
            expect(matches(cells, (env) => truthOf(one, env))).toBe(true);
            expect(JSON.stringify(one).match(/"gate":"(?!nand|nor)/)).toBeNull();
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it('find the exclusive ors of an adder', async () => {
    const { on, free } = fromCells('01101001');
    expect(await withXor(on, free, ['A', 'B', 'C'])).toMatchObject({
      gate: 'xor',
      of: [{ name: 'A' }, { name: 'B' }, { name: 'C' }],
    });
    expect(literalsOf({ care: 0b1011, value: 0 })).toBe(3);
  });

  it.each([
    ['01111110', 4],
    ['0110000000000000', 4],
    ['1001000000001001', 5],
    ['0110011010011001', 3],
  ])('find exclusive ors inside %s: %i inputs to gates at most', async (cells, most) => {
    const { inputs, on, free } = fromCells(cells);
    const form = (await withXor(on, free, names(inputs))) ?? expect.fail('none found');
    expect(matches(cells, (env) => truthOf(form, env))).toBe(true);
    expect(sizeOf(form)).toBeLessThanOrEqual(most);
  });

  it('as sums of products with exclusive ors are no more products than without, for every function of 3 inputs', async () => {
    for (let f = 0; f < 256; f++) {
      const { inputs, on, free } = fromCells(Array.from({ length: 8 }, (_, r) => (f >>> r) & 1).join(''));
      const mixed = (await sumOfXorProducts(on, free, inputs)) ?? expect.fail();
      const { products } = await minimise({ inputs, on: [on], free: [free] });
      expect(mixed.length).toBeLessThanOrEqual(products.length);
      const high = (r: number) =>
        mixed.some(
          ({ care, value, pairs }) =>
            (r & care) === value && pairs.every(({ a, b, same }) => (((r >>> a) ^ (r >>> b)) & 1) === (same ? 0 : 1)),
        );
      for (let r = 0; r < 8; r++) expect(high(r)).toBe(((f >>> r) & 1) === 1);
    }
  });
});
