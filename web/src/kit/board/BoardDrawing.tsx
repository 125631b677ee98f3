import { UNKNOWN } from '@saddlebag/core';
import { memo, type ReactNode, type Ref } from 'react';
import type { Colours } from '../../base/palette';
import { pointAt, useFollowed, useIsFollowing } from '../follow';
import { BoardBases, Holes } from './BoardBase';
import { Note } from './Note';
import { lookOf, PartDrawing, type PartKnowledge } from './PartDrawing';
import { StripFill } from './StripFill';
import { type BoardScene, MARGIN, type SceneStrip, type SceneWire } from './scene';
import { useGrowing } from './use-growing';
import { insulation, Wire, WireBundle, WireEnds } from './Wire';
import { WireTags } from './WireTags';

/**
 * What a screen lays over the bare drawing; without it the board is at rest. `gateAt` names the gate in
 * the unit whose output is at a pin; `levelOf` gives LOW, HIGH or UNKNOWN of a net while the power is on.
 */
export interface BoardOverlay extends PartKnowledge {
  /** The volts of a net, shown where they are no level; null where nobody knows them. */
  readonly voltsOf?: (net: number) => number | null;
  /** References and ids that are chosen. */
  readonly chosen?: ReadonlySet<string>;
  /** Drawn on top, in the drawing's own units. */
  readonly above?: ReactNode;
}

/** A board to draw: its scene, the colours of its signals, and what is known beyond. */
export interface BoardProps {
  readonly scene: BoardScene;
  readonly colours: Colours;
  readonly overlay?: BoardOverlay;
}

/** How strong strips and wires stay while a signal is followed that is not theirs. */
const FADED = { strips: 0.22, wires: 0.16 } as const;

/** The part of the mat that the drawing shows. */
export function viewBoxOf(scene: BoardScene): { x: number; y: number; width: number; height: number } {
  return {
    x: -MARGIN.x,
    y: -MARGIN.top,
    width: scene.width + 2 * MARGIN.x,
    height: scene.height + MARGIN.top + MARGIN.bottom,
  };
}

const viewBoxText = (scene: BoardScene): string => {
  const box = viewBoxOf(scene);
  return `${box.x} ${box.y} ${box.width} ${box.height}`;
};

interface BoardDrawingProps extends BoardProps {
  /** A drawing that lies over the board exactly, for who asks which place of it a point of the screen is. */
  readonly svgRef?: Ref<SVGSVGElement>;
  readonly title: string;
  /** Height over width of the mat that it lies on. */
  readonly inSight?: number;
}

/**
 * The board as what conducts: strips take the colour of their signal, chips show their inside. The same on every screen.
 * It is drawn in sheets that lie on each other, so that following a signal fades two of them and paints only its own
 * strips and wires: what is at rest stays as it was painted, however large the board is.
 */
export function BoardDrawing({ scene, colours, overlay = {}, svgRef, title, inSight }: BoardDrawingProps) {
  const viewBox = viewBoxText(scene);
  const drawn = useGrowing(scene, inSight);
  const shown = { scene: drawn, colours, overlay };
  return (
    <div
      role="img"
      aria-busy={drawn !== scene}
      aria-label={title}
      onPointerOver={(e) => pointAt(signalUnder(e.target))}
      onPointerLeave={() => pointAt(null)}
      style={{ position: 'relative', width: '100%', height: '100%', userSelect: 'none' }}
    >
      <Sheet viewBox={viewBox} svgRef={svgRef}>
        <BoardBases scene={drawn} numbered={!overlay.levelOf} />
      </Sheet>
      <Sheet viewBox={viewBox} faded={FADED.strips}>
        <Strips {...shown} />
      </Sheet>
      <Sheet viewBox={viewBox}>
        <LitStrips {...shown} />
      </Sheet>
      <Sheet viewBox={viewBox}>
        <Parts {...shown} />
      </Sheet>
      <Sheet viewBox={viewBox} faded={FADED.wires}>
        <Wires {...shown} />
      </Sheet>
      <Sheet viewBox={viewBox}>
        <LitWires {...shown} />
        <Notes {...shown} />
        {overlay.above}
      </Sheet>
    </div>
  );
}

interface BoardPictureProps extends BoardProps {
  readonly title: string;
  /** Its size, and its place in another drawing, where nothing around it says one. */
  /** The part of the mat that it shows; all of it where nothing is said. */
  readonly view?: ReturnType<typeof viewBoxOf>;
  /** Drawn over it. */
  readonly children?: ReactNode;
  readonly size?: { readonly width: string; readonly height: string; readonly x?: string; readonly y?: string };
}

/** The board at rest as one drawing, for paper and for pictures. */
export function BoardPicture({ title, size, view, children, ...shown }: BoardPictureProps) {
  const { x, y, width, height } = view ?? viewBoxOf(shown.scene);
  return (
    <svg
      xmlns="http://www.w3.org/2000/svg"
      viewBox={`${x} ${y} ${width} ${height}`}
      role="img"
      aria-label={title}
      {...size}
    >
      <BoardBases scene={shown.scene} numbered />
      <Strips {...shown} />
      <Parts {...shown} />
      <Wires {...shown} />
      <Notes {...shown} />
      {children}
    </svg>
  );
}

