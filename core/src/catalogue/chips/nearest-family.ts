import { type FamilyId, families, familyIds } from '../family';

/**
 * The family among those that have something whose gates come nearest to those of `id`: `id` itself if it has it, else one of the same technology
 * if there is one, and there the one whose typical delay differs by the smallest factor. Null when none has it.
 */
export function nearestFamily(id: FamilyId, has: (family: FamilyId) => boolean): FamilyId | null {
  if (has(id)) return id;
  const distance = (from: FamilyId): number =>
    (families[from].technology === families[id].technology ? 0 : 100) + Math.abs(Math.log(slower(from, id)));
  return familyIds
    .filter(has)
    .reduce<FamilyId | null>((best, one) => (best === null || distance(one) < distance(best) ? one : best), null);
}

/** By what factor the gate of `to` is slower than that of `from`: typically, of their 2-input NAND. */
export function slower(from: FamilyId, to: FamilyId): number {
  return families[to].delayNs.typical / families[from].delayNs.typical;
}

/** A time that was worked out, to what can be said of it: tenths of a nanosecond under ten, whole ones above. */
export const roundedNs = (ns: number): number => (ns < 10 ? Math.round(ns * 10) / 10 : Math.round(ns));
