import { startTransition, useEffect, useState } from 'react';

/**
 * How many things of a list are drawn yet: at once those that may be in sight, then some more after each frame, so that a screen with many
 * stands there as soon as one with few. What is drawn stays drawn until the screen is turned away from: it is to stand there as soon again.
 */
export function useGrowingCount(
  total: number,
  { first, more }: { readonly first: number; readonly more: number },
): number {
  const [count, setCount] = useState(first);
  const shown = Math.max(count, first);
  const isWhole = shown >= total;
  useEffect(() => {
    if (isWhole) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // After the frame: what is drawn so far is painted before more is.
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => startTransition(() => setCount(shown + more)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [shown, more, isWhole]);
  useEffect(() => () => setCount(0), []);
  return Math.min(shown, total);
}
