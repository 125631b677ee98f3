import type { LedState, NetLevel } from '@saddlebag/core';
import { memo, type ReactNode, type Ref } from 'react';
import { colour } from '../../app/theme';
import { useFollowed } from '../follow';
import type { Colours } from '../palette';
import { SvgText } from '../SvgText';
import { Chip, type ChipInside } from './Chip';
import { Capacitor, Led, Resistor, SlideSwitch, Supply } from './SmallParts';
import { type BoardScene, holesOf, MARGIN, type ScenePart, type SceneStrip, type SceneWire } from './scene';

/** What a screen lays over the bare drawing. Everything is optional; without it the board is at rest. */
export interface BoardOverlay {
  /** The gate in the unit whose output is at a pin. */
  readonly gateAt?: (pin: string) => string | undefined;
  /** Levels of nets while the power is on. */
  readonly levelOf?: (net: number) => NetLevel | null;
  readonly ledState?: (ref: string) => LedState;
  readonly isOn?: (ref: string) => boolean;
  /** References and ids that are chosen. */
  readonly chosen?: ReadonlySet<string>;
  /** Drawn on top, in the drawing's own units. */
  readonly above?: ReactNode;
}

interface BoardDrawingProps {
  readonly scene: BoardScene;
  readonly colours: Colours;
  readonly overlay?: BoardOverlay;
  readonly svgRef?: Ref<SVGSVGElement>;
  readonly title: string;
}

/** The part of the mat that the drawing shows. */
export function viewBoxOf(scene: BoardScene): { x: number; y: number; width: number; height: number } {
  return {
    x: -MARGIN.x,
    y: -MARGIN.top,
    width: scene.width + 2 * MARGIN.x,
    height: scene.height + MARGIN.top + MARGIN.bottom,
  };
}

/** The board as what conducts: strips take the colour of their signal, chips show their inside. The same on every screen. */
export function BoardDrawing({ scene, colours, overlay = {}, svgRef, title }: BoardDrawingProps) {
  const followed = useFollowed();
  const box = viewBoxOf(scene);
  const faded = (signal: string | undefined): boolean => followed !== null && signal !== followed;
  return (
    <svg
      ref={svgRef}
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={title}
      style={{ width: '100%', height: '100%', display: 'block', touchAction: 'none', userSelect: 'none' }}
    >
      <Ground scene={scene} numbered={!overlay.levelOf} />
      {scene.strips.map((strip) => (
        <StripFill
          key={strip.id}
          strip={strip}
          colours={colours}
          level={strip.net === null ? null : (overlay.levelOf?.(strip.net) ?? null)}
          faded={faded(strip.signal)}
          lit={followed !== null && strip.signal === followed}
        />
      ))}
      <Holes scene={scene} />
      {scene.parts.map((part) => (
        <PartDrawing key={part.ref} part={part} overlay={overlay} />
      ))}
      {scene.wires.map((wire) => (
        <Wire
          key={wire.id}
          wire={wire}
          colour={colours.of(wire.signal)}
          chosen={overlay.chosen?.has(wire.id) === true}
          faded={faded(wire.signal)}
        />
      ))}
      {overlay.above}
    </svg>
  );
}

/** Mat, empty strips, rails and numbers: what never changes while a job has the same boards. */
const Ground = memo(
  function Ground({ scene, numbered }: { readonly scene: BoardScene; readonly numbered: boolean }) {
    return (
      <>
        {scene.boards.map(({ id, y }) => (
          <g key={id}>
            <rect
              x={-0.9}
              y={y - 0.95}
              width={scene.width + 1.8}
              height={18.9}
              rx={0.7}
              fill={colour('mat')}
              stroke={colour('matDeep')}
              strokeWidth={0.08}
            />
            {[0, 16].flatMap((top) => [
              <RailMark key={`${top}+`} y={y + top} mark="+" />,
              <RailMark key={`${top}-`} y={y + top + 1} mark="−" />,
            ])}
            {['j', 'i', 'h', 'g', 'f'].map((row, i) => (
              <RowName key={row} y={y + 3 + i} name={row} />
            ))}
            {['e', 'd', 'c', 'b', 'a'].map((row, i) => (
              <RowName key={row} y={y + 10 + i} name={row} />
            ))}
            {numbered && <ColumnNumbers y={y} />}
          </g>
        ))}
        {scene.strips.map((s) => (
          <rect
            key={s.id}
            x={s.x}
            y={s.y}
            width={s.width}
            height={s.height}
            rx={0.42}
            fill={s.rail === '+' ? colour('railPlus') : s.rail === '-' ? colour('railMinus') : colour('strip')}
          />
        ))}
      </>
    );
  },
  (a, b) => a.numbered === b.numbered && a.scene.boards.length === b.scene.boards.length,
);

function RailMark({ y, mark }: { readonly y: number; readonly mark: string }) {
  return (
    <>
      {[0.1, 63.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.3} size={0.9} fill={mark === '+' ? colour('flag') : '#9FC0D0'} weight={600}>
          {mark}
        </SvgText>
      ))}
    </>
  );
}

function RowName({ y, name }: { readonly y: number; readonly name: string }) {
  return (
    <>
      {[0.1, 63.95].map((x) => (
        <SvgText key={x} x={x} y={y + 0.22} size={0.66} fill={colour('matText')}>
          {name}
        </SvgText>
      ))}
    </>
  );
}

