import { finding } from '../../finding';
import { type Context, type Known, spoken } from '../context';
import type { Rule } from '../rule';

/** The output of a gate that the design does not use, its inputs tied or open, joined to something all the same. */
export const idleOutputWired: Rule = {
  id: 'idle-output-wired',
  coveredBy: ['chip-no-supply', 'chip-no-ground', 'chip-turned-round', 'outputs-joined', 'output-on-rail'],
  coveredAtPlace: ['outputs-joined', 'output-on-rail'],
  *check(c) {
    if (!c.packing) return;
    for (const known of c.of('chip'))
      for (const { inputs, outputs } of known.type.units) {
        const pin = outputs.map(known.named).find((o) => isJoined(c, o));
        if (pin === undefined || outputs.some((o) => c.expected.has(known.named(o)))) continue;
        if (inputs.length === 0 || !inputs.every((id) => isIdle(c, known, id))) continue;
        yield finding('idle-output-wired', [{ kind: 'pin', pin }], { pin: spoken(pin), strip: c.stripOf(pin) });
      }
  },
};

/** Whether a pin is joined to another pin. */
function isJoined(c: Context, pin: string): boolean {
  const net = c.netOf(pin);
  return net !== undefined && c.pinsOn(net).length > 1;
}

/** Whether an input has no signal: it is at a rail, or nothing else is on its net but other inputs. */
function isIdle(c: Context, { named }: Known, id: string): boolean {
  const net = c.netOf(named(id));
  return net === undefined || c.isFed(net) || (!c.hasLevel(net) && c.feedsOf(net).switches.length === 0);
}
