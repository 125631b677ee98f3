import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';
import { type Unclear, worstCaseOf } from '../worst-case';
import { weakPulls } from './pull-too-weak';

/** An output whose high or low is none to an input of another family: nothing else is on their net. */
export const levelsDoNotMeet: Rule = {
  id: 'levels-do-not-meet',
  *check(c) {
    for (const { pin, net, volts, low, high } of worstCaseOf(c).unclear) {
      const driver = mismatched(c, net, pin);
      if (driver === null) continue;
      const level = volts > (low + high) / 2 ? 'high' : 'low';
      yield finding('levels-do-not-meet', [{ kind: 'pin', pin }], {
        pin: spoken(driver),
        from: c.limitsAt(driver).title,
        to: spoken(pin),
        of: c.limitsAt(pin).title,
        gives: volts.toFixed(1),
        level,
        wants: level === 'high' ? `from ${high.toFixed(1)} V on` : `up to ${low.toFixed(1)} V`,
      });
    }
  },
};

/** An input whose volts, in some way in which the board may stand, lie between what it reads as low and as high. */
export const levelBetween: Rule = {
  id: 'level-between',
  *check(c) {
    const pulled = new Set(weakPulls(c).map(({ net }) => net));
    for (const one of worstCaseOf(c).unclear) {
      const { pin, net, when } = one;
      if (pulled.has(net) || mismatched(c, net, pin) !== null) continue;
      yield finding('level-between', [{ kind: 'pin', pin }], { pin: spoken(pin), when, ...shown(one) });
    }
  },
};

/** The output that alone drives a net of chip pins, when an input there is of another family; null otherwise. */
function mismatched(c: Context, net: number, input: string): string | null {
  const { outputs } = c.feedsOf(net);
  const [driver] = outputs;
  if (driver === undefined || outputs.length > 1 || c.pinsOn(net).some((p) => c.kindOf(p) !== 'chip')) return null;
  return c.limitsAt(driver).id === c.limitsAt(input).id ? null : driver;
}

function shown({ volts, low, high }: Unclear): { volts: string; low: string; high: string } {
  const text = (v: number): string => v.toFixed(2);
  return { volts: text(volts), low: text(low), high: text(high) };
}
