import { type FamilyId, findChip, rarity, typeOf } from '../catalogue';
import { dutyOfUnit } from './by-hand';
import type { Duty } from './candidate';
import { seatedNumber } from './chip-family';
import type { Package, Packing, UnitUse } from './packing';
import { pinsFor, serves, unitKindsOf } from './units';

/** A use of a unit with what it does there. */
interface Done {
  readonly use: UnitUse;
  readonly duty: Duty;
  readonly nets: readonly string[];
}

/**
 * The packing with each package that is rarer than it need be given up for the most common chip whose units do the same, and of equally common ones for that
 * whose units are what is asked for: an inverter on an AND-OR-invert or on an XOR goes to a 7404. As many packages as before, under the same references. `keep` are references that stay as they are.
 */
export function everyday(
  packing: Packing,
  chips: readonly string[],
  family: FamilyId,
  keep: ReadonlySet<string>,
): Packing {
  const byRarity = [...chips].sort((a, b) => rarity(a) - rarity(b));
  const packages = packing.packages.map((pack) => (keep.has(pack.ref) ? pack : moreCommon(pack, byRarity, family)));
  return packages.every((p, i) => p === packing.packages[i]) ? packing : { ...packing, packages };
}

function moreCommon(pack: Package, chips: readonly string[], family: FamilyId): Package {
  const type = typeOf(pack);
  if (!type || !chips.includes(type.id)) return pack;
  const done: Done[] = [];
  for (const [u, use] of pack.units.entries()) {
    if (!use) continue;
    const does = dutyOfUnit(type, u, use.inputs);
    if (!does) return pack;
    done.push({ use, ...does });
  }
  const isBetter = (base: string, strays: number): boolean =>
    rarity(base) < rarity(type.id) ||
    (rarity(base) === rarity(type.id) && strays < straysOn(type.id, pack.units, done));
  for (const base of chips) {
    if (rarity(base) > rarity(type.id)) return pack;
    const [units, common] = [placed(base, done), findChip(base)];
    if (units && common && isBetter(base, straysOn(base, units, done)))
      return { ref: pack.ref, part: seatedNumber(common, family), units };
  }
  return pack;
}

/** How many uses are on units of another kind of gate than they are. */
function straysOn(base: string, units: readonly (UnitUse | null)[], done: readonly Done[]): number {
  const kinds = unitKindsOf([base]);
  const isStray = ({ use, duty }: Done): boolean => {
    const u = units.findIndex((one) => one?.output === use.output);
    return kinds.find((kind) => kind.units.includes(u))?.duty.kind !== duty.kind;
  };
  return done.filter(isStray).length;
}

/** The uses on units of a chip, the widest first; null where not all of them find one. */
function placed(base: string, done: readonly Done[]): (UnitUse | null)[] | null {
  const kinds = unitKindsOf([base]);
  const units: (UnitUse | null)[] = (findChip(base)?.units ?? []).map(() => null);
  for (const { use, duty, nets } of [...done].sort((a, b) => b.duty.width - a.duty.width)) {
    const fits = kinds.filter((kind) => serves(kind, duty));
    const kind = fits.find((k) => k.units.some((u) => units[u] === null));
    const unit = kind?.units.find((u) => units[u] === null);
    if (!kind || unit === undefined) return null;
    units[unit] = { ...use, inputs: pinsFor(kind, duty, nets) };
  }
  return units;
}
