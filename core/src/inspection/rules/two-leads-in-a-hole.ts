import { doubledHoles } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A hole that the file says holds more than one lead. */
export const twoLeadsInAHole: Rule = {
  id: 'two-leads-in-a-hole',
  *check(c) {
    for (const [hole, by] of doubledHoles(c.board))
      yield finding('two-leads-in-a-hole', [{ kind: 'hole', hole }], { hole, by: by.join(' and ') });
  },
};
