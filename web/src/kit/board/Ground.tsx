import { memo } from 'react';
import { colour } from '../../app/colours';
import { SvgText } from '../SvgText';
import { type BoardScene, holesOf } from './scene';

/** Mat, empty strips, rails and numbers: what never changes while a job has the same boards. */
export const Ground = memo(
  function Ground({ scene, numbered }: { readonly scene: BoardScene; readonly numbered: boolean }) {
    return (
      <>
        {scene.boards.map((board) => (
          <g key={board.id} transform={`translate(${board.x},${board.y})`}>
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
        ))}
        {scene.strips.map((s) => (
          <rect
            key={s.id}
            x={s.x}
            y={s.y}
            width={s.width}
            height={s.height}
            rx={0.42}
            fill={s.rail === '+' ? colour('railPlus') : s.rail === '-' ? colour('railMinus') : colour('strip')}
          />
        ))}
      </>
    );
  },
  (a, b) => a.numbered === b.numbered && sameBoards(a.scene, b.scene),
);

const sameBoards = (a: BoardScene, b: BoardScene): boolean =>
  a.boards.map((board) => board.id).join() === b.boards.map((board) => board.id).join();

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

/** Every hole of every board, as one path. */
export const Holes = memo(
  function Holes({ scene }: { readonly scene: BoardScene }) {
    const r = 0.17;
    const dot = ({ x, y }: { x: number; y: number }): string =>
      `M${x - r},${y}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`;
    return (
      <path
        d={scene.boards.flatMap((board) => holesOf(board).map(dot)).join('')}
        fill={colour('hole')}
        pointerEvents="none"
      />
    );
  },
  (a, b) => sameBoards(a.scene, b.scene),
);
