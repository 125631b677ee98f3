import { Box } from '@chakra-ui/react';
import {
  agrees,
  HIGH,
  inputAt,
  LOW,
  type OwnMark,
  ownMark,
  type Table,
  type TableSubject,
  UNKNOWN,
  type WalkedRow,
  wantedAt,
} from '@saddlebag/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type CSSProperties, memo, useEffect, useRef } from 'react';
import { colour } from '../app/colours';
import { SvgText } from '../kit/SvgText';
import { Tag } from '../kit/Tag';
import { type Filling, OwnCell } from './OwnCell';

const ROW = 26;
const shownLevel = (level: 0 | 1 | null): string => (level === null ? '-' : String(level));

/** What was seen of one output: a lamp, dark, lit or unknown; a ring where the row has not been run. */
function Lamp({ seen }: { readonly seen: number | undefined }) {
  const fill = seen === HIGH ? '#E5533D' : seen === LOW ? '#4A3936' : 'transparent';
  const title = seen === undefined ? 'not run yet' : seen === HIGH ? 'lit' : seen === LOW ? 'dark' : 'unknown';
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" role="img" aria-label={title}>
      <circle
        cx="8"
        cy="8"
        r="6.4"
        fill={fill}
        stroke="var(--sb-colors-soft)"
        strokeWidth={1}
        strokeDasharray={seen === UNKNOWN ? '2.5 2' : undefined}
      />
      {seen === UNKNOWN && (
        <SvgText x={8} y={12} size={11} fill="var(--sb-colors-bad)">
          ?
        </SvgText>
      )}
    </svg>
  );
}

interface WalkTableProps {
  readonly subject: TableSubject;
  /** What the sheet wants; null where there is nothing to compare with. */
  readonly table: Table | null;
  /** The person's own table, which then stands in the place of the sheet's. */
  readonly own: Filling | null;
  readonly walked: ReadonlyMap<number, WalkedRow>;
  readonly current: number | null;
  readonly onSet: (row: number) => void;
}

/** The table as the sheet or the person wants it, beside what the board showed, row by row. Pressing a row sets its switches. */
export function WalkTable({ subject, table, own, walked, current, onSet }: WalkTableProps) {
  const { inputs, outputs } = subject;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: 2 ** inputs.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  useEffect(() => {
    if (current !== null) rows.scrollToIndex(current);
  }, [current, rows]);
  const inputWidth = inputWidthFor(inputs.length);
  return (
    <Box ref={scroller} flex="1" minH="0" overflow="auto" px="12px" role="region" aria-label="walked table">
      <Box
        display="flex"
        alignItems="center"
        h="30px"
        position="sticky"
        top="0"
        bg="card"
        zIndex="1"
        minW="max-content"
      >
        {isWide(subject) && <Box w="72px" flexShrink={0} />}
        {inputs.map((name) => (
          <Box key={name} w={inputWidth} overflow="hidden" flexShrink={0}>
            <Tag signal={name} />
          </Box>
        ))}
        <Box w="10px" flexShrink={0} />
        {outputs.map((name) => (
          <Box key={name} w="46px" overflow="hidden" flexShrink={0}>
            <Tag signal={name} />
          </Box>
        ))}
      </Box>
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => (
          <WalkRow
            key={index}
            subject={subject}
            table={table}
            own={own}
            row={index}
            start={start}
            seen={walked.get(index)?.seen}
            now={index === current}
            onSet={onSet}
          />
        ))}
      </Box>
    </Box>
  );
}

interface WalkRowProps {
  readonly subject: TableSubject;
  /** What the sheet wants; null where there is nothing to compare with. */
  readonly table: Table | null;
  readonly own: Filling | null;
  readonly row: number;
  /** Its upper edge in the list, in pixels. */
  readonly start: number;
  readonly seen: readonly number[] | undefined;
  readonly now: boolean;
  readonly onSet: (row: number) => void;
}

