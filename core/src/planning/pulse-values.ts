import { E24, type PulseLaw, valuesOf } from '../catalogue';

/** Resistor and capacitor of a one-shot: ohms, and nanofarads as parts give their values. */
export interface PulseValues {
  readonly ohms: number;
  readonly nanofarads: number;
}

/** Resistors that every one-shot takes, in ohms. Source: data sheets SN74121 (2 kΩ to 40 kΩ), SN74LS123 and SN74HC123 (5 kΩ and more). */
const RESISTORS = valuesOf(E24, { least: 5000, most: 40_000 });
/** Capacitors that every drawer has, in nanofarads: 1, 2.2 and 4.7 of each decade from 100 pF to 1000 µF. */
const CAPACITORS = valuesOf([1, 2.2, 4.7], { least: 0.1, most: 1e6 });

/** The parts that come nearest to a pulse of so many seconds; of equals the smaller capacitor. */
export function pulseValues(seconds: number, { factor, plusOhms }: PulseLaw): PulseValues {
  let best: PulseValues = { ohms: 0, nanofarads: 0 };
  let least = Number.POSITIVE_INFINITY;
  for (const nanofarads of CAPACITORS)
    for (const ohms of RESISTORS) {
      const error = Math.abs((factor * nanofarads * 1e-9 * (ohms + plusOhms)) / seconds - 1);
      if (error < least - 1e-9) [least, best] = [error, { ohms, nanofarads }];
    }
  return best;
}
