import { finding } from '../../finding';
import { isReversed, ledsOf } from '../led';
import type { Rule } from '../rule';

/** An LED with its cathode towards the signal and its anode towards ground. */
export const ledReversed: Rule = {
  id: 'led-reversed',
  *check(c) {
    for (const led of ledsOf(c))
      if (isReversed(c, led))
        yield finding('led-reversed', [{ kind: 'part', ref: led.ref }], { ref: led.ref }, `turn ${led.ref}`);
  },
};
