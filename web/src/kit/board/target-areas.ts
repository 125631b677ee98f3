import { holeXY, type Place, type Point, parseHole } from '@saddlebag/core';
import type { BoardScene } from './scene';

/** A rectangle on the mat, in tenths of an inch, or on the screen, in points. */
export interface TargetArea {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where on a drawing some places are: those of them that are on the board. */
export function areasAt(places: readonly Place[], scene: BoardScene): TargetArea[] {
  return places.flatMap((place): TargetArea[] => {
    if (place.kind === 'hole') {
      const hole = parseHole(place.hole);
      return hole ? [around(holeXY(hole))] : [];
    }
    if (place.kind === 'pin') {
      const pin = scene.parts.flatMap((p) => p.pins).find((p) => p.pin === place.pin);
      return pin ? [around(pin)] : [];
    }
    if (place.kind === 'part') {
      const part = scene.parts.find((p) => p.ref === place.ref);
      return part ? [{ x: part.x - 0.5, y: part.y - 0.5, width: part.width + 1, height: part.height + 1 }] : [];
    }
    const wire = place.kind === 'jumper' ? scene.wires.find((w) => w.id === place.id) : undefined;
    return wire ? [wire.path[0], wire.path[wire.path.length - 1]].flatMap((p) => (p ? [around(p)] : [])) : [];
  });
}

/** Where the things with some references and ids are: parts, jumpers and notes. */
export function areasOfThings(ids: Iterable<string>, scene: BoardScene): TargetArea[] {
  return [...ids].flatMap((id) => {
    const note = scene.notes.find((n) => n.id === id);
    if (note) return [around(note)];
    const kind = scene.parts.some((p) => p.ref === id) ? ({ kind: 'part', ref: id } as const) : null;
    return areasAt([kind ?? { kind: 'jumper', id }], scene);
  });
}

const around = ({ x, y }: Point): TargetArea => ({ x: x - 0.65, y: y - 0.65, width: 1.3, height: 1.3 });

/** The smallest rectangle with all spots in it; null for none. */
export function boundsOf(spots: readonly TargetArea[]): TargetArea | null {
  if (spots.length === 0) return null;
  const [x, y] = [Math.min(...spots.map((s) => s.x)), Math.min(...spots.map((s) => s.y))];
  const right = Math.max(...spots.map((s) => s.x + s.width));
  const bottom = Math.max(...spots.map((s) => s.y + s.height));
  return { x, y, width: right - x, height: bottom - y };
}

/**
 * Where a view onto something larger must go so that the spots lie in it with a margin: as little as possible, and
 * nowhere when they do. Where they are too far apart, the first of them decides.
 */
export function viewWith(view: TargetArea, spots: readonly TargetArea[], margin: number): Point {
  const all = boundsOf(spots);
  const [first] = spots;
  if (!all || !first) return view;
  const along = (
    from: number,
    length: number,
    at: (s: TargetArea) => number,
    size: (s: TargetArea) => number,
  ): number => {
    const wanted = size(all) + 2 * margin <= length ? all : first;
    const [low, high] = [at(wanted) - margin, at(wanted) + size(wanted) + margin];
    return high - low > length ? low : Math.min(low, Math.max(from, high - length));
  };
  return {
    x: along(
      view.x,
      view.width,
      (s) => s.x,
      (s) => s.width,
    ),
    y: along(
      view.y,
      view.height,
      (s) => s.y,
      (s) => s.height,
    ),
  };
}
