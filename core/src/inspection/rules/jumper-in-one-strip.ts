import { stripsOfEnds } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A jumper with both ends in one strip: it joins what the board joins already. */
export const jumperInOneStrip: Rule = {
  id: 'jumper-in-one-strip',
  *check(c) {
    for (const jumper of Object.values(c.board.jumpers)) {
      const [a, b] = stripsOfEnds(jumper);
      const { id } = jumper;
      if (a !== null && a === b)
        yield finding('jumper-in-one-strip', [{ kind: 'jumper', id }], { id, strip: a }, `pull ${id}`);
    }
  },
};
