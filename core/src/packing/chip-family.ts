import { type FamilyId, findChip, ownPartType, type PartType, partNumber } from '../catalogue';
import type { Netlist } from '../design';
import { levelsMeet } from './drawer';

/** The family wanted if the part is made in it; otherwise one whose levels meet it both ways, low-power Schottky before others; else that, or the first. */
export function seatedFamily({ chip }: Pick<PartType, 'chip'>, wanted: FamilyId): FamilyId {
  const made = chip?.families ?? [];
  if (made.includes(wanted)) return wanted;
  const [meeting] = made.filter((family) => levelsMeet(family, wanted)).sort(lowPowerFirst);
  return meeting ?? (made.includes('LS') ? 'LS' : (made[0] ?? wanted));
}

/** The number of a part as it is seated in a job of a family: never one that is not made. */
export const seatedNumber = (type: Pick<PartType, 'id' | 'chip'>, wanted: FamilyId): string =>
  partNumber(type.id, seatedFamily(type, wanted));

const lowPowerFirst = (a: FamilyId, b: FamilyId): number => Number(b === 'LS') - Number(a === 'LS');

/** Families that gates may take beside parts whose levels do not meet the one wanted: its twin with TTL levels, then others that labs have. */
const INSTEAD: readonly FamilyId[] = ['HCT', 'ACT', 'LS', '74'];

/**
 * The family of a design's gates: the one wanted where its levels meet those of every part that the sheet uses by number, otherwise the
 * first that does; the one wanted where none does.
 */
export function gateFamily({ cells }: Pick<Netlist, 'cells'>, wanted: FamilyId): FamilyId {
  const beside = cells.flatMap((cell) => {
    if (cell.kind !== 'part') return [];
    const type = cell.own === undefined ? findChip(cell.part) : ownPartType(cell.own);
    // A part of one's own has whatever levels are asked for.
    if (type?.chip?.group === 'own parts') return [];
    return type?.chip && type.chip.families.length > 0 ? [seatedFamily(type, wanted)] : [];
  });
  const meetsAll = (family: FamilyId): boolean => beside.every((one) => levelsMeet(one, family));
  if (meetsAll(wanted)) return wanted;
  const twins = INSTEAD.filter((family) => family.startsWith(wanted)).concat(INSTEAD);
  return twins.find(meetsAll) ?? wanted;
}
