import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boundsOf, type TargetArea, viewWith } from './target-areas';

const spot = fc.record({
  x: fc.integer({ min: 0, max: 900 }),
  y: fc.integer({ min: 0, max: 900 }),
  width: fc.integer({ min: 1, max: 60 }),
  height: fc.integer({ min: 1, max: 60 }),
});
const view: TargetArea = { x: 300, y: 300, width: 400, height: 200 };
const holds = (v: TargetArea, s: TargetArea, by = 0): boolean =>
  s.x - by >= v.x && s.y - by >= v.y && s.x + s.width + by <= v.x + v.width && s.y + s.height + by <= v.y + v.height;

describe('a view that is to show spots', () => {
  it('holds all of them when they fit, otherwise the first', () => {
    fc.assert(
      fc.property(fc.array(spot, { minLength: 1, maxLength: 4 }), (spots) => {
        const next = { ...view, ...viewWith(view, spots, 10) };
        const all = boundsOf(spots) as TargetArea;
        const fits = all.width + 20 <= view.width && all.height + 20 <= view.height;
        expect(holds(next, fits ? all : (spots[0] as TargetArea), 10)).toBe(true);
      }),
    );
  });

  it('stays where it is when they are there already, or when there is nothing to show', () => {
    fc.assert(
      fc.property(spot, (s) => {
        const { x, y } = viewWith(view, [s], 0);
        if (holds(view, s)) expect({ x, y }).toEqual({ x: view.x, y: view.y });
        expect({ x, y }).toEqual((({ x, y }) => ({ x, y }))(viewWith({ ...view, x, y }, [s], 0)));
      }),
    );
    expect(viewWith(view, [], 10)).toBe(view);
  });
});
