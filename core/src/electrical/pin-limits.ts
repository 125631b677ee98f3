import { type Family, type FamilyId, families, findChip, loadsOf, readPartNumber } from '../catalogue';
import { remembered } from '../memo';

/** The limits of a chip's pins: those of its family, and its own where its data sheet differs. */
export type PinLimits = Family;

/** The family printed on a chip; null where the number names none. */
const familyOn = remembered((part: string): FamilyId | null => readPartNumber(part)?.family ?? null);

/**
 * The limits of the pins of a chip: levels, currents and supply of the family printed on it, or of `otherwise` where its number
 * names none (`7400` seated by a bare number), with the currents that its own data sheet gives.
 */
export function pinLimitsOf(part: string, otherwise: FamilyId): PinLimits {
  const id = familyOn(part) ?? otherwise;
  return limitsIn[id](part);
}

/** By family, so that a chip's limits are the same object each time. */
const limitsIn = Object.fromEntries(
  Object.values(families).map((family) => [
    family.id,
    remembered((part: string): PinLimits => {
      const chip = findChip(readPartNumber(part)?.base ?? '')?.chip;
      const outputHighV = chip?.outputHighV ?? family.outputHighV;
      const [low, high] = chip?.own?.outputMa ?? chip?.drive?.[family.id] ?? [];
      if (low === undefined || high === undefined) return family;
      const absoluteOutputMa = chip?.own?.absoluteMa ?? strongest(family, Math.max(low, high));
      return { ...family, outputHighV, outputMa: { low, high }, absoluteOutputMa };
    }),
  ]),
) as Readonly<Record<FamilyId, (part: string) => PinLimits>>;

/** CMOS bus drivers are rated for more than the gates of their family. Source: SN74HC244 data sheet, absolute maximum ratings: 35 mA. */
const BUS_DRIVER_MA = 35;

function strongest({ absoluteOutputMa, outputMa }: Family, ma: number): number | null {
  return absoluteOutputMa === null || ma <= outputMa.low ? absoluteOutputMa : Math.max(absoluteOutputMa, BUS_DRIVER_MA);
}

/**
 * The most current of an input pin, by its name, in microamperes: out of it when low, into it when high; as many unit loads of the family as
 * the chip's data sheet gives it.
 */
export function inputUaOf(part: string, pin: string, otherwise: FamilyId): Family['inputUa'] {
  const { base, family } = readPartNumber(part) ?? { base: '', family: null };
  const { id, inputUa } = families[family ?? otherwise];
  const loads = loadsOf(base, id, pin);
  return loads === 1 ? inputUa : { low: loads * inputUa.low, high: loads * inputUa.high };
}
