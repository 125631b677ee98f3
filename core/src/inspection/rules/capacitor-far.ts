import type { Hole } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';
import { CAPACITOR_REACH, capacitorPlaces, chipPlaces, columnsApart } from './no-capacitor';

/** How many columns away a capacitor still counts as meant for a chip. */
const MEANT = 14;

/** A chip without a capacitor near it, and one on its board that serves no other chip, too far off to help. */
export const capacitorFar: Rule = {
  id: 'capacitor-far',
  coveredBy: ['no-supply-source', 'rail-not-fed', 'rail-half-dead', 'supply-shorted', 'chip-turned-round'],
  *check(c) {
    const holes = capacitorPlaces(c);
    const chips = chipPlaces(c).flatMap(({ ref, hole }) => (hole ? [{ ref, pin: hole }] : []));
    const serves = (hole: Hole): boolean => chips.some(({ pin }) => columnsApart(pin, hole) <= CAPACITOR_REACH);
    const loose = holes.filter(({ hole }) => !serves(hole));
    for (const { ref, pin } of loose.length > 0 ? chips : []) {
      if (holes.some(({ hole }) => columnsApart(pin, hole) <= CAPACITOR_REACH)) continue;
      const [nearest] = loose
        .map((k) => ({ ref: k.ref, columns: columnsApart(pin, k.hole) }))
        .sort((a, b) => a.columns - b.columns);
      if (!nearest || nearest.columns > MEANT) continue;
      const facts = { ref, capacitor: nearest.ref, columns: nearest.columns, reach: CAPACITOR_REACH };
      yield finding('capacitor-far', [{ kind: 'part', ref }], facts);
    }
  },
};
