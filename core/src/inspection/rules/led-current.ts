import { finding } from '../../finding';
import { spoken } from '../context';
import { lampMa, ledsOf } from '../led';
import type { Rule } from '../rule';

/** An output that gives an LED more than its levels are guaranteed at, or than it may carry at all. */
export const ledCurrent: Rule = {
  id: 'led-current',
  coveredBy: ['led-no-resistor', 'led-reversed'],
  *check(c) {
    const said = new Set<string>();
    for (const lamp of ledsOf(c)) {
      const { ref, name, anode } = lamp;
      const ma = lampMa(c, lamp);
      const nets = anode === undefined ? [] : [anode, ...c.throughResistors(anode)];
      const [pin] = nets.flatMap((net) => c.feedsOf(net).outputs);
      if (pin === undefined || ma === null || said.has(ref)) continue;
      const family = c.familyAt(pin);
      const most = family.outputMa.high;
      // A TTL output gives little when it is high, and the LED is dim: that is no harm to it.
      if (family.technology === 'TTL' || ma <= most) continue;
      said.add(ref);
      const facts = { ref: name, pin: spoken(pin), ma: ma.toFixed(1), most, absolute: family.absoluteOutputMa ?? most };
      yield finding('led-current', [{ kind: 'part', ref }], facts);
    }
  },
};
