import { stripsOfEnds } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A jumper between strips that other jumpers join already. It does no harm; it may have been meant for elsewhere. */
export const jumperRedundant: Rule = {
  id: 'jumper-redundant',
  coveredAtPlace: ['jumper-in-one-strip'],
  coveredBy: ['supply-shorted'],
  *check(c) {
    const up = new Map<string, string>();
    const root = (strip: string): string => {
      const next = up.get(strip);
      if (next === undefined || next === strip) return strip;
      const top = root(next);
      up.set(strip, top);
      return top;
    };
    for (const jumper of Object.values(c.board.jumpers)) {
      const { id, from, to } = jumper;
      const [a, b] = stripsOfEnds(jumper).map((strip) => strip && root(strip));
      if (!a || !b) continue;
      if (a === b) yield finding('jumper-redundant', [{ kind: 'jumper', id }], { id, from, to }, `pull ${id}`);
      up.set(a, b);
    }
  },
};
