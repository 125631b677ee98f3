import { createContext, useContext } from 'react';

/** The smallest that letters may be, in points of the screen. */
export const LEAST_PX = 11;

/** Points of the screen to a unit of the drawing around; null where nothing is measured, as on paper. */
export const PointsPerUnit = createContext<number | null>(null);

/** Scales at which a drawing looks alike are taken as one, so that it is not drawn anew for each point of a window's edge. */
const SCALES = [8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 20, 22, 24, 28, 32, 40] as const;

/** The largest scale that is not above one; null below all. */
export const scaleBelow = (points: number): number | null => SCALES.findLast((s) => s <= points) ?? null;

/** The points to a unit of something that is drawn so many times as large within the drawing around. */
export function usePointsWithin(scale: number): number | null {
  const points = useContext(PointsPerUnit);
  return points === null ? null : points * scale;
}

/** How many times as large letters of a size have to be drawn so that they can be read: 1 or more. */
export function useGrowth(size: number): number {
  const points = useContext(PointsPerUnit);
  return points === null ? 1 : Math.max(1, LEAST_PX / (points * size));
}
