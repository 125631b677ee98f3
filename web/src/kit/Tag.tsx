import { chakra } from '@chakra-ui/react';
import { shownSignal } from '@saddlebag/core';
import { memo } from 'react';
import { useColours } from '../app/job-context';
import { followProps, pin, useFollowed } from './follow';

/** Ink that keeps 4.5:1 on every colour of the palette. */
export const TAG_INK = '#08100D';

interface TagProps {
  readonly signal: string;
  readonly still?: boolean;
}

/** A signal's luggage tag: its name on its colour. Pointing at it lights the signal everywhere; pressing keeps it lit. */
export const Tag = memo(function Tag({ signal, still = false }: TagProps) {
  const followed = useFollowed();
  const colour = useColours().of(signal) ?? 'var(--sb-colors-line)';
  const rail = signal === '0' || signal === '1';
  const shape = (
    <chakra.span
      display="inline-block"
      fontFamily="mono"
      fontWeight="600"
      fontSize="12px"
      lineHeight="18px"
      h="18px"
      pl="10px"
      pr="6px"
      maxW="120px"
      truncate
      verticalAlign="middle"
      style={{
        background: colour,
        color: rail ? '#FFFFFF' : TAG_INK,
        clipPath: 'polygon(0 50%, 7px 0, 100% 0, 100% 100%, 7px 100%)',
        filter: followed !== null && followed !== signal ? 'saturate(0.35) opacity(0.75)' : undefined,
      }}
    >
      {shownSignal(signal)}
    </chakra.span>
  );
  if (still) return <chakra.span {...followProps(signal)}>{shape}</chakra.span>;
  return (
    <chakra.button
      type="button"
      cursor="pointer"
      rounded="2px"
      lineHeight="1"
      aria-label={`follow ${shownSignal(signal)}`}
      onClick={() => pin(signal)}
      {...followProps(signal)}
    >
      {shape}
    </chakra.button>
  );
});
