import { finding } from '../../finding';
import type { Rule } from '../rule';

/** Two pins of one part in one strip, so that the board shorts them: a chip on one side of the channel, say. */
export const pinsInOneStrip: Rule = {
  id: 'pins-in-one-strip',
  partsAlone: true,
  coveredBy: ['button-always-closed'],
  *check(c) {
    for (const { seated, leads } of c.known) {
      if (new Set(leads.map((lead) => lead.strip ?? lead.pin)).size === leads.length) continue;
      const byStrip = new Map<string, string[]>();
      for (const { strip, type } of leads)
        if (strip !== null) byStrip.set(strip, [...(byStrip.get(strip) ?? []), type.id]);
      const shorted = [...byStrip.values()].filter((ids) => ids.length > 1);
      if (shorted.length === 0) continue;
      const pins = shorted.map((ids) => ids.join('-')).join(', ');
      yield finding('pins-in-one-strip', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref, pins });
    }
  },
};
