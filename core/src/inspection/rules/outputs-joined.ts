import { finding, type Place } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Two or more outputs in one net. */
export const outputsJoined: Rule = {
  id: 'outputs-joined',
  *check(c) {
    for (const net of c.nets.nets) {
      const { outputs } = c.feedsOf(net.index);
      if (outputs.length < 2) continue;
      const places = outputs.map((pin): Place => ({ kind: 'pin', pin }));
      yield finding('outputs-joined', places, { pins: outputs.map(spoken).join(' and ') });
    }
  },
};
