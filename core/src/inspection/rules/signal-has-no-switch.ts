import { isGiver } from '../../catalogue';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** An input of the design that no switch is labelled with. */
export const signalHasNoSwitch: Rule = {
  id: 'signal-has-no-switch',
  *check(c) {
    const given = new Set(c.known.filter((k) => isGiver(k.type)).map((k) => k.seated.signal));
    for (const name of c.packing?.inputs ?? [])
      if (!given.has(name)) yield finding('signal-has-no-switch', [{ kind: 'signal', name }], { name });
  },
};
