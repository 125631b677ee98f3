import { type Board, byNumber } from '../board';
import { standsIn, typeOf } from '../catalogue';
import type { Package, Packing } from '../packing';

/**
 * A packing with the references of the board: a package that is not seated under its own reference takes that of a chip of its kind
 * which no other package claims. Packages without such a chip keep their reference while it is free, and get a new one otherwise. The
 * packing itself when nothing changes.
 */
export function underSeatedReferences(packing: Packing, board: Board): Packing {
  const serves = (p: Package, ref: string): boolean => {
    const [seated, wanted] = [board.parts[ref], typeOf(p)];
    const type = seated && typeOf(seated);
    return wanted !== null && !!type && standsIn(wanted, type);
  };
  const refOf = new Map(packing.packages.flatMap((p) => (serves(p, p.ref) ? [[p, p.ref] as const] : [])));
  if (refOf.size === packing.packages.length) return packing;
  const taken = new Set(refOf.values());
  const chips = Object.keys(board.parts)
    .filter((ref) => typeOf(board.parts[ref] ?? { part: '' })?.kind === 'chip')
    .sort(byNumber);
  const astray = packing.packages.filter((p) => !refOf.has(p));
  const claim = (p: Package, ref: string): void => {
    refOf.set(p, ref);
    taken.add(ref);
  };
  for (const p of astray) {
    const found = chips.find((ref) => !taken.has(ref) && serves(p, ref));
    if (found !== undefined) claim(p, found);
  }
  for (const p of astray.filter((one) => !refOf.has(one))) claim(p, taken.has(p.ref) ? freeRef(taken, board) : p.ref);
  if (packing.packages.every((p) => refOf.get(p) === p.ref)) return packing;
  return { ...packing, packages: packing.packages.map((p) => ({ ...p, ref: refOf.get(p) ?? p.ref })) };
}

function freeRef(taken: ReadonlySet<string>, board: Board): string {
  let n = 1;
  while (taken.has(`U${n}`) || board.parts[`U${n}`]) n++;
  return `U${n}`;
}
