import { finding } from '../../finding';
import { ledsOf, oncePerPart, reach } from '../led';
import type { Rule } from '../rule';

/** An LED driven at its anode whose cathode leads to no ground; sinking outputs count as ground. */
export const ledNoReturn: Rule = {
  id: 'led-no-return',
  coveredBy: [
    'led-shorted',
    'led-reversed',
    'led-cathode-on-supply',
    'rail-not-fed',
    'rail-half-dead',
    'display-polarity',
  ],
  *check(c) {
    const dead = ledsOf(c).filter(({ anode, cathode }) => {
      const [from, to] = [reach(c, anode), reach(c, cathode)];
      // Of a part with several lamps some may serve nothing.
      const used = cathode !== undefined && c.pinsOn(cathode).length > 1;
      return from.source && !to.ground && !(from.supply && to.source) && (used || !from.supply);
    });
    for (const { ref, kind } of oncePerPart(dead))
      yield finding('led-no-return', [kind === 'led' ? { kind: 'pin', pin: `${ref}.K` } : { kind: 'part', ref }], {
        ref,
      });
  },
};
