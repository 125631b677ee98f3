import type { Trace, TraceRow } from './trace';
import { between, edgeBeside, type MarkName, snapped, type TraceMarks } from './trace-marks';

/** Two moments, in nanoseconds since power up; null where there is none. */
type Moments = Readonly<Record<MarkName, number | null>>;

/**
 * The two marks of a live trace. Times are nanoseconds since power up. What lies between them is measured when one is set, since what has been does
 * not change; marks of before that time has not reached yet wait for it.
 */
export class LiveMarks {
  marks: TraceMarks = { a: null, b: null, between: {} };
  private ahead: Record<MarkName, number | null>;

  /** `trace` gives the trace as it stands: another one after time was wound back. `ahead` are marks of before. */
  constructor(
    private readonly trace: () => Trace,
    ahead: Moments | undefined,
  ) {
    this.ahead = { a: null, b: null, ...ahead };
  }

  private row(name: string | undefined): TraceRow | undefined {
    return this.trace().rows.find((row) => row.name === name);
  }

  /** Sets a mark at a moment up to `nowNs`, on the nearest edge of a signal if that is near enough; takes it away where no moment is given. */
  place(
    mark: MarkName,
    at: { readonly name: string; readonly timeNs: number; readonly withinNs: number } | null,
    nowNs: number,
  ): void {
    const row = this.row(at?.name);
    const timeNs = at && Math.max(0, Math.min(at.timeNs, nowNs));
    this.set(mark, at && row && timeNs !== null ? snapped(row, timeNs, at.withinNs) : timeNs);
  }

  /** Moves a mark to the next edge of a signal, or the last one before it; one that is not set comes to the signal's last edge before `nowNs`. */
  move(mark: MarkName, name: string, isForward: boolean, nowNs: number): void {
    const row = this.row(name);
    const from = this.marks[mark];
    const next = row && edgeBeside(row, from ?? nowNs, from !== null && isForward);
    if (next != null) this.set(mark, next);
  }

  /** Sets a mark at a moment, or takes it away with null. */
  set(mark: MarkName, timeNs: number | null): void {
    this.ahead[mark] = null;
    const a = mark === 'a' ? timeNs : this.marks.a;
    const b = mark === 'b' ? timeNs : this.marks.b;
    const measured =
      a === null || b === null ? [] : this.trace().rows.map((row) => [row.name, between(row, a, b)] as const);
    this.marks = { a, b, between: Object.fromEntries(measured) };
  }

  /** After time was wound back to `nowNs`: marks past it are gone, the others are measured again. */
  cutAt(nowNs: number): void {
    const { a, b } = this.marks;
    this.marks = { a: a !== null && a <= nowNs ? a : null, b: b !== null && b <= nowNs ? b : null, between: {} };
    this.set('a', this.marks.a);
  }

  /** Sets the marks of before that time has reached. */
  reach(nowNs: number): void {
    for (const mark of ['a', 'b'] as const) {
      const atNs = this.ahead[mark];
      if (atNs !== null && atNs <= nowNs) this.set(mark, atNs);
    }
  }
}
