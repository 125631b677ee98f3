import type { Board, Nets } from '../board';
import { equalUnits, type Packing, type Slot, withPackagesExchanged, withUnitsExchanged } from '../packing';
import { Matcher, type Meant } from './matcher';
import { underSeatedReferences } from './references';

/**
 * The packing as the wiring has it: each gate on the unit that is wired to do what it does, whichever of the equal
 * units, equal inputs and ways to tie spare ones the person chose. Gates that no unit does are left where the most
 * of their inputs are right, in their own places first. The packing itself when everything is in place.
 *
 * Packages are found under whatever reference they were seated. Works from the switches onward: a gate is placed when the nets of all that it reads are known, those that are
 * wired just so before those that are nearly. Flip-flops and other units that are no gates are taken to be in their own
 * places; where they are not, those that are wired otherwise are exchanged with equal ones as long as less is wrong.
 */
export function matched(packing: Packing, board: Board, nets: Nets): Packing {
  let meant = underSeatedReferences(packing, board);
  let best = placed(meant, board, nets);
  for (let n = 0; n < MOST_EXCHANGES && best.wrong.length > 0; n++) {
    const [next] = exchanges(meant, best.wrong)
      .map((other) => ({ other, match: placed(other, board, nets) }))
      .filter(({ match }) => match.wrongPins < best.wrongPins)
      .sort((a, b) => a.match.wrongPins - b.match.wrongPins);
    if (!next) break;
    meant = next.other;
    best = next.match;
  }
  return best.packing;
}

/** Exchanges of units that are no gates, one after the other, and those weighed for each. */
const MOST_EXCHANGES = 12;
const MOST_WEIGHED = 24;

/** A packing as the wiring has it, how many pins are wired otherwise, and the units among those that are no gates. */
interface Placed {
  readonly packing: Packing;
  readonly wrongPins: number;
  readonly wrong: readonly Meant[];
}

function placed(packing: Packing, board: Board, nets: Nets): Placed {
  const matcher = new Matcher(packing, board, nets);
  if (matcher.isInPlace()) return { packing, wrongPins: 0, wrong: [] };
  const found = matcher.place();
  return { packing: found, ...matcher.wrong() };
}

/** Packings with a unit that is wired otherwise exchanged for an equal one, or its package for another of the same part. */
function exchanges(packing: Packing, wrong: readonly Meant[]): Packing[] {
  const isWrong = ({ pack, unit }: Slot): boolean =>
    wrong.some((w) => w.ref === packing.packages[pack]?.ref && w.unit === unit);
  const isOpen = (slot: Slot): boolean => isWrong(slot) || !packing.packages[slot.pack]?.units[slot.unit];
  const units = equalUnits(packing.packages).flatMap((slots) =>
    slots
      .filter(isWrong)
      .flatMap((a) =>
        slots
          .filter((b) => b !== a && isOpen(b) && (!isWrong(b) || slots.indexOf(b) > slots.indexOf(a)))
          .map((b) => withUnitsExchanged(packing, a, b)),
      ),
  );
  const packs = [...new Set(wrong.map((w) => packing.packages.findIndex((p) => p.ref === w.ref)))];
  const whole = packs.flatMap((a) =>
    packing.packages.flatMap((p, b) =>
      b !== a && p.part === packing.packages[a]?.part && !(packs.includes(b) && b < a)
        ? [withPackagesExchanged(packing, a, b)]
        : [],
    ),
  );
  return [...units, ...whole].slice(0, MOST_WEIGHED);
}
