import { elementScroll, useVirtualizer, type Virtualizer, type VirtualizerOptions } from '@tanstack/react-virtual';
import type { RefObject } from 'react';

type Options = VirtualizerOptions<HTMLDivElement, Element>;

interface RowsOptions extends Pick<Options, 'scrollPaddingStart' | 'scrollPaddingEnd'> {
  readonly count: number;
  readonly scroller: RefObject<HTMLDivElement | null>;
  /** Height of a row in points of the screen. */
  readonly height: number;
  /** Rows kept in the page on either side of those in sight. */
  readonly beyond: number;
}

/** How high a list is taken to be until the browser has laid it out. */
const LIKELY = { width: 400, height: 200 } as const;

/** The rows of a long list that are in sight, all equally high. Its size is heard of after layout and never asked for, which would lay the page out at once. */
export function useRows({ count, scroller, height, beyond, ...padding }: RowsOptions) {
  return useVirtualizer({
    count,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: beyond,
    initialRect: LIKELY,
    observeElementRect,
    scrollToFn,
    ...padding,
  });
}

/** Scrolls a list. It begins at its top, where it is: asked to go there, the browser would lay the page out at once. */
const scrollToFn: Options['scrollToFn'] = (offset, options, list) => {
  const isThere = offset + (options.adjustments ?? 0) === 0 && (list.scrollOffset ?? 0) === 0;
  if (!isThere) elementScroll(offset, options, list);
};

function observeElementRect(
  { scrollElement }: Virtualizer<HTMLDivElement, Element>,
  tell: (rect: { readonly width: number; readonly height: number }) => void,
): (() => void) | undefined {
  if (!scrollElement) return undefined;
  const observer = new ResizeObserver(([entry]) => {
    const box = entry?.borderBoxSize[0];
    if (box) tell({ width: Math.round(box.inlineSize), height: Math.round(box.blockSize) });
  });
  observer.observe(scrollElement, { box: 'border-box' });
  return () => observer.disconnect();
}
