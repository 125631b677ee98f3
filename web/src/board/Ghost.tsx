import { applyEdit, type Edit, elementAt, holeXY, type Job, leadsOf, parseHole, partOf } from '@saddlebag/core';
import { colour } from '../base/colours';
import { says } from '../base/words';
import { SvgText } from '../kit/SvgText';
import { cornersOf } from './bend';
import { allChosen, type Hands, offsetBetween } from './hand';
import { type Frame, sidesOf } from './selection';

/** What the hands are about to do, drawn over the board: the cursor, the jumper being laid, the part being carried. */
export function Ghost({
  hands,
  job,
  showCursor,
}: {
  readonly hands: Hands;
  readonly job: Job;
  readonly showCursor: boolean;
}) {
  const from = hands.laying === null ? null : parseHole(hands.laying);
  const at = parseHole(hands.cursor);
  const cursor = at && holeXY(at);
  return (
    <g pointerEvents="none">
      {from && cursor && (
        <line
          x1={holeXY(from).x}
          y1={holeXY(from).y}
          x2={cursor.x}
          y2={cursor.y}
          stroke={colour('lit')}
          strokeWidth={0.26}
          strokeDasharray="0.5 0.35"
          strokeLinecap="round"
        />
      )}
      {from && <circle cx={holeXY(from).x} cy={holeXY(from).y} r={0.3} fill={colour('lit')} />}
      {cursor && (showCursor || from) && (
        <circle cx={cursor.x} cy={cursor.y} r={0.46} fill="none" stroke={colour('lit')} strokeWidth={0.13} />
      )}
      {hands.frame && <FrameDrawing frame={hands.frame} />}
      <CarriedPart hands={hands} job={job} />
      <BentWire hands={hands} />
    </g>
  );
}

function FrameDrawing({ frame }: { readonly frame: Frame }) {
  const { left, top, right, bottom } = sidesOf(frame);
  return (
    <rect
      x={left}
      y={top}
      width={right - left}
      height={bottom - top}
      fill={colour('lit')}
      fillOpacity={0.1}
      stroke={colour('lit')}
      strokeWidth={0.12}
      strokeDasharray="0.5 0.3"
    />
  );
}

/** The way that a wire takes when it is let go. */
function BentWire({ hands: { bend } }: { readonly hands: Hands }) {
  if (!bend || (bend.by.x === 0 && bend.by.y === 0)) return null;
  const route = [bend.path[0], ...cornersOf(bend), bend.path.at(-1)];
  return (
    <polyline
      points={route.map((p) => `${p?.x},${p?.y}`).join(' ')}
      fill="none"
      stroke={colour('lit')}
      strokeWidth={0.26}
      strokeDasharray="0.5 0.35"
      strokeLinejoin="round"
    />
  );
}

function CarriedPart({ hands, job }: { readonly hands: Hands; readonly job: Job }) {
  const { carry } = hands;
  const part = carry && partOf(job.board, carry.ref);
  if (!carry || !part || carry.at === null || carry.at === part.at) return null;
  const edit: Edit =
    hands.others.length > 0
      ? { kind: 'shift', what: allChosen(hands), ...offsetBetween(part.at, carry.at) }
      : { kind: 'move', ref: part.ref, at: carry.at, rotation: part.rotation, follow: carry.follow };
  const applied = applyEdit(job, edit);
  const fits = applied.ok;
  const places = leadsOf({ ...part, at: carry.at }).flatMap(({ hole }) => (hole ? [holeXY(hole)] : []));
  const xs = places.map((p) => p.x);
  const ys = places.map((p) => p.y);
  const stroke = fits ? colour('lit') : colour('flag');
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return (
    <g>
      <rect
        x={x - 0.5}
        y={y - 0.5}
        width={Math.max(...xs) - x + 1}
        height={Math.max(...ys) - y + 1}
        rx={0.3}
        fill={stroke}
        fillOpacity={0.18}
        stroke={stroke}
        strokeWidth={0.14}
        strokeDasharray={fits ? undefined : '0.4 0.25'}
      />
      {!fits && (
        <SvgText x={x + (Math.max(...xs) - x) / 2} y={y - 0.8} size={0.8} fill={stroke} font="body">
          {says(elementAt(applied.findings, 0))}
        </SvgText>
      )}
    </g>
  );
}
