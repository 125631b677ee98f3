import { drivenBy, type Package, type PartType, shownSignal, typeOf } from '@saddlebag/core';
import type { ReactNode } from 'react';
import { colour } from '../base/colours';
import { useColours } from '../base/job-context';
import { useSettings } from '../base/settings';
import { followProps, useFollowed } from './follow';
import { GateSymbol } from './GateSymbol';
import { SvgText } from './SvgText';
import { shortName } from './short-name';
import { TAG_INK } from './Tag';
import { boxLeads, looksLeft, symbolTransform, unitLeads } from './unit-leads';

const PITCH = 46;
const BODY = { x: 10, y: 44, height: 140 } as const;
const METAL = '#B0B1A8';

/** Units that can be chosen and dragged: which is chosen, which is under what is dragged and may take it, whose nets are pinned. */
export interface UnitHand {
  readonly chosen: number | null;
  readonly over: number | null;
  readonly can: boolean;
  readonly pinned: ReadonlySet<string>;
  readonly onChoose: (unit: number) => void;
}

interface PackageDrawingProps {
  readonly pack: Package;
  /** Nets that lead nowhere: their pins are drawn bare. */
  readonly loose?: ReadonlySet<string>;
  readonly hand?: UnitHand | undefined;
}

/** A package from above, large: every pin with its number and what it carries, every unit with the gate it holds; spare units dashed. */
export function PackageDrawing({ pack, loose, hand }: PackageDrawingProps) {
  const type = typeOf(pack);
  if (!type) return null;
  const half = type.pins.length / 2;
  const width = half * PITCH;
  const carried = carriedBy(pack, loose);
  return (
    <svg
      viewBox={`0 0 ${width + 20} ${BODY.height + 2 * BODY.y}`}
      role={hand ? 'group' : 'img'}
      aria-label={`${pack.ref} ${pack.part}`}
      style={{ display: 'block', width: '100%' }}
    >
      <rect
        x={BODY.x}
        y={BODY.y}
        width={width}
        height={BODY.height}
        rx={7}
        fill={colour('bone')}
        stroke={colour('boneLine')}
        strokeWidth={2}
      />
      <path
        d={`M${BODY.x},${BODY.y + BODY.height / 2 - 11} a11,11 0 0 1 0,22`}
        fill={colour('card')}
        stroke={colour('boneLine')}
        strokeWidth={1.6}
      />
      {type.pins.map((pin) => (
        <PinDrawing
          key={pin.id}
          id={pin.id}
          input={hand && inputOf(pack, pin.id)}
          x={xOf(pin.dx)}
          lower={pin.dy === 0}
          carries={carried.get(pin.id) ?? (pin.role === 'supply' ? '1' : pin.role === 'ground' ? '0' : undefined)}
        />
      ))}
      {type.units.map((unit, i) => (
        <UnitInside key={unit.name} pack={pack} type={type} unit={i} hand={hand} />
      ))}
    </svg>
  );
}

/** Where a column of pins stands in the drawing. */
const xOf = (dx: number): number => BODY.x + PITCH * (dx + 0.5);

interface UnitInsideProps {
  readonly pack: Package;
  readonly type: PartType;
  readonly unit: number;
  readonly hand: UnitHand | undefined;
}

/** A unit inside its package: its gate, its box, or for a block alone in its package the name of the part. */
function UnitInside({ pack, type, unit: i, hand }: UnitInsideProps) {
  const { symbols } = useSettings();
  const unit = type.units[i];
  if (!unit) return null;
  const width = (type.pins.length / 2) * PITCH;
  if (!unit.symbol && type.units.length === 1)
    return <UnitName x={width / 2 + BODY.x} name={type.title} width={width} first={i === 0} />;
  const output = pack.units[i]?.output;
  const pins = [...unit.inputs, ...unit.outputs].flatMap((id) => type.pins.find((p) => p.id === id) ?? []);
  const out = type.pins.find((p) => p.id === unit.outputs[0]);
  const x = xOf(pins.reduce((sum, p) => sum + p.dx, 0) / pins.length);
  const y = BODY.y + BODY.height * (out?.dy === 0 ? 0.66 : 0.34);
  const drawing = unit.symbol ? (
    <UnitDrawing
      x={x}
      y={y}
      kind={unit.symbol}
      form={symbols}
      output={output}
      mirrored={looksLeft(type, unit)}
      inputs={unit.inputs.map((id) => innerEnd(type, id))}
      out={innerEnd(type, unit.outputs[0] ?? '')}
    />
  ) : (
    <UnitBox
      name={unit.name}
      x={x}
      y={y}
      output={output}
      ends={[...new Set([...unit.inputs, ...unit.outputs])].map((id) => innerEnd(type, id))}
    />
  );
  // A unit of several outputs stays where it is.
  if (!unit.symbol && unit.outputs.length > 1) return <g>{drawing}</g>;
  return (
    <UnitFrame pack={pack} unit={i} x={x} y={y} hand={hand}>
      {drawing}
    </UnitFrame>
  );
}

