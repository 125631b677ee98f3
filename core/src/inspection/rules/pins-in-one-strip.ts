import { finding } from '../../finding';
import type { Rule } from '../rule';

/** Two pins of one part in one strip, so that the board shorts them: a chip on one side of the channel, say. */
export const pinsInOneStrip: Rule = {
  id: 'pins-in-one-strip',
  coveredBy: ['button-always-closed'],
  *check(c) {
    for (const { seated, type } of c.known) {
      const byStrip = new Map<string, string[]>();
      for (const { id } of type.pins) {
        const strip = c.stripOf(`${seated.ref}.${id}`);
        if (strip !== 'no hole') byStrip.set(strip, [...(byStrip.get(strip) ?? []), id]);
      }
      const shorted = [...byStrip.values()].filter((ids) => ids.length > 1);
      if (shorted.length === 0) continue;
      const pins = shorted.map((ids) => ids.join('-')).join(', ');
      yield finding('pins-in-one-strip', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref, pins });
    }
  },
};
