import { Box, Flex } from '@chakra-ui/react';
import { type ReactNode, type RefObject, useLayoutEffect, useState } from 'react';
import { NARROW, useIsNarrow } from '../../base/narrow';
import { changeSettings, type MatName, settings, useSettings } from '../../base/settings';
import { ON_THE_MAT, useShortcuts } from '../../base/shortcuts';
import { PointsPerUnit, scaleBelow } from '../legible';
import { TipButton } from '../Tip';
import { viewBoxOf } from './BoardDrawing';
import type { BoardScene } from './scene';
import type { TargetArea } from './target-areas';
import { useScrollIntoView } from './use-scroll-into-view';
import { useZoom } from './use-zoom';

interface BoardMatProps {
  /** The step whose mat it is: its size and what is folded away are remembered by that. */
  readonly name: MatName;
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
export function BoardMat({ name, scene, children, tools, inView, onPinch }: BoardMatProps) {
  const box = viewBoxOf(scene);
  const { scroller, content, zoom, by, fit, hands } = useZoom(name, box.width / box.height, onPinch);
  const points = usePoints(content, box.width);
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
      <MatTools name={name} zoom={zoom} by={by} fit={fit}>
        {tools}
      </MatTools>
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
          css={{ margin: 'auto', [NARROW]: { marginTop: 0 } }}
          flexShrink={0}
          style={{
            width: `${100 * zoom.scale}%`,
            aspectRatio: `${box.width} / ${box.height}`,
            willChange: 'transform',
          }}
        >
          <PointsPerUnit value={points}>{children}</PointsPerUnit>
        </Box>
      </Box>
    </Flex>
  );
}

interface MatToolsProps extends Pick<ReturnType<typeof useZoom>, 'zoom' | 'by' | 'fit'> {
  readonly name: MatName;
  readonly children: ReactNode;
}

/** What can be pressed above a mat, and its size. On a narrow screen the tools are drawn along under a finger. */
function MatTools({ name, zoom, by, fit, children }: MatToolsProps) {
  const isNarrow = useIsNarrow();
  return (
    <Flex align="center" gap="8px" px="10px" minH="38px" flexShrink={0} py={isNarrow ? '5px' : '0'}>
      <Flex
        align="center"
        gap="8px"
        minW="0"
        flex="1"
        css={{ [NARROW]: { overflowX: 'auto', '& > *': { flexShrink: 0 }, scrollbarWidth: 'thin' } }}
      >
        {children}
      </Flex>
      <Flex gap="4px" flexShrink={0}>
        {name !== 'card' && !isNarrow && <RoomButton name={name} />}
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
  );
}

/** Folds the panels around a mat away, so that the board has their room, and back. */
function RoomButton({ name }: { readonly name: MatName }) {
  const isFolded = useIsFolded(name);
  const turn = (): void => {
    const { folded } = settings();
    changeSettings({ folded: isFolded ? folded.filter((one) => one !== name) : [...folded, name] });
  };
  return (
    <TipButton
      aria-pressed={isFolded}
      tip={isFolded ? 'the panels around the board come back' : 'the panels around fold away'}
      onClick={turn}
    >
      {isFolded ? 'Panels' : 'More room'}
    </TipButton>
  );
}

/** Whether the panels around a mat are folded away. */
export function useIsFolded(name: MatName): boolean {
  const { folded } = useSettings();
  // On a narrow screen they slide over the board, and are out of its way anyway.
  return !useIsNarrow() && folded.includes(name);
}

/** Points of the screen to a unit of the drawing, as it lies there now. */
function usePoints(content: RefObject<HTMLDivElement | null>, units: number): number | null {
  const [points, setPoints] = useState<number | null>(null);
  useLayoutEffect(() => {
    const element = content.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      const width = entry?.contentRect.width ?? 0;
      if (width > 0) setPoints(scaleBelow(width / units));
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [content, units]);
  return points;
}
