import { memo } from 'react';
import { colour } from '../../base/colours';
import { useGrowth } from '../legible';
import { SvgText } from '../SvgText';
import type { SceneNote } from './scene';

/** Width of a letter and height of a line of a note, in tenths of an inch. */
const LETTER = 0.36;
const LINE = 0.78;
const SIZE = 0.62;

interface NoteProps {
  readonly note: SceneNote;
  /** How far the mat reaches. */
  readonly right: number;
  readonly chosen: boolean;
}

/** A slip of paper with a corner at the hole that it is about. */
export const Note = memo(function Note({ note, right, chosen }: NoteProps) {
  const { id, x, y, lines } = note;
  const growth = useGrowth(SIZE);
  const width = Math.max(2, ...lines.map((l) => l.length * LETTER * growth + 0.6));
  const height = lines.length * LINE * growth + 0.4;
  // At the right edge of the mat it stands to the left of its hole.
  const left = Math.min(x + 0.4, right - width);
  const corner = left < x ? `H${x}Z` : `V${y + 0.7}Z`;
  return (
    <g data-note={id} style={{ cursor: 'pointer' }}>
      <title>{lines.join(' ')}</title>
      <path
        d={`M${x},${y}L${Math.min(x + 0.7, left + width)},${y + 0.4}H${left + width}V${y + 0.4 + height}H${left}${left < x ? `V${y + 0.4}` : ''}${corner}`}
        fill="#FBF1CF"
        stroke={chosen ? colour('lit') : '#B99B4A'}
        strokeWidth={chosen ? 0.2 : 0.06}
      />
      {lines
        .map((line, i) => ({ line, at: y + 0.4 + (0.65 + i * LINE) * growth - 0.35 * SIZE * (growth - 1) }))
        .map(({ line, at }) => (
          <SvgText key={at} x={left + width / 2} y={at} size={SIZE} fill="#20302B" font="body">
            {line}
          </SvgText>
        ))}
    </g>
  );
});
