import { cutPin, pinOf } from '../../board';
import type { PartType } from '../../catalogue';
import { finding, type Place } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Clock inputs that a switch gives: its contacts bounce, and one movement counts several times. A clock module's output does not. */
export const clockFromSwitch: Rule = {
  id: 'clock-from-switch',
  *check(c) {
    const byNet = new Map<number, string[]>();
    for (const { seated, type } of c.of('chip'))
      for (const id of clocksOf(type)) {
        const net = c.netOf(pinOf(seated.ref, id));
        if (net !== undefined) byNet.set(net, [...(byNet.get(net) ?? []), pinOf(seated.ref, id)]);
      }
    for (const [net, pins] of byNet) {
      const contact = c.feedsOf(net).switches.find((pin) => c.kindOf(pin) !== 'clock');
      if (contact === undefined) continue;
      const places = pins.map((pin): Place => ({ kind: 'pin', pin }));
      const { ref } = cutPin(contact);
      yield finding('clock-from-switch', places, { ref, pins: pins.map(spoken).join(', ') });
    }
  },
};

/** The pins whose edges a chip counts or stores at. */
function clocksOf({ units }: PartType): Set<string> {
  return new Set(
    units.flatMap(({ inputs, behaviour }) =>
      behaviour.stored
        .filter((s) => s.edge !== 'while')
        .flatMap((s) => inputs[behaviour.inputs.indexOf(s.control)] ?? []),
    ),
  );
}
