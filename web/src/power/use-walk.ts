import { useRef } from 'react';
import { useJobView } from '../base/job-context';
import { tell } from '../kit/notices';
import type { WalkProgress } from '../workers/protocol';
import { callback, runLong } from '../workers/stages';

/** Walks the table in a worker: starts, tells rows to the bench as they come, and stops on request. */
export function useWalk(): { walk: () => void; stop: () => void } {
  const { job, bench, subject } = useJobView();
  const running = useRef<AbortController | null>(null);
  const stop = (): void => {
    running.current?.abort(new DOMException('stopped', 'AbortError'));
    running.current = null;
    bench.endWalk();
  };
  const walk = (): void => {
    running.current?.abort(new DOMException('stopped', 'AbortError'));
    const control = new AbortController();
    running.current = control;
    bench.startWalk();
    const board = job.board;
    const tellRows = callback<WalkProgress>(({ rows }) => {
      if (!control.signal.aborted) bench.addWalked(board, rows);
    });
    runLong('walk', control.signal, (api) =>
      api.walk(board, { inputs: subject.inputs, outputs: subject.outputs }, tellRows),
    )
      .catch((e: unknown) => {
        if (!control.signal.aborted) tell(`The walk broke off: ${String(e)}`);
      })
      .finally(() => {
        if (running.current === control) bench.endWalk();
      });
  };
  return { walk, stop };
}
