import { memo } from 'react';
import { colour } from '../../app/theme';
import { SvgText } from '../SvgText';
import { type BoardScene, holesOf } from './scene';

/** Mat, empty strips, rails and numbers: what never changes while a job has the same boards. */
export const Ground = memo(
  function Ground({ scene, numbered }: { readonly scene: BoardScene; readonly numbered: boolean }) {
    return (
      <>
        {scene.boards.map(({ id, y }) => (
          <g key={id}>
            <rect
              x={-0.9}
              y={y - 0.95}
              width={scene.width + 1.8}
              height={18.9}
              rx={0.7}
              fill={colour('mat')}
              stroke={colour('matDeep')}
              strokeWidth={0.08}
            />
            {[0, 16].flatMap((top) => [
              <RailMark key={`${top}+`} y={y + top} mark="+" />,
              <RailMark key={`${top}-`} y={y + top + 1} mark="−" />,
            ])}
            {['j', 'i', 'h', 'g', 'f'].map((row, i) => (
              <RowName key={row} y={y + 3 + i} name={row} />
            ))}
            {['e', 'd', 'c', 'b', 'a'].map((row, i) => (
              <RowName key={row} y={y + 10 + i} name={row} />
            ))}
            {numbered && <ColumnNumbers y={y} />}
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
  (a, b) => a.numbered === b.numbered && a.scene.boards.length === b.scene.boards.length,
);

function RailMark({ y, mark }: { readonly y: number; readonly mark: string }) {
  return (
    <>
      {[0.1, 63.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.3} size={0.9} fill={mark === '+' ? colour('flag') : '#9FC0D0'} weight={600}>
          {mark}
        </SvgText>
      ))}
    </>
  );
}

function RowName({ y, name }: { readonly y: number; readonly name: string }) {
  return (
    <>
      {[0.1, 63.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.22} size={0.66} fill={colour('matText')}>
          {name}
        </SvgText>
      ))}
    </>
  );
}

function ColumnNumbers({ y }: { readonly y: number }) {
  return (
    <>
      {[1, ...Array.from({ length: 12 }, (_, i) => 5 * i + 5)].flatMap((column) =>
        [2.3, 15.25].map((dy) => (
          <SvgText key={`${column}${dy}`} x={column} y={y + dy} size={0.62} fill={colour('matText')}>
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
        d={scene.boards.flatMap(({ y }) => holesOf(y).map(dot)).join('')}
        fill={colour('hole')}
        pointerEvents="none"
      />
    );
  },
  (a, b) => a.scene.boards.length === b.scene.boards.length,
);
