import { innerOf, type LampColour, type LedState, typeOf } from '@saddlebag/core';
import { colour } from '../../base/colours';
import { SvgText } from '../SvgText';
import type { ScenePart } from './scene';

/** The colour of leads and pins, the same in every theme. */
export const METAL = '#B9BBB4';
/** Colours of the bands 0 to 9 (IEC 60062). */
const bands = [
  '#111111',
  '#7A4A22',
  '#D0312D',
  '#E67E22',
  '#E8C93A',
  '#3A9E4D',
  '#2C6FBF',
  '#8B4FB3',
  '#8A8A8A',
  '#F4F4F4',
];

function Legs({ part }: { readonly part: ScenePart }) {
  const [a, b] = part.pins;
  if (!a || !b) return null;
  return (
    <>
      <line x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke={METAL} strokeWidth={0.14} />
      {[a, b].map((p) => (
        <circle key={p.pin} cx={p.x} cy={p.y} r={0.2} fill={METAL} />
      ))}
    </>
  );
}

/** The three bands of a resistor's value: two digits and how many noughts. */
export function bandsOf(ohms: number): readonly string[] {
  if (!(ohms >= 10)) return [];
  const power = Math.floor(Math.log10(ohms)) - 1;
  const digits = Math.round(ohms / 10 ** power);
  return [Math.floor(digits / 10), digits % 10, power].flatMap((d) => bands[d] ?? []);
}

/** A resistor with the rings of its value. */
export function Resistor({ part }: { readonly part: ScenePart }) {
  const { x, y, width, height } = part;
  const lying = width > height;
  return (
    <>
      <Legs part={part} />
      <rect x={x} y={y} width={width} height={height} rx={0.26} fill="#DCC79A" stroke="#5B4A2C" strokeWidth={0.06} />
      {bandsOf(part.seated.value ?? 0).map((fill, i) => {
        const along = 0.35 + 0.38 * i;
        return lying ? (
          <rect key={fill + String(along)} x={x + along} y={y} width={0.2} height={height} fill={fill} />
        ) : (
          <rect key={fill + String(along)} x={x} y={y + along} width={width} height={0.2} fill={fill} />
        );
      })}
    </>
  );
}

/** A capacitor with the code of its value. */
export function Capacitor({ part }: { readonly part: ScenePart }) {
  const { x, y, width, height } = part;
  return (
    <>
      <Legs part={part} />
      <rect x={x} y={y} width={width} height={height} rx={0.36} fill="#E2A93B" stroke="#6B4A12" strokeWidth={0.06} />
      <SvgText x={x + width / 2} y={y + height / 2 + 0.13} size={0.36} fill="#33230A" room={0.9}>
        {capacitorCode(part.seated.value ?? 100)}
      </SvgText>
    </>
  );
}

/** The code of a capacitor's value in nanofarads, two digits and how many noughts in picofarads: 104 for 100 nF (IEC 60062). */
export function capacitorCode(nanofarads: number): string {
  const picofarads = nanofarads * 1000;
  if (!(picofarads >= 10)) return String(picofarads);
  const power = Math.floor(Math.log10(picofarads) + 1e-9) - 1;
  return `${Math.round(picofarads / 10 ** power)}${power}`;
}

/** An electrolytic capacitor from above: a can with a stripe at its minus. */
export function Electrolytic({ part }: { readonly part: ScenePart }) {
  const [cx, cy] = [part.x + part.width / 2, part.y + part.height / 2];
  const [plus, minus] = ['1', '2'].map((id) => part.pins.find((p) => p.id === id));
  const [dx, dy] = plus && minus ? [Math.sign(minus.x - plus.x), Math.sign(minus.y - plus.y)] : [1, 0];
  const r = 1.05;
  return (
    <>
      <Legs part={part} />
      <circle cx={cx} cy={cy} r={r} fill="#28374A" stroke="#0F1720" strokeWidth={0.07} />
      <SvgText x={cx + 0.72 * dx} y={cy + 0.72 * dy + 0.2} size={0.7} fill="#E8EEF4" weight={600}>
        −
      </SvgText>
      <SvgText x={cx - 0.2 * dx} y={cy + 0.16} size={0.44} fill="#E8EEF4" weight={600} room={1.4}>
        {microfarads(part.seated.value ?? 100)}
      </SvgText>
    </>
  );
}

/** A value in nanofarads as it is printed on a can, in microfarads: 4µ7, 100µ. */
function microfarads(nanofarads: number): string {
  const value = Number((nanofarads / 1000).toPrecision(2));
  return Number.isInteger(value) ? `${value}µ` : String(value).replace('.', 'µ').replace(/^0/, '');
}

