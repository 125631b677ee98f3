import type { Behaviour, Board } from '@saddlebag/core';
import { useEffect, useRef, useState } from 'react';
import { tell } from '../kit/notices';
import type { TourProgress, TourResult } from '../workers/protocol';
import { callback, runLong } from '../workers/stages';

/** Where a tour stands: how far it is while it goes on, what it came to once it has ended. */
interface TourState {
  readonly progress: TourProgress | null;
  readonly result: TourResult | null;
}

const none: TourState = { progress: null, result: null };

/** Tours the states of a design on its board in a worker; what it came to is forgotten with the board. */
export function useTour(board: Board, behaviour: Behaviour | null) {
  const [state, setState] = useState(none);
  const running = useRef<AbortController | null>(null);
  const stop = (): void => {
    running.current?.abort(new DOMException('stopped', 'AbortError'));
    running.current = null;
    setState((s) => ({ ...s, progress: null }));
  };
  const [toured, setToured] = useState({ board, behaviour });
  if (toured.board !== board || toured.behaviour !== behaviour) {
    setToured({ board, behaviour });
    setState(none);
  }
  // Another board, or another design, ends the tour of this one; so does turning away, which leaves what was found.
  // biome-ignore lint/correctness/useExhaustiveDependencies: of which board and design it is
  useEffect(
    () => () => {
      running.current?.abort(new DOMException('stopped', 'AbortError'));
      setState((s) => (s.progress ? none : s));
    },
    [board, behaviour],
  );
  const start = (): void => {
    if (!behaviour) return;
    stop();
    const control = new AbortController();
    running.current = control;
    setState({ progress: { covered: 0, transitions: 0 }, result: null });
    const told = callback<TourProgress>((progress) => {
      if (!control.signal.aborted) setState((s) => (s.progress ? { ...s, progress } : s));
    });
    runLong('tour', control.signal, (api) => api.tour(board, behaviour, told))
      .then((result) => setState({ progress: null, result }))
      .catch((e: unknown) => {
        if (control.signal.aborted) return;
        setState(none);
        tell(`The tour broke off: ${String(e)}`);
      });
  };
  return { ...state, start, stop };
}
