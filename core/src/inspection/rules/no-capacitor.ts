import { holeXY } from '../../board';
import { finding } from '../../finding';
import type { Context, Known } from '../context';
import type { Rule } from '../rule';

/** How far from a chip's supply pin, in columns, a capacitor still helps. */
export const CAPACITOR_REACH = 5;

/** A chip with no capacitor between supply and ground near it. */
export const noCapacitor: Rule = {
  id: 'no-capacitor',
  coveredBy: ['no-supply-source', 'rail-not-fed', 'supply-shorted', 'chip-turned-round', 'capacitor-far'],
  *check(c) {
    const capacitors = c.of('capacitor').filter((k) => bridgesSupply(c, k));
    for (const chip of c.of('chip')) {
      const { ref } = chip.seated;
      if (!capacitors.some((k) => isNear(c, chip, k)))
        yield finding('no-capacitor', [{ kind: 'part', ref }], { ref, reach: CAPACITOR_REACH });
    }
  },
};

/** Whether a capacitor lies between supply and ground. */
export function bridgesSupply(c: Context, { seated }: Known): boolean {
  const feeds = ['1', '2'].flatMap((id) => {
    const net = c.netOf(`${seated.ref}.${id}`);
    return net === undefined ? [] : [c.feedsOf(net)];
  });
  return feeds.some((f) => f.supply) && feeds.some((f) => f.ground);
}

function isNear(c: Context, chip: Known, capacitor: Known): boolean {
  const at = c.lead(`${capacitor.seated.ref}.1`)?.hole;
  if (!at) return false;
  const pin = chip.type.pins.find((p) => p.role === 'supply');
  const hole = c.lead(`${chip.seated.ref}.${pin?.id}`)?.hole;
  return hole?.board === at.board && Math.abs(holeXY(hole).x - holeXY(at).x) <= CAPACITOR_REACH;
}
