import { elementAt } from '@saddlebag/core';
import { useGrowingCount } from '../use-growing-count';
import type { BoardScene } from './scene';

/** Height over width of a mat that has the screen's height, and a little more. */
const WHOLE_SCREEN = 0.85;
/** The same of a mat with panels below it. */
export const ABOVE_PANELS = 0.55;

/**
 * A scene as far as it is drawn yet: at once the boards that are in sight when the mat is new (`inSight` is its height over its width), then a row of boards more
 * with each frame, so that a screen with many boards stands there as soon as one with few. Drawn boards stay drawn.
 */
export function useGrowing(scene: BoardScene, inSight = WHOLE_SCREEN): BoardScene {
  const tops = [...new Set(scene.boards.map((b) => b.y))].sort((a, b) => a - b);
  const first = tops.filter((y) => y < inSight * scene.width).length;
  const shown = useGrowingCount(tops.length, { first, more: 1 });
  const isWhole = shown >= tops.length;
  return isWhole ? scene : above(scene, elementAt(tops, shown));
}

/** What of a scene begins above a line. */
function above(scene: BoardScene, line: number): BoardScene {
  const isAbove = ({ y }: { readonly y: number }): boolean => y < line;
  return {
    ...scene,
    boards: scene.boards.filter(isAbove),
    strips: scene.strips.filter(isAbove),
    parts: scene.parts.filter(isAbove),
    wires: scene.wires.filter(({ path }) => path.some(isAbove)),
    tags: scene.tags.filter(isAbove),
    notes: scene.notes.filter(isAbove),
  };
}
