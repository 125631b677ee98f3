/**
 * How common chips are in drawers and lab kits, from the everyday ones on: the six quad and hex gates that every assortment of the 74 series
 * begins with, their wider forms, what a course adds to them, and the rest of what a packing may choose. Within a row none is
 * preferred for its own sake.
 */
const rows: readonly string[] = [
  '7400 7402 7404 7408 7432 7486',
  '7410 7411 7420 7421 7427 7430 7474',
  '7414 74138 74151 74153 74157 7485 74283',
  '4002 4072 4075 74139 74280',
  '7451 747266 74260 74133',
];

const ranks: ReadonlyMap<string, number> = new Map(
  rows.flatMap((row, rank) => row.split(' ').map((base) => [base, rank] as const)),
);

/** How rare a chip is, by its base number: 0 for the everyday ones; equal for all that are not listed. */
export function rarity(base: string): number {
  return ranks.get(base) ?? rows.length;
}
