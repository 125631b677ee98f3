import { leds } from '../../electrical';
import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import { type LampCurrent, type LedNets, lampCurrent, ledsOf } from '../led';
import type { Rule } from '../rule';

/** An output that gives an LED more than its levels are guaranteed at, though less than it may carry at all. */
export const ledCurrent: Rule = {
  id: 'led-current',
  coveredBy: ['led-no-resistor', 'led-resistor-bridged', 'led-reversed', 'led-over-maximum'],
  *check(c) {
    for (const { lamp, current } of oneOfEach(c)) {
      const [pin] = current.outputs;
      if (pin === undefined) continue;
      const family = c.familyAt(pin);
      const most = family.outputMa.high;
      // A TTL output gives little when it is high, and the LED is dim: that is no harm to it.
      if (family.technology === 'TTL' || current.ma <= most) continue;
      const facts = { ref: lamp.name, pin: spoken(pin), ma: current.ma.toFixed(1), most };
      yield finding('led-current', [{ kind: 'part', ref: lamp.ref }], facts);
    }
  },
};

/** A lamp, or the output that feeds it, past its absolute maximum: it is destroyed. */
export const ledOverMaximum: Rule = {
  id: 'led-over-maximum',
  coveredBy: ['led-no-resistor', 'led-resistor-bridged', 'led-reversed'],
  *check(c) {
    for (const { lamp, current } of oneOfEach(c)) {
      const bears = [
        { what: 'an LED', most: leds[lamp.colour].mostMa },
        ...current.outputs.flatMap((pin) => {
          const most = c.familyAt(pin).absoluteOutputMa;
          return most === null ? [] : [{ what: `the output ${spoken(pin)}`, most }];
        }),
      ];
      const least = bears.reduce((a, b) => (b.most < a.most ? b : a));
      if (current.ma <= least.most) continue;
      const { what, most } = least;
      const facts = { ref: lamp.name, ma: current.ma.toFixed(0), ohms: current.ohms, what, most };
      yield finding('led-over-maximum', [{ kind: 'part', ref: lamp.ref }], facts);
    }
  },
};

/** Of each part the lamp with the most current. */
function oneOfEach(c: Context): { lamp: LedNets; current: LampCurrent }[] {
  const most = new Map<string, { lamp: LedNets; current: LampCurrent }>();
  for (const lamp of ledsOf(c)) {
    const current = lampCurrent(c, lamp);
    if (current && current.ma > (most.get(lamp.ref)?.current.ma ?? 0)) most.set(lamp.ref, { lamp, current });
  }
  return [...most.values()];
}
