import { cutPin, pinOf } from '../../board';
import { readPartNumber } from '../../catalogue';
import { finding } from '../../finding';
import { type Context, spoken } from '../context';
import { reach } from '../led';
import type { Rule } from '../rule';

/** Decoders by what they do to a segment that is to light (data sheets SN7447A, SN7448, CD74HC4511). */
const pullLow: readonly string[] = ['7446', '7447', '74246', '74247'];
const driveHigh: readonly string[] = ['7448', '7449', '74248', '74249', '4511'];

/** A display of the wrong polarity: its common pins at the wrong rail, or a decoder of the other kind at its segments. */
export const displayPolarity: Rule = {
  id: 'display-polarity',
  *check(c) {
    for (const { seated, type } of c.of('display')) {
      const anode = type.id === 'display-anode';
      const { ref } = seated;
      const common = c.netOf(`${ref}.3`);
      const at = reach(c, common);
      const wrongRail = anode ? at.ground && !at.source : at.supply && !at.ground;
      const decoder = decoderOf(c, ref, anode ? driveHigh : pullLow);
      if (!wrongRail && decoder === undefined) continue;
      const facts = {
        ref,
        kind: anode ? 'common anode' : 'common cathode',
        because: decoder === undefined ? `its common pins are at ${anode ? 'ground' : 'supply'}` : decoder,
        rail: anode ? 'supply' : 'ground',
      };
      yield finding('display-polarity', [{ kind: 'part', ref }], facts);
    }
  },
};

/** What a decoder of one of the given kinds does to a segment of the display, in words. */
function decoderOf(c: Context, ref: string, bases: readonly string[]): string | undefined {
  const low = bases === pullLow;
  for (const pin of ['1', '2', '4', '6', '7', '9', '10']) {
    const net = c.netOf(pinOf(ref, pin));
    const nets = net === undefined ? [] : [net, ...c.throughResistors(net)];
    for (const output of nets.flatMap((n) => c.feedsOf(n).outputs)) {
      const part = c.board.parts[cutPin(output).ref]?.part ?? '';
      if (bases.includes(readPartNumber(part)?.base ?? part))
        return `${spoken(output)} of the ${part} ${low ? 'pulls a segment low' : 'drives a segment high'} to light it`;
    }
  }
  return undefined;
}
