import { memo } from 'react';
import { colour } from '../../base/colours';
import { SvgText } from '../SvgText';
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
    const strips = stripsOf(board);
    const capsules = (rail: '+' | '-' | null): string =>
      strips
        .filter((s) => s.rail === rail)
        .map(capsule)
        .join('');
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
          {(board.rails ? [0, 16] : []).flatMap((top) => [
            <RailMark key={`${top}+`} y={top} columns={board.columns} mark="+" />,
            <RailMark key={`${top}-`} y={top + 1} columns={board.columns} mark="−" />,
          ])}
          {['j', 'i', 'h', 'g', 'f'].map((row, i) => (
            <RowName key={row} y={3 + i} columns={board.columns} name={row} />
          ))}
          {['e', 'd', 'c', 'b', 'a'].map((row, i) => (
            <RowName key={row} y={10 + i} columns={board.columns} name={row} />
          ))}
          {numbered && <ColumnNumbers columns={board.columns} />}
          {numbered && (
            <SvgText x={0.1} y={8.75} size={0.72} fill={colour('matText')} weight={600}>
              {board.id}
            </SvgText>
          )}
        </g>
        <path d={capsules(null)} fill={colour('strip')} />
        <path d={capsules('+')} fill={colour('railPlus')} />
        <path d={capsules('-')} fill={colour('railMinus')} />
      </>
    );
  },
  (a, b) => a.numbered === b.numbered && a.board.id === b.board.id,
);

/** A strip or rail as a path: all strips of a board are drawn by one. */
function capsule({ x, y, width, height }: { x: number; y: number; width: number; height: number }): string {
  const r = HALF;
  const [w, h] = [width - 2 * r, height - 2 * r];
  const corner = (dx: number, dy: number): string => `a${r},${r} 0 0 1 ${dx},${dy}`;
  return `M${x + r},${y}h${w}${corner(r, r)}v${h}${corner(-r, r)}h${-w}${corner(-r, -r)}v${-h}${corner(r, -r)}`;
}

interface EdgeProps {
  readonly y: number;
  readonly columns: number;
}

function RailMark({ y, columns, mark }: EdgeProps & { readonly mark: string }) {
  return (
    <>
      {[0.1, columns + 0.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.3} size={0.9} fill={mark === '+' ? colour('flag') : '#9FC0D0'} weight={600}>
          {mark}
        </SvgText>
      ))}
    </>
  );
}

function RowName({ y, columns, name }: EdgeProps & { readonly name: string }) {
  return (
    <>
      {[0.1, columns + 0.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.22} size={0.66} fill={colour('matText')}>
          {name}
        </SvgText>
      ))}
    </>
  );
}

function ColumnNumbers({ columns }: { readonly columns: number }) {
  return (
    <>
      {[1, ...Array.from({ length: Math.floor(columns / 5) }, (_, i) => 5 * i + 5)].flatMap((column) =>
        [2.3, 15.25].map((dy) => (
          <SvgText key={`${column}${dy}`} x={column} y={dy} size={0.62} fill={colour('matText')}>
            {column}
          </SvgText>
        )),
      )}
    </>
  );
}

/** Every hole of every board, each board's as one path. */
export function Holes({ scene }: { readonly scene: BoardScene }) {
  return scene.boards.map((board) => <BoardHoles key={board.id} board={board} />);
}

const RADIUS = 0.17;

const BoardHoles = memo(
  function BoardHoles({ board }: { readonly board: SceneBoard }) {
    const r = RADIUS;
    const dot = ({ x, y }: { x: number; y: number }): string =>
      `M${x - r},${y}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`;
    return <path d={holesOf(board).map(dot).join('')} fill={colour('hole')} pointerEvents="none" />;
  },
  (a, b) => a.board.id === b.board.id,
);
