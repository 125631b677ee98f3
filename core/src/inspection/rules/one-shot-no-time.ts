import { pinOf } from '../../board';
import { finding } from '../../finding';
import { pulseParts } from '../../simulation';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** A one-shot in use whose pulse has no length of its own: nothing charges its capacitor, or it has none. */
export const oneShotNoTime: Rule = {
  id: 'one-shot-no-time',
  coveredBy: ['chip-turned-round', 'chip-no-supply'],
  *check(c) {
    const parts = Object.values(c.board.parts);
    for (const { seated, type } of c.of('chip'))
      for (const { outputs, timers } of type.units)
        for (const { law } of timers) {
          const isUsed = outputs.some((id) => c.pinsOn(c.netOf(pinOf(seated.ref, id)) ?? -1).length > 1);
          const { farads, siemens } = pulseParts(c.volts, parts, { ref: seated.ref, type }, law);
          if (!isUsed || (farads > 0 && siemens > 0)) continue;
          const pinNamed = (name: string): string =>
            pinOf(seated.ref, type.pins.find((p) => p.name === name)?.id ?? '');
          const [at, far] = [pinNamed(law.resistor), pinNamed(law.capacitor)];
          const lasts = farads === 0 ? 'lasts some 35 ns' : 'never ends';
          const lacks = farads > 0 ? 'resistor' : siemens > 0 ? 'capacitor' : 'resistor and no capacitor';
          const facts = { pin: spoken(at), far: spoken(far), lacks, lasts };
          yield finding('one-shot-no-time', [{ kind: 'pin', pin: at }], facts);
        }
  },
};
