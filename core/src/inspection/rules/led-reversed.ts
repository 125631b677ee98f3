import { finding } from '../../finding';
import { isReversed, ledsOf, oncePerPart } from '../led';
import type { Rule } from '../rule';

/** An LED with its cathode towards the signal and its anode towards ground. */
export const ledReversed: Rule = {
  id: 'led-reversed',
  coveredBy: ['led-shorted', 'display-polarity'],
  *check(c) {
    const reversed = ledsOf(c).filter((led) => isReversed(c, led));
    for (const { ref, name } of oncePerPart(reversed))
      yield finding('led-reversed', [{ kind: 'part', ref }], { ref: name }, `rotate ${ref}`);
  },
};
