import { finding } from '../../finding';
import { hasCathodeOnSupply, ledsOf, oncePerPart } from '../led';
import type { Rule } from '../rule';

/** A lamp whose far end leads to supply where it should lead to ground: no current flows, however it is turned. */
export const ledCathodeOnSupply: Rule = {
  id: 'led-cathode-on-supply',
  coveredBy: ['led-shorted', 'display-polarity'],
  *check(c) {
    for (const { ref, name } of oncePerPart(ledsOf(c).filter((lamp) => hasCathodeOnSupply(c, lamp))))
      yield finding('led-cathode-on-supply', [{ kind: 'part', ref }], { ref: name });
  },
};
