import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type BuildCard, boardAfter, type Job } from '@saddlebag/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { readBoard, useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { useCard } from '../base/use-card';
import { Beside, SideBySide } from '../kit/Beside';
import { BoardDrawing } from '../kit/board/BoardDrawing';
import { BoardMat } from '../kit/board/BoardMat';
import { areasOfThings } from '../kit/board/target-areas';
import { ABOVE_PANELS } from '../kit/board/use-growing';
import { gatesByPin, useScene } from '../kit/board/use-scene';
import { NoBoard } from '../kit/NoBoard';
import { Empty, Panel } from '../kit/Panel';
import { useGrowingCount } from '../kit/use-growing-count';
import { Lists } from './Lists';
import { PrintedCard } from './PrintedCard';
import { StageLines } from './StageLines';
import { useIsPrinting } from './use-is-printing';

/** The job as stages to do on a real bench, each with its picture and its test. */
export default function CardStep() {
  const { id, job } = useJobView();
  const card = useCard(useJobView());
  if (card === undefined)
    return (
      <Panel title="Build card" flex="1">
        <Empty>Writing the card …</Empty>
      </Panel>
    );
  if (!card)
    return (
      <Panel title="Build card" flex="1">
        <NoBoard jobId={id} why="The card is written from a laid-out board." />
      </Panel>
    );
  return <Card card={card} job={job} />;
}

function Card({ card, job }: { readonly card: BuildCard; readonly job: Job }) {
  const { packing, board, colours, behaviour } = useJobView();
  const gateAt = useMemo(() => gatesByPin(packing), [packing]);
  const isPrinting = useIsPrinting();
  const [at, setAt] = useState(0);
  const current = Math.min(at, card.stages.length - 1);
  const step = (e: KeyboardEvent): void =>
    setAt(Math.max(0, Math.min(current + (e.key === 'ArrowDown' ? 1 : -1), card.stages.length - 1)));
  useShortcuts('On the build card', [
    { cap: '↑ ↓', does: 'from stage to stage', keys: ['ArrowUp', 'ArrowDown'], take: step, isFirst: true },
    { cap: 'Ctrl P', does: 'print', isFirst: true },
  ]);
  const soFar = useMemo(
    () => readBoard(boardAfter(job.board, card.stages.slice(0, current + 1)), packing),
    [job.board, card, current, packing],
  );
  const scene = useScene(soFar);
  const chosen = useMemo(() => {
    const stage = card.stages[current];
    return new Set(stage ? [...stage.parts, ...stage.jumpers] : []);
  }, [card, current]);
  const inView = useMemo(() => areasOfThings(chosen, scene), [chosen, scene]);
  return (
    <>
      <SideBySide flex="1" gap="10px" _print={{ display: 'none' }}>
        <Beside title="Stages" w="372px" flexShrink={0} minH="0">
          <StageList card={card} current={current} onChoose={setAt} />
        </Beside>
        <Flex direction="column" flex="1" minW="0" minH="0" gap="10px">
          <BoardMat
            name="card"
            scene={scene}
            inView={inView}
            tools={
              <Text fontFamily="heading" fontWeight="600" fontSize="16px">
                After stage {current + 1}
              </Text>
            }
          >
            <BoardDrawing
              scene={scene}
              colours={colours}
              title={`board after stage ${current + 1}`}
              overlay={{ gateAt, chosen }}
              inSight={ABOVE_PANELS}
            />
          </BoardMat>
          <Beside title="Parts and pins" gap="10px" h="232px" flexShrink={0}>
            <Lists card={card} />
          </Beside>
        </Flex>
      </SideBySide>
      {isPrinting && <PrintedCard card={card} job={job} board={board} behaviour={behaviour} gateAt={gateAt} />}
    </>
  );
}

/** Stages that are listed at once; of more the rest follows. */
const AT_ONCE = { first: 16, more: 40 } as const;

interface StageListProps {
  readonly card: BuildCard;
  readonly current: number;
  readonly onChoose: (stage: number) => void;
}

/** The stages one below the other, the current one with its lines. */
function StageList({ card, current, onChoose }: StageListProps) {
  const { stages } = card;
  const list = useRef<HTMLDivElement>(null);
  const grown = useGrowingCount(stages.length, AT_ONCE);
  // biome-ignore lint/correctness/useExhaustiveDependencies: when another stage becomes the current one
  useEffect(() => {
    list.current?.querySelector('[aria-current="step"]')?.scrollIntoView({ block: 'nearest' });
  }, [current]);
  return (
    <Panel
      title="Stages"
      hint={`${current + 1} of ${stages.length}`}
      flex="1"
      actions={<Button onClick={() => window.print()}>Print</Button>}
    >
      <Box ref={list} overflowY="auto" tabIndex={0} role="region" aria-label="stages">
        {stages.slice(0, Math.max(grown, current + 1)).map((stage, i) => (
          <Box
            key={stage.title}
            as="section"
            borderTopWidth="1px"
            borderColor="line"
            bg={i === current ? 'wash' : undefined}
          >
            <Box
              as="button"
              display="flex"
              gap="8px"
              w="100%"
              px="12px"
              py="5px"
              textAlign="left"
              cursor="pointer"
              aria-current={i === current ? 'step' : undefined}
              onClick={() => onChoose(i)}
            >
              <Text fontFamily="mono" color="soft" w="20px">
                {i + 1}
              </Text>
              <Text fontFamily="heading" fontWeight="600">
                {stage.title}
              </Text>
            </Box>
            {i === current && <StageLines stage={stage} lines={card.lines} />}
          </Box>
        ))}
      </Box>
    </Panel>
  );
}
