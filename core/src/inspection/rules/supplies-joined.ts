import { finding, type Place } from '../../finding';
import type { Rule } from '../rule';

/** Two supplies on one net: the stronger drives current back into the other. */
export const suppliesJoined: Rule = {
  id: 'supplies-joined',
  *check(c) {
    const byNet = new Map<number, string[]>();
    for (const { seated } of c.of('supply')) {
      const net = c.netOf(`${seated.ref}.+`);
      if (net !== undefined) byNet.set(net, [...(byNet.get(net) ?? []), seated.ref]);
    }
    for (const refs of byNet.values()) {
      if (refs.length < 2) continue;
      const places = refs.map((ref): Place => ({ kind: 'part', ref }));
      yield finding('supplies-joined', places, { refs: refs.join(' and ') });
    }
  },
};
