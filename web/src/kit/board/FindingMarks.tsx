import type { Finding } from '@saddlebag/core';
import { colour } from '../../base/colours';
import { says } from '../../base/words';
import { useGrowth } from '../legible';
import { SvgText } from '../SvgText';
import type { BoardScene } from './scene';
import { areasAt } from './target-areas';

interface FindingMarksProps {
  readonly findings: readonly Finding[];
  readonly chosen: Finding | null;
  readonly scene: BoardScene;
}

/** Rings at the places of findings; the chosen one says what it is, at its place. */
export function FindingMarks({ findings, chosen, scene }: FindingMarksProps) {
  return (
    <g pointerEvents="none">
      {findings.flatMap((f) =>
        areasAt(f.places, scene).map((s) => {
          const bold = f === chosen;
          return (
            <rect
              key={`${f.code} ${s.x},${s.y}`}
              x={s.x}
              y={s.y}
              width={s.width}
              height={s.height}
              rx={0.6}
              fill={bold ? colour('flag') : 'none'}
              fillOpacity={0.2}
              stroke={f.severity === 'error' ? colour('flag') : colour('lit')}
              strokeWidth={bold ? 0.24 : 0.13}
              strokeDasharray="0.5 0.28"
            />
          );
        }),
      )}
      {chosen && <Flag finding={chosen} scene={scene} />}
    </g>
  );
}

/** Size of the letters on a flag. */
const LETTERS = 0.84;

function Flag({ finding, scene }: { readonly finding: Finding; readonly scene: BoardScene }) {
  const growth = useGrowth(LETTERS);
  const [spot] = areasAt(finding.places, scene);
  if (!spot) return null;
  const text = says(finding);
  const shown = text.length > 64 ? `${text.slice(0, 62)}…` : text;
  const width = shown.length * 0.4 * growth + 1;
  const middle = spot.x + spot.width / 2;
  const x = Math.max(0, Math.min(middle - width / 2, scene.width - width));
  // The label stands in the gap between the strips and the rails, out of the way of the chips.
  const board = [...scene.boards].reverse().find((b) => b.y <= spot.y + 1) ?? { y: 0 };
  const lower = spot.y - board.y > 8;
  const y = board.y + (lower ? 14.7 : 1.35);
  return (
    <g>
      <line x1={middle} y1={spot.y + spot.height / 2} x2={middle} y2={y + 0.7} stroke="#FF8A77" strokeWidth={0.12} />
      <rect x={x} y={y} width={width} height={1.3} rx={0.25} fill="#FF8A77" stroke="#20302B" strokeWidth={0.06} />
      <SvgText x={x + width / 2} y={y + 0.94} size={LETTERS} fill="#1B0C09" font="body">
        {shown}
      </SvgText>
    </g>
  );
}
