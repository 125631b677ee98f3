import { type ReactNode, type Ref, useMemo } from 'react';
import { pointAt, useFollowed } from '../follow';
import type { Colours } from '../palette';
import { Ground, Holes } from './Ground';
import { Note } from './Note';
import { lookOf, PartDrawing, type PartKnowledge } from './PartDrawing';
import { StripFill } from './StripFill';
import { type BoardScene, MARGIN, type SceneStrip, type SceneWire } from './scene';
import { insulation, Wire } from './Wire';

/**
 * What a screen lays over the bare drawing; without it the board is at rest. `gateAt` names the gate in
 * the unit whose output is at a pin; `levelOf` gives LOW, HIGH or UNKNOWN of a net while the power is on.
 */
export interface BoardOverlay extends PartKnowledge {
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
  const { levelOf, chosen } = overlay;
  // Following a signal fades all strips and wires as one and draws its own again on top: what is at rest stays as it is.
  const strips = useMemo(
    () => scene.strips.map((strip) => stripIn({ strip, colours, levelOf, lit: false })),
    [scene, colours, levelOf],
  );
  const wires = useMemo(() => scene.wires.map((wire) => wireIn({ wire, colours, chosen })), [scene, colours, chosen]);
  return (
    <svg
      ref={svgRef}
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      role="img"
      aria-label={title}
      onPointerOver={(e) => pointAt(signalUnder(e.target))}
      onPointerLeave={() => pointAt(null)}
      style={{ width: '100%', height: '100%', display: 'block', touchAction: 'none', userSelect: 'none' }}
    >
      <Ground scene={scene} numbered={!overlay.levelOf} />
      <g opacity={followed === null ? 1 : 0.22}>{strips}</g>
      {followed !== null && (
        <g data-lit="strips">
          {scene.strips
            .filter((strip) => strip.signal === followed)
            .map((strip) => stripIn({ strip, colours, levelOf, lit: true }))}
        </g>
      )}
      <Holes scene={scene} />
      {scene.parts.map((part) => (
        <PartDrawing
          key={part.ref}
          part={part}
          look={lookOf(part, overlay)}
          chosen={overlay.chosen?.has(part.ref) === true}
          gateAt={overlay.gateAt}
        />
      ))}
      <g opacity={followed === null ? 1 : 0.16}>{wires}</g>
      {followed !== null && (
        <g data-lit="wires">
          {scene.wires.filter((wire) => wire.signal === followed).map((wire) => wireIn({ wire, colours, chosen }))}
        </g>
      )}
      {scene.notes.map((note) => (
        <Note key={note.id} note={note} chosen={overlay.chosen?.has(note.id) === true} />
      ))}
      {overlay.above}
    </svg>
  );
}

interface StripLook {
  readonly strip: SceneStrip;
  readonly colours: Colours;
  readonly levelOf: PartKnowledge['levelOf'];
  readonly lit: boolean;
}

function stripIn({ strip, colours, levelOf, lit }: StripLook) {
  const level = strip.net === null ? null : (levelOf?.(strip.net) ?? null);
  return <StripFill key={strip.id} strip={strip} colours={colours} level={level} lit={lit} />;
}

interface WireLook {
  readonly wire: SceneWire;
  readonly colours: Colours;
  readonly chosen: BoardOverlay['chosen'];
}

function wireIn({ wire, colours, chosen }: WireLook) {
  const own = wire.colour ? insulation[wire.colour] : colours.of(wire.signal);
  return <Wire key={wire.id} wire={wire} colour={own} chosen={chosen?.has(wire.id) === true} />;
}

/** The signal of the wire or strip that an event is about, or null. */
function signalUnder(target: EventTarget): string | null {
  return (target as Element).closest('[data-signal]')?.getAttribute('data-signal') ?? null;
}
