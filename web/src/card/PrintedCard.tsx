import { Box, Heading, Text } from '@chakra-ui/react';
import type { BuildCard, Job } from '@saddlebag/core';
import type { ReadBoard } from '../base/job-context';
import type { Colours } from '../base/palette';
import { BoardPicture, viewBoxOf } from '../kit/board/BoardDrawing';
import { useScene } from '../kit/board/use-scene';
import { PartsTable, PinTables, TourTable } from './Lists';
import { StageLines } from './StageLines';

interface PrintedCardProps {
  readonly card: BuildCard;
  readonly job: Job;
  readonly board: ReadBoard;
  readonly colours: Colours;
  readonly gateAt: (pin: string) => string | undefined;
}

/** The card as it comes out of the printer: picture, parts, every stage, pins. Not seen on the screen. */
export function PrintedCard({ card, job, board, colours, gateAt }: PrintedCardProps) {
  const scene = useScene(board);
  const box = viewBoxOf(scene);
  return (
    <Box display="none" flex="1" minW="0" color="black" css={{ '@media print': { display: 'block' } }}>
      <Heading as="h1" fontFamily="heading" fontSize="24px" fontWeight="600">
        {job.name}: build card
      </Heading>
      <Box my="10px" style={{ aspectRatio: `${box.width} / ${box.height}`, printColorAdjust: 'exact' }}>
        <BoardPicture scene={scene} colours={colours} title="the finished board" overlay={{ gateAt }} />
      </Box>
      <Heading as="h2" fontFamily="heading" fontSize="18px" mt="12px">
        Parts
      </Heading>
      <PartsTable card={card} />
      <Heading as="h2" fontFamily="heading" fontSize="18px" mt="14px">
        Stages
      </Heading>
      {card.stages.map((stage, i) => (
        <Box key={stage.title} mt="8px" breakInside="avoid">
          <Text fontFamily="heading" fontWeight="600">
            {i + 1}. {stage.title}
          </Text>
          <StageLines stage={stage} job={job} />
        </Box>
      ))}
      <Heading as="h2" fontFamily="heading" fontSize="18px" mt="14px" mb="6px">
        Pins
      </Heading>
      <PinTables card={card} isWhole />
      {card.tour && (
        <>
          <Heading as="h2" fontFamily="heading" fontSize="18px" mt="14px" mb="6px">
            Tour of the states
          </Heading>
          <TourTable tour={card.tour} />
        </>
      )}
    </Box>
  );
}
