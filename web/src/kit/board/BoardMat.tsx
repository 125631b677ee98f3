import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { ON_THE_MAT, useShortcuts } from '../../base/shortcuts';
import { TipButton } from '../Tip';
import { viewBoxOf } from './BoardDrawing';
import type { BoardScene } from './scene';
import type { TargetArea } from './target-areas';
import { useScrollIntoView } from './use-scroll-into-view';
import { useZoom } from './use-zoom';

interface BoardMatProps {
  readonly scene: BoardScene;
  readonly children: ReactNode;
  readonly tools?: ReactNode;
  /** What comes into view when it changes, unless the person is just pointing at the mat. */
  readonly inView?: readonly TargetArea[];
  /** Two fingers are on the mat: whatever one of them began is off. */
  readonly onPinch?: () => void;
}

/**
 * The felt mat a board lies on: as wide as the mat allows, or any other size; it scrolls inside itself. A wheel with Ctrl and two
 * fingers zoom about their place, the middle button draws the mat along.
 */
export function BoardMat({ scene, children, tools, inView, onPinch }: BoardMatProps) {
  const box = viewBoxOf(scene);
  const { scroller, content, zoom, by, fit, hands } = useZoom(box.width / box.height, onPinch);
  useScrollIntoView(scroller, content, box, inView);
  useShortcuts(ON_THE_MAT, [
    { cap: '+', does: 'larger', keys: ['+', 'Shift++', '='], take: () => by(1) },
    { cap: '−', does: 'smaller', keys: ['-'], take: () => by(-1) },
    { cap: 'Ctrl wheel', does: 'larger or smaller about a place' },
    { cap: 'middle button', does: 'drag the mat' },
  ]);
  return (
    <Flex
      direction="column"
      bg="canvas"
      borderWidth="1px"
      borderColor="line"
      rounded="10px"
      minH="0"
      minW="0"
      flex="1"
      overflow="hidden"
    >
      <Flex align="center" gap="8px" px="10px" minH="38px" flexShrink={0}>
        {tools}
        <Flex ml="auto" gap="4px">
          <TipButton aria-label="smaller" tip="smaller: −" disabled={zoom.isLeast} onClick={() => by(-1)}>
            −
          </TipButton>
          <TipButton tip="the whole mat; again: as wide as it goes" onClick={fit}>
            Fit
          </TipButton>
          <TipButton aria-label="larger" tip="larger: +" disabled={zoom.isMost} onClick={() => by(1)}>
            +
          </TipButton>
        </Flex>
      </Flex>
      {/* With a perspective the browser keeps all of the drawing painted: stretching it, which is flat, then paints nothing again. */}
      <Box
        ref={scroller}
        flex="1"
        minH="0"
        overflow="auto"
        tabIndex={0}
        role="group"
        aria-label="the mat"
        px="4px"
        pb="4px"
        display="flex"
        perspective="9999px"
        {...hands}
      >
        <Box
          ref={content}
          m="auto"
          flexShrink={0}
          style={{
            width: `${100 * zoom.scale}%`,
            aspectRatio: `${box.width} / ${box.height}`,
            willChange: 'transform',
          }}
        >
          {children}
        </Box>
      </Box>
    </Flex>
  );
}
