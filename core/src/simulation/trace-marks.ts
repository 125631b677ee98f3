import { HIGH } from '../logic';
import type { TraceRow } from './trace';

/** The two marks that can be set in a trace. */
export type MarkName = 'a' | 'b';

/** What a signal did between two marks: its edges, the share of the time that it was high, and its volts at each; null where nobody knows. */
export interface Between {
  readonly edges: number;
  readonly highShare: number | null;
  readonly voltsAt: readonly [a: number | null, b: number | null];
}

/** The marks of a trace, in nanoseconds since power up, with what lies between them by the name of each signal once both are set. */
export interface TraceMarks {
  readonly a: number | null;
  readonly b: number | null;
  readonly between: Readonly<Record<string, Between>>;
}

/** The time of the next change of level after a moment, or of the last one before it; null where there is none. */
export function edgeBeside(row: TraceRow, timeNs: number, isForward: boolean): number | null {
  const at = row.indexAt(timeNs);
  const isEdge = (i: number): boolean => i > 0 && row.levelAt(i) !== row.levelAt(i - 1);
  if (isForward) {
    for (let i = at + 1; i < row.length; i++) if (isEdge(i)) return row.timeAt(i);
    return null;
  }
  for (let i = at; i > 0; i--) if (isEdge(i) && row.timeAt(i) < timeNs) return row.timeAt(i);
  return null;
}

/** A moment moved onto the nearest edge of a signal, if that is near enough. */
export function snapped(row: TraceRow, timeNs: number, withinNs: number): number {
  const beside = [edgeBeside(row, timeNs, false), edgeBeside(row, timeNs, true), timeNs].flatMap((t) => t ?? []);
  const near = beside.filter((t) => t !== timeNs && Math.abs(t - timeNs) <= withinNs);
  // A moment on an edge stays there.
  const at = row.indexAt(timeNs);
  if (at >= 0 && row.timeAt(at) === timeNs) return timeNs;
  return near.length === 0 ? timeNs : near.reduce((x, y) => (Math.abs(y - timeNs) < Math.abs(x - timeNs) ? y : x));
}

/** What a signal did between two moments. */
export function between(row: TraceRow, a: number, b: number): Between {
  const [from, to] = [Math.min(a, b), Math.max(a, b)];
  let [edges, high] = [0, 0];
  const first = row.indexAt(from);
  for (let i = Math.max(0, first); i < row.length && row.timeAt(i) <= to; i++) {
    if (i > first && i > 0 && row.levelAt(i) !== row.levelAt(i - 1)) edges++;
    const end = i + 1 < row.length ? Math.min(to, row.timeAt(i + 1)) : to;
    if (row.levelAt(i) === HIGH) high += end - Math.max(from, row.timeAt(i));
  }
  const voltsAt = (timeNs: number): number | null => {
    const volts = row.voltsAt(row.indexAt(timeNs));
    return volts === undefined || Number.isNaN(volts) ? null : volts;
  };
  return { edges, highShare: to > from && first >= 0 ? high / (to - from) : null, voltsAt: [voltsAt(a), voltsAt(b)] };
}
