import { finding } from '../../finding';
import { spoken } from '../context';
import { ledsOf } from '../led';
import type { Rule } from '../rule';

/** Volts over a red LED that is lit. */
const LED_V = 1.8;
const SUPPLY_V = 5;

/** An output that gives an LED more than its levels are guaranteed at, or than it may carry at all. */
export const ledCurrent: Rule = {
  id: 'led-current',
  coveredBy: ['led-no-resistor', 'led-reversed'],
  *check(c) {
    for (const { ref, anode, cathode } of ledsOf(c)) {
      const series = [anode, cathode].flatMap((net) => (net === undefined ? [] : resistorsOn(c, net)));
      const ohms = Math.min(...series.map((r) => c.board.parts[r]?.value ?? 1000));
      const nets = anode === undefined ? [] : [anode, ...c.throughResistors(anode)];
      const [pin] = nets.flatMap((net) => c.feedsOf(net).outputs);
      if (pin === undefined || !Number.isFinite(ohms)) continue;
      const family = c.familyAt(pin);
      const ma = (1000 * (SUPPLY_V - LED_V)) / ohms;
      const most = family.outputMa.high;
      // A TTL output gives little when it is high, and the LED is dim: that is no harm to it.
      if (family.technology === 'TTL' || ma <= most) continue;
      const facts = { ref, pin: spoken(pin), ma: ma.toFixed(1), most, absolute: family.absoluteOutputMa ?? most };
      yield finding('led-current', [{ kind: 'part', ref }], facts);
    }
  },
};

function resistorsOn(c: Parameters<Rule['check']>[0], net: number): string[] {
  return c.pinsOn(net).flatMap((pin) => (c.kindOf(pin) === 'resistor' ? [pin.slice(0, pin.indexOf('.'))] : []));
}
