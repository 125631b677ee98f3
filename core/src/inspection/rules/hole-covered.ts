import { coveredEnds } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** The end of a jumper, or the lead of a part, in a hole that another part's body lies over. */
export const holeCovered: Rule = {
  id: 'hole-covered',
  *check(c) {
    for (const { hole, by, ref } of coveredEnds(c.board))
      yield finding('hole-covered', [{ kind: 'hole', hole }], { hole, by, ref });
  },
};
