import { finding } from '../../finding';
import { GROUND, SUPPLY, shownSignal } from '../../planning';
import { type Actuator, type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** A switch that gives its signal the same level whether it is on or off. */
export const switchOneLevel: Rule = {
  id: 'switch-one-level',
  coveredBy: ['supply-shorted', 'switch-shorts-supply', 'rail-not-fed', 'rail-half-dead', 'button-always-closed'],
  *check(c) {
    for (const actuator of c.actuators())
      for (const { pin, on, off } of levelsOf(c, actuator)) {
        if (on !== off) continue;
        const facts = { ref: actuator.name, pin: spoken(pin), rail: shownSignal(on) };
        yield finding('switch-one-level', [{ kind: 'part', ref: actuator.ref }], facts);
      }
  },
};

/** A labelled switch that gives low when it is on and high when it is off. */
export const switchInverted: Rule = {
  id: 'switch-inverted',
  coveredBy: ['supply-shorted', 'switch-shorts-supply'],
  *check(c) {
    for (const actuator of c.actuators())
      for (const { on, off } of levelsOf(c, actuator))
        if (on === GROUND && off === SUPPLY && c.isLabelled(actuator.name))
          yield finding('switch-inverted', [{ kind: 'part', ref: actuator.ref }], { ref: actuator.name });
  },
};

/** The rail that a switch puts its signal at when on and when off, where both are known; nothing of what serves nothing. */
function levelsOf(c: Context, { contacts }: Actuator): { pin: string; on: string; off: string }[] {
  const [closing, opening] = [contacts.find((k) => k.on), contacts.find((k) => !k.on)];
  if (!closing) return [];
  if (opening) {
    const [on, off] = [railAt(c, closing.b), railAt(c, opening.b)];
    return on && off ? [{ pin: closing.a, on, off }] : [];
  }
  return contacts.flatMap(({ a, b }) => {
    const [feed, pin] = railAt(c, a) ? [a, b] : [b, a];
    const net = c.netOf(pin);
    const on = railAt(c, feed);
    if (!on || net === undefined || c.isFed(net) || c.feedsOf(net).outputs.length > 0) return [];
    const pulls = new Set(c.throughResistors(net).flatMap((to) => railOf(c, to) ?? []));
    const [off] = pulls;
    return off !== undefined && pulls.size === 1 ? [{ pin, on, off }] : [];
  });
}

const railAt = (c: Context, pin: string): string | null => railOf(c, c.netOf(pin));

function railOf(c: Context, net: number | undefined): string | null {
  if (net === undefined) return null;
  const { supply, ground } = c.feedsOf(net);
  return supply === ground ? null : supply ? SUPPLY : GROUND;
}
