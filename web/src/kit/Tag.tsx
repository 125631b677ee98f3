import { chakra } from '@chakra-ui/react';
import { shownSignal } from '@saddlebag/core';
import { memo } from 'react';
import { colour as themed } from '../base/colours';
import { useColours } from '../base/job-context';
import { followProps, pin, useIsOutshone } from './follow';

/** Ink that keeps 4.5:1 on every colour of the palette. */
export const TAG_INK = '#08100D';

interface TagProps {
  readonly signal: string;
  readonly still?: boolean;
}

/** A signal's luggage tag: its name on its colour. Pointing at it lights the signal everywhere; pressing keeps it lit. */
export const Tag = memo(function Tag({ signal, still = false }: TagProps) {
  if (still)
    return (
      <span {...followProps(signal)}>
        <Label signal={signal} />
      </span>
    );
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
      <Label signal={signal} />
    </chakra.button>
  );
});

/** The tag's shape. A plain element, styled by `.sb-tag`: hundreds of them change when one signal is lit. */
function Label({ signal }: Pick<TagProps, 'signal'>) {
  const isOutshone = useIsOutshone(signal);
  const own = useColours().of(signal);
  return (
    <span
      className="sb-tag"
      style={{
        background: own ?? themed('line'),
        // Ground is black; what has no colour stands on the theme's own, dim or not.
        color: signal === '0' ? '#FFFFFF' : own === null ? themed('ink') : TAG_INK,
        filter: isOutshone ? 'saturate(0.35) opacity(0.75)' : undefined,
      }}
    >
      {shownSignal(signal)}
    </span>
  );
}
