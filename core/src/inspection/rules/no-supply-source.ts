import { finding } from '../../finding';
import type { Rule } from '../rule';

/** Parts are seated but nothing powers them. */
export const noSupplySource: Rule = {
  id: 'no-supply-source',
  *check(c) {
    if (c.of('chip').length > 0 && c.of('supply').length === 0) yield finding('no-supply-source', [], {});
  },
};
