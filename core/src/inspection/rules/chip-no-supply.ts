import { finding } from '../../finding';
import { carries, pinsOfRole } from '../power';
import type { Rule } from '../rule';

/** A chip whose supply pin no supply reaches. Rails that are not fed are said by themselves. */
export const chipNoSupply: Rule = {
  id: 'chip-no-supply',
  coveredBy: ['chip-turned-round', 'supply-shorted', 'no-supply-source', 'rail-not-fed', 'rail-half-dead'],
  *check(c) {
    for (const { pin, ref, id } of pinsOfRole(c, 'supply')) {
      if (carries(c, pin, 'supply')) continue;
      const rail = c.railOf('+');
      const fix = rail === undefined ? undefined : `${pin} > ${rail}`;
      yield finding('chip-no-supply', [{ kind: 'pin', pin }], { ref, pin: id, strip: c.stripOf(pin) }, fix);
    }
  },
};
