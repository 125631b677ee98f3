import { innerOf, type LedState, labelOf, typeOf } from '@saddlebag/core';
import { colour } from '../../base/colours';
import { SvgText } from '../SvgText';
import { domes, METAL } from './SmallParts';
import type { ScenePart, ScenePin } from './scene';

/** What a part's actuators or lamps look like just now: one letter for each, in the order of its inner parts. */
interface BenchPartProps {
  readonly part: ScenePart;
  readonly look: string;
}

const DARK = '#26221F';
const EDGE = '#0F0D0C';
const PRINT = '#EFE7D6';

function Body({ part, fill, rx = 0.25 }: { readonly part: ScenePart; readonly fill: string; readonly rx?: number }) {
  const { x, y, width, height } = part;
  return <rect x={x} y={y} width={width} height={height} rx={rx} fill={fill} stroke={EDGE} strokeWidth={0.07} />;
}

function Pins({ part }: { readonly part: ScenePart }) {
  return (
    <>
      {part.pins.map((p) => (
        <circle key={p.pin} cx={p.x} cy={p.y} r={0.2} fill={METAL} />
      ))}
    </>
  );
}

const pinOf = (part: ScenePart, id: string): ScenePin | undefined => part.pins.find((p) => p.id === id);
const middle = (part: ScenePart) => ({ x: part.x + part.width / 2, y: part.y + part.height / 2 });

/** Eight sliders, each between the two pins that it joins; the side towards its first pin is on. */
export function DipSwitch({ part, look }: BenchPartProps) {
  const { contacts } = innerOf(typeOf(part.seated));
  return (
    <>
      <Body part={part} fill="#9C3A2B" />
      <Pins part={part} />
      {contacts.map(({ actuator, a, b }, i) => {
        const [from, to] = [pinOf(part, a), pinOf(part, b)];
        if (!from || !to) return null;
        const on = look[i] === '1';
        const at = on ? 0.36 : 0.64;
        return (
          <g key={actuator} data-actuator={actuator} style={{ cursor: 'pointer' }}>
            <line
              x1={from.x + (to.x - from.x) * 0.25}
              y1={from.y + (to.y - from.y) * 0.25}
              x2={from.x + (to.x - from.x) * 0.75}
              y2={from.y + (to.y - from.y) * 0.75}
              stroke="#4A160E"
              strokeWidth={0.62}
            />
            <rect
              x={from.x + (to.x - from.x) * at - 0.26}
              y={from.y + (to.y - from.y) * at - 0.3}
              width={0.52}
              height={0.6}
              rx={0.08}
              fill={on ? '#F7C64A' : '#F4EFE4'}
            />
            <SvgText
              x={to.x}
              y={to.y + (from.y - to.y) * 0.2 + 0.12}
              size={0.36}
              fill={PRINT}
              weight={600}
              room={0.95}
              isCut
            >
              {labelOf(part.seated, actuator)?.slice(0, 3) ?? ''}
            </SvgText>
          </g>
        );
      })}
      <SvgText x={part.x + 0.8} y={middle(part).y + 1.05} size={0.42} fill={PRINT} weight={600} room={1.2}>
        ON
      </SvgText>
    </>
  );
}

/** An actuator over three pins: it leans to the pin that it joins to the middle one. */
export function ChangeOver({ part, look }: BenchPartProps) {
  const [one, common, other] = part.pins;
  if (!one || !common || !other) return null;
  const to = look === '1' ? one : other;
  return (
    <>
      <Body part={part} fill="#6B3F22" rx={0.16} />
      <line
        x1={common.x}
        y1={common.y}
        x2={to.x}
        y2={to.y}
        stroke={look === '1' ? '#F7C64A' : PRINT}
        strokeWidth={0.4}
      />
      <Pins part={part} />
      <SvgText x={common.x} y={common.y - 0.5} size={0.5} fill={PRINT} weight={600} room={2.8} isCut>
        {part.seated.signal?.slice(0, 4) ?? ''}
      </SvgText>
    </>
  );
}

