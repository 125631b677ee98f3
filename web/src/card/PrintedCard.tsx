import { Box, Heading, Text } from '@chakra-ui/react';
import { Global } from '@emotion/react';
import {
  type Behaviour,
  type BuildCard,
  boardAfter,
  HOW_TO_READ,
  isRail,
  type Job,
  parseHole,
  rows,
  rowY,
  stripOf,
  wireColours,
} from '@saddlebag/core';
import { useMemo } from 'react';
import { colour } from '../base/colours';
import { type ReadBoard, readBoard } from '../base/job-context';
import { Colours } from '../base/palette';
import { BoardPicture } from '../kit/board/BoardDrawing';
import { boardScene } from '../kit/board/scene';
import { SvgText } from '../kit/SvgText';
import { PartsTable, PinTables, TourTable } from './Lists';
import { onPaper, paperScene } from './on-paper';
import { StageLines } from './StageLines';
import { TableToTick } from './TableToTick';

/** Pages are numbered, whatever their size; a board is wider than high, but a stage is not. */
const pages = `@page {
  margin: 14mm 12mm 16mm;
  @bottom-right { content: counter(page) ' of ' counter(pages); font: 9pt sans-serif; }
}`;

/** Pictures after so many stages are printed; of longer jobs the others are on the screen. */
const MOST_PICTURES = 60;
/** The width of the edge in which the rows of a piece of a board have their letters. */
const EDGE = 1.1;
const lettered = rows.filter((row) => !isRail(row));
/** On paper strips have no colour of their own. */
const noColours = new Colours([]);

interface PrintedCardProps {
  readonly card: BuildCard;
  readonly job: Job;
  readonly board: ReadBoard;
  readonly behaviour: Behaviour | null;
  readonly gateAt: (pin: string) => string | undefined;
}

/** The card as it comes out of the printer: picture, parts, every stage with its own picture, pins, and what to tick off. Not seen on the screen. */
export function PrintedCard(props: PrintedCardProps) {
  const { card, job, behaviour } = props;
  const pictures = usePictures(props);
  return (
    <Box display="none" flex="1" minW="0" color="black" style={onPaper} css={{ '@media print': { display: 'block' } }}>
      <Global styles={pages} />
      <Heading as="h1" fontFamily="heading" fontSize="24px" fontWeight="600">
        {job.name}: build card
      </Heading>
      <Text fontSize="12px" mt="4px">
        {HOW_TO_READ}
      </Text>
      {pictures.whole}
      <Head>Parts</Head>
      <PartsTable card={card} />
      <Head>Stages</Head>
      {card.stages.map((stage, i) => (
        <Box key={stage.title} mt="8px" breakInside="avoid">
          <Text fontFamily="heading" fontWeight="600">
            {i + 1}. {stage.title}
          </Text>
          <StageLines stage={stage} lines={card.lines} />
          {pictures.after(i)}
        </Box>
      ))}
      <Head>Pins</Head>
      <PinTables card={card} isWhole />
      {behaviour && <TableToTick behaviour={behaviour} />}
      {card.tour && (
        <>
          <Head>Tour of the states</Head>
          <TourTable tour={card.tour} isPaper />
        </>
      )}
    </Box>
  );
}

function Head({ children }: { readonly children: string }) {
  return (
    <Heading as="h2" fontFamily="heading" fontSize="18px" mt="14px" mb="6px" breakAfter="avoid">
      {children}
    </Heading>
  );
}

/** The finished board, and what is there after each stage, in the colours of paper. */
function usePictures({ card, job, board, gateAt }: PrintedCardProps) {
  const colours = useMemo(
    () =>
      wireColours(board.board, (hole) => {
        const at = parseHole(hole);
        const net = at && board.nets.ofStrip.get(stripOf(at));
        return net == null ? undefined : board.names.get(net);
      }),
    [board],
  );
  const after = (i: number) => {
    const stage = card.stages[i];
    if (!stage || stage.parts.length + stage.jumpers.length === 0 || i >= MOST_PICTURES) return null;
    const soFar = boardScene(readBoard(boardAfter(job.board, card.stages.slice(0, i + 1)), board.wired));
    return <PaperPicture {...paperScene(soFar, colours, stage)} gateAt={gateAt} title={`after stage ${i + 1}`} />;
  };
  const finished = paperScene(boardScene(board), colours, null);
  return { after, whole: <PaperPicture {...finished} gateAt={gateAt} title="the finished board" /> };
}

/** The letters of the rows at the edge of a picture that shows a piece of a board. */
function RowNames({ scene, view }: ReturnType<typeof paperScene>) {
  const cut = scene.boards.filter((b) => b.x < view.x && b.y >= view.y && b.y < view.y + view.height);
  return cut.map(({ id, y }) => (
    <g key={id}>
      <rect x={view.x} y={y - 0.5} width={EDGE} height={18} fill={colour('mat')} />
      {lettered.map((row) => (
        <SvgText
          key={row}
          x={view.x + EDGE / 2}
          y={y + rowY[row] + 0.24}
          size={0.7}
          fill={colour('matText')}
          weight={600}
        >
          {row}
        </SvgText>
      ))}
    </g>
  ));
}

interface PaperPictureProps extends ReturnType<typeof paperScene>, Pick<PrintedCardProps, 'gateAt'> {
  readonly title: string;
}

function PaperPicture({ scene, view, gateAt, title }: PaperPictureProps) {
  return (
    <Box
      my="8px"
      style={{ aspectRatio: `${view.width} / ${view.height}`, printColorAdjust: 'exact' }}
      breakInside="avoid"
    >
      <BoardPicture scene={scene} view={view} colours={noColours} title={title} overlay={{ gateAt }}>
        <RowNames scene={scene} view={view} />
      </BoardPicture>
    </Box>
  );
}
