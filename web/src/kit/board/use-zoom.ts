import type { Point } from '@saddlebag/core';
import { type PointerEvent, type RefObject, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { isNarrow } from '../../base/narrow';
import { changeSettings, type MatName, settings } from '../../base/settings';
import { useLatest } from '../../base/use-latest';
import { bounded, type Fingers, LEAST, MOST, pinched, stepFrom, wholeScale } from './zoom';

/** What a notch of a wheel is worth: a hundred points halve or double in four. */
const WHEEL = 400;

/** How many times wider than a narrow screen a board is drawn at first, so that its holes are apart. */
const CLOSE = 3;

/** How long a wheel or two fingers must rest until the drawing is painted in its new size, in milliseconds. */
const REST_MS = 140;

/** A zoom under way: the painted drawing is stretched about a place, given as shares of its size, and goes along with it. */
interface Stretch {
  times: number;
  readonly share: Point;
  /** Where the place lay when it began, and where it is to lie now. */
  readonly from: Point;
  at: Point;
  rest: ReturnType<typeof setTimeout> | undefined;
}

/** A place of the drawing, as shares of its size, that is to lie somewhere on the screen once the drawing has its new size. */
type Anchor = Pick<Stretch, 'share' | 'at'>;

/**
 * The size of a drawing on its mat; what an anchor names stays where it says. Each size is a new object: what was stretched is put right even
 * where its size is the same in the end.
 */
function useSize(scroller: RefObject<HTMLDivElement | null>, content: RefObject<HTMLDivElement | null>, name: MatName) {
  const [size, setSize] = useState(() => ({ scale: bounded(settings().zoom[name] ?? (isNarrow() ? CLOSE : 1)) }));
  const first = useRef(size);
  useEffect(() => {
    const { zoom } = settings();
    if (size !== first.current && (zoom[name] ?? 1) !== size.scale)
      changeSettings({ zoom: { ...zoom, [name]: size.scale } });
  }, [name, size]);
  const anchor = useRef<Anchor | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the drawing has its size when it has been set
  useLayoutEffect(() => {
    const [wanted, box] = [anchor.current, content.current];
    if (!wanted || !box) return;
    anchor.current = null;
    box.style.transform = '';
    const { left, top, width, height } = box.getBoundingClientRect();
    const { share, at } = wanted;
    scroller.current?.scrollBy(left + share.x * width - at.x, top + share.y * height - at.y);
  }, [size]);
  const resize = (about: Anchor, next: (scale: number) => number): void => {
    anchor.current = about;
    setSize((now) => ({ scale: bounded(next(now.scale)) }));
  };
  return [size.scale, resize] as const;
}

interface Sized {
  readonly scroller: RefObject<HTMLDivElement | null>;
  readonly content: RefObject<HTMLDivElement | null>;
  readonly scale: number;
  readonly resize: (about: Anchor, next: (scale: number) => number) => void;
}

/** Stretches what is painted, and has it painted anew when that rests. */
function useStretch({ scroller, content, scale, resize }: Sized) {
  const stretch = useRef<Stretch | null>(null);
  useEffect(() => () => clearTimeout(stretch.current?.rest), []);
  /** Ends the stretch that is under way, and gives it. */
  const ended = (): Stretch | null => {
    const done = stretch.current;
    clearTimeout(done?.rest);
    stretch.current = null;
    return done;
  };
  const settle = (): void => {
    const done = ended();
    if (done) resize(done, (now) => now * done.times);
  };
  const stretched = (times: number, about: Point): void => {
    const box = content.current;
    if (!box) return;
    stretch.current ??= { times: 1, share: shareAt(box, about), from: about, at: about, rest: undefined };
    const now = stretch.current;
    now.times = bounded(scale * now.times * times) / scale;
    show(box, now);
    clearTimeout(now.rest);
    now.rest = setTimeout(settle, REST_MS);
  };
  const along = ({ x, y }: Point): void => {
    const now = stretch.current;
    if (now && content.current) {
      now.at = { x: now.at.x + x, y: now.at.y + y };
      show(content.current, now);
    } else scroller.current?.scrollBy(-x, -y);
  };
  return { stretched, along, ended };
}

/**
 * The size of a drawing on its mat and the ways to change it; what lies under the pointer stays there. A wheel and two
 * fingers stretch what is painted, which costs nothing however large the board is; it is painted anew when they rest. It is remembered by the mat's name.
 */
export function useZoom(name: MatName, ratio: number, onPinch: (() => void) | undefined) {
  const scroller = useRef<HTMLDivElement>(null);
  const content = useRef<HTMLDivElement>(null);
  const [scale, resize] = useSize(scroller, content, name);
  const { stretched, along, ended } = useStretch({ scroller, content, scale, resize });
  const to = (next: number): void => {
    const view = scroller.current?.getBoundingClientRect();
    if (!view) return;
    ended();
    const at = { x: view.left + view.width / 2, y: view.top + view.height / 2 };
    resize({ share: shareAt(content.current, at), at }, () => next);
  };
  useWheel(scroller, stretched);
  const fit = (): void => {
    const view = scroller.current;
    if (!view) return;
    const whole = wholeScale({ width: view.clientWidth, height: view.clientHeight }, ratio);
    to(Math.abs(scale - whole) < 0.01 ? 1 : whole);
  };
  return {
    scroller,
    content,
    zoom: { scale, isLeast: scale <= LEAST, isMost: scale >= MOST },
    by: (step: 1 | -1) => to(stepFrom(scale, step)),
    fit,
    hands: useDrawing(along, stretched, onPinch),
  };
}

/** Where a point of the screen lies on a drawing, as shares of its size; in the middle of one that has none. */
function shareAt(drawing: HTMLElement | null, at: Point): Point {
  const box = drawing?.getBoundingClientRect();
  if (!box || box.width === 0) return { x: 0.5, y: 0.5 };
  return { x: (at.x - box.left) / box.width, y: (at.y - box.top) / box.height };
}

/** Zooms about the pointer by the wheel with Ctrl, and by two fingers on a touchpad, which browsers tell as the same. */
function useWheel(scroller: RefObject<HTMLDivElement | null>, zoom: (times: number, about: Point) => void): void {
  const latest = useLatest(zoom);
  useEffect(() => {
    const element = scroller.current;
    const onWheel = (e: WheelEvent): void => {
      if (!e.ctrlKey) return;
      // Not passive: the browser would zoom the page.
      e.preventDefault();
      latest(2 ** (-e.deltaY / WHEEL), { x: e.clientX, y: e.clientY });
    };
    element?.addEventListener('wheel', onWheel, { passive: false });
    return () => element?.removeEventListener('wheel', onWheel);
  }, [scroller, latest]);
}

function show(box: HTMLElement, { times, share, from, at }: Stretch): void {
  box.style.transformOrigin = `${100 * share.x}% ${100 * share.y}%`;
  box.style.transform = `translate(${at.x - from.x}px, ${at.y - from.y}px) scale(${times})`;
}

/** Handlers that drag the mat with the middle button, or with two fingers, which also zoom. */
function useDrawing(
  along: (strategy: Point) => void,
  zoom: (times: number, about: Point) => void,
  onPinch: (() => void) | undefined,
) {
  const down = useRef(new Map<number, Point>());
  const before = useRef<Fingers | null>(null);
  const fingers = (): Fingers | null => {
    const [a, b] = [...down.current.values()];
    return a && b ? [a, b] : null;
  };
  const lift = (e: PointerEvent): void => {
    down.current.delete(e.pointerId);
    before.current = fingers();
  };
  return {
    onPointerDownCapture: (e: PointerEvent) => {
      if (e.pointerType !== 'touch' && e.button !== 1) return;
      down.current.set(e.pointerId, { x: e.clientX, y: e.clientY });
      before.current = fingers();
      if (before.current) onPinch?.();
      if (before.current || e.button === 1) e.stopPropagation();
      if (e.button !== 1) return;
      // The browser's own scrolling by the middle button would come in between.
      e.preventDefault();
      e.currentTarget.setPointerCapture(e.pointerId);
    },
    onPointerMoveCapture: (e: PointerEvent): void => {
      const last = down.current.get(e.pointerId);
      if (!last) return;
      const now = { x: e.clientX, y: e.clientY };
      down.current.set(e.pointerId, now);
      if (e.pointerType !== 'touch') along({ x: now.x - last.x, y: now.y - last.y });
      const [old, pair] = [before.current, fingers()];
      if (!old || !pair) return;
      e.stopPropagation();
      before.current = pair;
      const { times, about, along: strategy } = pinched(old, pair);
      along(strategy);
      zoom(times, about);
    },
    onPointerUpCapture: lift,
    onPointerCancelCapture: lift,
  };
}
