import type { JumperColour, Point } from '@saddlebag/core';
import { memo } from 'react';
import { colour } from '../../base/colours';
import type { SceneWire } from './scene';

/** Insulation as it looks on the mat. */
export const insulation: Readonly<Record<JumperColour, string>> = {
  red: '#EE4458',
  black: '#171C1A',
  blue: '#4E8FE0',
  green: '#4FAE62',
  yellow: '#F0D24A',
  orange: '#F08A34',
  white: '#F4F1E8',
  grey: '#A9B0AC',
  violet: '#A679D8',
  brown: '#B5754A',
};

interface WireProps {
  readonly wire: SceneWire;
  readonly colour: string | null;
  readonly chosen: boolean;
}

/** What a wire without a signal looks like. */
export const UNNAMED = '#C9D2CB';

/** What lies around a wire of a colour, so that it is seen on whatever it lies: around dark ones it is light. */
export function edgeOf(own: string): 'wireEdge' | 'wireEdgeLight' {
  return own === colour('groundWire') || own === insulation.black ? 'wireEdgeLight' : 'wireEdge';
}
const round = { fill: 'none', strokeLinejoin: 'round', strokeLinecap: 'round' } as const;
const END = 0.27;

const routeOf = ({ path }: SceneWire): string => path.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
const endsOf = ({ path }: SceneWire) => [path[0], path[path.length - 1]].flatMap((p) => p ?? []);

/** The end of a wire, as a path. */
const dot = ({ x, y }: Point): string =>
  `M${x - END},${y}a${END},${END} 0 1 0 ${2 * END},0a${END},${END} 0 1 0 ${-2 * END},0`;

/** A jumper along its way, with both ends; its signal's colour, or grey when it carries none. */
export const Wire = memo(function Wire({ wire, colour: own, chosen }: WireProps) {
  const stroke = own ?? UNNAMED;
  const edge = colour(edgeOf(stroke));
  const d = routeOf(wire);
  return (
    <g data-wire={wire.id} data-signal={wire.signal} style={{ cursor: 'pointer' }}>
      <title>{wire.signal === undefined ? wire.id : `${wire.id}, ${wire.signal}`}</title>
      <path d={d} {...round} stroke={chosen ? colour('lit') : edge} strokeWidth={chosen ? 0.62 : 0.46} />
      <path d={d} {...round} stroke={stroke} strokeWidth={0.28} />
      <path d={endsOf(wire).map(dot).join('')} fill={stroke} stroke={edge} strokeWidth={0.09} />
    </g>
  );
});

/** The ends of all wires of a colour, over whatever crosses them: a wire that ends never looks as if it went on. */
export function WireEnds({
  wires,
  colour: own,
}: {
  readonly wires: readonly SceneWire[];
  readonly colour: string | null;
}) {
  const stroke = own ?? UNNAMED;
  const d = wires.flatMap(endsOf).map(dot).join('');
  return <path d={d} fill={stroke} stroke={colour(edgeOf(stroke))} strokeWidth={0.09} pointerEvents="none" />;
}

/**
 * The wires of one signal in one colour, as they are when they lie alone: three shapes, however many they are, since
 * ground may be lit with hundreds. They are for the eye; the pointer meets the wires below.
 */
export function WireBundle({
  wires,
  colour: own,
}: {
  readonly wires: readonly SceneWire[];
  readonly colour: string | null;
}) {
  const stroke = own ?? UNNAMED;
  const edge = colour(edgeOf(stroke));
  const ways = wires.map(routeOf).join('');
  const ends = wires.flatMap(endsOf).map(dot);
  return (
    <g data-lit={wires.map(({ id }) => id).join(' ')} pointerEvents="none">
      <path d={ways} {...round} stroke={edge} strokeWidth={0.46} />
      <path d={ways} {...round} stroke={stroke} strokeWidth={0.28} />
      <path d={ends.join('')} fill={stroke} stroke={edge} strokeWidth={0.09} />
    </g>
  );
}
