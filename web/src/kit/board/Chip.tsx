import { colour } from '../../base/colours';
import { useSettings } from '../../base/settings';
import { GateSymbol } from '../GateSymbol';
import { PointsPerUnit, useGrowth, usePointsWithin } from '../legible';
import { ScatteredText, SvgText } from '../SvgText';
import { shortName } from '../short-name';
import { type PlacedSymbol, symbolTransform, unitLeads } from '../unit-leads';
import type { ScenePart, SceneUnit } from './scene';

const UNIT_SCALE = 0.02;
const METAL = '#B9BBB4';

interface ChipProps {
  readonly part: ScenePart;
  /** A letter for each unit, `h` for high. */
  readonly look: string;
  readonly gateAt: ((pin: string) => string | undefined) | undefined;
}

/** A chip from above: pins with their numbers, notch, and its units between their own pins, each with the gate it holds, lit when its output is high. */
export function Chip({ part, look, gateAt }: ChipProps) {
  const { x, y, width, height, seated } = part;
  const round = seated.rotation === 180;
  const notch = round ? x + width : x;
  const middle = y + height / 2;
  return (
    <>
      <path d={part.pins.map((p) => `M${p.x - 0.17},${middle}V${p.y}h0.34V${middle}z`).join('')} fill={METAL} />
      <path d={part.pins.map(pad).join('')} fill={METAL} stroke={colour('hole')} strokeWidth={0.06} />
      <rect
        x={x}
        y={y}
        width={width}
        height={height}
        rx={0.22}
        fill={colour('bone')}
        stroke={colour('boneLine')}
        strokeWidth={0.09}
      />
      <ScatteredText
        labels={part.pins.map((p, i) => ({ x: p.x, y: p.y + 0.17, text: p.id, counts: isCorner(i, part.pins.length) }))}
        size={0.5}
        room={0.95}
        fill="#14201B"
        weight={600}
      />
      <path d={`M${notch},${middle - 0.26} a0.26,0.26 0 0 ${round ? 0 : 1} 0,0.52`} fill={colour('boneLine')} />
      <SvgText x={x + width / 2} y={middle + 0.2} size={0.6} fill="#20302B" font="heading" weight={600} room={width}>
        {part.ref} {part.part}
      </SvgText>
      {part.units.map((unit, i) => (
        <UnitMark key={unit.output} unit={unit} gate={gateAt?.(unit.output)} isHigh={look[i] === 'h'} />
      ))}
    </>
  );
}

interface UnitMarkProps {
  readonly unit: SceneUnit;
  readonly gate: string | undefined;
  readonly isHigh: boolean;
}

/** A unit with its leads and the gate that it holds; dashed when it holds none. */
function UnitMark({ unit, gate, isHigh }: UnitMarkProps) {
  const { symbols } = useSettings();
  const growth = useGrowth(SIZES.most);
  const points = usePointsWithin(UNIT_SCALE);
  const spare = gate === undefined;
  const { symbolX, nameX, name, size } = laidInUnit(unit, gate ?? '', SIZES.most * Math.min(growth, MOST_GROWTH));
  return (
    <g>
      <path
        d={leadsOf(unit, symbolX, symbols)}
        fill="none"
        stroke={colour('boneLine')}
        strokeWidth={0.035}
        opacity={spare ? 0.4 : 0.8}
      />
      <g transform={symbolTransform(symbolAt(unit, symbolX))}>
        <PointsPerUnit value={points}>
          <GateSymbol kind={unit.kind} form={symbols} spare={spare} lit={!spare && isHigh} stroke={2.6} />
        </PointsPerUnit>
      </g>
      {!spare && (
        <SvgText
          x={nameX}
          y={unit.y + 0.18}
          size={size}
          fill="#6A3A12"
          weight={600}
          anchor="start"
          room={growth < MOST_GROWTH ? unit.right - nameX + 0.1 : 0}
        >
          {name}
        </SvgText>
      )}
    </g>
  );
}

/** Names of gates that grow more would meet the chip's own name. */
const MOST_GROWTH = 1.25;

/** The first and last pin of each row: where all are too many, these tell the others. */
const isCorner = (i: number, pins: number): boolean => [0, pins / 2 - 1, pins / 2, pins - 1].includes(i);

/** The foot of a pin in its hole, with rounded corners. */
function pad({ x, y }: { readonly x: number; readonly y: number }): string {
  const corner = (dx: number, dy: number): string => `a0.12,0.12 0 0 1 ${dx},${dy}`;
  const around = `h0.48${corner(0.12, 0.12)}v0.48${corner(-0.12, 0.12)}h-0.48${corner(-0.12, -0.12)}v-0.48${corner(0.12, -0.12)}`;
  return `M${x - 0.24},${y - 0.36}${around}`;
}

const symbolAt = (unit: SceneUnit, x: number): PlacedSymbol => ({
  x,
  y: unit.y - 16 * UNIT_SCALE,
  scale: UNIT_SCALE,
  mirrored: unit.mirrored,
});

/** The lines from a symbol to the pins of its unit, up to the edge of the body. */
function leadsOf(unit: SceneUnit, x: number, form: 'distinctive' | 'rectangular'): string {
  const edge = (p: { x: number; y: number }) => ({ x: p.x, y: p.y + (p.y > unit.y ? -EDGE : EDGE) });
  const leads = unitLeads(unit.kind, form, symbolAt(unit, x), {
    inputs: unit.inputs.map(edge),
    output: edge(unit.out),
    gap: 0.06,
  });
  return leads.map(({ d }) => d).join('');
}

/** From a pin's hole to the edge of the body. */
const EDGE = 0.38;

/** Width of a symbol with the gap after it, and of a letter against its size, in the drawing's units. */
const SYMBOL = 1.07;
const LETTER = 0.6;
const SIZES = { least: 0.46, most: 0.56 } as const;

/**
 * Where a unit's symbol and name stand: about its middle, moved left as far as the name needs, the name smaller and
 * then shorter where there is no room. `most` is the size that it has where there is; larger than usual, it is not made smaller.
 */
export function laidInUnit({ x, left, right }: SceneUnit, gate: string, most: number = SIZES.most) {
  const room = right - left - SYMBOL - 0.1;
  const least = most > SIZES.most ? most : SIZES.least;
  const fitting = Math.floor(room / (LETTER * least) + 1e-6);
  const name = shortName(gate, Math.min(5, fitting));
  // The number behind a dot is never cut: such a name may have to be smaller still.
  const size = Math.min(most, room / (LETTER * Math.max(1, name.length)));
  const width = SYMBOL + LETTER * size * name.length;
  const symbolX = Math.max(left + 0.05, Math.min(x - 0.55, right - 0.05 - width));
  return { symbolX, nameX: symbolX + SYMBOL, name, size };
}
