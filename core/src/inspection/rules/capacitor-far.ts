import { type Hole, holeXY } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';
import { bridgesSupply, CAPACITOR_REACH } from './no-capacitor';

/** How many columns away a capacitor still counts as meant for a chip. */
const MEANT = 14;

/** A chip without a capacitor near it, and one on its board that serves no other chip, too far off to help. */
export const capacitorFar: Rule = {
  id: 'capacitor-far',
  coveredBy: ['no-supply-source', 'rail-not-fed', 'rail-half-dead', 'supply-shorted', 'chip-turned-round'],
  *check(c) {
    const holes = c
      .of('capacitor')
      .filter((k) => bridgesSupply(c, k))
      .flatMap((k) => {
        const hole = c.lead(`${k.seated.ref}.1`)?.hole;
        return hole ? [{ ref: k.seated.ref, hole }] : [];
      });
    const pins = c.of('chip').flatMap(({ seated, type }) => {
      const id = type.pins.find((p) => p.role === 'supply')?.id;
      const pin = c.lead(`${seated.ref}.${id}`)?.hole;
      return pin ? [{ seated, pin }] : [];
    });
    const columns = (a: Hole, b: Hole): number =>
      a.board === b.board ? Math.abs(holeXY(a).x - holeXY(b).x) : Number.POSITIVE_INFINITY;
    const serves = (hole: Hole): boolean => pins.some(({ pin }) => columns(pin, hole) <= CAPACITOR_REACH);
    const loose = holes.filter(({ hole }) => !serves(hole));
    for (const { seated, pin } of pins) {
      if (holes.some(({ hole }) => columns(pin, hole) <= CAPACITOR_REACH)) continue;
      const [nearest] = loose
        .map(({ ref, hole }) => ({ ref, columns: columns(pin, hole) }))
        .sort((a, b) => a.columns - b.columns);
      if (!nearest || nearest.columns > MEANT) continue;
      const facts = { ref: seated.ref, capacitor: nearest.ref, columns: nearest.columns, reach: CAPACITOR_REACH };
      yield finding('capacitor-far', [{ kind: 'part', ref: seated.ref }], facts);
    }
  },
};
