import { type Family, type FamilyId, families, readPartNumber } from '../catalogue';
import { remembered } from '../memo';

/** The family printed on a chip; null where the number names none. */
const familyOn = remembered((part: string): FamilyId | null => readPartNumber(part)?.family ?? null);

/**
 * The limits of the pins of a chip: levels, currents and supply of the family printed on it, or of `otherwise` where its number
 * names none (`7400` seated by a bare number).
 */
export function pinLimitsOf(part: string, otherwise: FamilyId): Family {
  return families[familyOn(part) ?? otherwise];
}

const { inputHighV, inputLowV, levelsAtV } = families.HC;
/**
 * What an input that resistors set reads, as shares of the supply: low up to `low`, high from `high`, unknown between. Those of HC,
 * for chips of all families. Source: SN74HC00 data sheet, VIL and VIH at 4.5 V.
 */
export const readShares = { low: inputLowV / levelsAtV, high: inputHighV / levelsAtV } as const;
