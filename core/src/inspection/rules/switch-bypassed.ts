import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A switch with both sides in one net, so that it makes no difference. */
export const switchBypassed: Rule = {
  id: 'switch-bypassed',
  coveredBy: ['supply-shorted'],
  *check(c) {
    for (const { seated } of c.of('switch')) {
      const net = c.netOf(`${seated.ref}.1`);
      if (net !== undefined && net === c.netOf(`${seated.ref}.2`))
        yield finding('switch-bypassed', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref });
    }
  },
};
