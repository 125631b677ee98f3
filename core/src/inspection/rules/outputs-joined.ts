import { sharesWire } from '../../catalogue';
import type { Place } from '../../finding';
import { bridgeIn, joinedFinding } from '../bridge';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Two or more outputs in one net, unless all of them are open-collector or all three-state. */
export const outputsJoined: Rule = {
  id: 'outputs-joined',
  *check(c) {
    for (const net of c.nets.nets) {
      const { outputs } = c.feedsOf(net.index);
      if (outputs.length < 2 || sharesWire(outputs.map((pin) => c.driveOf(pin)))) continue;
      const places = outputs.map((pin): Place => ({ kind: 'pin', pin }));
      yield joinedFinding('outputs-joined', bridgeIn(c, net.index, outputs), places, {
        pins: outputs.map(spoken).join(' and '),
      });
    }
  },
};
