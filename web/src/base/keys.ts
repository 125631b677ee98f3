import { useLayoutEffect, useRef } from 'react';

/** Whether a key press belongs to a field that is being written in. */
export function isWriting(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName))
  );
}

/** Calls the newest `onKey` for each key pressed anywhere in the window; it returns true when it took the key. */
export function useKeys(onKey: (e: KeyboardEvent) => boolean | undefined): void {
  const latest = useRef(onKey);
  latest.current = onKey;
  useLayoutEffect(() => {
    const listen = (e: KeyboardEvent): void => {
      if (!e.defaultPrevented && latest.current(e) === true) e.preventDefault();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