/** Where a pin's line ends inside the body: before its number. */
function innerEnd(type: PartType, id: string): { x: number; y: number } {
  const pin = type.pins.find((p) => p.id === id);
  return { x: xOf(pin?.dx ?? 0), y: pin?.dy === 0 ? BODY.y + BODY.height - 18 : BODY.y + 18 };
}

interface UnitFrameProps {
  readonly pack: Package;
  readonly unit: number;
  readonly x: number;
  readonly y: number;
  readonly hand: UnitHand | undefined;
  readonly children: ReactNode;
}

/** A unit that can be pressed and dragged, with its frame when it is chosen or something is over it, and a pin when it is pinned. */
function UnitFrame({ pack, unit, x, y, hand, children }: UnitFrameProps) {
  if (!hand) return children;
  const output = pack.units[unit]?.output;
  const chosen = hand.chosen === unit;
  const over = hand.over === unit;
  const pinned = output !== undefined && hand.pinned.has(output);
  const line = over ? (hand.can ? colour('moss') : colour('bad')) : chosen ? colour('moss') : 'transparent';
  const place = `${pack.ref}.${unit + 1}`;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button cannot stand inside a drawing
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${place} ${output ?? 'spare'}${pinned ? ', pinned' : ''}`}
      data-unit={place}
      style={{ cursor: output === undefined ? 'pointer' : 'grab', touchAction: 'none' }}
      onClick={() => hand.onChoose(unit)}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return;
        e.preventDefault();
        hand.onChoose(unit);
      }}
    >
      <rect
        x={x - 50}
        y={y - 21}
        width={110}
        height={41}
        rx={6}
        fill="transparent"
        stroke={line}
        strokeWidth={over || chosen ? 2.4 : 0}
      />
      {children}
      {pinned && (
        <g pointerEvents="none">
          <circle cx={x - 41} cy={y - 17} r={5} fill={colour('moss')} stroke="#FFFDF6" strokeWidth={1.2} />
          <circle cx={x - 42.4} cy={y - 18.4} r={1.5} fill="#FFFDF6" />
        </g>
      )}
    </g>
  );
}

/** The unit and input that a pin is, as drops read it; undefined for other pins and where nothing can be dragged. */
function inputOf(pack: Package, pin: string): { unit: string; input: number } | undefined {
  const units = typeOf(pack)?.units ?? [];
  const unit = units.findIndex((u) => u.inputs.includes(pin));
  if (unit < 0 || !pack.units[unit]) return undefined;
  return { unit: `${pack.ref}.${unit + 1}`, input: units[unit]?.inputs.indexOf(pin) ?? 0 };
}

/** What a chip of larger units is, once in its middle. */
function UnitName({
  x,
  name,
  width,
  first,
}: {
  readonly x: number;
  readonly name: string;
  readonly width: number;
  readonly first: boolean;
}) {
  if (!first) return null;
  return (
    <SvgText
      x={x}
      y={BODY.y + BODY.height / 2 + 5}
      size={Math.min(13, (1.7 * (width - 40)) / name.length)}
      fill="#20302B"
      font="body"
    >
      {name}
    </SvgText>
  );
}

function carriedBy(pack: Package, loose?: ReadonlySet<string>): Map<string, string> {
  const carried = new Map<string, string>();
  const type = typeOf(pack);
  pack.units.forEach((use, i) => {
    const unit = type?.units[i];
    if (!use || !unit) return;
    unit.inputs.forEach((pin, k) => {
      carried.set(pin, use.inputs[k] ?? '');
    });
    for (const [k, net] of drivenBy(use).entries()) if (!loose?.has(net)) carried.set(unit.outputs[k] ?? '', net);
  });
  return carried;
}

interface PinDrawingProps {
  readonly id: string;
  readonly input: { readonly unit: string; readonly input: number } | undefined;
  readonly x: number;
  readonly lower: boolean;
  readonly carries: string | undefined;
}

function PinDrawing({ id, input, x, lower, carries }: PinDrawingProps) {
  const followed = useFollowed();
  const colours = useColours();
  const edge = lower ? BODY.y + BODY.height : BODY.y;
  const fill = colours.of(carries);
  const rail = carries === '0' || carries === '1';
  const faded = followed !== null && carries !== followed;
  return (
    <g
      opacity={faded ? 0.35 : 1}
      data-unit={input?.unit}
      data-input={input?.input}
      style={input && { cursor: 'grab', touchAction: 'none' }}
      {...followProps(carries)}
    >
      <rect x={x - 8} y={lower ? edge : edge - 14} width={16} height={14} fill={METAL} />
      <SvgText x={x} y={lower ? edge - 6 : edge + 14} size={11} fill="#4A564F">
        {id}
      </SvgText>
      {carries !== undefined && (
        <>
          <rect
            x={x - 20}
            y={lower ? edge + 17 : edge - 33}
            width={40}
            height={16}
            rx={3}
            fill={fill ?? colour('wash')}
          />
          <SvgText x={x} y={lower ? edge + 29 : edge - 21} size={11} fill={rail ? '#FFFFFF' : TAG_INK} weight={600}>
            {shortName(shownSignal(carries), 6)}
          </SvgText>
        </>
      )}
    </g>
  );
}

interface UnitDrawingProps {
  readonly x: number;
  readonly y: number;
  readonly kind: Parameters<typeof GateSymbol>[0]['kind'];
  readonly form: Parameters<typeof GateSymbol>[0]['form'];
  readonly output: string | undefined;
  readonly mirrored: boolean;
  readonly inputs: readonly { x: number; y: number }[];
  readonly out: { x: number; y: number };
}

function UnitDrawing({ x, y, kind, form, output, mirrored, inputs, out }: UnitDrawingProps) {
  const followed = useFollowed();
  const lit = output !== undefined && followed === output;
  const at = { x: x - 38, y: y - 14, scale: 0.88, mirrored };
  return (
    <g {...followProps(output)}>
      <Leads leads={unitLeads(kind, form, at, { inputs, output: out, gap: 3.5 })} spare={output === undefined} />
      <g transform={symbolTransform(at)}>
        <GateSymbol kind={kind} form={form} spare={output === undefined} lit={lit} stroke={1.8} />
      </g>
      {output !== undefined && (
        <SvgText x={x + 14} y={y + 5} size={15} fill="#20302B" font="heading" weight={600} anchor="start">
          {shortName(output, 7)}
        </SvgText>
      )}
    </g>
  );
}

/** The lines of a unit to its pins. */
function Leads({ leads, spare }: { readonly leads: ReturnType<typeof unitLeads>; readonly spare: boolean }) {
  return (
    <g
      fill="none"
      stroke={colour(spare ? 'soft' : 'boneLine')}
      strokeWidth={1.1}
      opacity={spare ? 0.45 : 0.9}
      pointerEvents="none"
    >
      {leads.map(({ d }) => (
        <path key={d} d={d} />
      ))}
    </g>
  );
}

interface UnitBoxProps extends Pick<UnitDrawingProps, 'x' | 'y' | 'output'> {
  readonly name: string;
  /** Where its pins' lines end. */
  readonly ends: readonly { x: number; y: number }[];
}

/** A unit that is more than one gate: a plain box led to its pins, with what it drives, dashed when it is spare. */
function UnitBox({ name, x, y, output, ends }: UnitBoxProps) {
  const followed = useFollowed();
  const lit = output !== undefined && followed === output;
  return (
    <g {...followProps(output)}>
      <Leads leads={boxLeads({ x: x - 16, y, halfWidth: 24, halfHeight: 15 }, ends, 3)} spare={output === undefined} />
      <rect
        x={x - 40}
        y={y - 15}
        width={48}
        height={30}
        rx={3}
        fill={lit ? colour('lit') : '#FFFDF6'}
        stroke="#20302B"
        strokeWidth={1.8}
        strokeDasharray={output === undefined ? '4 3' : undefined}
      />
      <SvgText x={x - 16} y={y + 4.5} size={12} fill="#20302B">
        unit {name}
      </SvgText>
      {output !== undefined && (
        <SvgText x={x + 14} y={y + 5} size={15} fill="#20302B" font="heading" weight={600} anchor="start">
          {shortName(output, 7)}
        </SvgText>
      )}
    </g>
  );
}