/** One row: switches, what is wanted and was seen of each output, and whether they agree. */
const WalkRow = memo(function WalkRow({ subject, table, own, row, start, seen, now, onSet }: WalkRowProps) {
  const { inputs, outputs } = subject;
  const inputWidth = inputWidthFor(inputs.length);
  const wanted = outputs.map((_, o) =>
    own ? levelOf(ownMark(own.table, o, row)) : table ? wantedAt(table, o, row) : null,
  );
  const written = !own || outputs.some((_, o) => ownMark(own.table, o, row) !== '.');
  const same = !own && !table ? null : seen !== undefined && agrees(seen, wanted);
  return (
    <Box
      display="flex"
      alignItems="center"
      position="absolute"
      top="0"
      left="0"
      minW="100%"
      h={`${ROW}px`}
      borderTopWidth="1px"
      borderColor="line"
      fontFamily="mono"
      fontSize="13px"
      cursor="pointer"
      data-row={row}
      bg={now ? 'moss' : undefined}
      color={now ? 'onMoss' : 'ink'}
      _hover={now ? {} : { bg: 'wash' }}
      style={{ transform: `translateY(${start}px)` }}
      onClick={() => onSet(row)}
    >
      <button type="button" title="set the switches to this row" style={rowButton}>
        {inputs.map((name, i) => (
          <span key={name} style={{ ...cell, width: inputWidth }}>
            {inputAt(inputs.length, i, row)}
          </span>
        ))}
        <span style={{ ...cell, width: 10 }} />
      </button>
      {outputs.map((name, o) => (
        <span
          key={name}
          style={{ ...cell, width: 46, display: 'flex', gap: 5, alignItems: 'center', justifyContent: 'center' }}
        >
          {own && table ? (
            <OwnCell own={own} table={table} output={o} name={name} row={row} now={now} />
          ) : (
            table && shownLevel(wanted[o] ?? null)
          )}
          <Lamp seen={seen?.[o]} />
        </span>
      ))}
      <Verdict seen={written ? seen : undefined} same={same} now={now} wide={isWide(subject)} />
    </Box>
  );
});

/** The level that a mark asks for; nothing where none is written. */
export const levelOf = (mark: OwnMark): 0 | 1 | null => (mark === '0' ? 0 : mark === '1' ? 1 : null);

const rowButton = { display: 'flex', alignItems: 'center', alignSelf: 'stretch', cursor: 'pointer' } as const;

/** Cells are plain spans: a walk draws hundreds of them, and styled boxes cost ten times as much. */
const cell = { flexShrink: 0, textAlign: 'center' } as const;

interface VerdictProps {
  readonly seen: readonly number[] | undefined;
  /** Null where there is nothing to agree with. */
  readonly same: boolean | null;
  readonly now: boolean;
  readonly wide: boolean;
}

function Verdict({ seen, same, now, wide }: VerdictProps) {
  const token = seen === undefined || same === null ? 'soft' : same ? 'ok' : 'bad';
  const style: CSSProperties = {
    flexShrink: 0,
    width: 64,
    paddingLeft: 8,
    textAlign: 'left',
    fontFamily: 'var(--sb-fonts-body)',
    fontSize: 12.5,
    fontWeight: seen && same === false ? 700 : 400,
    // Of a wide table it comes first and stays in sight however far the table is scrolled.
    ...(wide && { order: -1, position: 'sticky', left: 0, alignSelf: 'stretch', lineHeight: `${ROW - 1}px` }),
    ...(wide && { background: colour(now ? 'moss' : 'card') }),
    ...(!now && { color: colour(token) }),
  };
  return <span style={style}>{seen === undefined ? '—' : same === null ? 'seen' : same ? 'agrees' : 'differs'}</span>;
}

/** Whether a table is too wide for its panel, so that it is scrolled sideways. */
export const isWide = ({ inputs, outputs }: TableSubject): boolean => inputs.length + outputs.length > 9;

const inputWidthFor = (inputs: number): string => (inputs > 6 ? '30px' : '34px');
