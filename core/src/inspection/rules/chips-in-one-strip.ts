import { finding } from '../../finding';
import { spoken } from '../context';
import type { Rule } from '../rule';

/** Pins of two chips in one strip: seated too near, or one in the columns of the other. */
export const chipsInOneStrip: Rule = {
  id: 'chips-in-one-strip',
  *check(c) {
    const byStrip = new Map<string, string>();
    const said = new Set<string>();
    for (const { seated, type } of c.of('chip'))
      for (const { id } of type.pins) {
        const pin = `${seated.ref}.${id}`;
        const strip = c.stripOf(pin);
        const other = byStrip.get(strip);
        byStrip.set(strip, pin);
        const pair = `${other?.slice(0, other.indexOf('.'))} ${seated.ref}`;
        if (strip === 'no hole' || other === undefined || other.startsWith(`${seated.ref}.`) || said.has(pair))
          continue;
        said.add(pair);
        const places = [
          { kind: 'part' as const, ref: seated.ref },
          { kind: 'pin' as const, pin },
        ];
        yield finding('chips-in-one-strip', places, { pin: spoken(pin), other: spoken(other), strip });
      }
  },
};
