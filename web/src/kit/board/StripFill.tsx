import { memo } from 'react';
import { colour } from '../../base/colours';
import { fixed } from '../../base/numbers';
import type { Colours } from '../../base/palette';
import { useGrowth } from '../legible';
import { SvgText } from '../SvgText';
import { HALF, type SceneStrip } from './scene';

/** How much of its signal's colour a strip has: at rest, and followed or under power. */
export const FILL = { atRest: 0.62, lit: 0.95 } as const;

/** Rings about the holes of a ground strip, which is as black as they are. */
function HoleRings({ strip }: { readonly strip: SceneStrip }) {
  const x = strip.x + strip.width / 2;
  const d = Array.from({ length: HOLES }, (_, i) => ring(x, strip.y + HALF + i)).join('');
  return <path d={d} fill={colour('wireEdgeLight')} />;
}

/** Holes of a strip, and how far their rings reach. */
const HOLES = 5;
const RING = 0.24;
const ring = (x: number, y: number): string =>
  `M${x - RING},${y}a${RING},${RING} 0 1 0 ${2 * RING},0a${RING},${RING} 0 1 0 ${-2 * RING},0`;

/** Size of the letters of volts. */
const VOLTS = 0.5;

const levelMarks = ['0', '1', '?'] as const;

interface StripFillProps {
  readonly strip: SceneStrip;
  readonly colours: Colours;
  /** LOW, HIGH, UNKNOWN, or null without power. */
  readonly level: number | null;
  /** Its volts where they are known and no level, to be shown in the level's place. */
  readonly volts: number | null;
  readonly lit: boolean;
}

/** A strip in the colour of its signal. While powered a high strip is full, a low one an outline, and each is marked 1, 0, or with its volts where they are no level, or ?. */
export const StripFill = memo(function StripFill({ strip, colours, level, volts, lit }: StripFillProps) {
  const own = colours.of(strip.signal);
  const growth = useGrowth(VOLTS);
  if (own === null && (level === null || strip.idle)) return null;
  if (strip.rail !== null && !lit) return null;
  const fill = own ?? '#8FA39A';
  const high = level === null || level === 1;
  const unknown = level !== null && level === 2;
  // Volts that would not fit beside those of the next strip give way to a question mark.
  const areVoltsTold = unknown && volts !== null && growth * VOLTS * 1.8 < 1.1;
  const upper = strip.id.endsWith('f');
  const body = {
    x: strip.x,
    y: strip.y,
    width: strip.width,
    height: strip.height,
    rx: HALF,
    fill: high ? fill : 'none',
    fillOpacity: level === null && !lit ? FILL.atRest : FILL.lit,
    stroke: unknown ? colour('flag') : fill,
    strokeWidth: 0.1,
    ...(unknown && { strokeDasharray: '0.3 0.2' }),
  };
  const named = { 'data-strip': strip.id, 'data-signal': strip.signal };
  // Without a level a strip is one shape.
  if (level === null || strip.rail !== null)
    return (
      <g {...named}>
        <rect {...body} />
        {strip.signal === '0' && strip.rail === null && <HoleRings strip={strip} />}
      </g>
    );
  return (
    <g {...named}>
      <rect {...body} />
      <SvgText
        x={strip.x + strip.width / 2}
        y={upper ? strip.y - 0.16 : strip.y + strip.height + 0.6}
        size={areVoltsTold ? VOLTS : 0.62}
        fill={unknown ? colour('flag') : colour('matText')}
        weight={600}
      >
        {areVoltsTold ? fixed(volts, 1) : (levelMarks[level] ?? '?')}
      </SvgText>
    </g>
  );
});
