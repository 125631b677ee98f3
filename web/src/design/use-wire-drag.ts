import { type PointerEvent, useEffect, useRef, useState } from 'react';
import type { DrawnNode } from './layout';
import { useGateEdit } from './use-gate-edit';
import { dropAt, type Point, sourceAt, type WireDrag } from './wire-drag';

/** Screen pixels that a pointer moves before pressing becomes drawing. */
const SLACK = 5;

/** Drawing a line in the diagram from what drives a net to a gate; pressing without moving stays a press. */
export function useWireDrag(nodes: readonly DrawnNode[]) {
  const act = useGateEdit();
  const [drag, setDrag] = useState<WireDrag | null>(null);
  const pressed = useRef<{ node: DrawnNode; x: number; y: number } | null>(null);
  const svg = useRef<SVGSVGElement>(null);
  const pointOf = (e: { clientX: number; clientY: number }): Point => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix);
    return { x: p.x, y: p.y };
  };
  useEffect(() => {
    const stop = (e: KeyboardEvent): void => {
      if (e.key === 'Escape') setDrag(null);
    };
    window.addEventListener('keydown', stop);
    return () => window.removeEventListener('keydown', stop);
  }, []);
  const onPointerDown = (e: PointerEvent): void => {
    if (e.button !== 0) return;
    const id = (e.target as Element).closest('[data-node]')?.getAttribute('data-node');
    const node = nodes.find((n) => n.id === id);
    pressed.current = node ? { node, x: e.clientX, y: e.clientY } : null;
  };
  const onPointerMove = (e: PointerEvent): void => {
    const start = pressed.current;
    if (!start || e.buttons !== 1) return;
    const to = pointOf(e);
    if (drag) {
      setDrag({ ...drag, to, drop: dropAt(nodes, drag.net, to) });
      return;
    }
    if (Math.hypot(e.clientX - start.x, e.clientY - start.y) < SLACK) return;
    const source = sourceAt(start.node, pointOf({ clientX: start.x, clientY: start.y }));
    if (!source) return;
    svg.current?.setPointerCapture(e.pointerId);
    setDrag({ ...source, to, drop: dropAt(nodes, source.net, to) });
  };
  const onPointerUp = (): void => {
    pressed.current = null;
    if (drag?.drop) act(drag.drop.edit);
    setDrag(null);
  };
  return { svg, drag, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: () => setDrag(null) } };
}
