import { Box, Button, Flex } from '@chakra-ui/react';
import { type ReactNode, useState } from 'react';
import { viewBoxOf } from './BoardDrawing';
import type { BoardScene } from './scene';

/** Widths of the drawing against the mat's, smallest first; the first fits. */
const zooms = [1, 1.5, 2, 3] as const;

/** The felt mat a board lies on: as wide as the mat allows, larger by steps; scrolls inside itself. */
export function BoardMat({
  scene,
  children,
  tools,
}: {
  readonly scene: BoardScene;
  readonly children: ReactNode;
  readonly tools?: ReactNode;
}) {
  const [zoom, setZoom] = useState(0);
  const box = viewBoxOf(scene);
  const percent = (zooms[zoom] ?? 1) * 100;
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
          <Button aria-label="smaller" disabled={zoom === 0} onClick={() => setZoom(zoom - 1)}>
            −
          </Button>
          <Button onClick={() => setZoom(0)} disabled={zoom === 0}>
            Fit
          </Button>
          <Button aria-label="larger" disabled={zoom === zooms.length - 1} onClick={() => setZoom(zoom + 1)}>
            +
          </Button>
        </Flex>
      </Flex>
      <Box flex="1" minH="0" overflow="auto" tabIndex={-1} px="4px" pb="4px" display="flex">
        <Box
          m="auto"
          flexShrink={0}
          style={{ width: `${percent}%`, aspectRatio: `${box.width} / ${box.height}`, willChange: 'transform' }}
        >
          {children}
        </Box>
      </Box>
    </Flex>
  );
}
