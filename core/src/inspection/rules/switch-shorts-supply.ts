import { bridgeIn, joinedFinding } from '../bridge';
import type { Rule } from '../rule';

/** A switch that, closed, joins supply to ground. */
export const switchShortsSupply: Rule = {
  id: 'switch-shorts-supply',
  coveredBy: ['supply-shorted'],
  *check(c) {
    for (const { ref, name, contacts } of c.actuators()) {
      const shorts = contacts.find(({ a, b }) => {
        const feeds = [a, b].flatMap((pin) => c.netOf(pin) ?? []).map((net) => c.feedsOf(net));
        return feeds.some((f) => f.supply) && feeds.some((f) => f.ground);
      });
      if (!shorts) continue;
      const bridge = bridgeIn(c, c.netOf(shorts.a)) ?? bridgeIn(c, c.netOf(shorts.b));
      yield joinedFinding('switch-shorts-supply', bridge, [{ kind: 'part', ref }], { ref: name });
    }
  },
};
