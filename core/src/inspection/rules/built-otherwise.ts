import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A board that does without the chips of its packing: what is not looked at is said. */
export const builtOtherwise: Rule = {
  id: 'built-otherwise',
  *check(c) {
    if (c.isOtherwise) yield finding('built-otherwise', [], {});
  },
};
