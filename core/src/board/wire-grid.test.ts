import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Point } from './hole';
import { areaOf, STEP, type Weights, WireGrid } from './wire-grid';

const [WIDE, HIGH] = [12, 8];
const along = (most: number): fc.Arbitrary<number> => fc.integer({ min: 0, max: most / STEP }).map((k) => k * STEP);
const point: fc.Arbitrary<Point> = fc.record({ x: along(WIDE), y: along(HIGH) });
/** A level or an upright stretch, or one without length. */
const stretch = fc
  .tuple(point, along(WIDE), along(HIGH), fc.boolean())
  .map(([p, x, y, isLevel]): [Point, Point] => [p, isLevel ? { x, y: p.y } : { x: p.x, y }]);
const weights: Weights = { on: 0.75, beside: 0.625, crossed: 3, ends: 2 };

/** A stretch as its line, and from where to where along it it goes. */
function lineOf([p, q]: [Point, Point]) {
  const isLevel = p.y === q.y;
  const [from, to] = (isLevel ? [p.x, q.x] : [p.y, q.y]).toSorted((a, b) => a - b) as [number, number];
  return { isLevel, at: isLevel ? p.y : p.x, from, to };
}

/** What a stretch meets, worked out wire by wire as the words have it. */
function costAmong(wires: readonly [Point, Point][], ends: readonly Point[], asked: [Point, Point]): number {
  const own = lineOf(asked);
  let cost = 0;
  for (const wire of wires) {
    const other = lineOf(wire);
    if (other.isLevel === own.isLevel) {
      const steps = Math.max(0, Math.min(own.to, other.to) - Math.max(own.from, other.from)) / STEP;
      if (other.at === own.at) cost += weights.on * steps;
      else if (Math.abs(other.at - own.at) === STEP) cost += weights.beside * steps;
    } else if (own.from < other.at && other.at < own.to && other.from < own.at && own.at < other.to)
      cost += weights.crossed;
  }
  for (const { x, y } of ends) {
    const [at, line] = own.isLevel ? [x, y] : [y, x];
    if (line === own.at && own.from < at && at < own.to) cost += weights.ends;
  }
  return cost;
}

describe('a grid of wires', () => {
  const area = areaOf([{ x: WIDE, y: HIGH }]);
  const wires = fc.array(stretch, { maxLength: 12 });
  const holes = fc.uniqueArray(point, { maxLength: 6, selector: ({ x, y }) => `${x} ${y}` });

  it('says of any stretch what it lies on, touches, crosses and hides', () => {
    fc.assert(
      fc.property(wires, holes, stretch, (laid, ends, asked) => {
        const grid = new WireGrid(area, weights, ends);
        for (const [p, q] of laid) grid.lay(p, q);
        expect(grid.cost(...asked)).toBe(costAmong(laid, ends, asked));
        expect(grid.cost(asked[1], asked[0])).toBe(grid.cost(...asked));
      }),
      { numRuns: 400 },
    );
  });

  it('is as if wires had never lain that were taken up', () => {
    fc.assert(
      fc.property(wires, wires, stretch, (kept, taken, asked) => {
        const grid = new WireGrid(area, weights);
        for (const [p, q] of [...kept, ...taken]) grid.lay(p, q);
        for (const [p, q] of taken) grid.takeUp(p, q);
        expect(grid.cost(...asked)).toBe(costAmong(kept, [], asked));
        const alone = new WireGrid(area, weights);
        for (const [p, q] of kept) alone.lay(p, q);
        expect(grid.isTaken(...asked)).toBe(alone.isTaken(...asked));
      }),
      { numRuns: 200 },
    );
  });

  it('passes over what slants, and takes what lies outside as lying on its edge', () => {
    const grid = new WireGrid(area, weights);
    grid.lay({ x: 0, y: 0 }, { x: 4, y: 4 });
    expect(grid.cost({ x: 0, y: 2 }, { x: 4, y: 2 })).toBe(0);
    expect(grid.cost({ x: 0, y: 0 }, { x: 4, y: 4 })).toBe(0);
    grid.lay({ x: -9, y: 2 }, { x: 99, y: 2 });
    expect(grid.cost({ x: 0, y: 2 }, { x: 1, y: 2 })).toBe(weights.on * 4);
    expect(grid.cost({ x: 1, y: -9 }, { x: 1, y: 99 })).toBe(weights.crossed);
  });
});
