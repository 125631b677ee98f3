import { finding } from '../../finding';
import type { Rule } from '../rule';

/** Supply on a chip's ground pin and ground on its supply pin. */
export const chipTurnedRound: Rule = {
  id: 'chip-turned-round',
  *check(c) {
    for (const { seated, type, named } of c.of('chip')) {
      const supply = type.pins.find((p) => p.role === 'supply')?.id ?? '';
      const ground = type.pins.find((p) => p.role === 'ground')?.id ?? '';
      const onSupply = c.netOf(named(supply));
      const onGround = c.netOf(named(ground));
      if (onSupply === undefined || onGround === undefined) continue;
      if (!c.feedsOf(onSupply).ground || !c.feedsOf(onGround).supply) continue;
      const places = [{ kind: 'part', ref: seated.ref }] as const;
      yield finding('chip-turned-round', places, { ref: seated.ref, supply, ground }, `rotate ${seated.ref}`);
    }
  },
};
