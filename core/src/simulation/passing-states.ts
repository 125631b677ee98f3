import { elementAt } from '../element-at';
import { HIGH, LOW } from '../logic';
import type { TraceRow } from './trace';

/** A state that several signals passed through as one number, and how long it lasted; null where a signal of it was unknown. */
export interface PassingState {
  readonly value: bigint | null;
  readonly ns: number;
}

/** States that last less than this are passing, in nanoseconds. */
const PASSING_NS = 1000;
/** Changes that are looked at, from the last one back. */
const MOST_LOOKED_AT = 200;
/** Passing states of one change that are told. */
const MOST_TOLD = 8;

/**
 * The states that signals, the first the most significant, passed through when they last went from one lasting number to another: a ripple
 * counter's carries, or ten, before the clear bites. Empty where they changed at once.
 */
export function lastPassing(rows: readonly TraceRow[]): PassingState[] {
  const at = rows.map((row) => row.length - 1);
  let [untilNs, passing] = [Infinity, [] as PassingState[]];
  for (let looked = 0; looked < MOST_LOOKED_AT; looked++) {
    const sinceNs = Math.max(
      ...rows.map((row, r) => (elementAt(at, r) < 0 ? -Infinity : row.timeAt(elementAt(at, r)))),
    );
    if (sinceNs === -Infinity) return [];
    const lasts = untilNs - sinceNs >= PASSING_NS;
    // Back from now: the state that stands, then those that passed, then the one before them.
    if (lasts && passing.length > 0) return passing.slice(-MOST_TOLD);
    if (!lasts) passing = [{ value: valueAt(rows, at), ns: untilNs - sinceNs }, ...passing];
    untilNs = sinceNs;
    rows.forEach((row, r) => {
      const i = elementAt(at, r);
      if (i >= 0 && row.timeAt(i) === sinceNs) at[r] = i - 1;
    });
  }
  return [];
}

function valueAt(rows: readonly TraceRow[], at: readonly number[]): bigint | null {
  let value = 0n;
  for (const [r, row] of rows.entries()) {
    const i = at[r] ?? -1;
    const level = i < 0 ? null : row.levelAt(i);
    if (level !== HIGH && level !== LOW) return null;
    value = 2n * value + (level === HIGH ? 1n : 0n);
  }
  return value;
}
