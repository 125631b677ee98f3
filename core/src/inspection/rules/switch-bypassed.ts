import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A switch with both sides in one net, so that it makes no difference. */
export const switchBypassed: Rule = {
  id: 'switch-bypassed',
  coveredBy: ['supply-shorted', 'button-always-closed'],
  *check(c) {
    for (const { ref, name, contacts } of c.levers()) {
      const bypassed = contacts.some(({ a, b }) => c.netOf(a) !== undefined && c.netOf(a) === c.netOf(b));
      if (bypassed) yield finding('switch-bypassed', [{ kind: 'part', ref }], { ref: name });
    }
  },
};
