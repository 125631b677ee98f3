import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** A switch with no rail on either side. */
export const switchNoFeed: Rule = {
  id: 'switch-no-feed',
  coveredBy: ['rail-not-fed'],
  *check(c) {
    for (const { seated } of c.of('switch')) {
      const pins = ['1', '2'].map((id) => `${seated.ref}.${id}`);
      const fed = pins.some((pin) => {
        const net = c.netOf(pin);
        return net !== undefined && (c.feedsOf(net).supply || c.feedsOf(net).ground);
      });
      if (fed) continue;
      const [pin = ''] = pins;
      const rail = c.railOf('+');
      const fix = rail === undefined ? undefined : `${pin} > ${rail}`;
      yield finding('switch-no-feed', [{ kind: 'pin', pin }], { ref: seated.ref, pin: spoken(pin) }, fix);
    }
  },
};
