import { finding } from '../../finding';
import { carries, pinsOfRole } from '../power';
import type { Rule } from '../rule';

/** A chip whose ground pin no ground reaches. Rails that are not fed are said by themselves. */
export const chipNoGround: Rule = {
  id: 'chip-no-ground',
  coveredBy: ['chip-turned-round', 'supply-shorted', 'no-supply-source', 'rail-not-fed', 'rail-half-dead'],
  *check(c) {
    for (const { pin, ref, id } of pinsOfRole(c, 'ground')) {
      if (carries(c, pin, 'ground')) continue;
      const rail = c.railOf('-');
      const fix = rail === undefined ? undefined : `${pin} > ${rail}`;
      yield finding('chip-no-ground', [{ kind: 'pin', pin }], { ref, pin: id, strip: c.stripOf(pin) }, fix);
    }
  },
};
