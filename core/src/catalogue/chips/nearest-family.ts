import { type FamilyId, families } from '../family';

/**
 * The family of `given` whose gates come nearest to those of `id`: of the same technology if one is, and there the one whose typical delay
 * differs by the smallest factor. Null when `given` is empty.
 */
export function nearestFamily(id: FamilyId, given: readonly FamilyId[]): FamilyId | null {
  const distance = (from: FamilyId): number =>
    (families[from].technology === families[id].technology ? 0 : 100) + Math.abs(Math.log(slower(from, id)));
  return given.reduce<FamilyId | null>(
    (best, one) => (best === null || distance(one) < distance(best) ? one : best),
    null,
  );
}

/** By what factor the gate of `to` is slower than that of `from`: typically, of their 2-input NAND. */
export function slower(from: FamilyId, to: FamilyId): number {
  return families[to].delayNs.typical / families[from].delayNs.typical;
}

/** A time that was worked out, to what can be said of it: tenths of a nanosecond under ten, whole ones above. */
export const roundedNs = (ns: number): number => (ns < 10 ? Math.round(ns * 10) / 10 : Math.round(ns));