/** A push button, pressed or not. */
export function PushButton({ part, look }: BenchPartProps) {
  const { x, y } = middle(part);
  const name = part.seated.signal?.slice(0, 5) ?? '';
  return (
    <>
      <Body part={part} fill="#3A3F3C" rx={0.2} />
      <Pins part={part} />
      <circle cx={x} cy={y} r={0.82} fill={look === '1' ? '#F7C64A' : '#15191A'} stroke={METAL} strokeWidth={0.1} />
      <SvgText
        x={x}
        y={y + 0.2}
        size={0.58 * Math.min(1, 3.2 / name.length)}
        fill={look === '1' ? '#2A1708' : PRINT}
        weight={600}
        room={1.7}
        isCut
      >
        {name}
      </SvgText>
    </>
  );
}

const lampFill = (state: string): string => (state === 'l' ? '#FF5B45' : state === 'o' ? '#FFFFFF' : '#4A211C');

/** Lamps by letter: `l` lit, `o` burning, anything else dark. */
export function lampLetter(state: LedState): string {
  return state === 'lit' ? 'l' : state === 'over' ? 'o' : '-';
}

/** A bar of LEDs, each lit by its own pins. */
export function LedBar({ part, look }: BenchPartProps) {
  const { lamps } = innerOf(typeOf(part.seated));
  return (
    <>
      <Body part={part} fill={DARK} />
      <Pins part={part} />
      {lamps.map(({ name, anode, cathode }, i) => {
        const [a, k] = [pinOf(part, anode), pinOf(part, cathode)];
        if (!a || !k) return null;
        const [cx, cy] = [(a.x + k.x) / 2, (a.y + k.y) / 2];
        return <rect key={name} x={cx - 0.3} y={cy - 0.9} width={0.6} height={1.8} fill={lampFill(look[i] ?? '-')} />;
      })}
    </>
  );
}

/** Segments of a display as strokes, in a field of 2 by 4 around its middle, upright. */
const strokes: Readonly<Record<string, readonly [number, number, number, number]>> = {
  a: [-0.8, -1.7, 0.8, -1.7],
  b: [0.95, -1.5, 0.95, -0.2],
  c: [0.95, 0.2, 0.95, 1.5],
  d: [-0.8, 1.7, 0.8, 1.7],
  e: [-0.95, 0.2, -0.95, 1.5],
  f: [-0.95, -1.5, -0.95, -0.2],
  g: [-0.8, 0, 0.8, 0],
  DP: [1.6, 1.7, 1.62, 1.7],
};

/** A seven-segment display, each segment lit by its own pin. */
export function Display({ part, look }: BenchPartProps) {
  const { lamps } = innerOf(typeOf(part.seated));
  const { x, y } = middle(part);
  return (
    <>
      <Body part={part} fill={DARK} />
      <Pins part={part} />
      <g transform={`translate(${x},${y}) rotate(${part.seated.rotation}) skewX(-6)`}>
        {lamps.map(({ name }, i) => {
          const [x1, y1, x2, y2] = strokes[name] ?? [0, 0, 0, 0];
          const stroke = lampFill(look[i] ?? '-');
          return <line key={name} {...{ x1, y1, x2, y2, stroke }} strokeWidth={0.42} strokeLinecap="round" />;
        })}
      </g>
    </>
  );
}

/** A buzzer from above: its mouth in the middle, a plus beside the lead that wants it, and waves while it sounds. */
export function Buzzer({ part, state }: { readonly part: ScenePart; readonly state: LedState }) {
  const { x, y } = middle(part);
  const [plus] = part.pins;
  const r = Math.min(part.width, part.height) / 2 - 0.1;
  const { lit, rim, dark } = domes.sound;
  const wave = (at: number): string =>
    [-1, 1]
      .map((side) => `M${x + side * at},${y - at * 0.7}a${at},${at} 0 0 ${side > 0 ? 1 : 0} 0,${1.4 * at}`)
      .join('');
  return (
    <>
      <circle cx={x} cy={y} r={r} fill={dark} stroke={state === 'lit' ? rim : EDGE} strokeWidth={0.09} />
      <Pins part={part} />
      <circle cx={x} cy={y - 0.7} r={0.42} fill={state === 'lit' ? lit : '#0C0D0E'} />
      {state === 'lit' && (
        <path d={[0.75, 1.2].map((at) => wave(at)).join('')} fill="none" stroke={lit} strokeWidth={0.13} />
      )}
      {plus && (
        <SvgText x={plus.x} y={plus.y - 0.5} size={0.6} fill={PRINT} weight={600}>
          +
        </SvgText>
      )}
      <SvgText x={x} y={y + 1.35} size={0.56} fill={PRINT} weight={600} room={2.8} isCut>
        {state === 'over' ? '!' : state === 'destroyed' ? '×' : (part.seated.signal?.slice(0, 6) ?? part.ref)}
      </SvgText>
    </>
  );
}

