import { finding } from '../../finding';
import { isStiff, ledsOf } from '../led';
import type { Rule } from '../rule';

/** Both leads of an LED on nets that nothing limits the current of. */
export const ledNoResistor: Rule = {
  id: 'led-no-resistor',
  *check(c) {
    for (const { ref, anode, cathode } of ledsOf(c))
      if (isStiff(c, anode) && isStiff(c, cathode)) yield finding('led-no-resistor', [{ kind: 'part', ref }], { ref });
  },
};
