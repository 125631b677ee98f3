import { bridgeIn, joinedFinding } from '../bridge';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** An output joined to supply or ground. */
export const outputOnRail: Rule = {
  id: 'output-on-rail',
  coveredBy: ['supply-shorted', 'chip-turned-round'],
  *check(c) {
    for (const net of c.nets.nets) {
      const { outputs, supply, ground } = c.feedsOf(net.index);
      if (!supply && !ground) continue;
      for (const pin of outputs) {
        const rail = supply ? '+5 V' : 'ground';
        yield joinedFinding('output-on-rail', bridgeIn(c, net.index), [{ kind: 'pin', pin }], {
          pin: spoken(pin),
          rail,
        });
      }
    }
  },
};
