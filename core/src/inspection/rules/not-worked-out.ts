import type { PartKind } from '../../catalogue';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** Kinds whose doing between their leads is not worked out, by the simulation or by any rule. */
const unknown: readonly PartKind[] = ['diode', 'transistor'];

/** A part that power up leaves out: what hangs on it is not judged. */
export const notWorkedOut: Rule = {
  id: 'not-worked-out',
  *check(c) {
    for (const kind of unknown)
      for (const { seated, type } of c.of(kind))
        yield finding('not-worked-out', [{ kind: 'part', ref: seated.ref }], { ref: seated.ref, title: type.title });
  },
};
