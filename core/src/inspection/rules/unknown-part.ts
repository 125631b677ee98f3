import { typeOf } from '../../catalogue';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A part number that the catalogue does not have. */
export const unknownPart: Rule = {
  id: 'unknown-part',
  partsAlone: true,
  *check(c) {
    for (const seated of Object.values(c.board.parts)) {
      const { ref, part } = seated;
      if (!typeOf(seated)) yield finding('unknown-part', [{ kind: 'part', ref }], { ref, part });
    }
  },
};
