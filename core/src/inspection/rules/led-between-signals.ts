import { bridgeIn, joinedFinding } from '../bridge';
import { ledsOf, oncePerPart, reach } from '../led';
import type { Rule } from '../rule';

/** A labelled lamp whose cathode carries a signal too, so that it does not show its own alone. */
export const ledBetweenSignals: Rule = {
  id: 'led-between-signals',
  coveredBy: ['led-shorted', 'led-resistor-bridged', 'led-no-resistor', 'display-polarity', 'signals-joined'],
  *check(c) {
    const between = ledsOf(c).filter(({ name, anode, cathode }) => {
      if (cathode === undefined || c.isFed(cathode) || !c.isLabelled(name)) return false;
      const { outputs, switches } = c.feedsOf(cathode);
      return outputs.length + switches.length > 0 && reach(c, anode).signal;
    });
    for (const { ref, name, cathode = -1 } of oncePerPart(between))
      yield joinedFinding('led-between-signals', bridgeIn(c, cathode), [{ kind: 'part', ref }], {
        ref: name,
        signal: c.shown(cathode),
      });
  },
};
