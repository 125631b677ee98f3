import { agrees, type WalkedRow } from '../simulation';

/** How a walk stands to what was wanted: rows seen and, where there is something to compare with, those that differ. */
export interface Verdict {
  readonly seen: number;
  /** Rows that differ, in their order; null where nothing is wanted, so that nothing can agree. */
  readonly differing: readonly number[] | null;
}

/**
 * Compares walked rows with what is wanted of each output (`null`: nothing). Unknown never agrees. `wanted` gives null as a whole
 * where there is no design and no table to compare with.
 */
export function verdictOf(
  rows: Iterable<WalkedRow>,
  wanted: ((row: number) => readonly (0 | 1 | null)[]) | null,
): Verdict {
  let seen = 0;
  const differing: number[] = [];
  for (const walked of rows) {
    seen++;
    if (wanted && !agrees(walked.seen, wanted(walked.row))) differing.push(walked.row);
  }
  return { seen, differing: wanted && differing };
}
