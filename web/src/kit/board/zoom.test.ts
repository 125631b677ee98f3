import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LEAST, MOST, pinched, stepFrom, wholeScale } from './zoom';

const scale = fc.double({ min: LEAST, max: MOST, noNaN: true });

describe('zooming by steps', () => {
  it('always goes on until it comes to an end, and back by the same steps', () => {
    fc.assert(
      fc.property(scale, (from) => {
        const larger = stepFrom(from, 1);
        const smaller = stepFrom(from, -1);
        expect(larger > from * 1.01 || larger === MOST).toBe(true);
        expect(smaller < from * 0.99 || smaller === LEAST).toBe(true);
        if (larger < MOST) expect(stepFrom(stepFrom(larger, 1), -1)).toBe(larger);
      }),
    );
  });
});

describe('the scale at which all is in view', () => {
  it('is never more than as wide as the view, and leaves nothing out', () => {
    const length = fc.integer({ min: 200, max: 2000 });
    fc.assert(
      fc.property(length, length, fc.double({ min: 0.3, max: 5, noNaN: true }), (width, height, ratio) => {
        const whole = wholeScale({ width, height }, ratio);
        expect(whole).toBeLessThanOrEqual(1);
        if (whole > LEAST) expect((whole * width) / ratio).toBeLessThanOrEqual(height + 1e-6);
      }),
    );
    expect(wholeScale({ width: 0, height: 0 }, 3)).toBe(1);
  });
});

describe('two fingers', () => {
  it('keep what lies under them under them', () => {
    const at = fc.record({ x: fc.integer({ min: 0, max: 800 }), y: fc.integer({ min: 0, max: 800 }) });
    const pair = fc.tuple(at, at).filter(([a, b]) => Math.hypot(a.x - b.x, a.y - b.y) > 5);
    fc.assert(
      fc.property(pair, pair, (before, now) => {
        const { times, about, along } = pinched(before, now);
        // What lay in the middle goes along, and lies in the middle again; lengths grow as the fingers went apart.
        const middle = { x: (before[0].x + before[1].x) / 2 + along.x, y: (before[0].y + before[1].y) / 2 + along.y };
        expect(middle.x).toBeCloseTo(about.x, 6);
        expect(middle.y).toBeCloseTo(about.y, 6);
        const length = ([a, b]: typeof before): number => Math.hypot(a.x - b.x, a.y - b.y);
        expect(length(before) * times).toBeCloseTo(length(now), 6);
      }),
    );
  });
});
