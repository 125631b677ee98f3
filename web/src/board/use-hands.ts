import type { Clip, Edit } from '@saddlebag/core';
import { type PointerEvent, type RefObject, useRef, useState } from 'react';
import { useJobView } from '../base/job-context';
import { remedy, says } from '../base/words';
import { routesOf } from '../kit/board/routes';
import { type HandEvent, type Hands, idleHands, type Reaction, react } from './hand';

/** What was copied last, on whichever job: it can be pasted into another. */
let clipboard: Clip = { parts: [], jumpers: [] };

/** The hands over the board of the open job: their state, what was last refused, and handlers for the drawing. */
export function useHands() {
  const { session } = useJobView();
  const [hands, showHands] = useState<Hands>(idleHands);
  // Events may come faster than the screen is drawn: each works on what the one before it left.
  const latest = useRef(hands);
  const setHands = (next: Hands): void => {
    latest.current = next;
    showHands(next);
  };
  const [refusal, setRefusal] = useState<string | null>(null);
  const svg = useRef<SVGSVGElement>(null);

  const dispatch = (edit: Edit): boolean => {
    const applied = session.dispatch(edit);
    setRefusal(applied.ok ? null : applied.findings.map((f) => `${says(f)} ${remedy(f)}`).join(' '));
    return applied.ok;
  };
  const take = (event: HandEvent): boolean => {
    const reaction: Reaction | null = react(latest.current, event, session.job);
    if (!reaction) return false;
    setHands(reaction.hands);
    if (reaction.clip && reaction.clip.parts.length + reaction.clip.jumpers.length > 0) clipboard = reaction.clip;
    if (reaction.refusal) setRefusal(`${says(reaction.refusal)} ${remedy(reaction.refusal)}`);
    else if (reaction.edit) dispatch(reaction.edit);
    else if (event.kind === 'press') setRefusal(null);
    return true;
  };
  const handlers = usePointerHandlers({ svg, take, latest });
  /** What Ctrl and a letter do over the board; false when it is not for the board. */
  const command = (letter: string): boolean => {
    if (letter === 'a') return take({ kind: 'choose-all' });
    if (letter === 'c') return latest.current.chosen !== null && take({ kind: 'copy' });
    return letter === 'v' && take({ kind: 'paste', clip: clipboard });
  };
  return { hands, setHands, command, refusal, setRefusal, svg, dispatch, take, handlers };
}

interface PointerHands {
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly take: (event: HandEvent) => boolean;
  /** The hands as the last event left them. */
  readonly latest: RefObject<Hands>;
}

/** Tells the hands where on the drawing the pointer presses, moves and lets go. */
function usePointerHandlers({ svg, take, latest }: PointerHands) {
  const { session } = useJobView();
  const placeOf = (e: PointerEvent): { x: number; y: number } | null => {
    const matrix = svg.current?.getScreenCTM();
    if (!matrix) return null;
    const { x, y } = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
    return { x, y };
  };
  return {
    onPointerDown: (e: PointerEvent<Element>) => {
      const at = placeOf(e);
      if (!at || e.button !== 0) return;
      const what = thingUnder(e.target as Element);
      e.currentTarget.setPointerCapture(e.pointerId);
      const path = what === null ? undefined : routesOf(session.job.board)?.get(what);
      take({ kind: 'press', ...at, on: what, path, stay: e.altKey, add: e.shiftKey });
    },
    onPointerMove: (e: PointerEvent) => {
      const { carry, bend, laying, frame } = latest.current;
      const at = carry || bend || frame || laying !== null ? placeOf(e) : null;
      if (at) take({ kind: 'move', ...at });
    },
    onPointerUp: (e: PointerEvent) => {
      const at = placeOf(e);
      if (at) take({ kind: 'release', ...at });
    },
  };
}

/** The part, wire or note that an element of the drawing belongs to; null on the bare mat. */
function thingUnder(element: Element): string | null {
  const kinds = ['data-ref', 'data-wire', 'data-note'] as const;
  const on = element.closest(kinds.map((kind) => `[${kind}]`).join());
  return kinds.map((kind) => on?.getAttribute(kind) ?? null).find((what) => what !== null) ?? null;
}
