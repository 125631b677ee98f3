import { finding } from '../../finding';
import { ledsOf, reach } from '../led';
import type { Rule } from '../rule';

/** An LED driven at its anode whose cathode leads to no ground. */
export const ledNoReturn: Rule = {
  id: 'led-no-return',
  coveredBy: ['led-reversed', 'rail-not-fed'],
  *check(c) {
    for (const { ref, anode, cathode } of ledsOf(c))
      if (reach(c, anode).source && !reach(c, cathode).ground)
        yield finding('led-no-return', [{ kind: 'pin', pin: `${ref}.K` }], { ref });
  },
};
