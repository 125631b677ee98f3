import { labelledPlaces } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** An input of the design that no switch is labelled with. */
export const signalHasNoSwitch: Rule = {
  id: 'signal-has-no-switch',
  *check(c) {
    const given = new Set(labelledPlaces(c.board, 'give').map((p) => p.signal));
    for (const name of c.packing?.inputs ?? [])
      if (!given.has(name)) yield finding('signal-has-no-switch', [{ kind: 'signal', name }], { name });
  },
};
