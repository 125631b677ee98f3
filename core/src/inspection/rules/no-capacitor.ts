import type { Hole } from '../../board';
import { finding } from '../../finding';
import type { Context } from '../context';
import type { Rule } from '../rule';

/** How far from a chip's supply pin, in columns, a capacitor still helps. */
export const CAPACITOR_REACH = 5;

/** A chip with no capacitor between supply and ground near it. */
export const noCapacitor: Rule = {
  id: 'no-capacitor',
  coveredBy: ['no-supply-source', 'rail-not-fed', 'supply-shorted', 'chip-turned-round', 'capacitor-far'],
  *check(c) {
    const capacitors = capacitorPlaces(c);
    for (const { ref, hole } of chipPlaces(c))
      if (!hole || !capacitors.some((k) => columnsApart(k.hole, hole) <= CAPACITOR_REACH))
        yield finding('no-capacitor', [{ kind: 'part', ref }], { ref, reach: CAPACITOR_REACH });
  },
};

/** Capacitors between supply and ground, with the hole of their first lead. */
export function capacitorPlaces(c: Context): { ref: string; hole: Hole }[] {
  return c.of('capacitor').flatMap(({ seated: { ref }, named }) => {
    const hole = c.lead(named('1'))?.hole;
    const feeds = [named('1'), named('2')].flatMap((pin) => {
      const net = c.netOf(pin);
      return net === undefined ? [] : [c.feedsOf(net)];
    });
    return hole && feeds.some((f) => f.supply) && feeds.some((f) => f.ground) ? [{ ref, hole }] : [];
  });
}

/** Chips with the hole of their supply pin. */
export function chipPlaces(c: Context): { ref: string; hole: Hole | null | undefined }[] {
  return c.of('chip').map(({ seated: { ref }, leads }) => ({
    ref,
    hole: leads.find((l) => l.type.role === 'supply')?.hole,
  }));
}

/** Columns from one hole to another; endless between boards. */
export function columnsApart(a: Hole, b: Hole): number {
  return a.board === b.board ? Math.abs(a.column - b.column) : Number.POSITIVE_INFINITY;
}