interface SheetProps {
  readonly viewBox: string;
  /** How strong the sheet stays while a signal is followed. */
  readonly faded?: number;
  readonly svgRef?: Ref<SVGSVGElement> | undefined;
  readonly children: ReactNode;
}

/** One of the sheets of a drawing: a layer of its own for the browser, open to the pointer only where something is drawn. */
function Sheet({ viewBox, faded = 1, svgRef, children }: SheetProps) {
  const isFollowing = useIsFollowing();
  return (
    <svg
      ref={svgRef}
      viewBox={viewBox}
      aria-hidden="true"
      style={{
        position: 'absolute',
        inset: 0,
        width: '100%',
        height: '100%',
        pointerEvents: 'none',
        willChange: 'opacity',
        opacity: isFollowing ? faded : 1,
      }}
    >
      <g pointerEvents="auto">{children}</g>
    </svg>
  );
}

const Strips = memo(function Strips({ scene, colours, overlay = {} }: BoardProps) {
  return scene.strips.map((strip) => stripIn(strip, { colours, overlay, lit: false }));
}, sameLook);

function LitStrips({ scene, colours, overlay = {} }: BoardProps) {
  const followed = useFollowed();
  if (followed === null) return null;
  return scene.strips
    .filter((strip) => strip.signal === followed)
    .map((strip) => stripIn(strip, { colours, overlay, lit: true }));
}

function Parts({ scene, overlay = {} }: BoardProps) {
  return (
    <>
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
    </>
  );
}

const Wires = memo(function Wires({ scene, ...look }: BoardProps) {
  return (
    <>
      {scene.wires.map((wire) => wireIn(wire, look))}
      {byColour(scene.wires, look).map(([own, wires]) => (
        <WireEnds key={own} wires={wires} colour={own} />
      ))}
      <WireTags tags={scene.tags} colours={look.colours} />
    </>
  );
}, sameWires);

/** The wires of the signal that is followed, by colour, and those that are chosen, whatever they carry. */
function LitWires({ scene, ...look }: BoardProps) {
  const followed = useFollowed();
  if (followed === null) return null;
  const lit = scene.wires.filter((wire) => wire.signal === followed);
  const isChosen = ({ id }: SceneWire): boolean => look.overlay?.chosen?.has(id) === true;
  return (
    <>
      {byColour(lit, look).map(([own, wires]) => (
        <WireBundle key={own} wires={wires} colour={own} />
      ))}
      <WireTags tags={scene.tags.filter((tag) => tag.signal === followed)} colours={look.colours} />
      <g pointerEvents="none">{scene.wires.filter(isChosen).map((wire) => wireIn(wire, look))}</g>
    </>
  );
}

function Notes({ scene, overlay }: BoardProps) {
  return scene.notes.map((note) => (
    <Note key={note.id} note={note} right={scene.width + MARGIN.x} chosen={overlay?.chosen?.has(note.id) === true} />
  ));
}

/** Whether strips and wires look the same: what lies above them, and what parts do, is not theirs. */
function sameLook(a: BoardProps, b: BoardProps): boolean {
  return (
    a.scene === b.scene &&
    a.colours === b.colours &&
    a.overlay?.levelOf === b.overlay?.levelOf &&
    a.overlay?.chosen === b.overlay?.chosen
  );
}

/** Whether wires look the same: their insulation takes no notice of levels. */
function sameWires(a: BoardProps, b: BoardProps): boolean {
  return a.scene === b.scene && a.colours === b.colours && a.overlay?.chosen === b.overlay?.chosen;
}

interface StripLook extends Omit<BoardProps, 'scene'> {
  readonly lit: boolean;
}

function stripIn(strip: SceneStrip, { colours, overlay, lit }: StripLook) {
  const level = strip.net === null ? null : (overlay?.levelOf?.(strip.net) ?? null);
  const volts = level === UNKNOWN && strip.net !== null ? (overlay?.voltsOf?.(strip.net) ?? null) : null;
  return <StripFill key={strip.id} strip={strip} colours={colours} level={level} volts={volts} lit={lit} />;
}

type WireLook = Omit<BoardProps, 'scene'>;

function colourOf({ colour, signal }: SceneWire, { colours }: WireLook): string | null {
  return colour ? insulation[colour] : colours.of(signal);
}

/** Wires by their colours. */
function byColour(wires: readonly SceneWire[], look: WireLook): [colour: string | null, wires: SceneWire[]][] {
  const groups = new Map<string | null, SceneWire[]>();
  for (const wire of wires) {
    const own = colourOf(wire, look);
    const group = groups.get(own);
    if (group) group.push(wire);
    else groups.set(own, [wire]);
  }
  return [...groups];
}

function wireIn(wire: SceneWire, look: WireLook) {
  return (
    <Wire
      key={wire.id}
      wire={wire}
      colour={colourOf(wire, look)}
      chosen={look.overlay?.chosen?.has(wire.id) === true}
    />
  );
}

/** The signal of the wire or strip that an event is about, or null. */
function signalUnder(target: EventTarget): string | null {
  return (target as Element).closest('[data-signal]')?.getAttribute('data-signal') ?? null;
}
