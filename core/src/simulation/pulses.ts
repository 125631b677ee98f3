import type { SeatedPart } from '../board';
import { innerOf, oneShotLaw, type PulseTimer, typeOf } from '../catalogue';
import type { BoardVolts, SeatedChip } from '../electrical';

/** Without any parts at its pins a one-shot gives the shortest pulse it can. Source: SN74121 data sheet, 30 to 35 ns; others are near. */
const SHORTEST_S = 35e-9;

/**
 * How long the pulse of a seated one-shot lasts, in seconds: by the law of its data sheet, from the resistor and the capacitor that are found at its
 * pins. Infinity where no resistor charges the capacitor.
 */
export function pulseSeconds(
  board: BoardVolts,
  parts: readonly SeatedPart[],
  chip: Pick<SeatedChip, 'ref' | 'type' | 'family'>,
  law: PulseTimer,
): number {
  const { factor, plusOhms } = oneShotLaw(law, chip.family);
  const { farads, siemens } = pulseParts(board, parts, chip, law);
  if (farads === 0) return SHORTEST_S;
  return siemens === 0 ? Infinity : Math.max(SHORTEST_S, factor * farads * (1 / siemens + plusOhms));
}

/** What sets the pulse of a seated one-shot: farads between its two pins, and siemens from supply to the one that is charged; 0 where there is none. */
export function pulseParts(
  board: BoardVolts,
  parts: readonly SeatedPart[],
  { ref, type }: Pick<SeatedChip, 'ref' | 'type'>,
  law: PulseTimer,
): { readonly farads: number; readonly siemens: number } {
  const nodeOf = (name: string): number =>
    board.nets.ofPin.get(`${ref}.${type.pins.find((p) => p.name === name)?.id ?? ''}`) ?? -1;
  const [timing, far] = [nodeOf(law.resistor), nodeOf(law.capacitor)];
  const isSupply = (node: number): boolean => node >= 0 && (board.fixed.get(node) ?? 0) > 0;
  const joins = (part: SeatedPart, [a, b]: readonly [string, string], to: (node: number) => boolean): boolean => {
    const [p, q] = [a, b].map((id) => board.nets.ofPin.get(`${part.ref}.${id}`) ?? -1);
    return timing >= 0 && ((p === timing && to(q ?? -1)) || (q === timing && to(p ?? -1)));
  };
  const farads = parts.reduce((sum, part) => {
    const isOne = typeOf(part)?.kind === 'capacitor' && joins(part, ['1', '2'], (node) => node === far);
    return sum + (isOne ? (part.value ?? 100) * 1e-9 : 0);
  }, 0);
  let siemens = law.own && isSupply(nodeOf(law.own.pin)) ? 1 / law.own.ohms : 0;
  for (const part of parts)
    for (const { a, b, share } of innerOf(typeOf(part)).resistors)
      if (joins(part, [a, b], isSupply)) siemens += 1 / (share * (part.value ?? 1000));
  return { farads, siemens };
}
