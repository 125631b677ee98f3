import { isRailStrip, stripsOfEnds } from '../../board';
import { finding } from '../../finding';
import type { Rule } from '../rule';

/** A jumper with an end in a strip that holds nothing else: it joins nothing to anything. A rail may be fed before it is used. */
export const jumperLeadsNowhere: Rule = {
  id: 'jumper-leads-nowhere',
  coveredAtPlace: ['wiring-beside'],
  *check(c) {
    const locks = new Map<string, number>();
    const add = (strip: string | null): void => {
      if (strip !== null) locks.set(strip, (locks.get(strip) ?? 0) + 1);
    };
    const jumpers = Object.values(c.board.jumpers);
    for (const { leads } of c.known) for (const { strip } of leads) add(strip);
    for (const jumper of jumpers) stripsOfEnds(jumper).forEach(add);
    for (const jumper of jumpers) {
      const isBare = (strip: string | null): boolean => strip !== null && locks.get(strip) === 1 && !isRailStrip(strip);
      const [from, to] = stripsOfEnds(jumper);
      const { id } = jumper;
      const bare = isBare(from) ? jumper.from : isBare(to) ? jumper.to : undefined;
      if (bare !== undefined)
        yield finding('jumper-leads-nowhere', [{ kind: 'jumper', id }], { id, hole: bare }, `pull ${id}`);
    }
  },
};
