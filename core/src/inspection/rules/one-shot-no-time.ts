import { type Finding, finding } from '../../finding';
import { pulseParts } from '../../simulation';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** A one-shot in use, or a timer wired as one, whose pulse has no length of its own: nothing charges its capacitor, or it has none. */
export const oneShotNoTime: Rule = {
  id: 'one-shot-no-time',
  coveredBy: ['chip-turned-round', 'chip-no-supply'],
  *check(c) {
    const parts = Object.values(c.board.parts);
    for (const known of c.of('chip')) {
      const { seated, type, named } = known;
      const pinNamed = (name: string): string => named(type.pins.find((p) => p.name === name)?.id ?? '');
      for (const { outputs, timers } of type.units)
        for (const { law } of timers) {
          const isUsed = outputs.some((id) => c.pinsOn(c.netOf(named(id)) ?? -1).length > 1);
          const { farads, siemens } = pulseParts(c.volts, parts, { ref: seated.ref, type }, law);
          if (!isUsed || (farads > 0 && siemens > 0)) continue;
          const lasts = farads === 0 ? 'lasts some 35 ns' : 'never ends';
          const lacks = farads > 0 ? 'resistor' : siemens > 0 ? 'capacitor' : 'resistor and no capacitor';
          yield said(pinNamed(law.resistor), { far: pinNamed(law.capacitor), lacks, lasts });
        }
      for (const { pulse } of type.chip?.dividers ?? []) {
        const at = pinNamed(pulse?.empties ?? '');
        const net = c.netOf(at);
        if (!pulse || net === undefined || c.netOf(pinNamed(pulse.ends)) !== net) continue;
        const has = timedOn(c, net);
        if (has.capacitor && has.resistor) continue;
        const lasts = has.resistor ? 'ends with its trigger' : 'never ends';
        const lacks = has.capacitor ? 'resistor' : has.resistor ? 'capacitor' : 'resistor and no capacitor';
        const ground = type.pins.find((p) => p.role === 'ground')?.id ?? '';
        yield said(at, { far: named(ground), lacks, lasts });
      }
    }
  },
};

/** Whether a capacitor hangs on a net, and a resistor that charges it. */
function timedOn(c: Context, net: number): { readonly capacitor: boolean; readonly resistor: boolean } {
  const capacitors = c.of('capacitor').flatMap(({ leads }) => leads.map(({ pin }) => c.netOf(pin)));
  return { capacitor: capacitors.includes(net), resistor: c.resistorsOn(net).some(({ to }) => c.feedsOf(to).supply) };
}

function said(
  at: string,
  { far, ...facts }: { readonly far: string; readonly lacks: string; readonly lasts: string },
): Finding {
  return finding('one-shot-no-time', [{ kind: 'pin', pin: at }], { pin: spoken(at), far: spoken(far), ...facts });
}
