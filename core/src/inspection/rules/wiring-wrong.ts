import { finding } from '../../finding';
import { shownSignal } from '../../planning';
import { spoken } from '../context';
import { carriesSomething, mismatches } from '../match';
import type { Rule } from '../rule';

/** A pin that carries another signal than the packing says. */
export const wiringWrong: Rule = {
  id: 'wiring-wrong',
  coveredBy: ['part-differs', 'led-reversed', 'chip-turned-round', 'lead-off-board'],
  *check(c) {
    for (const { pin, wanted, source, net } of mismatches(c)) {
      if (!carriesSomething(c, net)) continue;
      yield finding('wiring-wrong', [{ kind: 'pin', pin }], {
        pin: spoken(pin),
        wanted: shownSignal(wanted),
        carried: c.shown(net),
        strip: c.stripOf(pin),
        source,
      });
    }
  },
};
