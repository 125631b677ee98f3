import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** A switch whose signal side, when it is open, is given a level by nothing. */
export const switchFloats: Rule = {
  id: 'switch-floats',
  coveredBy: ['rail-not-fed'],
  *check(c) {
    for (const { seated } of c.of('switch')) {
      for (const id of ['1', '2']) {
        const pin = `${seated.ref}.${id}`;
        const net = c.netOf(pin);
        const isFeed = net !== undefined && (c.feedsOf(net).supply || c.feedsOf(net).ground);
        if (isFeed || (id === '1' && !c.pinsOn(net ?? -1).some((p) => c.kindOf(p) === 'chip'))) continue;
        if (net === undefined || !c.hasLevel(net))
          yield finding('switch-floats', [{ kind: 'pin', pin }], { ref: seated.ref, pin: spoken(pin) });
      }
    }
  },
};
