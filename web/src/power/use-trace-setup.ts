import { type KeptMarks, plainTrace, type TraceSetup } from '@saddlebag/core';
import { useEffect, useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { useLatest } from '../base/use-latest';

/** How the trace of the open job is arranged, and how to change that: an edit of the job like any other. */
export function useTraceSetup(): {
  readonly setup: TraceSetup;
  readonly arrange: (change: (setup: TraceSetup) => TraceSetup) => void;
} {
  const { job, session } = useJobView();
  return {
    setup: job.trace ?? plainTrace,
    arrange: (change) => {
      const before = session.job.trace ?? plainTrace;
      const trace = change(before);
      if (trace !== before) session.dispatch({ kind: 'arrange-trace', trace });
    },
  };
}

/** Has the bench trace what the job says, at the job's speed. */
export function useTracedAsKept(): void {
  const { bench } = useJobView();
  const { pins, numbers, speed } = useTraceSetup().setup;
  useEffect(() => bench.setTraced(pins), [bench, pins]);
  useEffect(() => bench.setNumbers(new Map(numbers.map(({ name, of }) => [name, of]))), [bench, numbers]);
  useEffect(() => {
    // As fast as it goes is null in a file.
    if (speed !== undefined) bench.setSpeed(speed ?? Infinity);
  }, [bench, speed]);
}

/** How long marks must rest until they go into the job, in milliseconds: moved from edge to edge they make one edit. */
const MARKS_REST_MS = 700;

/** Keeps the marks that a person sets in the job, and has them come again at the next power up. */
export function useMarksKept(): void {
  const { bench } = useJobView();
  const { setup, arrange } = useTraceSetup();
  const kept = setup.marks ?? NO_MARKS;
  useEffect(() => bench.keepMarks(kept), [bench, kept]);
  const { seen } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const { a, b } = seen?.marks ?? NO_MARKS;
  const keep = useLatest((): void => {
    const isNew = a !== kept.a || b !== kept.b;
    if (bench.takeMarked() && isNew) arrange((before) => ({ ...before, marks: { a, b } }));
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever a mark stands elsewhere
  useEffect(() => {
    const rest = setTimeout(keep, MARKS_REST_MS);
    return () => clearTimeout(rest);
  }, [keep, a, b]);
}

const NO_MARKS: KeptMarks = { a: null, b: null };
