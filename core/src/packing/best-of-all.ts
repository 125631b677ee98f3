import { typeOf } from '../catalogue';
import { locksBroken } from './locks';
import type { Packing, Strategy } from './packing';
import { costFor, requestFor, type Supplies } from './strategy-goals';

/**
 * What was found for each way, none worse at its own goal than what another found: where another way's packing serves better, it stands in
 * its place, and nothing is claimed of it.
 */
export function bestOfAll(
  found: readonly { readonly strategy: Strategy; readonly packing: Packing | null }[],
  supplies: Supplies,
): readonly (Packing | null)[] {
  return found.map(({ strategy, packing }) => {
    if (!packing) return null;
    const better = found
      .flatMap((other) => (other.packing && other.packing !== packing ? [other.packing] : []))
      .filter((p) => costFor(strategy, p) < costFor(strategy, packing) && belongsTo(strategy, p, supplies));
    const [best] = better.sort((a, b) => costFor(strategy, a) - costFor(strategy, b));
    if (!best) return packing;
    const { bound: _, ...rest } = best;
    return { ...rest, strategy, proof: 'best', proved: false };
  });
}

/** Whether a packing might have been found by a way: it uses only chips that the way uses, and goes against nothing. */
function belongsTo(strategy: Strategy, packing: Packing, supplies: Supplies): boolean {
  if (strategy === 'written' || strategy === 'own' || strategy === 'drawer') return false;
  const request = requestFor(strategy, supplies);
  const isPlainChip = ({ units }: Packing['packages'][number]): boolean => units.every((u) => u?.part !== 'block');
  const number = (p: Packing['packages'][number]): string => typeOf(p)?.id ?? '';
  const uses = packing.packages.filter((p) => p.units.some((u) => u?.others === undefined || u.part === 'block'));
  return (
    request !== null &&
    locksBroken(packing, supplies.locks) === null &&
    uses.every((p) => request.chips.includes(number(p)) && (strategy !== 'kinds' || isPlainChip(p)))
  );
}
