import type { Board } from '../board';
import { E12, E24, valuesOf } from '../catalogue';
import {
  astableLaw,
  type FoundTimer,
  type Rhythm,
  rhythmOf,
  type TimerLaw,
  type TimerValues,
  tolerances,
} from '../electrical';
import { elementAt } from '../element-at';
import type { LooseValues } from '../packing';

/** The same where every part is as far below its value as it may be, and as far above. */
export function spreadOf(timer: FoundTimer, board: Board): readonly [least: Rhythm, most: Rhythm] {
  const partAt = (ref: string): number => tolerances[board.parts[ref]?.part ?? ''] ?? tolerances.resistor;
  const at = (sign: 1 | -1): Rhythm =>
    rhythmOf(timer.law, {
      ohms: timer.values.ohms.map((ohms, i) => ohms * (1 + sign * partAt(timer.resistors[i] ?? ''))),
      farads: timer.values.farads * (1 + sign * partAt(timer.capacitor)),
    });
  return [at(-1), at(1)];
}

/** How long a timer is high and low while all its switched capacitors lie beside its own; null where it has none. */
export function rhythmSwitched({ law, values, switched }: FoundTimer): Rhythm | null {
  if (switched.length === 0) return null;
  return rhythmOf(law, { ...values, farads: switched.reduce((sum, { farads }) => sum + farads, values.farads) });
}

/** What is wanted of a timer: so many times a second, for such a share of the time high; or a pulse of so many seconds. */
export type Wanted = { readonly hertz: number; readonly highShare: number | null } | { readonly pulseS: number };

/** Parts that come near to what is wanted. `error` is how far off they are, as a share. */
export interface Suggestion {
  readonly values: TimerValues;
  readonly rhythm: Rhythm;
  readonly error: number;
  /** Whether all its parts are in the drawer. */
  readonly isInDrawer: boolean;
}

/** Resistors that timers are used with, in ohms. Source: NE555 data sheet, 1 kΩ to some megohms. */
const OHMS = { least: 1000, most: 2e6 } as const;
/** Capacitors that timers are built with, in farads. */
export const FARADS = { least: 1e-9, most: 1e-3 } as const;
const MOST_SUGGESTED = 3;

/**
 * Parts of the series E24 (capacitors of E12) that come nearest to what is wanted, the best first, each with another capacitor; the capacitor that is there
 * comes first where it does nearly as well. What can be had of the drawer alone comes before all others. Empty where nothing comes within a third.
 */
export function suggested(found: FoundTimer, wanted: Wanted, drawer: LooseValues = EMPTY_DRAWER): Suggestion[] {
  const capacitors = valuesOf(E12, FARADS).map((f) => Number(f.toPrecision(3)));
  const shop = { ohms: OHM_VALUES, farads: [...new Set([found.values.farads, ...capacitors])] };
  const own = ranked(found, wanted, drawer).map((s) => ({ ...s, isInDrawer: true }));
  const seen = new Set(own.map(({ values }) => JSON.stringify(values)));
  const others = ranked(found, wanted, shop).filter(({ values }) => !seen.has(JSON.stringify(values)));
  return [...own, ...others].slice(0, MOST_SUGGESTED);
}

const EMPTY_DRAWER: LooseValues = { ohms: [], farads: [] };

/** What can be made of some parts, the best first. */
function ranked(found: FoundTimer, wanted: Wanted, parts: LooseValues): Suggestion[] {
  const own = found.values.farads;
  const all = parts.farads.flatMap((farads) => bestWith(found, wanted, farads, parts.ohms) ?? []);
  const near = all.filter(({ error }) => error < 1 / 3);
  // Few sizes of capacitor lie in a drawer: those of the first half of a decade that are most common come before the others.
  const rank = ({ values, error }: Suggestion): number =>
    error - (values.farads === own ? 0.02 : isCommon(values.farads) ? 0.005 : 0);
  return near.sort((a, b) => rank(a) - rank(b));
}

/** Capacitors that every drawer has: 1, 2.2 and 4.7 of each decade (E3). */
const isCommon = (farads: number): boolean => {
  const digits = Number(farads.toExponential(1).slice(0, 3));
  return [1, 2.2, 4.7].includes(digits);
};

const OHM_VALUES = [...new Set(valuesOf(E24, OHMS).map((ohms) => Number(ohms.toPrecision(3))))].sort((a, b) => a - b);

