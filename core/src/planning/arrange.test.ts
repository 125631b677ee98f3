import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Board, breadboardXY, crossingsOf, extractNets, type Point, routeJumpers, routerFor } from '../board';
import { type Netlist, printSheet } from '../design';
import { inspect } from '../inspection';
import { newJob } from '../job';
import { readJobFile } from '../job-reader';
import { drivenBy, lockGate, noLocks, type Packing, whatIsWrong } from '../packing';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { packJob } from '../workflow';
import { arranged } from './arrange';
import { inBetterHoles } from './better-holes';
import { wireLength } from './length';
import { plan } from './plan';

/** How far upright stretches lie so near to each other that they look like one. */
function touching(stretches: readonly { readonly p: Point; readonly q: Point }[]): number {
  const upright = stretches.filter(({ p, q }) => p.x === q.x);
  const side = ([a, b]: readonly { p: Point; q: Point }[]): number =>
    a && b
      ? Math.min(Math.max(a.p.y, a.q.y), Math.max(b.p.y, b.q.y)) -
        Math.max(Math.min(a.p.y, a.q.y), Math.min(b.p.y, b.q.y))
      : 0;
  return upright.reduce(
    (sum, a, i) =>
      sum +
      upright
        .slice(0, i)
        .filter((b) => Math.abs(a.p.x - b.p.x) < 0.4)
        .reduce((all, b) => all + Math.max(0, side([a, b])), 0),
    0,
  );
}

const samples = `${import.meta.dirname}/../../../samples`;
const sheets = readdirSync(samples).filter((f) => f.endsWith('.sheet'));

async function packed(sheet: string): Promise<{ packing: Packing; netlist: Netlist } | null> {
  const { reading, packing } = await packJob(newJob('arranged', sheet), solve);
  const { netlist } = reading.design;
  return packing && netlist ? { packing, netlist } : null;
}

/** What each package holds, whatever the order: part by name, and how many units are in use. */
const stock = ({ packages }: Packing): string[] => packages.map((p) => `${p.ref} ${p.part} ${p.units.length}`).sort();
const gates = ({ packages }: Packing): string[] =>
  packages.flatMap((p) => p.units.flatMap((u) => (u ? [`${drivenBy(u)} = ${[...u.inputs].sort()}`] : []))).sort();

describe('a packing that is arranged', () => {
  it('has the same packages and gates, computes the same, and comes out alike every time', async () => {
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const made = await packed(printSheet(sheet));
        if (!made || made.packing.packages.length > 8) return;
        const { packing, netlist } = made;
        const better = arranged(packing);
        expect(stock(better)).toEqual(stock(packing));
        expect(gates(better)).toEqual(gates(packing));
        expect(whatIsWrong(netlist, better)).toBeNull();
        expect(arranged(packing)).toEqual(better);
      }),
      { numRuns: 12 },
    );
  });

  it('leaves what is held on its unit, with its inputs as they are', async () => {
    const made = await packed(readFileSync(`${samples}/gate-votes.sheet`, 'utf8'));
    if (!made) return expect.fail('no packing');
    const { packing } = made;
    const place = (p: Packing, net: string): string =>
      p.packages
        .flatMap(({ ref, units }) => units.map((u, i) => (u?.output === net ? `${ref}.${i} ${u.inputs}` : '')))
        .join('');
    const nets = packing.packages.flatMap((p) => p.units.flatMap((u) => (u && u.part === 'whole' ? [u.output] : [])));
    const pins = nets.slice(0, 6).flatMap((net) => {
      const pinned = lockGate(packing, noLocks, made.netlist, { net, on: true });
      return pinned.ok ? pinned.locks.pins : [];
    });
    expect(pins.length).toBeGreaterThan(2);
    const better = arranged(packing, { pins, added: [] });
    for (const { net } of pins) expect(place(better, net)).toBe(place(packing, net));
    expect(better).not.toEqual(packing);
  });

  it('tells how far it is', async () => {
    const made = await packed(readFileSync(`${samples}/flood-watch.sheet`, 'utf8'));
    const told: number[] = [];
    if (made) arranged(made.packing, noLocks, (share) => told.push(share));
    expect(told.length).toBeGreaterThan(3);
    expect(told).toEqual([...told].sort((a, b) => a - b));
  });
});

