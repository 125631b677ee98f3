import { Flex } from '@chakra-ui/react';
import type { ReactNode, SyntheticEvent } from 'react';

/**
 * Something that is no longer so, and cannot be changed until it is again: presses and keys do not reach it. `inert` would do the same, but
 * the styles of all that is inside are worked out anew whenever it comes and goes, at a key of the sheet.
 */
export function Faded({ stale, children }: { readonly stale: boolean; readonly children: ReactNode }) {
  const withhold = (e: SyntheticEvent): void => {
    if (!stale || ('key' in e && e.key === 'Tab')) return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <Flex
      direction="column"
      flex="1"
      minH="0"
      minW="0"
      opacity={stale ? 0.45 : 1}
      aria-disabled={stale}
      role="group"
      onPointerDownCapture={withhold}
      onClickCapture={withhold}
      onKeyDownCapture={withhold}
    >
      {children}
    </Flex>
  );
}
