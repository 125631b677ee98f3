import { type FamilyId, familyIds } from '../family';
import type { OutputDelay } from './chip-data';
import type { DelaysOfChips, Figures, OfChip } from './delay-figures';
import { advanced, advancedTtlLevels, highSpeed, highSpeedTtlLevels } from './delays-of-cmos';
import { advancedLowPower, advancedSchottky, fast, lowPower, schottky, standard } from './delays-of-ttl';
import { nearestFamily, roundedNs, slower } from './nearest-family';

const tables: Readonly<Record<FamilyId, DelaysOfChips>> = {
  '74': standard,
  LS: lowPower,
  ALS: advancedLowPower,
  AS: advancedSchottky,
  S: schottky,
  F: fast,
  HC: highSpeed,
  HCT: highSpeedTtlLevels,
  AC: advanced,
  ACT: advancedTtlLevels,
};

const isFigures = (of: OfChip): of is Figures => Array.isArray(of);

/** The figures of a chip in another family, by what factor that is slower. */
function scaled([rise, mostRise, fall, mostFall]: Figures, by: number): Figures {
  return [roundedNs(rise * by), roundedNs(mostRise * by), roundedNs(fall * by), roundedNs(mostFall * by)];
}

/**
 * The delays of the outputs of a chip in a family: from its data sheet, or where that is not at hand from the same chip in the nearest family,
 * as much slower or faster as the gates of the two; `workedOutFrom` then names that family. Empty where no family's data sheet is at hand.
 */
export function outputDelaysOf(base: string, family: FamilyId): readonly OutputDelay[] {
  const from = nearestFamily(family, (id) => tables[id][base] !== undefined);
  const given = from && tables[from][base];
  if (!given) return [];
  const lines = isFigures(given) ? ([['*', given]] as const) : Object.entries(given);
  return lines.map(([pins, own]): OutputDelay => {
    const [rise, mostRise, fall, mostFall] = from === family ? own : scaled(own, slower(from, family));
    return {
      pins,
      rise: [rise, mostRise],
      fall: [fall, mostFall],
      workedOutFrom: from === family ? null : from,
    };
  });
}

/** The families in which the delays of a chip stand here as its data sheet gives them. */
export function familiesGivenFor(base: string): readonly FamilyId[] {
  return familyIds.filter((id) => tables[id][base]);
}
