import { Box, type BoxProps } from '@chakra-ui/react';
import { type ReactNode, useEffect, useRef } from 'react';
import { useRows } from './use-rows';

/** Height of a row in points of the screen. */
const ROW = 24;
/** Rows kept in the page on either side of those in sight; and up to how many a list is there whole. */
const BEYOND = 8;
const WHOLE = 60;

interface LongListProps<T> extends Pick<BoxProps, 'css'> {
  readonly label: string;
  readonly things: readonly T[];
  readonly keyOf: (thing: T) => string;
  readonly row: (thing: T) => ReactNode;
  /** The thing that comes into sight when it changes; -1 for none. */
  readonly inView?: number;
}

/** A list whose rows are all equally high; those out of sight are not in the page, so that a thousand cost no more than ten. */
export function LongList<T>({ label, things, keyOf, row, inView = -1, css = {} }: LongListProps<T>) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useRows({ count: things.length, scroller, height: ROW, beyond: things.length > WHOLE ? BEYOND : WHOLE });
  useEffect(() => {
    if (inView >= 0) rows.scrollToIndex(inView);
  }, [inView, rows]);
  return (
    <Box ref={scroller} flex="1" minH="0" overflowY="auto" tabIndex={0} role="region" aria-label={label} css={css}>
      <ul style={{ position: 'relative', height: rows.getTotalSize(), listStyleType: 'none' }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const thing = things[index];
          return thing === undefined ? null : (
            <li
              key={keyOf(thing)}
              aria-setsize={things.length}
              aria-posinset={index + 1}
              style={{ position: 'absolute', insetInline: 0, height: ROW, transform: `translateY(${start}px)` }}
            >
              {row(thing)}
            </li>
          );
        })}
      </ul>
    </Box>
  );
}