describe('the wires of a plan', () => {
  it.each(sheets)(
    'of %s are at most a quarter longer than any wiring of the same seats must be, and cross few others',
    async (file) => {
      const sheet = readFileSync(`${samples}/${file}`, 'utf8');
      const made = await packed(sheet);
      const { board, packing } = plan(made?.packing ?? expect.fail('no packing'));
      if (!board) return expect.fail('no board');
      const { laid, bound } = wireLength(board);
      const jumpers = Object.keys(board.jumpers).length;
      // Of a handful of wires one that must go round counts for much; units of parts used by number stay where the sheet has them.
      const isGiven = (sheet.match(/^use /gm) ?? []).length > 1;
      expect(laid / bound).toBeLessThanOrEqual(jumpers < 20 || isGiven ? 1.35 : 1.25);
      expect(laid).toBeGreaterThanOrEqual(bound);
      const paths = routeJumpers(board);
      expect(crossingsOf(paths) / jumpers).toBeLessThan(jumpers >= 60 ? 2.4 : isGiven ? 0.6 : 0.5);
      const stretches = [...paths.values()].flatMap((path) =>
        path.slice(1).map((q, i) => ({ p: path[i] ?? q, q, isEnd: i === 0 || i === path.length - 2 })),
      );
      // Wires stand apart: hardly anywhere do two touch. None that only passes lies over the holes of a rail.
      expect(touching(stretches)).toBeLessThanOrEqual(0.03 * laid);
      const rails = board.breadboards.flatMap(({ id }) => [0, 1, 16, 17].map((y) => breadboardXY(id).y + y));
      expect(stretches.filter(({ p, q, isEnd }) => !isEnd && p.y === q.y && rails.includes(p.y))).toEqual([]);
      expect(inspect(board, extractNets(board), packing, 'HC').filter((f) => f.severity !== 'note')).toEqual([]);
    },
  );

  it('stand in other holes of the same strips where they cross and touch less, each in one of its own', () => {
    const everything = ({ nets }: ReturnType<typeof extractNets>) => nets.map((n) => [n.pins, n.strips, n.jumpers]);
    for (const file of sheets) {
      const read = readJobFile(readFileSync(`${samples}/${file.replace('.sheet', '.saddlebag.json')}`, 'utf8'));
      const board: Board = read.ok ? read.job.board : expect.fail(file);
      const told: number[] = [];
      const better = inBetterHoles(board, (share) => told.push(share));
      expect(everything(extractNets(better))).toEqual(everything(extractNets(board)));
      const ends = Object.values(better.jumpers).flatMap(({ from, to }) => [from, to]);
      expect(new Set(ends).size).toBe(ends.length);
      expect(told.at(-1)).toBe(1);
    }
  });

  it('are taken up as if they had never lain', () => {
    const point = fc.record({ x: fc.integer({ min: 1, max: 60 }), y: fc.constantFrom(3, 5, 6, 11, 13) });
    fc.assert(
      fc.property(fc.array(fc.tuple(point, point), { minLength: 2, maxLength: 12 }), ([first, ...wires]) => {
        const router = routerFor({ breadboards: [{ id: 'b1', type: 'full' }], parts: {}, jumpers: {} });
        const [a, b] = first ?? expect.fail('no wire');
        const alone = router.find(a, b);
        const laid = wires.map(([p, q]) => router.route(p, q));
        for (const path of laid) router.drop(path);
        expect(router.find(a, b)).toEqual(alone);
      }),
    );
  });

  it('are counted from hole to hole; the bound joins the nearest holes of strips and rails', () => {
    const board = {
      breadboards: [{ id: 'b1', type: 'full' as const }],
      parts: {},
      jumpers: {
        w1: { id: 'w1', from: 'b1.a10', to: 'b1.e13' },
        w2: { id: 'w2', from: 'b1.j10', to: 'b1.top+10' },
        w3: { id: 'w3', from: 'b1.f10', to: 'b1.e20' },
      },
    };
    expect(wireLength(board)).toEqual({ laid: 3 + 4 + 3 + 10 + 3, bound: 3 + 3 + 10 });
  });
});
