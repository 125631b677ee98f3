import type { JumperColour, Stage } from '@saddlebag/core';
import type { CSSProperties } from 'react';
import type { ColourName } from '../base/colours';
import { viewBoxOf } from '../kit/board/BoardDrawing';
import type { BoardScene } from '../kit/board/scene';
import { tagsOf } from '../kit/board/wire-tags';

/** The colours of the card on paper: little ink, and everything apart without any colour. */
const paper: Readonly<Partial<Record<ColourName, string>>> = {
  // Letters and lines as by day, whatever theme the screen has.
  ink: '#000000',
  soft: '#3F3F3F',
  line: '#BDBDBD',
  card: '#FFFFFF',
  paper: '#FFFFFF',
  mat: '#FFFFFF',
  matDeep: '#6B6B6B',
  strip: '#ECECE8',
  hole: '#4D4D4D',
  matText: '#333333',
  railPlus: '#F7DDD8',
  railMinus: '#D9E5EC',
  bone: '#FFFFFF',
  boneLine: '#000000',
  supplyWire: '#D01F3C',
  groundWire: '#000000',
  wireEdge: '#111111',
  wireEdgeLight: '#111111',
  lit: '#000000',
};
const dashed = (name: string): string => name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

/** Styles under which text and drawings have the colours of paper. */
export const onPaper = Object.fromEntries(
  Object.entries(paper).map(([name, value]) => [`--sb-colors-${dashed(name)}`, value]),
) as CSSProperties;

/** The least that a picture shows, in tenths of an inch across, and the room around what is new. */
const LEAST = 44;
const ROOM = 3.5;

/**
 * A board for paper: its wires in the colours of a kit, those of a stage, or all, with their names at both ends. Of a stage it shows the boards and columns
 * where something is new.
 */
export function paperScene(
  scene: BoardScene,
  colours: ReadonlyMap<string, JumperColour>,
  stage: Stage | null,
): { readonly scene: BoardScene; readonly view: ReturnType<typeof viewBoxOf> } {
  const fresh = new Set(stage ? stage.jumpers : scene.wires.map((wire) => wire.id));
  const wires = scene.wires.map((wire) => ({ ...wire, colour: colours.get(wire.id) }));
  const strips = scene.strips.map((strip) => ({ ...strip, signal: undefined }));
  const tagged = wires.filter((wire) => fresh.has(wire.id));
  const view = stage ? viewOf(scene, stage) : viewBoxOf(scene);
  const isIn = (x: number, y: number): boolean =>
    x > view.x - 8 && x < view.x + view.width + 8 && y > view.y - 8 && y < view.y + view.height + 8;
  return {
    view,
    scene: {
      ...scene,
      strips: strips.filter((s) => s.rail !== null || isIn(s.x, s.y)),
      parts: scene.parts.filter((part) => part.pins.some((p) => isIn(p.x, p.y))),
      wires: wires.filter(({ path }) => path.some((p) => isIn(p.x, p.y))),
      // Names in black on white, whatever the wire carries.
      tags: tagsOf(wires, tagged, (wire) => wire.id).map((tag) => ({ ...tag, signal: '' })),
    },
  };
}

/** The columns and boards in which a stage has something new. */
function viewOf(scene: BoardScene, { parts, jumpers }: Stage): ReturnType<typeof viewBoxOf> {
  const whole = viewBoxOf(scene);
  const points = [
    ...scene.parts.flatMap((part) => (parts.includes(part.ref) ? part.pins : [])),
    ...scene.wires.flatMap((wire) => (jumpers.includes(wire.id) ? wire.path : [])),
  ];
  if (points.length === 0) return whole;
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)];
  const touched = scene.boards.filter(({ y }) => ys.some((at) => at >= y - 1 && at <= y + 18));
  const [top, bottom] = [Math.min(...touched.map((b) => b.y)), Math.max(...touched.map((b) => b.y))];
  const [left, right] = [Math.min(...xs) - ROOM, Math.max(...xs) + ROOM];
  const more = Math.max(0, LEAST - (right - left)) / 2;
  const x = Math.max(whole.x, Math.min(left - more, whole.x + whole.width - LEAST));
  return { x, y: top - 1.2, width: Math.min(right + more, whole.x + whole.width) - x, height: bottom - top + 19.4 };
}
