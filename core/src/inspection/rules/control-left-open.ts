import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';
import { isOpen } from './floating-input';

/** Pins that say whether a chip works at all, by their names on data sheets: clear, preset, load, enable, inhibit, reset. */
export const CONTROL = /^\d?(CLR|PRE|LD|R0\d|R9\d|OE|EN|CE|INH|SRCLR|MR)\d?[A-Z]?n?$/;

/** Clear, preset, load, enable or reset left open: the chip works when it likes. */
export const controlLeftOpen: Rule = {
  id: 'control-left-open',
  coveredBy: ['chip-turned-round'],
  coveredAtPlace: ['wiring-beside'],
  *check(c) {
    for (const known of c.of('chip'))
      for (const { pin, type } of known.leads) {
        const { id, name, role } = type;
        if (role !== 'input' || !CONTROL.test(name) || !c.isInputInUse(known, id) || !isOpen(c, pin)) continue;
        const wanted = c.expected.get(pin);
        const source = wanted === undefined ? undefined : c.sourceOf(wanted);
        const rail = c.railOf(name.endsWith('n') ? '+' : '-');
        const to = source ?? rail;
        const facts = { pin: spoken(pin), name, to: to ?? 'the level at which it is idle' };
        yield finding(
          'control-left-open',
          [{ kind: 'pin', pin }],
          facts,
          to === undefined ? undefined : `${pin} > ${to}`,
        );
      }
  },
};
