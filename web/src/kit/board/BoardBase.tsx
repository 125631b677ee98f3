import { breadboardXY, remembered } from '@saddlebag/core';
import { memo } from 'react';
import { colour } from '../../base/colours';
import { ScatteredText, SvgText } from '../SvgText';
import { type BoardScene, HALF, holesOf, type SceneBoard, stripsOf } from './scene';

/** Mat, empty strips, rails and numbers: what never changes while a job has the same boards. */
export function BoardBases({ scene, numbered }: { readonly scene: BoardScene; readonly numbered: boolean }) {
  return scene.boards.map((board) => <BoardBase key={board.id} board={board} numbered={numbered} />);
}

interface BoardBaseProps {
  readonly board: SceneBoard;
  readonly numbered: boolean;
}

const BoardBase = memo(
  function BoardBase({ board, numbered }: BoardBaseProps) {
    const { strips, plus, minus } = emptyPaths(board.id);
    return (
      <>
        <g transform={`translate(${board.x},${board.y})`}>
          <rect
            x={-0.9}
            y={board.rails ? -0.95 : 1.25}
            width={board.columns + 2.8}
            height={board.rails ? 18.9 : 14.5}
            rx={0.7}
            fill={colour('mat')}
            stroke={colour('matDeep')}
            strokeWidth={0.08}
          />
          <RailMarks board={board} mark="+" />
          <RailMarks board={board} mark="−" />
          <ScatteredText labels={rowNames(board.columns)} size={0.66} fill={colour('matText')} />
          {numbered && <ColumnNumbers columns={board.columns} />}
          {numbered && (
            <SvgText x={0.1} y={8.75} size={0.72} fill={colour('matText')} weight={600}>
              {board.id}
            </SvgText>
          )}
        </g>
        <path d={strips} fill={colour('strip')} />
        <path d={plus} fill={colour('railPlus')} />
        <path d={minus} fill={colour('railMinus')} />
      </>
    );
  },
  (a, b) => a.numbered === b.numbered && a.board.id === b.board.id,
);

/** The empty strips and rails of a board, and its holes, as paths: they follow from its id. */
const emptyPaths = remembered((id: string) => {
  const of = (rail: '+' | '-' | null): string =>
    stripsOf({ id })
      .filter((s) => s.rail === rail)
      .map(capsule)
      .join('');
  return { strips: of(null), plus: of('+'), minus: of('-') };
});

/** A strip or rail as a path: all strips of a board are drawn by one. */
function capsule({ x, y, width, height }: { x: number; y: number; width: number; height: number }): string {
  const r = HALF;
  const [w, h] = [width - 2 * r, height - 2 * r];
  const corner = (dx: number, dy: number): string => `a${r},${r} 0 0 1 ${dx},${dy}`;
  return `M${x + r},${y}h${w}${corner(r, r)}v${h}${corner(-r, r)}h${-w}${corner(-r, -r)}v${-h}${corner(r, -r)}`;
}

function RailMarks({ board, mark }: { readonly board: SceneBoard; readonly mark: '+' | '−' }) {
  const rows = board.rails ? [0, 16].map((top) => (mark === '+' ? top : top + 1)) : [];
  const labels = rows.flatMap((y) => atEdges(board.columns, y + 0.3, mark));
  return <ScatteredText labels={labels} size={0.9} fill={mark === '+' ? colour('flag') : '#9FC0D0'} weight={600} />;
}

/** The same label at the left and the right edge of a board. */
const atEdges = (columns: number, y: number, text: string) => [0.1, columns + 0.95].map((x) => ({ x, y, text }));

const rowNames = (columns: number) =>
  [...'jihgf', ...'edcba'].flatMap((name, i) => atEdges(columns, (i < 5 ? 3 : 5) + i + 0.22, name));

function ColumnNumbers({ columns }: { readonly columns: number }) {
  const numbers = [1, ...Array.from({ length: Math.floor(columns / 5) }, (_, i) => 5 * i + 5)];
  const labels = numbers.flatMap((n) => [2.3, 15.25].map((y) => ({ x: n, y, text: String(n) })));
  return <ScatteredText labels={labels} size={0.62} fill={colour('matText')} />;
}

/** Every hole of every board, each board's as one path. */
export function Holes({ scene }: { readonly scene: BoardScene }) {
  return scene.boards.map((board) => <BoardHoles key={board.id} board={board} />);
}

const RADIUS = 0.17;

const holePath = remembered((id: string): string => {
  const r = RADIUS;
  const dot = ({ x, y }: { x: number; y: number }): string =>
    `M${x - r},${y}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`;
  return holesOf({ id, ...breadboardXY(id) })
    .map(dot)
    .join('');
});

const BoardHoles = memo(
  function BoardHoles({ board }: { readonly board: SceneBoard }) {
    return <path d={holePath(board.id)} fill={colour('hole')} pointerEvents="none" />;
  },
  (a, b) => a.board.id === b.board.id,
);
