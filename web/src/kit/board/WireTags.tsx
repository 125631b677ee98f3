import { memo } from 'react';
import { colour } from '../../base/colours';
import type { Colours } from '../../base/palette';
import { SvgText } from '../SvgText';
import { TAG_INK } from '../Tag';
import { boxOf, type WireTag } from './wire-tags';

/** Size of the letters on a marker. */
const LETTERS = 0.64;

interface WireTagsProps {
  readonly tags: readonly WireTag[];
  readonly colours: Colours;
}

/** The markers on wires that leave sight: the signal's name on its colour. They are for the eye; the pointer meets the wires below. */
export const WireTags = memo(function WireTags({ tags, colours }: WireTagsProps) {
  return (
    <g pointerEvents="none">
      {tags.map((tag) => (
        <g key={`${tag.wire} ${tag.x} ${tag.y}`} data-tag-of={tag.wire}>
          <rect
            {...boxOf(tag)}
            rx={0.16}
            fill={colours.of(tag.signal) ?? colour('matText')}
            stroke={colour('matDeep')}
            strokeWidth={0.09}
          />
          <g transform={tag.isUpright ? `rotate(-90 ${tag.x} ${tag.y})` : undefined}>
            <SvgText x={tag.x} y={tag.y + LETTERS * 0.35} size={LETTERS} fill={TAG_INK} weight={600}>
              {tag.text}
            </SvgText>
          </g>
        </g>
      ))}
    </g>
  );
});
