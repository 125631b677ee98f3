import { isRail, parseHole } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A rail that something is plugged into, but that no supply reaches. Said once for rails that are linked. */
export const railNotFed: Rule = {
  id: 'rail-not-fed',
  coveredBy: ['no-supply-source'],
  *check(c) {
    if (c.of('supply').length === 0) return;
    for (const net of c.nets.nets) {
      const rail = net.strips.find((s) => s.endsWith('+') || s.endsWith('-'));
      const feeds = c.feedsOf(net.index);
      if (rail === undefined || feeds.supply || feeds.ground) continue;
      const hole = [...c.occupancy.keys()].find((h) => h.startsWith(rail) && isRail(parseHole(h)?.row ?? 'a'));
      const source = c.railOf(rail.endsWith('+') ? '+' : '-');
      const fix = source === undefined ? undefined : `${rail} > ${source}`;
      yield finding('rail-not-fed', hole === undefined ? [] : [{ kind: 'hole', hole }], { rail }, fix);
    }
  },
};
