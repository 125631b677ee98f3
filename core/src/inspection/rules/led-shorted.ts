import { bridgeIn, joinedFinding } from '../bridge';
import { ledsOf, oncePerPart } from '../led';
import type { Rule } from '../rule';

/** A lamp with both leads in one net. */
export const ledShorted: Rule = {
  id: 'led-shorted',
  coveredBy: ['supply-shorted', 'pins-in-one-strip'],
  *check(c) {
    const shorted = ledsOf(c).filter(({ anode, cathode }) => anode !== undefined && anode === cathode);
    for (const { ref, name, anode, pins } of oncePerPart(shorted))
      yield joinedFinding('led-shorted', bridgeIn(c, anode, pins), [{ kind: 'part', ref }], { ref: name });
  },
};
