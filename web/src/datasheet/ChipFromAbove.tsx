import { innerOf, type PartType, type Pin, type Unit } from '@saddlebag/core';
import { colour } from '../base/colours';
import { useSettings } from '../base/settings';
import { GateSymbol, type SymbolKind } from '../kit/GateSymbol';
import { SvgText } from '../kit/SvgText';
import { boxLeads, looksLeft, symbolTransform, unitLeads } from '../kit/unit-leads';
import { isLow } from './PinName';

const PITCH = 44;
const EDGE = { left: 12, top: 40 } as const;
const METAL = '#B0B1A8';

/** A package from above: every pin with its number and name, and its units between their own pins. */
export function ChipFromAbove({ type, number }: { readonly type: PartType; readonly number: string }) {
  const half = type.pins.length / 2;
  const width = half * PITCH;
  const height = type.chip?.rows === 6 ? 170 : 112;
  const x = (dx: number): number => EDGE.left + PITCH * (dx + 0.5);
  return (
    <svg
      viewBox={`0 0 ${width + 2 * EDGE.left} ${height + 2 * EDGE.top}`}
      role="img"
      aria-label={`${number} from above, pin 1 at the lower left`}
      style={{ display: 'block', width: '100%', maxWidth: 1.1 * width + 24, maxHeight: 260 }}
    >
      <rect
        x={EDGE.left}
        y={EDGE.top}
        width={width}
        height={height}
        rx={7}
        fill={colour('bone')}
        stroke={colour('boneLine')}
        strokeWidth={2}
      />
      <path
        d={`M${EDGE.left},${EDGE.top + height / 2 - 11} a11,11 0 0 1 0,22`}
        fill={colour('card')}
        stroke={colour('boneLine')}
        strokeWidth={1.6}
      />
      {type.pins.map((pin) => (
        <PinFromAbove key={pin.id} pin={pin} x={x(pin.dx)} top={EDGE.top} bottom={EDGE.top + height} />
      ))}
      <Inside type={type} number={number} x={x} middle={EDGE.top + height / 2} width={width} />
    </svg>
  );
}

interface PinFromAboveProps {
  readonly pin: Pin;
  readonly x: number;
  readonly top: number;
  readonly bottom: number;
}

function PinFromAbove({ pin, x, top, bottom }: PinFromAboveProps) {
  const lower = pin.dy === 0;
  const edge = lower ? bottom : top;
  const dim = pin.role === 'none';
  const ink = pin.role === 'supply' ? colour('bad') : dim ? colour('soft') : colour('ink');
  const name = isLow(pin.name) ? pin.name.slice(0, -1) : pin.name;
  const size = name.length > 5 ? 9 : 11.5;
  const y = lower ? edge + 27 : edge - 19;
  return (
    <g>
      <rect x={x - 7} y={lower ? edge : edge - 13} width={14} height={13} fill={METAL} opacity={dim ? 0.5 : 1} />
      <SvgText x={x} y={lower ? edge - 6 : edge + 14} size={11} fill="#4A564F">
        {pin.id}
      </SvgText>
      <SvgText
        x={x}
        y={y}
        size={size}
        fill={ink}
        font="mono"
        weight={pin.role === 'output' || pin.role === 'both' ? 600 : 400}
      >
        {name}
      </SvgText>
      {isLow(pin.name) && (
        <line
          x1={x - 0.3 * size * name.length}
          x2={x + 0.3 * size * name.length}
          y1={y - size * 0.86}
          y2={y - size * 0.86}
          stroke={ink}
          strokeWidth={1.1}
        />
      )}
    </g>
  );
}

interface InsideProps {
  readonly type: PartType;
  readonly number: string;
  readonly x: (dx: number) => number;
  readonly middle: number;
  readonly width: number;
}

