import { describe, expect, it } from 'vitest';
import { readSheet } from '../design';
import type { SolveInteger } from '../logic';
import { solve } from '../testing/interlock';
import { pack } from './pack';
import { countPacking, fingerprint, partsOfPacking } from './packing';
import { recipesFor, tasksOf } from './recipe';

const netlistOf = (text: string) => readSheet(text).design.netlist ?? expect.fail('no gates');
async function packed(text: string) {
  const { packing } = await pack(netlistOf(text), 'HC', solve);
  return packing ?? expect.fail('no packing');
}
const parts = async (text: string) => partsOfPacking(await packed(text)).map((p) => `${p.count}×${p.part}`);

describe('the fewest packages, gate for gate', () => {
  it('a spare NOR is the inverter of the interlock: two chips, not three', async () => {
    const packing = await packed('in K E U L\nout G P W\nG = K & E\nP = K & ~E & U & L\nW = ~(U | L)');
    expect(packing.packages).toHaveLength(2);
    expect(packing.proved).toBe(true);
  });

  it.each([
    [
      'four NANDs fill one package',
      'in A B\nout W X Y Z\nW=nand(A,B)\nX=nand(A,A)\nY=nand(B,B)\nZ=nand(A,X)',
      ['1×74HC00'],
    ],
    [
      'a fifth gate opens a second one',
      'in A B C\nout V W X Y Z\nV=nand(A,B)\nW=nand(A,C)\nX=nand(B,C)\nY=nand(A,A)\nZ=nand(B,B)',
      2,
    ],
    ['a spare XOR inverts', 'in A B\nout X Y\nX = A ^ B\nY = ~B', ['1×74HC86']],
    ['a spare NAND completes an AND', 'in A B C\nout X Y\nX = nand(A, B)\nY = A & C', ['1×74HC00']],
    ['an XNOR is an XOR and an inverter, in one package', 'in A B\nout Y\nY = xnor(A, B)', ['1×74HC86']],
    ['eight inputs fit the 8-input NAND', 'in A B C D E F G H\nout Y\nY = nand(A,B,C,D,E,F,G,H)', ['1×74HC30']],
    ['a narrow gate may use a wide unit', 'in A B C D\nout X Y\nX = and(A,B,C,D)\nY = A & B', ['1×74HC21']],
  ])('%s', async (_, text, wanted) => {
    if (typeof wanted === 'number') expect((await packed(text)).packages).toHaveLength(wanted);
    else expect(await parts(text)).toEqual(wanted);
  });

  it('no gate needs no package and no solver', async () => {
    const never: SolveInteger = () => Promise.reject(new Error('not asked'));
    const { packing } = await pack(netlistOf('in A\nout Y\nY = A'), 'HC', never);
    expect(packing && countPacking(packing)).toEqual({ packages: 0, unitsUsed: 0, unitsSpare: 0 });
  });

  it('a solver without an answer gives a finding', async () => {
    const empty: SolveInteger = async () => ({ status: 'none', detail: 'Infeasible', values: {}, effort: 0 });
    const { packing, findings } = await pack(netlistOf('in A\nout Y\nY = ~A'), 'HC', empty);
    expect(packing).toBeNull();
    expect(findings.map((f) => f.code)).toEqual(['pack/no-solution']);
  });

  it('a solver that was broken off is not called a proof', async () => {
    const hurried: SolveInteger = async (lp, limits) => ({ ...(await solve(lp, limits)), status: 'feasible' });
    const { packing } = await pack(netlistOf('in A\nout Y\nY = ~A'), 'HC', hurried);
    expect(packing?.proved).toBe(false);
  });
});

describe('recipes', () => {
  it.each(['and', 'or', 'xor', 'nand', 'nor', 'xnor'] as const)(
    'for wide %s gates take exactly their inputs',
    (kind) => {
      for (const width of [2, 3, 5, 8, 13, 40]) {
        const recipes = recipesFor(kind, width);
        expect(recipes.length).toBeGreaterThan(0);
        for (const recipe of recipes) {
          const taken = recipe.steps.reduce((sum, step) => sum + step.width - 1, 0);
          expect(taken, JSON.stringify(tasksOf(recipe))).toBe(width - 1);
        }
      }
    },
  );
});

describe('fingerprints', () => {
  const base = 'in A B\nout Y\nY = A & B';
  it('are equal for the same gates, whatever the layout and comments of the sheet', () => {
    expect(fingerprint(netlistOf('# again\nin A  B\n\nout Y "yes"\nY=A·B'))).toBe(fingerprint(netlistOf(base)));
  });
  it.each([
    'in A B\nout Y\nY = A | B',
    'in B A\nout Y\nY = A & B',
    'in A B\nout Z\nZ = A & B',
    'in A B\nout Y\nY = A & ~B',
  ])('differ for %j', (text) => {
    expect(fingerprint(netlistOf(text))).not.toBe(fingerprint(netlistOf(base)));
  });
});
