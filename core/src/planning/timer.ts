import { pinOf } from '../board';
import { type TimerPins, typeOf } from '../catalogue';
import { GROUND, SUPPLY } from './expectation';

/** The part that is seated for a timer that runs by itself. */
export const TIMER = 'NE555';
/** The first letter of its references, as of clock modules: a package of the packing never has such a name. */
export const TIMER_PREFIX = 'X';

/** The pins of a seated timer by what they do (`X1.6` for `ends`); null for any other part. */
export function timerPinsOf(part: { readonly ref: string; readonly part: string }): TimerPins | null {
  const type = typeOf(part);
  const [names, ...others] = type?.chip?.dividers?.flatMap(({ pulse }) => pulse ?? []) ?? [];
  if (!type || !names || others.length > 0) return null;
  const pin = (name: string): string => pinOf(part.ref, type.pins.find((p) => p.name === name)?.id ?? '');
  const { begins, ends, clears, output, empties } = names;
  return { begins: pin(begins), ends: pin(ends), clears: pin(clears), output: pin(output), empties: pin(empties) };
}

/**
 * What the pins of a timer that runs by itself are joined to, beside its output: the reset to supply, both inputs to the capacitor, whose net is named after the
 * pin that ends the charging, and the discharge to a net between the two resistors.
 */
export function timerNets(part: { readonly ref: string; readonly part: string }): ReadonlyMap<string, string> {
  const pins = timerPinsOf(part);
  if (!pins) return new Map();
  const { begins, ends, clears, empties } = pins;
  return new Map([
    [ends, `~${ends}`],
    [begins, `~${ends}`],
    [empties, `~${empties}`],
    [clears, SUPPLY],
  ]);
}

/** Where the leads of a timer's parts go: of the resistor to supply, of that to the capacitor, and of the capacitor. */
export function timerLeads({
  ends,
  empties,
}: TimerPins): Readonly<Record<'toSupply' | 'toCapacitor' | 'capacitor', readonly [string, string]>> {
  return {
    toSupply: [SUPPLY, `~${empties}`],
    toCapacitor: [`~${empties}`, `~${ends}`],
    capacitor: [`~${ends}`, GROUND],
  };
}
