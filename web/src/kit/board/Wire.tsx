import type { JumperColour } from '@saddlebag/core';
import { memo } from 'react';
import { colour } from '../../app/theme';
import type { SceneWire } from './scene';

/** Insulation as it looks on the mat; black is lifted a little, so that it can be seen there. */
export const insulation: Readonly<Record<JumperColour, string>> = {
  red: '#E0364A',
  black: '#3B4240',
  blue: '#4E8FE0',
  green: '#4FAE62',
  yellow: '#F0D24A',
  orange: '#F08A34',
  white: '#F4F1E8',
  grey: '#A9B0AC',
  violet: '#A679D8',
  brown: '#A5683F',
};

interface WireProps {
  readonly wire: SceneWire;
  readonly colour: string | null;
  readonly chosen: boolean;
}

/** A jumper along its way, with both ends; its signal's colour, or grey when it carries none. */
export const Wire = memo(function Wire({ wire, colour: own, chosen }: WireProps) {
  const stroke = own ?? '#C9D2CB';
  const d = wire.path.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  const ends = [wire.path[0], wire.path[wire.path.length - 1]].flatMap((p) => p ?? []);
  return (
    <g data-wire={wire.id} data-signal={wire.signal} style={{ cursor: 'pointer' }}>
      <title>{wire.signal === undefined ? wire.id : `${wire.id}, ${wire.signal}`}</title>
      <path
        d={d}
        fill="none"
        stroke={chosen ? colour('lit') : colour('matDeep')}
        strokeWidth={chosen ? 0.62 : 0.46}
        strokeLinejoin="round"
        strokeLinecap="round"
      />
      <path d={d} fill="none" stroke={stroke} strokeWidth={0.28} strokeLinejoin="round" strokeLinecap="round" />
      {ends.map((p) => (
        <circle
          key={`${p.x},${p.y}`}
          cx={p.x}
          cy={p.y}
          r={0.27}
          fill={stroke}
          stroke={colour('matDeep')}
          strokeWidth={0.09}
        />
      ))}
    </g>
  );
});
