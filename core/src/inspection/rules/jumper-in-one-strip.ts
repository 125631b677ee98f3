import { parseHole, stripOf } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A jumper with both ends in one strip: it joins what the board joins already. */
export const jumperInOneStrip: Rule = {
  id: 'jumper-in-one-strip',
  *check(c) {
    for (const { id, from, to } of Object.values(c.board.jumpers)) {
      const [a, b] = [from, to].map((h) => {
        const hole = parseHole(h);
        return hole && stripOf(hole);
      });
      if (a && a === b) yield finding('jumper-in-one-strip', [{ kind: 'jumper', id }], { id, strip: a }, `pull ${id}`);
    }
  },
};
