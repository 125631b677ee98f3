import { Button, Flex, Text } from '@chakra-ui/react';
import { isBare, isOutdated } from '@saddlebag/core';
import { useState } from 'react';
import { useJobView } from '../base/job-context';
import { BY_TOUCH, NARROW, TOUCHED } from '../base/narrow';
import { MonoInput } from '../kit/MonoInput';
import { ProgressBar } from '../kit/ProgressBar';
import { ResistorsButton } from '../kit/resistors/ResistorsButton';
import { TimersButton } from '../kit/timers/TimersButton';
import { type LayingOut, useLayOut, usePackingToLay } from '../kit/use-lay-out';
import { BoardsMenu } from './BoardsMenu';
import { Pictures } from './Pictures';
import { SeatMenu } from './SeatMenu';
import type { useHands } from './use-hands';

interface BoardToolsProps {
  readonly work: Pick<ReturnType<typeof useHands>, 'dispatch' | 'refusal'>;
  readonly onSay: (text: string) => boolean;
  readonly line: React.RefObject<HTMLInputElement | null>;
  readonly guided: boolean;
  readonly onGuide: () => void;
}

/** What is done to the whole board: typing, seating, boards, laying out, being guided, pictures. */
export function BoardTools({ work: { dispatch, refusal }, onSay, line, guided, onGuide }: BoardToolsProps) {
  const { job } = useJobView();
  const packing = usePackingToLay();
  const [text, setText] = useState('');
  const laying = useLayOut();
  return (
    <>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (onSay(text)) setText('');
        }}
      >
        <MonoInput
          ref={line}
          aria-label="type to the board"
          placeholder="U1.8 > U3.2"
          value={text}
          onChange={(e) => setText(e.target.value)}
          fontSize="13px"
          h="28px"
          css={{ width: '190px', [NARROW]: { width: '116px' }, [BY_TOUCH]: { minHeight: TOUCHED } }}
          maxLength={80}
        />
      </form>
      <SeatMenu onSeat={(part) => onSay(`seat ${part}`)} />
      <BoardsMenu onSay={onSay} />
      {!isBare(job.board) && packing && (
        <>
          {isOutdated(job, packing) && (
            <Button variant="solid" onClick={laying.update}>
              Bring up to date
            </Button>
          )}
          <Button onClick={laying.afresh}>Lay out afresh</Button>
        </>
      )}
      {packing && (
        <Button variant={guided ? 'solid' : 'outline'} aria-pressed={guided} onClick={onGuide}>
          Guide me
        </Button>
      )}
      {!isBare(job.board) && <Button onClick={() => dispatch({ kind: 'clear-board' })}>Clear</Button>}
      <TimersButton />
      <ResistorsButton />
      <Pictures />
      <LayingProgress laying={laying} />
      <Text role="status" fontSize="12.5px" color="bad" truncate title={refusal ?? undefined} minW="0">
        {refusal}
      </Text>
    </>
  );
}

/** How far a layout is, with a way to stop it. */
export function LayingProgress({ laying: { share, stop } }: { readonly laying: LayingOut }) {
  if (share === null) return null;
  return (
    <Flex align="center" gap="6px" role="status">
      <Text fontSize="12.5px" whiteSpace="nowrap">
        laying out {Math.round(100 * share)} %
      </Text>
      <ProgressBar w="70px" minW="0" value={100 * share} label="laying out" />
      <Button onClick={stop}>Stop</Button>
    </Flex>
  );
}
