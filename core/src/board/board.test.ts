import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { type Board, breadboardOf, emptyBoard, type Jumper, nextBreadboard, type SeatedPart } from './board';
import {
  BOARD_PITCH,
  breadboardKinds,
  columnNumbers,
  type Hole,
  hasRailHole,
  holeNear,
  holesOfStrip,
  holeXY,
  isRail,
  isRailStrip,
  markOf,
  parseHole,
  printHole,
  railNamed,
  railsOf,
  rows,
  stripNamed,
  stripOf,
} from './hole';
import { extractNets } from './nets';
import { crossesFace, crossingsOf, routeJumpers } from './route';
import { checkJumper, checkSeat, leadsOf, occupancyOf, outlinesOf } from './seating';

const lying = ['b1', 'b2', 'b2r', 'bs3', 'bs3r', 'bh4', 'bh4r', 'bm5', 'bm5r', 'bm40'];
const allHoles = lying.flatMap((board) =>
  rows.flatMap((row) =>
    columnNumbers(board)
      .map((column): Hole => ({ board, column, row }))
      .filter((h) => !isRail(row) || hasRailHole(h.column, board)),
  ),
);
const count = (board: string, row?: string): number =>
  allHoles.filter((h) => h.board === board && (row === undefined || h.row === row)).length;
const anyHole = fc.constantFrom(...allHoles);
const onTwo = fc.constantFrom(...allHoles.filter((h) => h.board === 'b1' || h.board === 'b2'));
const chip = (ref: string, at: string, rotation: SeatedPart['rotation'] = 0): SeatedPart => ({
  ref,
  part: '74HC00',
  at,
  rotation,
});
const withParts = (...parts: SeatedPart[]): Board => ({
  ...emptyBoard,
  parts: Object.fromEntries(parts.map((p) => [p.ref, p])),
});
const jumpersOf = (pairs: readonly (readonly [string, string])[]): Record<string, Jumper> =>
  Object.fromEntries(pairs.map(([from, to], i) => [`w${i + 1}`, { id: `w${i + 1}`, from, to }]));

describe('the name of a strip', () => {
  it('of every hole reads back as a hole of that strip, and nothing else reads', () => {
    for (const hole of allHoles) {
      const named = stripNamed(stripOf(hole));
      expect(named && stripOf(named), printHole(hole)).toBe(stripOf(hole));
    }
    for (const wrong of ['', 'b1', 'b1.e17', 'b1.64e', 'b1.17g', 'bm1.18f', 'b1.left-top+', 'x1.3e', 'b1.0e'])
      expect(stripNamed(wrong), wrong).toBeNull();
  });
});

describe('rails of a breadboard', () => {
  it.each(lying)('%s: each is named once, read back, marked, and they hold every rail hole', (board) => {
    const rails = railsOf(board);
    const names = rails.map(stripOf);
    expect(new Set(names).size).toBe(names.length);
    for (const rail of rails) {
      expect(railNamed(stripOf(rail))).toEqual({ board, column: rail.column, row: rail.row });
      expect(markOf(stripOf(rail))).toBe(rail.row.at(-1));
    }
    const locks = rails.flatMap(holesOfStrip).map(printHole).sort();
    const all = allHoles.filter((h) => h.board === board && isRail(h.row)).map(printHole);
    expect(locks).toEqual(all.sort());
  });
});

describe('holes', () => {
  it.each([
    ['b1', 830, 50],
    ['bs3', 830, 50],
    ['bh4', 400, 25],
    ['bm5', 170, 0],
  ])('board %s has %i of them, %i on each rail', (board, all, rail) => {
    expect(count(board)).toBe(all);
    expect(count(board, 'top+')).toBe(rail);
  });

  it('lie apart from each other, on whatever boards', () => {
    const places = allHoles.map((h) => Object.values(holeXY(h)).join());
    expect(new Set(places).size).toBe(allHoles.length);
  });

  it('are read back as they are printed, and found again where they lie', () => {
    fc.assert(
      fc.property(anyHole, (hole) => {
        expect(parseHole(printHole(hole))).toEqual(hole);
        const { x, y } = holeXY(hole);
        expect(
          holeNear(
            x + 0.3,
            y - 0.3,
            lying.map((id) => ({ id })),
          ),
        ).toEqual(hole);
      }),
    );
  });

  it.each([
    'b1.e0',
    'b1.e64',
    'b1.k5',
    'b1.top+8',
    'b0.e5',
    'b1.e05',
    'e5',
    'b1.e5 ',
    'b1.top+2',
    'b1.top+62',
    'bh1.a31',
    'bm1.top+5',
    'x1.a1',
    'b41.a1',
    'b1rr.a1',
    '',
  ])('%j is none', (text) => {
    expect(parseHole(text)).toBeNull();
  });

  it('share a strip with four others across the channel from nobody, or with a whole rail', () => {
    fc.assert(
      fc.property(anyHole, (hole) => {
        const strip = holesOfStrip(hole);
        const rail = count(hole.board, hole.row) / (hole.board.startsWith('bs') ? 2 : 1);
        expect(strip).toHaveLength(isRail(hole.row) ? rail : 5);
        expect(new Set(strip.map(stripOf))).toEqual(new Set([stripOf(hole)]));
        expect(isRailStrip(stripOf(hole))).toBe(isRail(hole.row));
        if (isRail(hole.row)) expect(stripOf(railNamed(stripOf(hole)) ?? hole)).toBe(stripOf(hole));
      }),
    );
  });
});

