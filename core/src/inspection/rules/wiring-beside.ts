import { parseHole, printHole, stripOf, stripsOfEnds } from '../../board';
import { finding, type Place } from '../../finding';
import { shownSignal } from '../../planning';
import { type Context, spoken } from '../context';
import { mismatches } from '../match';
import type { Rule } from '../rule';

/** A jumper that ends in the empty strip beside the pin that it is for. */
export const wiringBeside: Rule = {
  id: 'wiring-beside',
  *check(c) {
    for (const { pin, wanted, source } of mismatches(c)) {
      const hole = c.lead(pin)?.hole;
      const from = source === undefined ? undefined : sourceNet(c, wanted, source);
      if (!hole || hole.column === undefined || from === undefined) continue;
      for (const by of [-1, 1]) {
        const beside = parseHole(printHole({ ...hole, column: hole.column + by }));
        const strip = beside && stripOf(beside);
        const jumper = strip ? endingIn(c, strip, from) : undefined;
        if (!strip || !jumper) continue;
        const places: Place[] = [
          { kind: 'pin', pin },
          { kind: 'jumper', id: jumper },
        ];
        const facts = { jumper, pin: spoken(pin), strip: c.stripOf(pin), beside: strip, wanted: shownSignal(wanted) };
        yield finding('wiring-beside', places, facts, `${pin} > ${source}`);
      }
    }
  },
};

function sourceNet(c: Context, wanted: string, source: string): number | undefined {
  if (wanted !== '0' && wanted !== '1') return c.netOf(source);
  return c.nets.nets.find((n) => (wanted === '1' ? c.feedsOf(n.index).supply : c.feedsOf(n.index).ground))?.index;
}

/** The jumper of a net that is all there is in a strip; undefined when the strip holds anything else. */
function endingIn(c: Context, strip: string, net: number): string | undefined {
  if (c.nets.ofStrip.get(strip) !== net) return undefined;
  if (c.pinsOn(net).some((pin) => c.lead(pin)?.strip === strip)) return undefined;
  const ends = (c.nets.nets[net]?.jumpers ?? []).flatMap((id) => {
    const jumper = c.board.jumpers[id];
    return jumper
      ? stripsOfEnds(jumper)
          .filter((s) => s === strip)
          .map(() => id)
      : [];
  });
  return ends.length === 1 ? ends[0] : undefined;
}
