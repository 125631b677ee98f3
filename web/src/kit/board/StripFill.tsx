import { memo } from 'react';
import { colour } from '../../base/colours';
import type { Colours } from '../../base/palette';
import { SvgText } from '../SvgText';
import { HALF, type SceneStrip } from './scene';

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
  if (own === null && (level === null || strip.idle)) return null;
  if (strip.rail !== null && !lit) return null;
  const fill = own ?? '#8FA39A';
  const high = level === null || level === 1;
  const unknown = level !== null && level === 2;
  const upper = strip.id.endsWith('f');
  const body = {
    x: strip.x,
    y: strip.y,
    width: strip.width,
    height: strip.height,
    rx: HALF,
    fill: high ? fill : 'none',
    fillOpacity: level === null && !lit ? 0.62 : 0.95,
    stroke: unknown ? colour('flag') : fill,
    strokeWidth: 0.1,
    ...(unknown && { strokeDasharray: '0.3 0.2' }),
  };
  const named = { 'data-strip': strip.id, 'data-signal': strip.signal };
  // Without a level a strip is one shape.
  if (level === null || strip.rail !== null) return <rect {...named} {...body} />;
  return (
    <g {...named}>
      <rect {...body} />
      <SvgText
        x={strip.x + strip.width / 2}
        y={upper ? strip.y - 0.16 : strip.y + strip.height + 0.6}
        size={unknown && volts !== null ? 0.5 : 0.62}
        fill={unknown ? colour('flag') : colour('matText')}
        weight={600}
      >
        {unknown && volts !== null ? volts.toFixed(1) : (levelMarks[level] ?? '?')}
      </SvgText>
    </g>
  );
});