describe('breadboards', () => {
  it('never lie on each other, whatever is added in whatever order', () => {
    const any = fc.tuple(fc.constantFrom(...breadboardKinds), fc.boolean());
    fc.assert(
      fc.property(fc.array(any, { maxLength: 12 }), (requests) => {
        let board: Board = { ...emptyBoard, breadboards: [] };
        for (const [kind, right] of requests) {
          const id = nextBreadboard(board, kind, right);
          const own = id === null ? null : breadboardOf(id);
          if (own) board = { ...board, breadboards: [...board.breadboards, own] };
        }
        const places = board.breadboards.flatMap(({ id }) =>
          columnNumbers(id).map((column) => Object.values(holeXY({ board: id, column, row: 'e' })).join()),
        );
        expect(new Set(places).size).toBe(places.length);
        expect(board.breadboards.every((b) => breadboardOf(b.id)?.type === b.type)).toBe(true);
      }),
    );
  });

  it('have the next one beside the last only where there is one', () => {
    expect(nextBreadboard(emptyBoard, 'full', true)).toBe('b1r');
    expect(nextBreadboard(emptyBoard, 'half', true)).toBeNull();
    expect(nextBreadboard({ ...emptyBoard, breadboards: [{ id: 'bh1', type: 'half' }] }, 'half', true)).toBe('bh1r');
    expect(nextBreadboard(emptyBoard, 'mini')).toBe('bm2');
  });
});

describe('seating', () => {
  it('a chip over the channel has pin 1 at its anchor and pin 14 across from it', () => {
    const holes = leadsOf(chip('U1', 'b1.e10')).map((l) => l.hole && printHole(l.hole));
    expect(holes).toEqual(
      [10, 11, 12, 13, 14, 15, 16].map((c) => `b1.e${c}`).concat([16, 15, 14, 13, 12, 11, 10].map((c) => `b1.f${c}`)),
    );
  });

  it('turning by half a turn swaps the places of pins 1 and 8', () => {
    const at = (part: SeatedPart, id: string) => printHole(leadsOf(part).find((l) => l.type.id === id)?.hole as Hole);
    expect(at(chip('U1', 'b1.f16', 180), '8')).toBe(at(chip('U1', 'b1.e10'), '1'));
  });

  it.each([
    ['over the edge', chip('U2', 'b1.e58'), 'hand/lead-off-board'],
    ['beside the channel', chip('U2', 'b1.d30'), 'hand/lead-off-board'],
    ['on another chip', chip('U2', 'b1.e12'), 'hand/hole-taken'],
    ['on a board that is not there', chip('U2', 'b2.e30'), 'hand/no-such-hole'],
  ])('is refused %s', (_, part, code) => {
    expect(checkSeat(withParts(chip('U1', 'b1.e10')), part).map((f) => f.code)).toEqual([code]);
  });

  it('a jumper needs two different free holes', () => {
    const board = withParts(chip('U1', 'b1.e10'));
    const codes = (from: string, to: string) => checkJumper(board, { id: 'w1', from, to }).map((f) => f.code);
    expect(codes('b1.a1', 'b1.a2')).toEqual([]);
    expect(codes('b1.a1', 'b1.a1')).toEqual(['hand/same-hole']);
    expect(codes('b1.e10', 'b1.a1')).toEqual(['hand/hole-taken']);
    expect(codes('b1.a1', 'b7.a1')).toEqual(['hand/no-such-hole']);
  });

  it('occupants of a hole are all told, even where a file has put two', () => {
    const board = { ...withParts(chip('U1', 'b1.e10')), jumpers: jumpersOf([['b1.e10', 'b1.a1']]) };
    expect(occupancyOf(board).get('b1.e10')).toEqual(['U1.1', 'w1']);
  });
});

