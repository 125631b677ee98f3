import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A switch that, closed, joins supply to ground. */
export const switchShortsSupply: Rule = {
  id: 'switch-shorts-supply',
  coveredBy: ['supply-shorted'],
  *check(c) {
    for (const { ref, name, contacts } of c.levers()) {
      const shorts = contacts.some(({ a, b }) => {
        const feeds = [a, b].flatMap((pin) => c.netOf(pin) ?? []).map((net) => c.feedsOf(net));
        return feeds.some((f) => f.supply) && feeds.some((f) => f.ground);
      });
      if (shorts) yield finding('switch-shorts-supply', [{ kind: 'part', ref }], { ref: name });
    }
  },
};
