import {
  holeXY,
  type Job,
  leadsOf,
  type NextStep,
  type Point,
  parseHole,
  routeJumpers,
  type SeatedPart,
} from '@saddlebag/core';
import { useMemo } from 'react';
import { colour } from '../base/colours';
import { routesOf } from '../kit/board/routes';
import { SvgText } from '../kit/SvgText';

/** The next thing to lay, over the board: a wire on its way between its two holes, or the outline of a part with its first pin. */
export function GuideGhost({ job, next }: { readonly job: Job; readonly next: NextStep | null }) {
  const edit = next?.step?.edit;
  const path = useMemo(() => {
    if (edit?.kind !== 'lay-jumper') return null;
    const { jumper } = edit;
    const board = { ...job.board, jumpers: { ...job.board.jumpers, [jumper.id]: jumper } };
    const paths = routesOf(job.board);
    return routeJumpers(board, paths ? { board: job.board, paths } : undefined).get(jumper.id) ?? null;
  }, [edit, job.board]);
  if (path) return <WireGhost path={path} />;
  return edit?.kind === 'seat' ? <PartGhost part={edit.part} /> : null;
}

function WireGhost({ path }: { readonly path: readonly Point[] }) {
  const d = path.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  const ends = [path[0], path[path.length - 1]].flatMap((p) => p ?? []);
  return (
    <g pointerEvents="none" data-ghost="wire">
      <path d={d} fill="none" stroke={colour('matDeep')} strokeWidth={0.56} strokeLinejoin="round" opacity={0.7} />
      <path
        d={d}
        fill="none"
        stroke={colour('lit')}
        strokeWidth={0.3}
        strokeDasharray="0.6 0.4"
        strokeLinejoin="round"
      />
      {ends.map((p) => (
        <circle key={`${p.x},${p.y}`} cx={p.x} cy={p.y} r={0.5} fill="none" stroke={colour('lit')} strokeWidth={0.16} />
      ))}
    </g>
  );
}

function PartGhost({ part }: { readonly part: SeatedPart }) {
  const anchor = parseHole(part.at);
  const places = leadsOf(part).flatMap(({ hole }) => (hole ? [holeXY(hole)] : []));
  if (!anchor || places.length === 0) return null;
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)];
  const [x, y, right, bottom] = [
    Math.min(...xs) - 0.5,
    Math.min(...ys) - 0.5,
    Math.max(...xs) + 0.5,
    Math.max(...ys) + 0.5,
  ];
  const first = holeXY(anchor);
  return (
    <g pointerEvents="none" data-ghost="part">
      <rect
        x={x}
        y={y}
        width={right - x}
        height={bottom - y}
        rx={0.3}
        fill={colour('lit')}
        fillOpacity={0.16}
        stroke={colour('lit')}
        strokeWidth={0.14}
        strokeDasharray="0.5 0.3"
      />
      <circle cx={first.x} cy={first.y} r={0.34} fill={colour('lit')} />
      <SvgText
        x={(x + right) / 2}
        // Where the dot of the first pin leaves no room inside, the name stands above.
        y={right - x < 4 ? y - 0.25 : (y + bottom) / 2 + 0.3}
        size={0.86}
        fill={colour('lit')}
        font="heading"
        weight={600}
      >
        {part.ref}
      </SvgText>
    </g>
  );
}