describe('nets', () => {
  const pairs = fc.array(fc.tuple(onTwo.map(printHole), onTwo.map(printHole)), { maxLength: 60 });
  const two: Board = {
    ...emptyBoard,
    breadboards: [
      { id: 'b1', type: 'full' },
      { id: 'b2', type: 'full' },
    ],
  };

  it('are the strips that a walk along jumpers reaches, in whatever order the jumpers stand', () => {
    fc.assert(
      fc.property(pairs, fc.nat(), (list, seed) => {
        const nets = extractNets({ ...two, jumpers: jumpersOf(list) });
        const shuffled = [...list].sort((a, b) => ((a[0].length * 31 + seed) % 7) - ((b[0].length * 17 + seed) % 5));
        const again = extractNets({ ...two, jumpers: jumpersOf(shuffled) });
        expect(again.nets.map((n) => n.strips)).toEqual(nets.nets.map((n) => n.strips));
        const edges = list.map(([a, b]) => [stripOf(parseHole(a) as Hole), stripOf(parseHole(b) as Hole)] as const);
        for (const { strips } of nets.nets) {
          const reached = new Set([elementAt(strips, 0)]);
          for (let grown = -1; grown !== reached.size; ) {
            grown = reached.size;
            for (const [a, b] of edges) {
              if (reached.has(a)) reached.add(b);
              if (reached.has(b)) reached.add(a);
            }
          }
          expect([...reached].sort()).toEqual(strips);
        }
      }),
    );
  });

  it('cross the channel and reach another board only by jumper', () => {
    const { ofStrip } = extractNets({
      ...two,
      jumpers: jumpersOf([
        ['b1.e5', 'b1.f5'],
        ['b1.a9', 'b2.j9'],
        ['b1.top+3', 'b1.top-3'],
      ]),
    });
    expect(ofStrip.get('b1.5e')).toBe(ofStrip.get('b1.5f'));
    expect(ofStrip.get('b1.9e')).toBe(ofStrip.get('b2.9f'));
    expect(ofStrip.get('b1.top+')).toBe(ofStrip.get('b1.top-'));
    expect(ofStrip.get('b1.5e')).not.toBe(ofStrip.get('b1.9e'));
  });
});

describe('the way of a jumper', () => {
  it('begins and ends at its holes, and never lies over a chip', () => {
    const chips = withParts(chip('U1', 'b1.e10'), chip('U2', 'b1.e20'), chip('U3', 'b1.e40'));
    const between = onTwo.filter((h) => h.board === 'b1' && h.row !== 'e' && h.row !== 'f').map(printHole);
    fc.assert(
      fc.property(fc.array(fc.tuple(between, between), { minLength: 1, maxLength: 25 }), (list) => {
        const board = { ...chips, jumpers: jumpersOf(list) };
        const outlines = outlinesOf(board);
        for (const [id, path] of routeJumpers(board)) {
          const { from, to } = board.jumpers[id] as Jumper;
          expect(path[0]).toEqual(holeXY(parseHole(from) as Hole));
          expect(path[path.length - 1]).toEqual(holeXY(parseHole(to) as Hole));
          expect(crossesFace(path, outlines), `${from} > ${to}`).toBe(false);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('wires that are there lie as they lay when others come and go; those in the way of a part that came do not', () => {
    const pairs = fc.uniqueArray(onTwo.map(printHole), { minLength: 4, maxLength: 24 });
    fc.assert(
      fc.property(pairs, fc.constantFrom('b1.e10', 'b1.e30', 'b2.e20'), (holes, seat) => {
        const ends = holes.slice(0, holes.length & ~1);
        const jumpers = jumpersOf(ends.flatMap((h, i) => (i % 2 === 0 ? [[h, elementAt(ends, i + 1)] as const] : [])));
        const board: Board = {
          ...withParts(),
          breadboards: ['b1', 'b2'].flatMap((id) => breadboardOf(id) ?? []),
          jumpers,
        };
        const paths = routeJumpers(board);
        const { w1: _, ...fewer } = jumpers;
        const less = { ...board, jumpers: fewer };
        const after = routeJumpers(less, { board, paths });
        for (const id of Object.keys(fewer)) expect(after.get(id)).toBe(paths.get(id));
        expect(after.has('w1')).toBe(false);
        // Back again: only the one that came is routed.
        const again = routeJumpers(board, { board: less, paths: after });
        for (const id of Object.keys(fewer)) expect(again.get(id)).toBe(paths.get(id));
        expect(again.size).toBe(paths.size);
        const seated = { ...board, parts: { U1: chip('U1', seat) } };
        const around = routeJumpers(seated, { board, paths });
        for (const path of around.values()) expect(crossesFace(path, outlinesOf(seated))).toBe(false);
      }),
      { numRuns: 40 },
    );
  });

  it('crossings of wires are counted, not where they touch or lie on each other', () => {
    const path = (...points: [number, number][]) => points.map(([x, y]) => ({ x, y }));
    const level = path([1, 5], [9, 5]);
    const of = (...paths: ReturnType<typeof path>[]): number => crossingsOf(new Map(paths.map((p, i) => [`w${i}`, p])));
    expect(of(level, path([4, 1], [4, 8]))).toBe(1);
    expect(of(level, path([4, 1], [4, 8]), path([6, 1], [6, 8]), path([12, 1], [12, 8]))).toBe(2);
    expect(of(level, path([4, 5], [4, 8]))).toBe(0);
    expect(of(level, path([2, 5], [7, 5]))).toBe(0);
    expect(of(path([1, 5], [4, 5], [4, 8]), path([1, 6], [9, 6]))).toBe(1);
  });

  it('boards lie below each other without touching', () => {
    expect(BOARD_PITCH).toBeGreaterThan(18);
  });
});