/** Parts in one row with a word on them: networks, transistors, potentiometers, clocks. */
export function RowPart({ part, look }: BenchPartProps) {
  const { x, y } = middle(part);
  const [first] = part.pins;
  return (
    <>
      <Body part={part} fill={fills[part.kind] ?? DARK} rx={0.2} />
      <Pins part={part} />
      {part.kind === 'resistor-network' && first && (
        <circle cx={first.x} cy={first.y} r={0.32} fill="none" stroke={PRINT} strokeWidth={0.08} />
      )}
      {part.kind === 'clock' && (
        <path
          d={`M${x - 0.9},${part.y + 0.42}h0.45v-0.28h0.45v0.28h0.45v-0.28h0.45v0.28`}
          fill="none"
          stroke={look === '1' ? '#F7C64A' : PRINT}
          strokeWidth={0.09}
        />
      )}
      <SvgText x={x} y={part.kind === 'clock' ? y + 0.62 : y + 0.36} size={0.4} fill={PRINT} room={part.width} isCut>
        {part.seated.signal?.slice(0, 6) ?? part.ref}
      </SvgText>
    </>
  );
}

const fills: Readonly<Partial<Record<string, string>>> = {
  'resistor-network': '#8A2F2A',
  potentiometer: '#2F5E8C',
  clock: '#1F4F3F',
};

/** A transistor from above: its flat side, and at each leg the letter of what it is. */
export function Transistor({ part }: { readonly part: ScenePart }) {
  const { x, width } = part;
  const [first] = part.pins;
  if (!first) return null;
  const names = new Map(typeOf(part.seated)?.pins.map((p) => [p.id, p.name]));
  // Turned round, the flat side is away from the reader.
  const side = part.seated.rotation === 180 ? -1 : 1;
  const [flat, back] = [first.y + side * 0.42, first.y - side * 0.95];
  const right = x + width;
  return (
    <>
      <path
        d={`M${x},${flat}H${right}V${first.y}Q${right},${back} ${right - 1.1},${back}H${x + 1.1}Q${x},${back} ${x},${first.y}Z`}
        fill={DARK}
        stroke={EDGE}
        strokeWidth={0.07}
      />
      <Pins part={part} />
      {part.pins.map((p) => (
        <SvgText key={p.pin} x={p.x} y={first.y - side * 0.47 + 0.16} size={0.46} fill={PRINT} weight={600} room={0.95}>
          {names.get(p.id)?.charAt(0).toUpperCase()}
        </SvgText>
      ))}
      <SvgText x={x + width / 2} y={flat + (side === 1 ? 0.5 : -0.16)} size={0.5} fill={colour('matText')}>
        {part.ref}
      </SvgText>
    </>
  );
}

/** A glass body with the ring that marks its cathode. */
export function Diode({ part }: { readonly part: ScenePart }) {
  const [a, k] = [pinOf(part, 'A'), pinOf(part, 'K')];
  if (!a || !k) return null;
  const at = (share: number) => ({ x: a.x + (k.x - a.x) * share, y: a.y + (k.y - a.y) * share });
  const [from, to, ring, end] = [at(0.28), at(0.72), at(0.62), at(0.67)];
  return (
    <>
      <line x1={a.x} y1={a.y} x2={k.x} y2={k.y} stroke={METAL} strokeWidth={0.14} />
      <Pins part={part} />
      <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke="#C4622D" strokeWidth={0.52} />
      <line x1={ring.x} y1={ring.y} x2={end.x} y2={end.y} stroke={colour('matDeep')} strokeWidth={0.52} />
    </>
  );
}
