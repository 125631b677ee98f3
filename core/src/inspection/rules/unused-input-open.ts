import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Inputs of unused gates that are left open, in families whose inputs must not be. */
export const unusedInputOpen: Rule = {
  id: 'unused-input-open',
  *check(c) {
    for (const known of c.of('chip')) {
      for (const { pin, type } of known.leads) {
        if (type.role !== 'input' || c.isInputInUse(known, type.id)) continue;
        const net = c.netOf(pin);
        const tied = net !== undefined && (c.hasLevel(net) || c.feedsOf(net).switches.length > 0);
        if (tied || c.isOnRail(net)) continue;
        const family = c.limitsAt(pin);
        // A TTL input that is open reads high and rests there.
        if (family.openInput === 'high') continue;
        const rail = c.railOf('-');
        const fix = rail === undefined ? undefined : `${pin} > ${rail}`;
        yield finding('unused-input-open', [{ kind: 'pin', pin }], { pin: spoken(pin), family: family.id }, fix);
      }
    }
  },
};
