import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, emptyBoard, extractNets, type SeatedPart } from '../board';
import { printSheet } from '../design';
import { inspect } from '../inspection';
import { newJob } from '../job';
import { whatIsWrong } from '../packing';
import { interlockSheet, laidOut, solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { packJob } from '../workflow';
import { broughtUpTo, laidAround } from './update';

async function packed(sheet: string) {
  const { reading, packing } = await packJob(newJob('update', sheet), solve);
  return { packing: packing ?? expect.fail('no packing'), netlist: reading.design.netlist ?? expect.fail() };
}

describe('a board brought up to a design that has changed', () => {
  it('has nothing to mend, and keeps what still serves where it is', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, arbitrarySheet, async (first, second) => {
        const { job } = await laidOut(printSheet(first));
        const { packing, netlist } = await packed(printSheet(second));
        if (packing.packages.length > 8 || (job.packing?.packages.length ?? 0) > 8) return;
        const { board, taken, added, stopped } = broughtUpTo(job.board, packing, netlist);
        expect(stopped).toBeNull();
        const found = inspect(board, extractNets(board), packing, 'HC');
        expect(found.filter((f) => f.severity === 'error').map((f) => `${f.code} ${JSON.stringify(f.facts)}`)).toEqual(
          [],
        );
        for (const [ref, part] of Object.entries(job.board.parts))
          if (!taken.includes(ref)) expect(board.parts[ref]).toEqual(part);
        for (const [id, jumper] of Object.entries(job.board.jumpers))
          if (!taken.includes(id)) expect(board.jumpers[id]).toEqual(jumper);
        expect(new Set([...taken, ...added]).size).toBeLessThanOrEqual(taken.length + added.length);
      }),
      { numRuns: 8 },
    );
  });

  it('is left as it is when nothing has changed', async () => {
    const { job, packing, netlist } = await laidOut(interlockSheet);
    const update = broughtUpTo(job.board, packing, netlist);
    expect(update).toMatchObject({ taken: [], added: [], stopped: null });
    expect(update.board).toEqual(job.board);
  });

  it.each([
    ['another output', (s: string) => `out Z "both gates"\n${s}\nZ = U & L & K`],
    ['an output less', (s: string) => s.replace('out W "warning bell"', '').replace('W = ~(U | L)', '')],
    ['another function', (s: string) => s.replace('P = K & ~E & U & L', 'P = K & ~E | U & L')],
    [
      'more than its breadboard holds',
      (s: string) =>
        `${s}\n${['A', 'B', 'C', 'D', 'F', 'H'].map((n) => `out ${n}\n${n} = U ^ ~(L | P) ^ (K & W)`).join('\n')}`,
    ],
    ['another input', (s: string) => `in N "night"\n${s.replace('G = K & E', 'G = K & E & N')}`],
  ])('is finished, and right, after %s', async (_, change) => {
    const { job } = await laidOut(interlockSheet);
    const { packing, netlist } = await packed(change(interlockSheet));
    const { board, packing: wired, stopped } = broughtUpTo(job.board, packing, netlist);
    expect(stopped).toBeNull();
    for (const locks of [packing, wired])
      expect(inspect(board, extractNets(board), locks, 'HC').filter((f) => f.severity === 'error')).toEqual([]);
    expect(whatIsWrong(netlist, wired)).toBeNull();
  });

  it('changes only what one changed gate touches', async () => {
    const { job } = await laidOut(interlockSheet);
    const { packing, netlist } = await packed(interlockSheet.replace('W = ~(U | L)', 'W = ~(U | K)'));
    const told: number[] = [];
    const { taken, added } = broughtUpTo(job.board, packing, netlist, {
      kind: 'full',
      tell: (share) => told.push(share),
    });
    expect(taken).toHaveLength(1);
    expect(added.filter((id) => !id.startsWith('w'))).toEqual([]);
    expect(told.at(-1)).toBe(1);
  });
});

describe('a board laid out around what is fixed', () => {
  /** The board with some parts fixed where they are, by number. */
  const withFixed = (board: Board, draw: readonly number[]): Board => {
    const refs = Object.keys(board.parts);
    const chosen = new Set(draw.map((n) => refs[n % refs.length]));
    return {
      ...board,
      parts: Object.fromEntries(
        Object.entries(board.parts).map(([ref, part]) => [
          ref,
          chosen.has(ref) ? { ...part, fixed: true as const } : part,
        ]),
      ),
    };
  };

  it('has nothing to mend, and every fixed part is where it was, whatever the design is now', async () => {
    let kept = 0;
    await fc.assert(
      fc.asyncProperty(
        arbitrarySheet,
        arbitrarySheet,
        fc.array(fc.nat(999), { minLength: 3, maxLength: 9 }),
        async (first, second, draw) => {
          const { job } = await laidOut(printSheet(first));
          const { packing, netlist } = await packed(printSheet(second));
          if (packing.packages.length > 8 || (job.packing?.packages.length ?? 0) > 8) return;
          const before = withFixed(job.board, draw);
          const { board, packing: wired, stopped } = laidAround(before, packing, netlist);
          expect(stopped).toBeNull();
          expect(whatIsWrong(netlist, wired)).toBeNull();
          const wrong = inspect(board, extractNets(board), wired, 'HC').filter((f) => f.severity === 'error');
          expect(wrong.map((f) => `${f.code} ${JSON.stringify(f.facts)}`)).toEqual([]);
          for (const part of Object.values(before.parts)) {
            if (!part.fixed) continue;
            expect(board.parts[part.ref]).toEqual(part);
            kept++;
          }
        },
      ),
      { numRuns: 12 },
    );
    expect(kept).toBeGreaterThan(5);
  }, 120_000);

  it('takes a fixed chip for the package of its number, whatever that is called', async () => {
    const { packing, netlist } = await packed(interlockSheet);
    const part = packing.packages[1]?.part ?? expect.fail();
    const U1: SeatedPart = { ref: 'U1', part, at: 'b1.e40', rotation: 0, fixed: true };
    const { board, packing: wired, stopped } = laidAround({ ...emptyBoard, parts: { U1 } }, packing, netlist);
    expect(stopped).toBeNull();
    expect(board.parts.U1).toEqual(U1);
    expect(wired.packages.find((p) => p.ref === 'U1')?.part).toBe(part);
    expect(new Set(wired.packages.map((p) => p.ref)).size).toBe(packing.packages.length);
  });
});
