import { finding, type Place } from '../../finding';
import { shownSignal } from '../../planning';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** Inputs of gates in use that nothing gives a level; those joined to each other are said together. */
export const floatingInput: Rule = {
  id: 'floating-input',
  coveredAtPlace: ['wiring-beside', 'control-left-open'],
  coveredBy: ['chip-turned-round'],
  *check(c) {
    const byNet = new Map<number | string, string[]>();
    for (const known of c.of('chip')) {
      for (const { pin, type } of known.leads) {
        if (type.role !== 'input' || !isOpen(c, pin) || !c.isInputInUse(known, type.id)) continue;
        const net = c.netOf(pin) ?? pin;
        byNet.set(net, [...(byNet.get(net) ?? []), pin]);
      }
    }
    for (const pins of byNet.values()) yield said(c, pins);
  },
};

/** Whether nothing reaches a pin; a net with a switch on it is the switch's matter. */
export function isOpen(c: Context, pin: string): boolean {
  const net = c.netOf(pin);
  if (net === undefined) return true;
  return !c.isOnRail(net) && !c.hasLevel(net) && c.feedsOf(net).switches.length === 0;
}

function said(c: Context, pins: readonly string[]) {
  const [first = ''] = pins;
  const wanted = c.expected.get(first);
  const source = wanted === undefined ? undefined : c.sourceOf(wanted);
  const facts = {
    pins: `${pins.map(spoken).join(', ')} ${pins.length > 1 ? 'are' : 'is'}`,
    wanted: wanted === undefined ? '' : ` for ${shownSignal(wanted)}`,
    family: c.limitsAt(first).id,
    source: source ?? 'the signal it should carry',
  };
  const places = pins.map((pin): Place => ({ kind: 'pin', pin }));
  return finding('floating-input', places, facts, source === undefined ? undefined : `${first} > ${source}`);
}
