import { timingOf, type Unit, type Waveform } from '@saddlebag/core';
import { useMemo } from 'react';
import { colour } from '../base/colours';
import { SvgText } from '../kit/SvgText';
import { isLow } from './PinName';

const STEP = 22;
const ROW = 24;
const LEFT = 66;

/** How a unit with memory answers in time: run by its behaviour, inputs above, outputs below. */
export function Timing({ unit }: { readonly unit: Unit }) {
  const waves = useMemo(() => timingOf(unit), [unit]);
  const clocks = new Set(unit.behaviour.stored.map((s) => s.control));
  const rank = (w: Waveform): number => (!w.input ? 2 : clocks.has(w.name) ? 0 : 1);
  const shown = [...waves].sort((a, b) => rank(a) - rank(b)).slice(0, 16);
  const steps = shown[0]?.levels.length ?? 0;
  if (steps === 0) return null;
  const falls = unit.behaviour.stored[0]?.edge === 'fall';
  return (
    <svg
      viewBox={`0 0 ${LEFT + steps * STEP + 8} ${shown.length * ROW + 8}`}
      role="img"
      aria-label="timing diagram"
      style={{ display: 'block', width: '100%', maxWidth: 640 }}
    >
      {Array.from({ length: steps / 2 }, (_, k) => LEFT + (2 * k + (falls ? 2 : 1)) * STEP).map((x) => (
        <line key={x} x1={x} x2={x} y1={4} y2={shown.length * ROW + 2} stroke={colour('line')} strokeWidth={1} />
      ))}
      {shown.map((wave, i) => (
        <Wave key={wave.name} wave={wave} y={i * ROW + 6} />
      ))}
    </svg>
  );
}

function Wave({ wave, y }: { readonly wave: Waveform; readonly y: number }) {
  const low = isLow(wave.name);
  const name = low ? wave.name.slice(0, -1) : wave.name;
  const at = (level: number): number => y + (level === 1 ? 2 : level === 0 ? 15 : 8.5);
  const d = wave.levels
    .map((l, t) => `${t === 0 ? 'M' : 'L'}${LEFT + t * STEP},${at(l)} H${LEFT + (t + 1) * STEP}`)
    .join(' ');
  const unknown = wave.levels.flatMap((l, t) => (l > 1 ? [t] : []));
  return (
    <g>
      <SvgText
        x={LEFT - 8}
        y={y + 13}
        size={11.5}
        fill={colour('ink')}
        anchor="end"
        font="mono"
        weight={wave.input ? 400 : 600}
      >
        {name}
      </SvgText>
      {low && <line x1={LEFT - 8 - 7 * name.length} x2={LEFT - 8} y1={y + 2.5} y2={y + 2.5} stroke={colour('ink')} />}
      {unknown.map((t) => (
        <rect key={t} x={LEFT + t * STEP} y={y + 2} width={STEP} height={13} fill={colour('line')} />
      ))}
      <path
        d={d}
        fill="none"
        stroke={wave.input ? colour('soft') : colour('moss')}
        strokeWidth={wave.input ? 1.6 : 2.2}
      />
    </g>
  );
}
