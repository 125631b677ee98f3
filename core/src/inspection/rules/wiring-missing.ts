import { finding } from '../../finding';
import { shownSignal } from '../../planning';
import { spoken } from '../context';
import { carriesSomething, mismatches } from '../match';
import type { Rule } from '../rule';

/** An LED or a pin that should carry a signal and carries nothing; open inputs of chips are said as floating. */
export const wiringMissing: Rule = {
  id: 'wiring-missing',
  coveredAtPlace: ['wiring-beside'],
  coveredBy: ['part-differs', 'chip-turned-round', 'lead-off-board', 'floating-input', 'led-reversed', 'rail-not-fed'],
  *check(c) {
    for (const { pin, wanted, source, net } of mismatches(c)) {
      if (carriesSomething(c, net) || c.lead(pin)?.type.role === 'input') continue;
      const facts = { pin: spoken(pin), wanted: shownSignal(wanted), source };
      yield finding('wiring-missing', [{ kind: 'pin', pin }], facts, `${pin} > ${source}`);
    }
  },
};
