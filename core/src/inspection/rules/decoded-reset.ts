import { cutPin } from '../../board';
import { isClearOrPreset } from '../../catalogue';
import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import type { Rule } from '../rule';

/** Gates between a chip's outputs and its own reset that are looked through. */
const DEPTH = 3;

/** A reset that the chip's own outputs give, straight or through gates: it ends as soon as the first flip-flop has fallen. */
export const decodedReset: Rule = {
  id: 'decoded-reset',
  *check(c) {
    for (const { seated, leads } of c.of('chip')) {
      const said = new Set<string>();
      for (const { pin, type } of leads) {
        const { name, role } = type;
        if (role !== 'input' || !isClearOrPreset(name)) continue;
        const net = c.netOf(pin);
        if (net === undefined || c.isFed(net)) continue;
        const through = straight(c, net, seated.ref) ?? gatesBack(c, net, seated.ref, DEPTH);
        if (through === null || said.has(through)) continue;
        said.add(through);
        yield finding('decoded-reset', [{ kind: 'pin', pin }], { ref: seated.ref, pin: spoken(pin), name, through });
      }
    }
  },
};

/** An output of the chip itself that is on a net; null when there is none. */
function straight(c: Context, net: number, ref: string): string | null {
  const own = c.feedsOf(net).outputs.find((o) => o.startsWith(`${ref}.`));
  return own === undefined ? null : `a wire from ${spoken(own)}`;
}

/** The output through which a net comes from a chip's own outputs, by way of at least one gate; null when it does not. */
function gatesBack(c: Context, net: number, ref: string, depth: number): string | null {
  for (const output of c.feedsOf(net).outputs) {
    const { ref: from, id } = cutPin(output);
    const unit = c.known.find((k) => k.seated.ref === from)?.type.units.find((u) => u.outputs.includes(id));
    if (from === ref || !unit?.gate || depth === 0) continue;
    for (const input of unit.inputs) {
      const at = c.netOf(`${from}.${input}`);
      if (at === undefined) continue;
      if (c.feedsOf(at).outputs.some((o) => o.startsWith(`${ref}.`)) || gatesBack(c, at, ref, depth - 1) !== null)
        return spoken(output);
    }
  }
  return null;
}
