import { isRailStrip, printHole, railNamed } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';
import { holeIn, otherHalfFed } from './rail-not-fed';

/** Half of a rail that is broken in the middle, with something plugged in, while only the other half is fed. */
export const railHalfDead: Rule = {
  id: 'rail-half-dead',
  coveredBy: ['no-supply-source'],
  *check(c) {
    for (const net of c.nets.nets) {
      const feeds = c.feedsOf(net.index);
      if (feeds.supply || feeds.ground) continue;
      for (const rail of net.strips.filter(isRailStrip)) {
        const other = otherHalfFed(c, rail);
        if (other === null) continue;
        const hole = holeIn(c, rail) ?? printHole(railNamed(rail) ?? { board: 'b1', column: 3, row: 'top+' });
        yield finding('rail-half-dead', [{ kind: 'hole', hole }], { rail, other }, `${rail} > ${other}`);
      }
    }
  },
};
