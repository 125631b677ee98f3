import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newJob } from '../job/job';
import { breadboardXY } from './hole';
import { crossingsOf, routerFor } from './route';

const { board } = newJob('bench');
const { x: left, y: top } = breadboardXY(board.breadboards[0]?.id ?? '');

describe('what a way costs', () => {
  it('has all that it crosses in it, where both holes are in one row too', () => {
    const columns = fc.uniqueArray(fc.integer({ min: 6, max: 30 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(columns, (at) => {
        const router = routerFor(board);
        const uprights = at.map((column) => [
          { x: left + column, y: top - 3 },
          { x: left + column, y: top + 20 },
        ]);
        for (const path of uprights) router.take(path);
        const [a, b] = [
          { x: left + 4.5, y: top + 6 },
          { x: left + 32.5, y: top + 6 },
        ];
        const { path, cost } = router.find(a, b);
        const crossed = crossingsOf(new Map([...uprights, path].map((p, i) => [String(i), p])));
        expect([path, crossed]).toEqual([[a, b], at.length]);
        expect(cost).toBeCloseTo(28 + 3 * at.length, 9);
      }),
      { numRuns: 40 },
    );
  });
});
