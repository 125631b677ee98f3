import { type Family, type FamilyId, families, findChip, readPartNumber } from '../catalogue';
import { remembered } from '../memo';

/** The family printed on a chip; null where the number names none. */
const familyOn = remembered((part: string): FamilyId | null => readPartNumber(part)?.family ?? null);

/**
 * The limits of the pins of a chip: levels, currents and supply of the family printed on it, or of `otherwise` where its number
 * names none (`7400` seated by a bare number). Of a chip that belongs to no family, such as a timer, the currents are its own.
 */
export function pinLimitsOf(part: string, otherwise: FamilyId): Family {
  const family = families[familyOn(part) ?? otherwise];
  const own = ownOn(part);
  if (!own) return family;
  const [low, high] = own.outputMa;
  return { ...family, outputMa: { low, high }, absoluteOutputMa: own.absoluteMa };
}

/** What a chip of no family says of itself; null for the others. */
const ownOn = remembered((part: string) => findChip(readPartNumber(part)?.base ?? '')?.chip?.own ?? null);

/** Whether a chip is a timer, whose outputs are bipolar whatever its family. */
export const isTimer = (part: string): boolean => ownOn(part) !== null;

const { inputHighV, inputLowV, levelsAtV } = families.HC;
/**
 * What an input that resistors set reads, as shares of the supply: low up to `low`, high from `high`, unknown between. Those of HC,
 * for chips of all families. Source: SN74HC00 data sheet, VIL and VIH at 4.5 V.
 */
export const readShares = { low: inputLowV / levelsAtV, high: inputHighV / levelsAtV } as const;
