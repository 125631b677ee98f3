import { Box, Portal, Text } from '@chakra-ui/react';
import { holeNear, holeXY, printHole, shownSignal, stripOf } from '@saddlebag/core';
import { memo, type RefObject, useEffect, useState } from 'react';
import { useJobView } from '../base/job-context';
import { BoardPicture, viewBoxOf } from '../kit/board/BoardDrawing';
import type { BoardScene } from '../kit/board/scene';

/** A finger on the board: where on the screen, and where in units of the drawing. */
interface Finger {
  readonly clientX: number;
  readonly clientY: number;
  readonly x: number;
  readonly y: number;
}

/** The width of the lens on the screen, how far above the finger it hangs, and how many units of the drawing it shows. */
const WIDE_PX = 132;
const ABOVE_PX = 84;
const SHOWN = 6;

interface FingerLensProps {
  /** What the finger is over. */
  readonly region: RefObject<HTMLElement | null>;
  readonly svg: RefObject<SVGSVGElement | null>;
  readonly scene: BoardScene;
}

/** A lens for as long as a finger is on the board; a mouse hides nothing of what is under it. */
export function FingerLens({ region, svg, scene }: FingerLensProps) {
  const [finger, setFinger] = useState<Finger | null>(null);
  useEffect(() => {
    const element = region.current;
    const follow = (e: PointerEvent): void => {
      const matrix = svg.current?.getScreenCTM();
      if (e.pointerType !== 'touch' || !matrix) return;
      const { clientX, clientY } = e;
      const { x, y } = new DOMPoint(clientX, clientY).matrixTransform(matrix.inverse());
      setFinger({ clientX, clientY, x, y });
    };
    const leave = (): void => setFinger(null);
    // A finger that moves is one that is down.
    const heard = [
      ['pointerdown', follow],
      ['pointermove', follow],
      ['pointerup', leave],
      ['pointercancel', leave],
    ] as const;
    for (const [what, then] of heard) element?.addEventListener(what, then, { passive: true });
    return () => {
      for (const [what, then] of heard) element?.removeEventListener(what, then);
    };
  }, [region, svg]);
  return finger && <Lens finger={finger} scene={scene} />;
}

/** What lies under a finger, larger and above it, with the name of the hole and what it carries. */
function Lens({ finger, scene }: { readonly finger: Finger; readonly scene: BoardScene }) {
  const { job, board, colours } = useJobView();
  const hole = holeNear(finger.x, finger.y, job.board.breadboards);
  const centre = hole ? holeXY(hole) : finger;
  const net = hole && board.nets.ofStrip.get(stripOf(hole));
  const carries = net == null ? undefined : board.names.get(net);
  const isHigh = finger.clientY < WIDE_PX + ABOVE_PX;
  const top = isHigh ? finger.clientY + ABOVE_PX : finger.clientY - ABOVE_PX - WIDE_PX;
  const left = Math.max(4, Math.min(window.innerWidth - WIDE_PX - 4, finger.clientX - WIDE_PX / 2));
  return (
    <Portal>
      <Box
        data-lens={hole ? printHole(hole) : ''}
        position="fixed"
        pointerEvents="none"
        zIndex={3}
        rounded="12px"
        overflow="hidden"
        bg="canvas"
        borderWidth="2px"
        borderColor="ink"
        boxShadow="0 4px 18px rgba(0,0,0,0.4)"
        style={{ top, left, width: WIDE_PX, height: WIDE_PX }}
      >
        <svg
          viewBox={`${centre.x - SHOWN / 2} ${centre.y - SHOWN / 2} ${SHOWN} ${SHOWN}`}
          width="100%"
          height="100%"
          aria-hidden="true"
        >
          <Drawn scene={scene} colours={colours} />
          <circle cx={centre.x} cy={centre.y} r={0.5} fill="none" stroke="currentColor" strokeWidth={0.14} />
        </svg>
        <Text
          position="absolute"
          bottom="0"
          insetX="0"
          bg="card"
          px="6px"
          fontSize="12.5px"
          textAlign="center"
          truncate
        >
          {hole ? printHole(hole) : 'no hole'}
          {carries !== undefined && ` · ${shownSignal(carries)}`}
        </Text>
      </Box>
    </Portal>
  );
}

/** The board itself, drawn once however the finger moves. */
const Drawn = memo(function Drawn({ scene, colours }: Pick<Parameters<typeof BoardPicture>[0], 'scene' | 'colours'>) {
  const { x, y, width, height } = viewBoxOf(scene);
  const size = { x: String(x), y: String(y), width: String(width), height: String(height) };
  return <BoardPicture scene={scene} colours={colours} title="under the finger" size={size} />;
});
