import type { Span } from '../finding';

/** Colours that a sheet may ask of a lamp. */
export const lampColours = ['red', 'yellow', 'green', 'blue', 'white'] as const;
/** The colour of an LED. */
export type LedColour = (typeof lampColours)[number];

/**
 * What signals come from or are shown on, when a board is planned: lamps of a colour, bars of eight lamps, a seven-segment display (its segments a to g and
 * perhaps the point, in this order; `low`: lit when low), a buzzer, a switch, a push-button, or a clock module or a timer (555) of so many hertz.
 */
export type Fitting =
  | { readonly kind: 'lamp'; readonly colour: LedColour }
  | { readonly kind: 'bar' }
  | { readonly kind: 'display'; readonly low: boolean }
  | { readonly kind: 'buzzer' }
  | { readonly kind: 'switch' }
  | { readonly kind: 'button' }
  | { readonly kind: RatedKind; readonly hertz: number };

/** What runs by itself at a rate. */
export type RatedKind = 'clock' | 'timer';

/** A fitting as it stands at the end of a line that declares signals: it holds for all of them. */
export interface WrittenFitting {
  readonly fitting: Fitting;
  readonly at?: Span;
}

/** Signals, wire by wire, with what they come from or are shown on. */
export interface FittedSignals {
  readonly fitting: Fitting;
  readonly signals: readonly string[];
}

/** The words that follow `from` behind an `in` line, and `on` behind an `out` line. */
export const fittingWords = {
  in: ['switch', 'button', 'clock', 'timer'],
  out: ['lamp', 'bar', 'display', 'buzzer'],
} as const;

/** The word before a fitting. */
export const fittingWord = { in: 'from', out: 'on' } as const;

/** A used part whose pulses last so many seconds each, in the order of its one-shots. */
export interface WantedPulses {
  readonly ref: string;
  readonly seconds: readonly number[];
}

/** Units that times are given in, in seconds. */
export const timeUnits: Readonly<Record<string, number>> = { __proto__: null as never, us: 1e-6, ms: 1e-3, s: 1 };
/** Pulses that a one-shot can be given with parts of a bench, in seconds. */
export const PULSE_S = { least: 1e-6, most: 10 } as const;

/** A time as it is written: in the largest unit of which it is a whole number. */
export function printSeconds(seconds: number): string {
  const us = Math.round(seconds * 1e6);
  const [unit, scale] = us % 1e6 === 0 ? ['s', 1e6] : us % 1000 === 0 ? ['ms', 1000] : ['us', 1];
  return `${us / scale} ${unit}`;
}

/** Signals that a display takes: seven segments, and perhaps the point. */
export const DISPLAY_SIGNALS = [7, 8] as const;

/** Units that the rate of a clock may be given in, in hertz. */
export const rateUnits: Readonly<Record<string, number>> = { __proto__: null as never, Hz: 1, kHz: 1e3, MHz: 1e6 };
/** The fastest clock module, and the fastest timer, that can be asked for, in hertz. Source: NE555 data sheet, over 100 kHz in astable operation. */
export const MOST_HERTZ: Readonly<Record<RatedKind, number>> = { clock: 10e6, timer: 100e3 };

/** A rate as it is written: in the largest unit of which it is a whole number. */
export function printHertz(hertz: number): string {
  const [unit, scale] = Object.entries(rateUnits).findLast(([, s]) => hertz % s === 0) ?? ['Hz', 1];
  return `${hertz / scale} ${unit}`;
}

/** A fitting as it is written behind signals. */
export function printFitting(fitting: Fitting): string {
  const { kind } = fitting;
  if (kind === 'lamp') return `on lamp ${fitting.colour}`;
  if (kind === 'display') return fitting.low ? 'on display low' : 'on display';
  if (kind === 'bar' || kind === 'buzzer') return `on ${kind}`;
  return kind === 'clock' || kind === 'timer' ? `from ${kind} ${printHertz(fitting.hertz)}` : `from ${kind}`;
}
