import { E24, type PulseLaw, valuesOf } from '../catalogue';
import { astableLaw, rhythmOf, type TimerValues } from '../electrical';
import { remembered } from '../memo';

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

/**
 * Resistors of a timer that runs by itself, in ohms: to supply, and between that and the capacitor. The first is small beside the second, so that the timer is
 * high little longer than low. Source: NE555 data sheet, 1 kΩ and more.
 */
const TO_SUPPLY = valuesOf(E24, { least: 1000, most: 10_000 });
const TO_CAPACITOR = valuesOf(E24, { least: 10_000, most: 100_000 });
const MOST_SHARE = 1 / 5;
/** What is nearer to the wanted rate than this is as good: parts of a bench are not as exact. */
const NEAR_ENOUGH = 0.005;

/** The parts with which a timer runs at a rate, in hertz: of those within half a percent, the smallest capacitor and then the smallest resistor to supply. */
export const runningValues: (hertz: number) => TimerValues = remembered((hertz: number) => {
  let best: TimerValues = { ohms: [], farads: 0 };
  let least = Number.POSITIVE_INFINITY;
  for (const nanofarads of CAPACITORS)
    for (const above of TO_SUPPLY)
      for (const below of TO_CAPACITOR) {
        if (above > MOST_SHARE * below) continue;
        const values = { ohms: [above, below], farads: nanofarads * 1e-9 };
        const { highS, lowS } = rhythmOf(astableLaw, values);
        const error = Math.max(NEAR_ENOUGH, Math.abs((highS + (lowS ?? 0)) * hertz - 1));
        if (error < least - 1e-9) [least, best] = [error, values];
      }
  return best;
});
