import { finding } from '../../finding';
import { isStiff, ledsOf, oncePerPart } from '../led';
import type { Rule } from '../rule';

/** Both leads of an LED on nets that nothing limits the current of. */
export const ledNoResistor: Rule = {
  id: 'led-no-resistor',
  *check(c) {
    const burning = ledsOf(c).filter(({ anode, cathode }) => isStiff(c, anode) && isStiff(c, cathode));
    for (const { ref, name } of oncePerPart(burning))
      yield finding('led-no-resistor', [{ kind: 'part', ref }], { ref: name });
  },
};
