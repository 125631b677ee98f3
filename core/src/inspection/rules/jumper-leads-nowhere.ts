import { parseHole, stripOf } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A jumper with an end in a strip that holds nothing else: it joins nothing to anything. A rail may be fed before it is used. */
export const jumperLeadsNowhere: Rule = {
  id: 'jumper-leads-nowhere',
  coveredAtPlace: ['wiring-beside'],
  *check(c) {
    const held = new Map<string, number>();
    const add = (hole: string, n: number): void => {
      const at = parseHole(hole);
      if (at) held.set(stripOf(at), (held.get(stripOf(at)) ?? 0) + n);
    };
    for (const [hole, by] of c.occupancy) add(hole, by.length);
    for (const { id, from, to } of Object.values(c.board.jumpers)) {
      const bare = [from, to].find((h) => {
        const at = parseHole(h);
        return at !== null && at.row.length === 1 && (held.get(stripOf(at)) ?? 0) < 2;
      });
      if (bare !== undefined)
        yield finding('jumper-leads-nowhere', [{ kind: 'jumper', id }], { id, hole: bare }, `pull ${id}`);
    }
  },
};
