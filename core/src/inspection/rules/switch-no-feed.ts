import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';
import { isIdle } from './switch-floats';

/** A switch with no rail on either side. */
export const switchNoFeed: Rule = {
  id: 'switch-no-feed',
  coveredBy: ['rail-not-fed', 'rail-half-dead'],
  *check(c) {
    for (const { ref, name, contacts } of c.actuators()) {
      const pins = contacts.flatMap(({ a, b }) => [a, b]);
      if (pins.some((pin) => c.isFed(c.netOf(pin))) || (name !== ref && isIdle(c, pins))) continue;
      const [pin = ''] = pins;
      const rail = c.railOf('+');
      const fix = rail === undefined ? undefined : `${pin} > ${rail}`;
      yield finding('switch-no-feed', [{ kind: 'pin', pin }], { ref: name, pin: spoken(pin) }, fix);
    }
  },
};
