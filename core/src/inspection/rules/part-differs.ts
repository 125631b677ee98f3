import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A package seated as another part than the packing says. */
export const partDiffers: Rule = {
  id: 'part-differs',
  *check(c) {
    for (const { ref, part: wanted } of c.packing?.packages ?? []) {
      const found = c.board.parts[ref]?.part;
      if (found !== undefined && found !== wanted)
        yield finding('part-differs', [{ kind: 'part', ref }], { ref, wanted, found });
    }
  },
};
