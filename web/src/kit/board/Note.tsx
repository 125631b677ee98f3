import { memo } from 'react';
import { colour } from '../../base/colours';
import { useGrowth } from '../legible';
import { SvgText } from '../SvgText';
import type { SceneNote } from './scene';

/** Width of a letter and height of a line of a note, in tenths of an inch. */
const LETTER = 0.36;
const LINE = 0.78;
const SIZE = 0.62;

/** A slip of paper with a corner at the hole that it is about. */
export const Note = memo(function Note({ note, chosen }: { readonly note: SceneNote; readonly chosen: boolean }) {
  const { id, x, y, lines } = note;
  const growth = useGrowth(SIZE);
  const width = Math.max(2, ...lines.map((l) => l.length * LETTER * growth + 0.6));
  const height = lines.length * LINE * growth + 0.4;
  return (
    <g data-note={id} style={{ cursor: 'pointer' }}>
      <title>{lines.join(' ')}</title>
      <path
        d={`M${x},${y}L${x + 0.7},${y + 0.4}H${x + 0.4 + width}V${y + 0.4 + height}H${x + 0.4}V${y + 0.7}Z`}
        fill="#FBF1CF"
        stroke={chosen ? colour('lit') : '#B99B4A'}
        strokeWidth={chosen ? 0.2 : 0.06}
      />
      {lines
        .map((line, i) => ({ line, at: y + 0.4 + (0.65 + i * LINE) * growth - 0.35 * SIZE * (growth - 1) }))
        .map(({ line, at }) => (
          <SvgText key={at} x={x + 0.4 + width / 2} y={at} size={SIZE} fill="#20302B" font="body">
            {line}
          </SvgText>
        ))}
    </g>
  );
});
