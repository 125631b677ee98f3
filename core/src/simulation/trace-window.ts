import { UNKNOWN } from '../logic';
import type { Trace, TraceRow } from './trace';

/** A span of time that a trace is looked at in, column by column; `endNs` is null where it ends now. */
export interface Scope {
  readonly spanNs: number;
  readonly endNs: number | null;
  readonly columns: number;
}

/** What a signal has done since its trace began; means are over whole periods, null under two. */
export interface TraceFigures {
  readonly edges: number;
  readonly periodNs: number | null;
  readonly highShare: number | null;
  readonly shortestNs: number | null;
}

/**
 * One signal in a span of time. For each column: the level that it begins with (LOW, HIGH, UNKNOWN, or NOT_YET before the trace began), that it
 * ends with, how many changes lie in it (2 stands for more), and the volts at its end, NaN where nobody knows. The figures beside are those of the whole trace.
 */
export interface TraceColumns {
  readonly name: string;
  readonly from: Uint8Array;
  readonly to: Uint8Array;
  readonly changes: Uint8Array;
  readonly volts: Float32Array;
  readonly figures: TraceFigures;
}

/** The signals of a trace in a span of time, in nanoseconds since power up. */
export interface TraceWindow {
  readonly fromNs: number;
  readonly toNs: number;
  readonly rows: readonly TraceColumns[];
}

/** No level: the trace had not begun, or has forgotten it. */
export const NOT_YET = 3;

/** What a scope shows of a trace at a moment. Each column is found by bisection, whatever the number of changes. */
export function windowOf({ rows }: Pick<Trace, 'rows'>, { spanNs, endNs, columns }: Scope, nowNs: number): TraceWindow {
  const toNs = endNs ?? nowNs;
  const fromNs = toNs - spanNs;
  return { fromNs, toNs, rows: rows.map((row) => columnsOf(row, { fromNs, toNs, columns }, nowNs)) };
}

function columnsOf(
  row: TraceRow,
  { fromNs, toNs, columns }: { fromNs: number; toNs: number; columns: number },
  nowNs: number,
): TraceColumns {
  const [from, to, changes] = [new Uint8Array(columns), new Uint8Array(columns), new Uint8Array(columns)];
  const volts = new Float32Array(columns).fill(Number.NaN);
  const levelAt = (i: number): number => (i < 0 ? NOT_YET : row.levelAt(i));
  const step = (toNs - fromNs) / columns;
  let before = row.indexAt(fromNs);
  for (let c = 0; c < columns; c++) {
    const end = fromNs + (c + 1) * step;
    // Nothing is known of what is to come.
    if (end - step > nowNs) {
      from[c] = NOT_YET;
      to[c] = NOT_YET;
      continue;
    }
    const last = row.indexAt(end);
    from[c] = levelAt(before);
    to[c] = levelAt(last);
    // Volts move within a level: only changes of level are edges.
    for (let i = Math.max(0, before); i < last && (changes[c] as number) < 2; i++)
      if (row.levelAt(i) !== row.levelAt(i + 1)) changes[c] = (changes[c] as number) + 1;
    if (last >= 0) volts[c] = row.voltsAt(last);
    before = last;
  }
  const { edges, periodNs, highShare, shortestNs } = row;
  const figures = { edges, periodNs, highShare, shortestNs: shortestNs < Infinity ? shortestNs : null };
  return { name: row.name, from, to, changes, volts, figures };
}

/** Whether a signal is somewhere at volts that are no level: it is drawn as a curve then. */
export function isAnalogue({ to, volts }: TraceColumns): boolean {
  return to.some((level, c) => level === UNKNOWN && !Number.isNaN(volts[c] as number));
}
