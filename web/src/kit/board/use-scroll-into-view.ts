import { type RefObject, useEffect, useRef } from 'react';
import { type TargetArea, viewWith } from './target-areas';

/** Room kept around what comes into view, in points of the screen. */
const MARGIN = 28;

/**
 * Scrolls a mat so that some spots of its drawing come into view when they change. While the pointer is at work on
 * the mat nothing moves under it: what it touched is in view already.
 */
export function useScrollIntoView(
  scroller: RefObject<HTMLDivElement | null>,
  content: RefObject<HTMLDivElement | null>,
  { x, y, width }: TargetArea,
  spots: readonly TargetArea[] = [],
): void {
  const byPointer = useRef(false);
  useEffect(() => {
    const onPointer = (e: Event): void => {
      byPointer.current = scroller.current?.contains(e.target as Node) === true;
    };
    const onKey = (): void => {
      byPointer.current = false;
    };
    document.addEventListener('pointerdown', onPointer, true);
    document.addEventListener('keydown', onKey, true);
    return () => {
      document.removeEventListener('pointerdown', onPointer, true);
      document.removeEventListener('keydown', onKey, true);
    };
  }, [scroller]);
  const wanted = JSON.stringify(spots);
  const came = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same spots made anew are no change
  useEffect(() => {
    const [view, drawing] = [scroller.current, content.current];
    // Whoever turns back to a mat finds it where it was left.
    if (came.current === wanted) return;
    came.current = wanted;
    if (!view || !drawing || byPointer.current || spots.length === 0) return;
    const [frame, box] = [view.getBoundingClientRect(), drawing.getBoundingClientRect()];
    const scale = box.width / width;
    const onScreen = spots.map((s) => ({
      x: box.left - frame.left + view.scrollLeft + (s.x - x) * scale,
      y: box.top - frame.top + view.scrollTop + (s.y - y) * scale,
      width: s.width * scale,
      height: s.height * scale,
    }));
    const now = { x: view.scrollLeft, y: view.scrollTop, width: view.clientWidth, height: view.clientHeight };
    const next = viewWith(now, onScreen, MARGIN);
    if (next.x !== now.x || next.y !== now.y) view.scrollTo(next.x, next.y);
  }, [wanted]);
}
