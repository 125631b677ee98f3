import type { FamilyId } from '../catalogue';
import { findChip } from '../catalogue';
import type { StoredCell } from '../design';
import { elementAt } from '../element-at';
import { jkFormOf, type MakerOf } from './flip-flop-forms';

/**
 * Flip-flops that are a counter or a shift register together, lowest or first one first. `ripple`: each toggles as the one before falls; `count`: all have one
 * clock, and each toggles where `feed` and all before are high; `shift`: each takes what the one before had, the first one `feed`.
 */
export interface Chain {
  readonly kind: 'ripple' | 'count' | 'shift';
  readonly cells: readonly StoredCell[];
  readonly feed: string;
}

/** From so many flip-flops on a counter, and a shift register, are taken for one. */
const LEAST_COUNT = 3;
const LEAST_SHIFT = 5;
const MOST_COUNT = 4;

const clearOf = ({ forces }: StoredCell): string | null => {
  if (forces.length === 0) return '';
  return forces.length === 1 && forces[0]?.to === 0 ? forces[0].net : null;
};

/** Whether two flip-flops have one clock and one clear, or none. */
const areTogether = (a: StoredCell, b: StoredCell): boolean =>
  a.control === b.control && a.edge === b.edge && clearOf(a) === clearOf(b);

/** The counters and shift registers among flip-flops; each flip-flop is in one at the most. */
export function chainsOf(cells: readonly StoredCell[], makerOf: MakerOf): Chain[] {
  const free = new Set(cells.filter((cell) => clearOf(cell) !== null));
  const take = (chains: readonly Chain[]): Chain[] => {
    const taken = chains.filter((chain) => chain.cells.every((cell) => free.has(cell)));
    for (const cell of taken.flatMap((chain) => chain.cells)) free.delete(cell);
    return taken;
  };
  return [...take(ripples([...free], makerOf)), ...take(counts([...free], makerOf)), ...take(shifts([...free]))];
}

/** The nets whose AND has a flip-flop toggle; null where it is not of that form. */
function togglesBy(cell: StoredCell, makerOf: MakerOf): ReadonlySet<string> | null {
  const form = jkFormOf(cell, makerOf);
  if (!form || form.j !== form.k)
    return form && form.j.nets.length + form.k.nets.length === 0 && !form.j.isComplement && !form.k.isComplement
      ? new Set()
      : null;
  if (form.j.isComplement) return null;
  const leaves = new Set<string>();
  const add = (net: string): void => {
    const gate = makerOf(net);
    if (gate?.kind === 'and') for (const input of gate.inputs) add(input);
    else leaves.add(net);
  };
  for (const net of form.j.nets) add(net);
  return leaves;
}

function ripples(cells: readonly StoredCell[], makerOf: MakerOf): Chain[] {
  const toggles = cells.filter((cell) => togglesBy(cell, makerOf)?.size === 0);
  const follows = (cell: StoredCell, before: StoredCell): boolean =>
    cell.control === before.output && cell.edge === 'fall' && clearOf(cell) === clearOf(before);
  const firsts = toggles.filter((cell) => !toggles.some((before) => follows(cell, before)));
  return firsts.flatMap((first): Chain[] => {
    const chain = [first];
    for (;;) {
      const next = toggles.find((cell) => follows(cell, elementAt(chain, chain.length - 1)) && !chain.includes(cell));
      if (!next) break;
      chain.push(next);
    }
    return chain.length < LEAST_COUNT ? [] : [{ kind: 'ripple', cells: chain, feed: '1' }];
  });
}

function counts(cells: readonly StoredCell[], makerOf: MakerOf): Chain[] {
  const left = cells
    .flatMap((cell) => {
      const by = togglesBy(cell, makerOf);
      return by ? [{ cell, by }] : [];
    })
    .sort((a, b) => a.by.size - b.by.size);
  const chains: Chain[] = [];
  while (left.length > 0) {
    const { cell: first, by } = left.shift() as (typeof left)[number];
    const feed = feedOf(first, by, makerOf);
    const chain = [first];
    while (feed !== null && chain.length < MOST_COUNT) {
      const wanted = new Set([...by, ...chain.map((cell) => cell.output)]);
      const at = left.findIndex(
        (one) =>
          areTogether(one.cell, first) && one.by.size === wanted.size && [...wanted].every((net) => one.by.has(net)),
      );
      if (at < 0) break;
      chain.push(...left.splice(at, 1).map((one) => one.cell));
    }
    if (feed !== null && chain.length >= LEAST_COUNT) chains.push({ kind: 'count', cells: chain, feed });
  }
  return chains;
}

/** The one net that lets a flip-flop toggle, high where it always does; null where no net alone does. */
function feedOf(cell: StoredCell, by: ReadonlySet<string>, makerOf: MakerOf): string | null {
  if (by.size === 0) return '1';
  const nets = jkFormOf(cell, makerOf)?.j.nets ?? [];
  return nets.length === 1 ? elementAt(nets, 0) : null;
}

function shifts(cells: readonly StoredCell[]): Chain[] {
  const follows = (cell: StoredCell, before: StoredCell): boolean =>
    cell.data === before.output && areTogether(cell, before);
  const firsts = cells.filter((cell) => !cells.some((before) => before !== cell && follows(cell, before)));
  return firsts.flatMap((first): Chain[] => {
    const chain = [first];
    for (;;) {
      const next = cells.find((cell) => follows(cell, elementAt(chain, chain.length - 1)) && !chain.includes(cell));
      if (!next) break;
      chain.push(next);
    }
    return chain.length < LEAST_SHIFT ? [] : [{ kind: 'shift', cells: chain, feed: first.data }];
  });
}

/** A counter or shift register of the catalogue, as a home for a chain: how many flip-flops it takes, and how many of it are in a package. */
export interface ChainChip {
  readonly part: string;
  readonly room: number;
  readonly perPackage: 1 | 2;
}

const homes: Readonly<Record<Chain['kind'], readonly (ChainChip & { readonly from: number })[]>> = {
  // A 4040 is worth its 16 pins from the ninth stage on, where two 4-bit counters end.
  ripple: [
    { part: '4040', room: 12, perPackage: 1, from: 9 },
    { part: '74393', room: 4, perPackage: 2, from: LEAST_COUNT },
    { part: '7493', room: 4, perPackage: 1, from: LEAST_COUNT },
  ],
  count: [{ part: '74161', room: MOST_COUNT, perPackage: 1, from: LEAST_COUNT }],
  shift: [{ part: '74164', room: 8, perPackage: 1, from: LEAST_SHIFT }],
};

/**
 * The chip that takes so many flip-flops of a chain in a family; null where none that may be taken is made in it. `isRest`: a chip before has the others, so
 * that fewer do for half of one.
 */
export function chainChipFor(
  kind: Chain['kind'],
  left: number,
  {
    family,
    without,
    isRest,
  }: { readonly family: FamilyId; readonly without: readonly string[]; readonly isRest: boolean },
): ChainChip | null {
  const isThere = (part: string): boolean =>
    findChip(part)?.chip?.families.includes(family) === true && !without.includes(part);
  return (
    homes[kind].find(({ part, from, perPackage }) => (left >= from || (isRest && perPackage === 2)) && isThere(part)) ??
    null
  );
}

/** The numbers of the chips that chains are put into. */
export const chainChipNumbers: readonly string[] = Object.values(homes).flatMap((all) => all.map((home) => home.part));
