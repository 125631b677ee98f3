import { useCallback, useRef } from 'react';

/** A function that stays the same from render to render and always runs the newest `act`: for handlers of memoised rows. */
export function useLatest<A extends readonly unknown[]>(act: (...args: A) => void): (...args: A) => void {
  const latest = useRef(act);
  latest.current = act;
  return useCallback((...args: A) => latest.current(...args), []);
}
