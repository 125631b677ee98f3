import { bridgeIn, joinedFinding } from '../bridge';
import type { Rule } from '../rule';

/** A switch with both sides in one net, so that it makes no difference. */
export const switchBypassed: Rule = {
  id: 'switch-bypassed',
  coveredBy: ['supply-shorted', 'button-always-closed'],
  *check(c) {
    for (const { ref, name, contacts } of c.actuators()) {
      const bypassed = contacts.find(({ a, b }) => c.netOf(a) !== undefined && c.netOf(a) === c.netOf(b));
      if (!bypassed) continue;
      const { a, b } = bypassed;
      yield joinedFinding('switch-bypassed', bridgeIn(c, c.netOf(a), [a, b]), [{ kind: 'part', ref }], { ref: name });
    }
  },
};
