import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A lead that finds no hole; one finding a part. */
export const leadOffBoard: Rule = {
  id: 'lead-off-board',
  partsAlone: true,
  *check(c) {
    for (const { seated, type, named } of c.known) {
      const off = type.pins.find(({ id }) => !c.lead(named(id))?.hole);
      if (off) yield finding('lead-off-board', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref, pin: off.id });
    }
  },
};
