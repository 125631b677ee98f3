import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A package of the packing that is not seated. */
export const partMissing: Rule = {
  id: 'part-missing',
  *check(c) {
    for (const { ref, part } of c.packing?.packages ?? [])
      if (!c.board.parts[ref]) yield finding('part-missing', [{ kind: 'part', ref }], { ref, part });
  },
};
