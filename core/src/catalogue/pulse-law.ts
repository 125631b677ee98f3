import type { PulseTimer } from './chips';
import { type FamilyId, readPartNumber } from './family';

/** How long a pulse lasts, in seconds: `factor` times its capacitor, in farads, times the sum of its resistor and `plusOhms`. */
export interface PulseLaw {
  readonly factor: number;
  readonly plusOhms: number;
}

/** The pulse of a timer with a divider of three equal resistors: from nothing to two thirds of the supply. Source: NE555 data sheet, monostable operation. */
export const timerPulse: PulseLaw = { factor: Math.log(3), plusOhms: 0 };

/** The law of a one-shot's pulse in a family, from its data sheet. */
export function oneShotLaw({ lengths }: PulseTimer, family: FamilyId): PulseLaw {
  const { factor, plusOhms = 0 } = lengths[family] ?? Object.values(lengths)[0] ?? { factor: 0.7 };
  return { factor, plusOhms };
}

/** The family that a chip belongs to. */
export const familyOf = ({ part }: { readonly part: string }): FamilyId => readPartNumber(part)?.family ?? 'HC';
