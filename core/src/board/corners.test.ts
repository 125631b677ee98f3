import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { elementAt } from '../element-at';
import { emptyBoard, type Jumper } from './board';
import { checkCorners, drawnAside, MAX_CORNERS, withEnds } from './corners';
import { type Hole, holeXY, type Point, parseHole, printHole } from './hole';
import { routeJumpers } from './route';

const hole = (text: string): Point => holeXY(parseHole(text) as Hole);
const at = fc
  .record({ column: fc.integer({ min: 1, max: 63 }), row: fc.constantFrom('a', 'c', 'e', 'f', 'h', 'j') })
  .map(({ column, row }) => printHole({ board: 'b1', column, row: row as Hole['row'] }));
const half = (most: number): fc.Arbitrary<number> => fc.integer({ min: 0, max: 2 * most }).map((n) => n / 2);

/** A jumper that turns a right angle at each corner: level and upright stretches by turns, none of no length. */
const bent: fc.Arbitrary<Jumper & { corners: readonly Point[] }> = fc
  .record({ from: at, to: at, xs: fc.array(half(60), { maxLength: 4 }), ys: fc.array(half(15), { maxLength: 4 }) })
  .map(({ from, to, xs, ys }) => {
    let { x, y } = hole(from);
    const corners: Point[] = [];
    for (let i = 0; i < Math.min(xs.length, ys.length); i++) {
      corners.push({ x: elementAt(xs, i), y });
      x = elementAt(xs, i);
      corners.push({ x, y: elementAt(ys, i) });
      y = elementAt(ys, i);
    }
    return { id: 'w1', from, to, corners: [...corners, { x: hole(to).x, y }] };
  })
  .filter((j) => stretches(pathOf(j)).every(([p, q], i) => (i % 2 === 0 ? p.x !== q.x : p.y !== q.y)));

const pathOf = (j: Jumper): Point[] => [hole(j.from), ...(j.corners ?? []), hole(j.to)];
const stretches = (path: readonly Point[]): [Point, Point][] => path.slice(1).map((q, i) => [elementAt(path, i), q]);
const isSquare = (path: readonly Point[]): boolean => stretches(path).every(([p, q]) => p.x === q.x || p.y === q.y);

describe('a jumper that was bent', () => {
  it('runs over its corners, whatever else is on the board', () => {
    fc.assert(
      fc.property(bent, at, at, (jumper, from, to) => {
        const jumpers = { w1: jumper, w2: { id: 'w2', from, to } };
        const path = routeJumpers({ ...emptyBoard, jumpers }).get('w1');
        expect(path?.filter((p, i) => JSON.stringify(p) !== JSON.stringify(path[i - 1]))).toEqual(pathOf(jumper));
      }),
    );
  });

  it('goes along when both ends do, and keeps its right angles when one end goes elsewhere', () => {
    fc.assert(
      fc.property(bent, at, (jumper, to) => {
        expect(isSquare(pathOf(withEnds(jumper, jumper.from, to)))).toBe(true);
        expect(isSquare(pathOf(withEnds(jumper, to, jumper.to)))).toBe(true);
        expect(isSquare(pathOf(withEnds(jumper, to, jumper.from)))).toBe(true);
        expect(withEnds(jumper, jumper.from, jumper.to)).toBe(jumper);
      }),
    );
    const jumper: Jumper = { id: 'w1', from: 'b1.a5', to: 'b1.c9', corners: [{ x: 7.5, y: 14 }] };
    expect(withEnds(jumper, 'b1.a6', 'b1.c10').corners).toEqual([{ x: 8.5, y: 14 }]);
  });

  it('keeps its ends, its right angles and no corner too many when a stretch is drawn aside', () => {
    const by = fc.record({ x: half(9), y: half(9) });
    fc.assert(
      fc.property(bent, fc.nat(), by, (jumper, n, away) => {
        const path = pathOf(jumper);
        const stretch = n % (path.length - 1);
        const corners = drawnAside(path, stretch, away);
        const drawn = [elementAt(path, 0), ...corners, path.at(-1) as Point];
        expect(isSquare(drawn)).toBe(true);
        for (const [i, [a, b]] of stretches(drawn).entries()) {
          const next = drawn[i + 2];
          expect(a).not.toEqual(b);
          if (next) expect((a.x === b.x && b.x === next.x) || (a.y === b.y && b.y === next.y)).toBe(false);
        }
        expect(drawnAside(path, stretch, { x: 0, y: 0 })).toEqual(jumper.corners);
      }),
    );
  });

  it('has the stretch where it was drawn to, unless it then lies on another of its own', () => {
    fc.assert(
      fc.property(bent, fc.nat(), half(9), (jumper, n, away) => {
        const path = pathOf(jumper);
        const stretch = n % (path.length - 1);
        const [p, q] = path.slice(stretch, stretch + 2) as [Point, Point];
        // A quarter off: nothing else of the wire is there.
        const by = { x: away + 0.25, y: away + 0.25 };
        const drawn = [elementAt(path, 0), ...drawnAside(path, stretch, by), path.at(-1) as Point];
        const moved = p.y === q.y ? { x: (p.x + q.x) / 2, y: p.y + by.y } : { x: p.x + by.x, y: (p.y + q.y) / 2 };
        const covers = ([a, b]: [Point, Point]): boolean =>
          (a.x - moved.x) * (b.x - moved.x) <= 0 && (a.y - moved.y) * (b.y - moved.y) <= 0;
        expect(stretches(drawn).some(covers)).toBe(true);
      }),
    );
  });

  it('turns in the middle when it was straight', () => {
    expect(
      drawnAside(
        [
          { x: 0, y: 0 },
          { x: 4, y: 2 },
        ],
        0,
        { x: 1, y: -1 },
      ),
    ).toEqual([{ x: 3, y: 0 }]);
  });

  it('turns only so often, and only over the mat', () => {
    const of = (corners: readonly Point[]): string[] => checkCorners(emptyBoard, 'w1', corners).map((f) => f.code);
    const many = Array.from({ length: MAX_CORNERS }, (_, i) => ({ x: i, y: 5 }));
    expect(of(many)).toEqual([]);
    expect(of([...many, { x: 1, y: 1 }])).toEqual(['hand/no-such-route']);
    expect(of([{ x: 99, y: 5 }])).toEqual(['hand/no-such-route']);
    expect(of([{ x: 9, y: 25 }])).toEqual(['hand/no-such-route']);
    expect(of([{ x: Number.NaN, y: 5 }])).toEqual(['hand/no-such-route']);
  });
});
