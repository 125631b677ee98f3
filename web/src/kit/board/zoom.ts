import type { Point } from '@saddlebag/core';

/** Widths of a drawing against those of its mat that the buttons go through. */
const steps = [0.25, 0.35, 0.5, 0.7, 1, 1.25, 1.5, 2, 2.5, 3, 4] as const;
/** The smallest and the largest scale. */
export const [LEAST, MOST] = [steps[0], 4] as const;

/** A scale held between the smallest and the largest. */
export const bounded = (scale: number): number => Math.min(MOST, Math.max(LEAST, scale));

/** The next larger (1) or smaller (-1) step from a scale that may lie between two. */
export function stepFrom(scale: number, by: 1 | -1): number {
  const beyond = by === 1 ? steps.find((s) => s > scale * 1.01) : steps.findLast((s) => s < scale * 0.99);
  return beyond ?? (by === 1 ? MOST : LEAST);
}

/** The scale at which a drawing lies in a view whole, but never larger than as wide as the view. `ratio` is its width by its height. */
export function wholeScale(view: { width: number; height: number }, ratio: number): number {
  if (view.width <= 0 || view.height <= 0) return 1;
  return bounded(Math.min(1, (view.height * ratio) / view.width));
}

/** Two fingers on the mat, each at its place on the screen. */
export type Fingers = readonly [Point, Point];

const middleOf = ([a, b]: Fingers): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
const apart = ([a, b]: Fingers): number => Math.hypot(a.x - b.x, a.y - b.y);

/** What two fingers ask for: how many times as large, about where, and how far the mat goes along. */
export function pinched(before: Fingers, now: Fingers): { times: number; about: Point; along: Point } {
  const [from, to] = [middleOf(before), middleOf(now)];
  return { times: apart(now) / Math.max(1, apart(before)), about: to, along: { x: to.x - from.x, y: to.y - from.y } };
}
