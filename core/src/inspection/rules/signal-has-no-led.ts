import { isShower } from '../../catalogue';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** An output of the design that no LED is labelled with. */
export const signalHasNoLed: Rule = {
  id: 'signal-has-no-led',
  *check(c) {
    const shown = new Set(c.known.filter((k) => isShower(k.type)).map((k) => k.seated.signal));
    for (const { name } of c.packing?.outputs ?? [])
      if (!shown.has(name)) yield finding('signal-has-no-led', [{ kind: 'signal', name }], { name });
  },
};
