import { labelledPlaces } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** An output of the design that no LED is labelled with. */
export const signalHasNoLed: Rule = {
  id: 'signal-has-no-led',
  *check(c) {
    const shown = new Set(labelledPlaces(c.board, 'show').map((p) => p.signal));
    for (const { name } of c.packing?.outputs ?? [])
      if (!shown.has(name)) yield finding('signal-has-no-led', [{ kind: 'signal', name }], { name });
  },
};
