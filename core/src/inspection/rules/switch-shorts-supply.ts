import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A switch that, closed, joins supply to ground. */
export const switchShortsSupply: Rule = {
  id: 'switch-shorts-supply',
  coveredBy: ['supply-shorted'],
  *check(c) {
    for (const { seated } of c.of('switch')) {
      const nets = ['1', '2'].flatMap((id) => c.netOf(`${seated.ref}.${id}`) ?? []);
      const feeds = nets.map((net) => c.feedsOf(net));
      if (feeds.some((f) => f.supply) && feeds.some((f) => f.ground))
        yield finding('switch-shorts-supply', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref });
    }
  },
};
