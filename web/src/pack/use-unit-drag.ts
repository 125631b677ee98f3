import { parsePlace, printPlace, type UnitPlace } from '@saddlebag/core';
import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { says } from '../base/words';
import type { PackingHand } from './use-packing-hand';

/** Screen pixels that a pointer moves before pressing becomes dragging. */
const SLACK = 5;

/** A gate, or one of its inputs, under way: where the pointer is, over what, and what letting go would do or why it cannot. */
export interface UnitDrag {
  readonly from: UnitPlace;
  readonly input: number | null;
  readonly x: number;
  readonly y: number;
  readonly over: UnitPlace | null;
  readonly can: boolean;
  readonly says: string;
}

/** Where a screen place belongs: the unit drawn there, and the input if it is a pin. */
function placeAt(x: number, y: number): { place: UnitPlace; input: number | null } | null {
  const found = document.elementFromPoint(x, y)?.closest('[data-unit]');
  const place = parsePlace(found?.getAttribute('data-unit') ?? '');
  const input = found?.getAttribute('data-input');
  return place && { place, input: input ? Number(input) : null };
}

interface Dragged {
  readonly from: UnitPlace;
  readonly input: number | null;
  readonly x: number;
  readonly y: number;
}

interface DragRules {
  readonly hand: PackingHand;
  /** What is in a unit; null where it is spare. */
  readonly nameOf: (place: UnitPlace) => string | null;
}

/** What letting go would do where the pointer is now. */
function dragTo(dragged: Dragged, { hand, nameOf }: DragRules): UnitDrag {
  const { from, input, x, y } = dragged;
  const at = placeAt(x, y);
  const bare = { ...dragged, over: null, can: false };
  const name = nameOf(from) ?? '';
  if (!at) return { ...bare, says: name };
  const own = printPlace(at.place) === printPlace(from);
  if (input !== null) {
    const can = own && at.input !== null && at.input !== input;
    return { ...bare, over: own ? at.place : null, can, says: can ? 'swap these inputs' : 'onto another input of it' };
  }
  if (own) return { ...bare, says: name };
  const request = hand.tryMove(from, at.place);
  const other = nameOf(at.place);
  const to = `${name} to ${printPlace(at.place)}`;
  const words = request?.ok ? (other === null ? to : `${to}, ${other} back`) : request ? says(request.finding) : name;
  return { ...bare, over: at.place, can: request?.ok === true, says: words };
}

/** Dragging gates between units, and inputs of one unit onto each other; pressing without moving stays a press. */
export function useUnitDrag(rules: DragRules, onMoved: (to: UnitPlace) => void) {
  const { hand, nameOf } = rules;
  const [drag, setDrag] = useState<UnitDrag | null>(null);
  const pressed = useRef<Dragged | null>(null);
  useEffect(() => {
    const stop = (e: KeyboardEvent): void => {
      if (e.key === 'Escape') setDrag(null);
    };
    window.addEventListener('keydown', stop);
    return () => window.removeEventListener('keydown', stop);
  }, []);
  const onPointerDown = (e: PointerEvent): void => {
    const at = e.button === 0 ? placeAt(e.clientX, e.clientY) : null;
    pressed.current = at && nameOf(at.place) !== null ? { ...at, from: at.place, x: e.clientX, y: e.clientY } : null;
  };
  const onPointerMove = (e: PointerEvent): void => {
    const start = pressed.current;
    if (!start || e.buttons !== 1) return;
    if (!drag && Math.hypot(e.clientX - start.x, e.clientY - start.y) < SLACK) return;
    setDrag(dragTo({ ...start, x: e.clientX, y: e.clientY }, rules));
  };
  const onPointerUp = (e: PointerEvent): void => {
    pressed.current = null;
    if (!drag) return;
    setDrag(null);
    const at = placeAt(e.clientX, e.clientY);
    // Why it cannot be was said beside the pointer.
    if (!drag.over || !at || !drag.can) return;
    if (drag.input === null) {
      hand.move(drag.from, drag.over);
      onMoved(drag.over);
    } else if (at.input !== null) hand.swap(drag.from, drag.input, at.input);
  };
  return { drag, handlers: { onPointerDown, onPointerMove, onPointerUp, onPointerCancel: () => setDrag(null) } };
}
