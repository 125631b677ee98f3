import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';
import { transistorsOf } from '../transistor';
import { isOpen } from './floating-input';

/** The gate of a MOSFET that nothing reaches; one with a switch on it is the switch's matter. */
export const gateLeftOpen: Rule = {
  id: 'gate-left-open',
  *check(c) {
    for (const { ref, kind, base } of transistorsOf(c)) {
      if (kind !== 'nmos' || !isOpen(c, base.pin)) continue;
      yield finding('gate-left-open', [{ kind: 'pin', pin: base.pin }], { ref, pin: spoken(base.pin) });
    }
  },
};
