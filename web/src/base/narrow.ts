import { useSyncExternalStore } from 'react';

/** Up to here a screen is narrow: phones, tablets held upright, and a small window at twice the size of letters. */
const MOST = '(max-width: 63.9375em)';
/** What holds on narrow screens, for styles. */
export const NARROW = `@media ${MOST}`;
/** What holds where one points by finger, for styles. */
export const BY_TOUCH = '@media (pointer: coarse)';
/** The height of what one presses by finger, where a button would be smaller (WCAG 2.5.5). */
export const TOUCHED = '44px';

const query = globalThis.matchMedia?.(MOST) ?? null;

/** Whether the screen is narrow, now; wide where nothing is asked, as for pictures on the command line. */
export const isNarrow = (): boolean => query?.matches ?? false;

const subscribe = (tell: () => void): (() => void) => {
  query?.addEventListener('change', tell);
  return () => query?.removeEventListener('change', tell);
};

/** Whether the screen is narrow; follows the window. */
export const useIsNarrow = (): boolean => useSyncExternalStore(subscribe, isNarrow);