/** Simple units as symbols near their outputs; for the rest, the number of the chip and what it is. */
function Inside({ type, number, x, middle, width }: InsideProps) {
  const { symbols } = useSettings();
  // From the middle to where the number of a pin begins.
  const reach = (type.chip?.rows === 6 ? 170 : 112) / 2 - 17;
  if (type.units.length < 2)
    return (
      <>
        <SvgText x={EDGE.left + width / 2} y={middle + 1} size={19} fill="#20302B" font="heading" weight={600}>
          {number}
        </SvgText>
        <SvgText x={EDGE.left + width / 2} y={middle + 18} size={11.5} fill="#5D6B62" font="body">
          {type.title.length > width / 6 ? `${type.title.slice(0, Math.floor(width / 6))}…` : type.title}
        </SvgText>
      </>
    );
  return (
    <>
      {type.units.map((unit) => {
        const { at, lower } = placeOf(type, unit);
        const [left, top] = [x(at) - 20, middle + (lower ? 4 : -28)];
        const end = (id: string) => {
          const pin = type.pins.find((p) => p.id === id);
          return { x: x(pin?.dx ?? 0), y: pin?.dy === 0 ? middle + reach : middle - reach };
        };
        if (!unit.symbol) {
          const box = { x: x(at), y: middle + (lower ? 16 : -16), halfWidth: 42, halfHeight: 12 };
          const ends = endsOf(type, unit).map(end);
          return (
            <g key={unit.name}>
              <Leads leads={boxLeads(box, ends, 2.6)} />
              <g transform={`translate(${left} ${middle + (lower ? 1 : -31)}) scale(0.92)`}>
                <UnitBox unit={unit} />
              </g>
            </g>
          );
        }
        const placed = { x: left + 4, y: top, scale: 0.74, mirrored: looksLeft(type, unit) };
        const kind = unit.symbol as SymbolKind;
        const leads = unitLeads(kind, symbols, placed, {
          inputs: unit.inputs.map(end),
          output: end(unit.outputs[0] ?? ''),
          gap: 3,
        });
        return (
          <g key={unit.name}>
            <Leads leads={leads} />
            <g transform={symbolTransform(placed)}>
              <GateSymbol kind={kind} form={symbols} stroke={1.8} />
            </g>
          </g>
        );
      })}
    </>
  );
}

/** The lines of a unit to its pins. */
function Leads({ leads }: { readonly leads: readonly { readonly d: string }[] }) {
  return (
    <g fill="none" stroke={colour('boneLine')} strokeWidth={1} data-leads={leads.length}>
      {leads.map(({ d }) => (
        <path key={d} d={d} />
      ))}
    </g>
  );
}

/** The pins of a unit, the other ends of its analogue switches among them. */
function endsOf(type: PartType, { inputs, outputs }: Unit): string[] {
  const joined = innerOf(type).devices.flatMap(({ a, b }) => (outputs.includes(a) ? [b] : []));
  return [...new Set([...inputs, ...outputs, ...joined])];
}

/** Where a unit is drawn: above the middle of its pins, on the side of its output. */
function placeOf(type: PartType, unit: Unit): { at: number; lower: boolean } {
  const pins = endsOf(type, unit).flatMap((id) => type.pins.find((p) => p.id === id) ?? []);
  const own = type.pins.find((p) => p.id === unit.outputs[0]);
  const side = pins.filter((p) => p.dy === own?.dy);
  return { at: side.reduce((sum, p) => sum + p.dx, 0) / Math.max(1, side.length), lower: own?.dy === 0 };
}

/** A unit that is more than a gate: a box that says what it is, with its edge marked as on a diagram. */
function UnitBox({ unit }: { readonly unit: Unit }) {
  const { stored } = unit.behaviour;
  const edge = stored[0]?.edge;
  const plain = unit.drives.includes('analogue-switch') ? 'switch' : 'logic';
  const word = stored.length === 0 ? plain : stored.length > 1 ? 'register' : edge === 'while' ? 'latch' : 'flip-flop';
  return (
    <g>
      <rect x={-26} y={1} width={92} height={30} rx={3} fill="#FFFDF6" stroke={colour('boneLine')} strokeWidth={1.8} />
      {(edge === 'rise' || edge === 'fall') && (
        <path d="M-26,10 l9,6 l-9,6" fill="none" stroke={colour('boneLine')} strokeWidth={1.4} />
      )}
      {edge === 'fall' && (
        <circle cx={-30.5} cy={16} r={3.6} fill="#FFFDF6" stroke={colour('boneLine')} strokeWidth={1.4} />
      )}
      <SvgText x={22} y={20} size={12.5} fill="#20302B" font="body">
        {`${word} ${unit.name}`}
      </SvgText>
    </g>
  );
}
