import { finding } from '../../finding';
import { type Actuator, type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** A switch whose signal side, when it is open, is given a level by nothing. */
export const switchFloats: Rule = {
  id: 'switch-floats',
  coveredBy: ['rail-not-fed', 'rail-half-dead', 'button-always-closed'],
  *check(c) {
    for (const actuator of c.actuators())
      for (const pin of actuator.contacts.some((contact) => !contact.on)
        ? openThrow(c, actuator)
        : floating(c, actuator))
        yield finding('switch-floats', [{ kind: 'pin', pin }], { ref: actuator.name, pin: spoken(pin) });
  },
};

/** Sides of a single contact that lead to inputs and that nothing else gives a level. */
function floating(c: Context, { ref, name, contacts }: Actuator): string[] {
  return contacts.flatMap(({ a, b }) => {
    // Of a part with several actuators some may serve nothing.
    if (name !== ref && isIdle(c, [a, b])) return [];
    return [a, b].filter((pin, i) => {
      const net = c.netOf(pin);
      if (c.isFed(net)) return false;
      if (i === 0 && !c.pinsOn(net ?? -1).some((p) => c.kindOf(p) === 'chip')) return false;
      return net === undefined || !c.hasLevel(net);
    });
  });
}

/** The common side of a change-over of which one throw leads nowhere, unless something else gives it a level. */
function openThrow(c: Context, { contacts }: Actuator): string[] {
  const common = contacts[0]?.a ?? '';
  const net = c.netOf(common);
  const feeds = contacts.every(({ b }) => {
    const other = c.netOf(b);
    return other !== undefined && c.hasLevel(other);
  });
  return feeds || (net !== undefined && c.hasLevel(net)) ? [] : [common];
}

/** Whether nothing else is on the nets of a contact. */
export function isIdle(c: Context, pins: readonly string[]): boolean {
  return pins.every((pin) => c.pinsOn(c.netOf(pin) ?? -1).length < 2);
}
