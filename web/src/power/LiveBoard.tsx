import {
  type Board,
  holeNear,
  innerName,
  innerOf,
  jumperOf,
  partOf,
  printHole,
  stripsOfEnds,
  typeOf,
} from '@saddlebag/core';
import { type MouseEvent, type PointerEvent, useMemo, useRef, useSyncExternalStore } from 'react';
import { type ReadBoard, useJobView } from '../base/job-context';
import { BoardDrawing, type BoardOverlay } from '../kit/board/BoardDrawing';
import type { BoardScene } from '../kit/board/scene';
import { ABOVE_PANELS } from '../kit/board/use-growing';
import { gatesByPin } from '../kit/board/use-scene';
import { type MeterPlace, pointMeter } from './meter-place';

/** The board as the bench has it just now: levels, lit gates and LEDs; its switches answer to the mouse. */
export function LiveBoard({ scene }: { readonly scene: BoardScene }) {
  const { job, board, colours, bench } = useJobView();
  const picture = useSyncExternalStore(bench.subscribe, () => bench.snapshot().picture);
  const { on } = bench.snapshot();
  const gateAt = useMemo(() => gatesByPin(board.wired), [board.wired]);
  // A new overlay whenever the board looks otherwise, since the drawing asks the bench for its levels.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the picture stands for what is asked of the bench
  const overlay = useMemo((): BoardOverlay => {
    const live = on
      ? {
          levelOf: (net: number) => bench.levelOf(net),
          voltsOf: (net: number) => bench.probe(net)?.volts ?? null,
          ledState: (ref: string) => bench.led(ref),
        }
      : {};
    const chosen = wiresAt(bench.litPins(), board);
    return { gateAt, chosen, isOn: (ref) => bench.isOn(ref), ...live };
  }, [picture, on, gateAt, bench, board]);
  const press = (e: MouseEvent): void => {
    const target = e.target as Element;
    const ref = target.closest('[data-ref]')?.getAttribute('data-ref') ?? '';
    const actuator = target.closest('[data-actuator]')?.getAttribute('data-actuator') ?? '';
    const part = job.board.parts[ref];
    const contacts = innerOf(part && typeOf(part)).contacts;
    if (contacts.some((c) => c.actuator === actuator)) bench.flip(innerName(ref, actuator));
  };
  const svg = useRef<SVGSVGElement>(null);
  const point = (e: PointerEvent): void => pointMeter(placeUnder(e, job.board, svg.current));
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: every switch is a button with a key in the panel below
    // biome-ignore lint/a11y/useKeyWithClickEvents: see above
    <div style={{ height: '100%' }} onClick={press} onPointerMove={point} onPointerLeave={() => pointMeter(null)}>
      <BoardDrawing
        scene={scene}
        colours={colours}
        title="board under power"
        overlay={overlay}
        svgRef={svg}
        inSight={ABOVE_PANELS}
      />
    </div>
  );
}

const none: ReadonlySet<string> = new Set();

/** The jumpers on the nets of some pins. */
function wiresAt(pins: readonly string[], { board, nets }: ReadBoard): ReadonlySet<string> {
  if (pins.length === 0) return none;
  const lit = new Set(pins.flatMap((pin) => nets.ofPin.get(pin) ?? []));
  const isLit = (strip: string | null): boolean => strip !== null && lit.has(nets.ofStrip.get(strip) ?? -1);
  return new Set(Object.values(board.jumpers).flatMap((j) => (stripsOfEnds(j).some(isLit) ? [j.id] : [])));
}

/** Where a meter goes that is held to what is under the pointer: a lamp, a wire by one of its ends, or the nearest hole. */
function placeUnder(e: PointerEvent, board: Board, svg: SVGSVGElement | null): MeterPlace | null {
  const under = (name: string): string => (e.target as Element).closest(`[${name}]`)?.getAttribute(name) ?? '';
  const ref = under('data-ref');
  const part = partOf(board, ref);
  if (innerOf(part && typeOf(part)).lamps.length === 1) return { kind: 'lamp', name: ref };
  const jumper = jumperOf(board, under('data-wire'));
  if (jumper) return { kind: 'hole', name: jumper.from };
  const matrix = svg?.getScreenCTM();
  const at = matrix && new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse());
  const hole = at && holeNear(at.x, at.y, board.breadboards);
  return hole ? { kind: 'hole', name: printHole(hole) } : null;
}