function ColumnNumbers({ y }: { readonly y: number }) {
  return (
    <>
      {[1, ...Array.from({ length: 12 }, (_, i) => 5 * i + 5)].flatMap((column) =>
        [2.3, 15.25].map((dy) => (
          <SvgText key={`${column}${dy}`} x={column} y={y + dy} size={0.62} fill={colour('matText')}>
            {column}
          </SvgText>
        )),
      )}
    </>
  );
}

const Holes = memo(
  function Holes({ scene }: { readonly scene: BoardScene }) {
    const r = 0.17;
    const dot = ({ x, y }: { x: number; y: number }): string =>
      `M${x - r},${y}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`;
    return <path d={scene.boards.flatMap(({ y }) => holesOf(y).map(dot)).join('')} fill={colour('hole')} />;
  },
  (a, b) => a.scene.boards.length === b.scene.boards.length,
);

const levelMarks = ['0', '1', '?'] as const;

interface StripFillProps {
  readonly strip: SceneStrip;
  readonly colours: Colours;
  readonly level: NetLevel | null;
  readonly faded: boolean;
  readonly lit: boolean;
}

/** A strip in the colour of its signal. While powered a high strip is full, a low one an outline, and each is marked 1, 0 or ?. */
const StripFill = memo(function StripFill({ strip, colours, level, faded, lit }: StripFillProps) {
  const own = colours.of(strip.signal);
  if (own === null && (level === null || strip.idle)) return null;
  if (strip.rail !== null && !lit) return null;
  const fill = own ?? '#8FA39A';
  const high = level === null || level.level === 1;
  const unknown = level !== null && level.level === 2;
  const upper = strip.id.endsWith('f');
  return (
    <g opacity={faded ? 0.22 : 1} data-strip={strip.id}>
      <rect
        x={strip.x}
        y={strip.y}
        width={strip.width}
        height={strip.height}
        rx={0.42}
        fill={high ? fill : 'none'}
        fillOpacity={level === null && !lit ? 0.62 : 0.95}
        stroke={unknown ? colour('flag') : fill}
        strokeWidth={0.1}
        strokeDasharray={unknown ? '0.3 0.2' : undefined}
      />
      {level !== null && strip.rail === null && (
        <SvgText
          x={strip.x + strip.width / 2}
          y={upper ? strip.y - 0.16 : strip.y + strip.height + 0.6}
          size={0.62}
          fill={unknown ? colour('flag') : colour('matText')}
          weight={600}
        >
          {levelMarks[level.level] ?? '?'}
        </SvgText>
      )}
    </g>
  );
});

interface PartDrawingProps {
  readonly part: ScenePart;
  readonly overlay: BoardOverlay;
}

function PartDrawing({ part, overlay }: PartDrawingProps) {
  const chosen = overlay.chosen?.has(part.ref) === true;
  return (
    <g data-ref={part.ref} style={{ cursor: 'grab' }}>
      <title>{`${part.ref} ${part.part}${part.seated.signal ? `, ${part.seated.signal}` : ''}`}</title>
      <PartBody part={part} overlay={overlay} />
      {chosen && (
        <rect
          x={part.x - 0.25}
          y={part.y - 0.25}
          width={part.width + 0.5}
          height={part.height + 0.5}
          rx={0.35}
          fill="none"
          stroke={colour('lit')}
          strokeWidth={0.16}
          strokeDasharray="0.5 0.3"
          pointerEvents="none"
        />
      )}
    </g>
  );
}

function PartBody({ part, overlay }: PartDrawingProps) {
  if (part.kind === 'chip') return <Chip part={part} inside={insideOf(part, overlay)} />;
  if (part.kind === 'led') return <Led part={part} state={overlay.ledState?.(part.ref) ?? 'dark'} />;
  if (part.kind === 'switch') return <SlideSwitch part={part} on={overlay.isOn?.(part.ref) ?? false} />;
  if (part.kind === 'resistor') return <Resistor part={part} />;
  return part.kind === 'capacitor' ? <Capacitor part={part} /> : <Supply part={part} />;
}

function insideOf(part: ScenePart, overlay: BoardOverlay): ChipInside {
  const nets = new Map(part.pins.map((p) => [p.pin, p.net]));
  return {
    gateAt: overlay.gateAt ?? (() => undefined),
    levelAt: (pin) => {
      const net = nets.get(pin);
      return net === null || net === undefined ? null : (overlay.levelOf?.(net)?.level ?? null);
    },
  };
}

interface WireProps {
  readonly wire: SceneWire;
  readonly colour: string | null;
  readonly chosen: boolean;
  readonly faded: boolean;
}

const Wire = memo(function Wire({ wire, colour: own, chosen, faded }: WireProps) {
  const stroke = own ?? '#C9D2CB';
  const d = wire.path.map((p, i) => `${i === 0 ? 'M' : 'L'}${p.x},${p.y}`).join('');
  const ends = [wire.path[0], wire.path[wire.path.length - 1]].flatMap((p) => p ?? []);
  return (
    <g data-wire={wire.id} opacity={faded ? 0.16 : 1} style={{ cursor: 'pointer' }}>
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
