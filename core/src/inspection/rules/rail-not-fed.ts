import { isRailStrip, markOf, otherHalf, parseHole, stripOf } from '../../board';
import { finding } from '../../finding';
import type { Context } from '../context';
import type { Rule } from '../rule';

/** A hole of a rail that something is plugged into. */
export function holeIn(c: Context, rail: string): string | undefined {
  return [...c.occupancy.keys()].find((h) => {
    const hole = parseHole(h);
    return hole !== null && stripOf(hole) === rail;
  });
}

/** The other half of a rail that is broken in the middle, when a supply reaches that one; otherwise null. */
export function otherHalfFed(c: Context, rail: string): string | null {
  const other = otherHalf(rail);
  const net = other === null ? undefined : c.nets.ofStrip.get(other);
  if (net === undefined) return null;
  const feeds = c.feedsOf(net);
  return (markOf(rail) === '+' ? feeds.supply : feeds.ground) ? other : null;
}

/** A rail that something is plugged into, but that no supply reaches. Said once for rails that are linked. */
export const railNotFed: Rule = {
  id: 'rail-not-fed',
  coveredBy: ['no-supply-source'],
  *check(c) {
    if (c.of('supply').length === 0) return;
    for (const net of c.nets.nets) {
      const rail = net.strips.find(isRailStrip);
      const feeds = c.feedsOf(net.index);
      if (rail === undefined || feeds.supply || feeds.ground) continue;
      if (otherHalfFed(c, rail) !== null) continue;
      const hole = holeIn(c, rail);
      const source = c.railOf(markOf(rail) ?? '-');
      const fix = source === undefined ? undefined : `${rail} > ${source}`;
      yield finding('rail-not-fed', hole === undefined ? [] : [{ kind: 'hole', hole }], { rail }, fix);
    }
  },
};
