import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';
import { isAt, isStifflyAt, transistorsOf } from '../transistor';

/** A base that something stiff switches on while its emitter is at the rail: the two meet across a diode. */
export const baseNoResistor: Rule = {
  id: 'base-no-resistor',
  *check(c) {
    for (const t of transistorsOf(c)) {
      const { ref, kind, base, emitter, home, far } = t;
      if (kind === 'nmos' || base.net === undefined || !isAt(c, emitter.net, home)) continue;
      if (!isStifflyAt(c, base.net, far)) continue;
      const facts = { ref, pin: spoken(base.pin), rail: home };
      yield finding('base-no-resistor', [{ kind: 'pin', pin: base.pin }], facts);
    }
  },
};
