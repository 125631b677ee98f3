import { leds } from '../../electrical';
import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import { type LedNets, ledsOf, seriesOhms } from '../led';
import type { Rule } from '../rule';
import { type LampCurrent, worstCaseOf } from '../worst-case';

/** An output that gives an LED more than its levels are guaranteed at, though less than it may carry at all. */
export const ledCurrent: Rule = {
  id: 'led-current',
  coveredBy: ['led-no-resistor', 'led-resistor-bridged', 'led-reversed', 'led-over-maximum'],
  *check(c) {
    for (const { lamp, current } of oneOfEach(c)) {
      const [output] = current.outputs;
      if (!output) continue;
      const { technology, outputMa } = c.limitsAt(output.pin);
      const most = outputMa[output.level];
      // A TTL output gives little when it is high, and the LED is dim: that is no harm to it.
      if ((technology === 'TTL' && output.level === 'high') || Math.min(current.ma, output.ma) <= most) continue;
      const facts = { ref: lamp.name, pin: spoken(output.pin), ma: current.ma.toFixed(1), most };
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
        { what: lamp.colour === 'sound' ? 'a buzzer' : 'an LED', most: leds[lamp.colour].mostMa },
        ...current.outputs.flatMap(({ pin, ma }) => {
          const most = c.limitsAt(pin).absoluteOutputMa;
          return most === null || ma <= most ? [] : [{ what: `the output ${spoken(pin)}`, most }];
        }),
      ];
      const { what, most } = bears.reduce((a, b) => (b.most < a.most ? b : a));
      if (current.ma <= most) continue;
      const facts = { ref: lamp.name, ma: current.ma.toFixed(0), ohms: seriesOhms(c, lamp) ?? 0, what, most };
      yield finding('led-over-maximum', [{ kind: 'part', ref: lamp.ref }], facts);
    }
  },
};

/** An output past its absolute maximum, whatever takes the current. */
export const outputOverMaximum: Rule = {
  id: 'output-over-maximum',
  coveredAtPlace: ['output-on-rail', 'outputs-joined'],
  *check(c) {
    const { outputs, lamps } = worstCaseOf(c);
    for (const { pin, ma } of outputs.values()) {
      const most = c.limitsAt(pin).absoluteOutputMa;
      if (most === null || ma <= most) continue;
      // What a lamp takes of it is told of the lamp.
      if ([...lamps.values()].some((lamp) => lamp.ma > most && lamp.outputs.some((o) => o.pin === pin))) continue;
      yield finding('output-over-maximum', [{ kind: 'pin', pin }], { pin: spoken(pin), ma: ma.toFixed(0), most });
    }
  },
};

/** Of each part the lamp with the most current. */
function oneOfEach(c: Context): { lamp: LedNets; current: LampCurrent }[] {
  const most = new Map<string, { lamp: LedNets; current: LampCurrent }>();
  for (const lamp of ledsOf(c)) {
    const current = worstCaseOf(c).lamps.get(lamp.name);
    if (current && current.ma > (most.get(lamp.ref)?.current.ma ?? 0)) most.set(lamp.ref, { lamp, current });
  }
  return [...most.values()];
}