/** The two of some values, in order, beside an ideal one. */
function beside(ideal: number, values: readonly number[]): readonly number[] {
  const at = values.findIndex((ohms) => ohms >= ideal);
  if (at < 0) return values.slice(-1);
  return values.slice(Math.max(0, at - 1), at + 1);
}

function bestWith(found: FoundTimer, wanted: Wanted, farads: number, series: readonly number[]): Suggestion | null {
  const { law, kind } = found;
  const candidates = kind === 'astable' ? astable(wanted, farads, series) : singles(law, wanted, farads, series);
  let best: Suggestion | null = null;
  for (const ohms of candidates) {
    const values = { ohms, farads };
    const rhythm = rhythmOf(law, values);
    const error = errorOf(rhythm, wanted);
    if (!best || error < best.error) best = { values, rhythm, error, isInDrawer: false };
  }
  return best;
}

/** Resistors for an astable timer: the one to the capacitor from the time that it is low, the other from what is left. */
function astable(wanted: Wanted, farads: number, series: readonly number[]): (readonly number[])[] {
  if (!('hertz' in wanted)) return [];
  const { hertz, highShare } = wanted;
  const total = 1 / (hertz * elementAt(astableLaw.high, 0) * farads);
  // A wanted share may take any of them; without one both resistors are about alike.
  const below = highShare === null ? beside((total - OHMS.least) / 2, series) : series;
  return below.flatMap((b) => beside(total - 2 * b, series).map((a) => [a, b]));
}

function singles(law: TimerLaw, wanted: Wanted, farads: number, series: readonly number[]): (readonly number[])[] {
  const { highS, lowS } = rhythmOf({ ...law, plusOhms: 0 }, { ohms: [1], farads });
  const seconds = 'hertz' in wanted ? 1 / wanted.hertz : wanted.pulseS;
  return beside(seconds / (highS + (lowS ?? 0)) - law.plusOhms, series).map((ohms) => [ohms]);
}

/** How far off a rhythm is: of its rate or length, and half as much of its share where one is wanted. */
function errorOf({ highS, lowS }: Rhythm, wanted: Wanted): number {
  if (!('hertz' in wanted)) return Math.abs(highS / wanted.pulseS - 1);
  const period = highS + (lowS ?? 0);
  const rate = Math.abs(period * wanted.hertz - 1);
  return wanted.highShare === null ? rate : rate + Math.abs(highS / period - wanted.highShare) / 2;
}

/** The volts of a timer's capacitor: seconds and volts, from the beginning of a time that it is high, over two periods or one pulse. */
export function chargeCurve({ kind, law, values, supplyV }: FoundTimer): { readonly s: number; readonly v: number }[] {
  const { highS, lowS } = rhythmOf(law, values);
  // Times and volts belong together: a capacitor that is charged from `from` to `to` towards the supply in `highS`.
  const rate = law.high.reduce((sum, factor) => Math.max(sum, factor), 0);
  const [low, high] =
    kind === 'pulse'
      ? [0, supplyV * (1 - Math.exp(-rate))]
      : kind === 'astable'
        ? [supplyV / 3, (2 * supplyV) / 3]
        : switchingOf(law, supplyV);
  const points: { s: number; v: number }[] = [];
  for (let period = 0; period < (lowS === null ? 1 : 2); period++) {
    const start = period * (highS + (lowS ?? 0));
    for (let i = 0; i <= STEPS; i++) {
      const share = i / STEPS;
      points.push({
        s: start + share * highS,
        v: supplyV - (supplyV - low) * ((supplyV - high) / (supplyV - low)) ** share,
      });
    }
    for (let i = 1; lowS !== null && i <= STEPS; i++) {
      const share = i / STEPS;
      points.push({ s: start + highS + share * lowS, v: high * (low / high) ** share });
    }
  }
  return points;
}

/** Points of a curve from one turn to the next. */
const STEPS = 40;

/** Between which volts a Schmitt input switches, from how long it takes up and down. */
function switchingOf({ high, low }: TimerLaw, supplyV: number): readonly [number, number] {
  // high = ln((V - f) / (V - r)), low = ln(r / f).
  const [up, down] = [Math.exp(high[0] ?? 0), Math.exp(low[0] ?? 0)];
  const falls = (supplyV * (up - 1)) / (up * down - 1);
  return [falls, falls * down];
}
