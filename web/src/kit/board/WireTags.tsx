import { memo } from 'react';
import { colour } from '../../base/colours';
import type { Colours } from '../../base/palette';
import { useGrowth } from '../legible';
import { SvgText } from '../SvgText';
import { TAG_INK } from '../Tag';
import { boxOf, overlap, type WireTag } from './wire-tags';

/** Size of the letters on a marker. */
const LETTERS = 0.64;

interface WireTagsProps {
  readonly tags: readonly WireTag[];
  readonly colours: Colours;
}

/** Markers as large as they have to be: of those that would lie on each other, the first. */
function grown(tags: readonly WireTag[], growth: number): readonly WireTag[] {
  if (growth === 1) return tags;
  const kept: WireTag[] = [];
  for (const tag of tags) if (!kept.some((other) => overlap(boxOf(tag, growth), boxOf(other, growth)))) kept.push(tag);
  return kept;
}

/** The markers on wires that leave sight: the signal's name on its colour. They are for the eye; the pointer meets the wires below. */
export const WireTags = memo(function WireTags({ tags, colours }: WireTagsProps) {
  const growth = useGrowth(LETTERS);
  return (
    <g pointerEvents="none">
      {grown(tags, growth).map((tag) => (
        <g key={`${tag.wire} ${tag.x} ${tag.y}`} data-tag-of={tag.wire}>
          <rect
            {...boxOf(tag, growth)}
            rx={0.16}
            fill={colours.of(tag.signal) ?? colour('bone')}
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
