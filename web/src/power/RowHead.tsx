import { Button, Flex } from '@chakra-ui/react';
import { type KeyboardEvent, type ReactNode, useState } from 'react';
import { Tag } from '../kit/Tag';
import { TipButton } from '../kit/Tip';

/** What is done with the rows of a trace beside looking at them. */
export interface RowHands {
  /** Signals that have been picked to be a number, in order; null while none is being made. */
  readonly picked: readonly string[] | null;
  readonly onPick: (name: string) => void;
  readonly onMove: (name: string, by: number) => void;
  /** Ends a row: a traced pin is traced no longer, a number is taken apart. */
  readonly onEnd: (name: string) => void;
}

interface RowHeadProps {
  readonly name: string;
  readonly hands: RowHands;
  /** What pressing × does; null where the row stays. */
  readonly ends: string | null;
}

/** The name of a row: its tag, or a button that ends it; while a number is being made, a button that picks it. */
export function RowHead({ name, hands, ends }: RowHeadProps) {
  const { picked, onPick, onEnd } = hands;
  const small = { h: '20px', px: '5px', fontFamily: 'mono', fontSize: '11.5px', maxW: '66px' } as const;
  const at = picked?.indexOf(name) ?? -1;
  return (
    <Flex w="66px" flexShrink={0} overflow="hidden">
      {picked ? (
        <Button {...small} aria-pressed={at >= 0} onClick={() => onPick(name)}>
          {at >= 0 ? `${at + 1}. ` : ''}
          {name}
        </Button>
      ) : ends === null ? (
        <Tag signal={name} />
      ) : (
        <TipButton {...small} tip={ends} onClick={() => onEnd(name)}>
          {name} ×
        </TipButton>
      )}
    </Flex>
  );
}

/** What is dragged between rows of a trace. */
const ROW = 'application/x-saddlebag-row';

interface RowFrameProps {
  readonly name: string;
  /** Its place among the rows. */
  readonly at: number;
  readonly hands: RowHands;
  readonly children: ReactNode;
}

/** A row that can be moved: dragged onto another, or with Alt and the arrows. */
export function RowFrame({ name, at, hands, children }: RowFrameProps) {
  const [isOver, setIsOver] = useState(false);
  const onKeyDown = (e: KeyboardEvent): void => {
    if (!e.altKey || (e.key !== 'ArrowUp' && e.key !== 'ArrowDown')) return;
    e.preventDefault();
    e.stopPropagation();
    hands.onMove(name, e.key === 'ArrowUp' ? -1 : 1);
  };
  return (
    <Flex
      align="center"
      gap="8px"
      py="3px"
      borderBottomWidth="1px"
      borderColor="line"
      bg={isOver ? 'wash' : undefined}
      data-row={name}
      draggable
      onKeyDown={onKeyDown}
      onDragStart={(e) => {
        e.dataTransfer.setData(ROW, JSON.stringify([name, at]));
        e.dataTransfer.effectAllowed = 'move';
      }}
      onDragOver={(e) => {
        if (!e.dataTransfer.types.includes(ROW)) return;
        e.preventDefault();
        setIsOver(true);
      }}
      onDragLeave={() => setIsOver(false)}
      onDrop={(e) => {
        setIsOver(false);
        const [dragged, from] = JSON.parse(e.dataTransfer.getData(ROW) || '[]') as [string?, number?];
        if (dragged === undefined || from === undefined) return;
        e.preventDefault();
        e.stopPropagation();
        hands.onMove(dragged, at - from);
      }}
    >
      {children}
    </Flex>
  );
}
