import { plainTrace, type TraceSetup } from '@saddlebag/core';
import { useEffect } from 'react';
import { useJobView } from '../base/job-context';

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
