import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';
import { worstCaseOf } from '../worst-case';
import { isOpen } from './floating-input';

/** An input that analogue switches alone give a level, and that nothing holds while they are open. */
export const releasedByAnalogueSwitches: Rule = {
  id: 'released-by-analogue-switches',
  *check(c) {
    for (const { pin } of worstCaseOf(c).released) {
      if (isOpen(c, pin)) continue;
      yield finding('released-by-analogue-switches', [{ kind: 'pin', pin }], {
        pin: spoken(pin),
        family: c.limitsAt(pin).id,
      });
    }
  },
};
