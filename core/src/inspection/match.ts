import { onceFor } from '../memo';
import { GROUND, SUPPLY } from '../planning';
import type { Context } from './context';

/** A pin that does not carry what the packing expects of it: the net it should be on and the one it is on. */
export interface Mismatch {
  readonly pin: string;
  readonly wanted: string;
  readonly source: string;
  readonly net: number | undefined;
}

/**
 * Holds the wiring to the packing, pin by pin: every pin must be on the net of its signal's source.
 * Pins of parts that are not seated, and signals whose source is not, are other rules' matter. Several rules ask for the same.
 */
export const mismatches: (c: Context) => readonly Mismatch[] = onceFor((c) =>
  [...c.expected].flatMap(([pin, wanted]) => mismatchAt(c, pin, wanted)),
);

function mismatchAt(c: Context, pin: string, wanted: string): Mismatch[] {
  const source = c.sourceOf(wanted);
  if (source === undefined || source === pin || !c.lead(pin)) return [];
  const net = c.netOf(pin);
  return isHome(c, net, wanted, source) ? [] : [{ pin, wanted, source, net }];
}

function isHome(c: Context, net: number | undefined, wanted: string, source: string): boolean {
  if (net === undefined) return false;
  if (wanted === SUPPLY) return c.feedsOf(net).supply;
  if (wanted === GROUND) return c.feedsOf(net).ground;
  return net === c.netOf(source);
}

/** Whether a net carries a level of its own, so that a pin on it carries something wrong rather than nothing. */
export function carriesSomething(c: Context, net: number | undefined): net is number {
  if (net === undefined) return false;
  return c.hasLevel(net) || c.feedsOf(net).switches.length > 0;
}
