import type { Lead } from '../../board';
import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Pins of two chips in one strip: seated too near, or one in the columns of the other. */
export const chipsInOneStrip: Rule = {
  id: 'chips-in-one-strip',
  partsAlone: true,
  *check(c) {
    const byStrip = new Map<string, Lead>();
    const said = new Set<string>();
    for (const { leads } of c.of('chip'))
      for (const lead of leads) {
        const { pin, ref, strip } = lead;
        if (strip === null) continue;
        const other = byStrip.get(strip);
        byStrip.set(strip, lead);
        if (!other || other.ref === ref || said.has(`${other.ref} ${ref}`)) continue;
        said.add(`${other.ref} ${ref}`);
        const places = [
          { kind: 'part' as const, ref },
          { kind: 'pin' as const, pin },
        ];
        yield finding('chips-in-one-strip', places, { pin: spoken(pin), other: spoken(other.pin), strip });
      }
  },
};