/** The plug of the bench supply. */
export function Supply({ part }: { readonly part: ScenePart }) {
  return (
    <>
      {part.pins.map((p) => {
        const fill = p.id === '+' ? colour('supplyWire') : '#101614';
        return (
          <g key={p.pin}>
            <path d={`M${p.x},${p.y} H${p.x - 2}`} stroke={fill} strokeWidth={0.42} />
            <circle cx={p.x} cy={p.y} r={0.34} fill={fill} stroke="#F4EFE4" strokeWidth={0.06} />
          </g>
        );
      })}
      <SvgText x={part.x - 0.45} y={part.y + 1.03} size={0.5} fill={colour('matText')}>
        {part.seated.value ?? 5} V
      </SvgText>
    </>
  );
}

/** A slide switch with its knob at the side that is on. */
export function SlideSwitch({ part, on }: { readonly part: ScenePart; readonly on: boolean }) {
  const { x, y, width, height } = part;
  const [feed] = part.pins;
  const upper = (feed?.y ?? 0) < y + height / 2;
  const atTop = on === upper;
  return (
    <>
      <Legs part={part} />
      <rect x={x} y={y} width={width} height={height} rx={0.16} fill="#6B3F22" stroke="#2A1708" strokeWidth={0.07} />
      <rect
        x={x + 0.15}
        y={atTop ? y + 0.12 : y + height - 0.72}
        width={width - 0.3}
        height={0.6}
        rx={0.1}
        fill={on ? '#F7C64A' : '#F4EFE4'}
      />
      <SvgText
        x={x + width / 2}
        y={atTop ? y + height - 0.32 : y + 0.66}
        size={0.58}
        fill="#FBF1DF"
        weight={600}
        room={1.1}
        isCut
      >
        {part.seated.signal?.slice(0, 3) ?? '?'}
      </SvgText>
    </>
  );
}

/** An LED's dome dark, dim and lit, and its rim, by its colour; a buzzer's likewise. */
export const domes: Readonly<Record<LampColour, { dark: string; dim: string; lit: string; rim: string }>> = {
  red: { dark: '#6E2A24', dim: '#9A3A30', lit: '#FF5B45', rim: '#FFD9D2' },
  yellow: { dark: '#6B5A1C', dim: '#9A8228', lit: '#FFD23F', rim: '#FFF2C4' },
  green: { dark: '#1F5433', dim: '#2C7A49', lit: '#4FE07F', rim: '#D6F7E1' },
  blue: { dark: '#1F3A6E', dim: '#2C549E', lit: '#5AA0FF', rim: '#D6E6FF' },
  white: { dark: '#77777A', dim: '#A9A9AC', lit: '#FFFFFF', rim: '#FFFFFF' },
  sound: { dark: '#26282B', dim: '#4A4C50', lit: '#F2C14E', rim: '#FFE9B8' },
};

/** The colour of an LED in a state; one that burns is white. */
function domeOf(colours: (typeof domes)[LampColour], state: LedState): string {
  if (state === 'over') return '#FFFFFF';
  return state === 'lit' ? colours.lit : state === 'dim' ? colours.dim : colours.dark;
}

/** An LED: dark, lit, or unknown. */
export function Led({ part, state }: { readonly part: ScenePart; readonly state: LedState }) {
  const cx = part.x + part.width / 2;
  const cy = part.y + part.height / 2;
  const cathode = part.pins.find((p) => p.id === 'K');
  const side = cathode && cathode.x < cx ? -1 : 1;
  const r = 0.86;
  const flat = cx + side * r * 0.8;
  const name = part.seated.signal?.slice(0, 4) ?? '';
  const type = typeOf(part.seated);
  const colours = domes[innerOf(type).lamps[0]?.colour ?? 'red'];
  const isBright = state === 'lit' && colours !== domes.red && colours !== domes.blue;
  return (
    <>
      <Legs part={part} />
      {state === 'lit' && <circle cx={cx} cy={cy} r={1.7} fill={colours.lit} opacity={0.35} />}
      <circle
        cx={cx}
        cy={cy}
        r={r}
        fill={domeOf(colours, state)}
        stroke={colours.rim}
        strokeWidth={state === 'lit' ? 0.12 : 0.06}
      />
      <line x1={flat} y1={cy - r * 0.6} x2={flat} y2={cy + r * 0.6} stroke={colours.rim} strokeWidth={0.14} />
      <SvgText
        x={cx - side * 0.08}
        y={cy + 0.23}
        size={name.length < 4 ? 0.66 : 0.54}
        fill={state === 'over' ? '#B4372A' : isBright ? '#1A1A1A' : '#FFF6EE'}
        weight={600}
        room={1.65}
        isCut
      >
        {state === 'over' ? '!' : state === 'destroyed' ? '×' : state === 'unknown' ? '?' : name}
      </SvgText>
    </>
  );
}
