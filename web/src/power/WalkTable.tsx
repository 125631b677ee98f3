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
  type WalkedRow,
  wantedAt,
} from '@saddlebag/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { type CSSProperties, memo, type RefObject, useEffect, useRef } from 'react';
import { colour } from '../base/colours';
import { Tag } from '../kit/Tag';
import { useRows } from '../kit/use-rows';
import { type Filling, OwnCell } from './OwnCell';

const ROW = 26;
/** Widths of an output's column, of the verdict, and of the gap between inputs and outputs, in pixels. */
const OUTPUT = 46;
const VERDICT = 72;
const GAP = 10;
/** What a cell is to those who do not see the table: rows are drawn as blocks, for speed. */
const cell = { role: 'cell' } as const;
const inputCells = (inputs: number) => ({ ...cell, 'aria-colspan': inputs }) as const;
const shownLevel = (level: 0 | 1 | null): string => (level === null ? '-' : String(level));

const lamp = {
  display: 'inline-block',
  width: 14,
  height: 14,
  lineHeight: '12px',
  fontSize: 11,
  borderRadius: 7,
  border: '1px solid var(--sb-colors-soft)',
  verticalAlign: 'middle',
} as const;

/** How a lamp looks: not run yet, lit, dark, or unknown. */
const lamps: Readonly<Record<'none' | 'lit' | 'dark' | 'unknown', { title: string; style: CSSProperties }>> = {
  none: { title: 'not run yet', style: lamp },
  lit: { title: 'lit', style: { ...lamp, background: '#E5533D' } },
  dark: { title: 'dark', style: { ...lamp, background: '#4A3936' } },
  unknown: { title: 'unknown', style: { ...lamp, borderStyle: 'dashed', color: 'var(--sb-colors-bad)' } },
};

/** What was seen of one output: a lamp, dark, lit or unknown; a ring where the row has not been run. */
function Lamp({ seen }: { readonly seen: number | undefined }) {
  const look = seen === undefined ? 'none' : seen === HIGH ? 'lit' : seen === LOW ? 'dark' : 'unknown';
  const { title, style } = lamps[look];
  return (
    <span role="img" aria-label={title} style={style}>
      {look === 'unknown' && '?'}
    </span>
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
  const { inputs } = subject;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useRows({ count: 2 ** inputs.length, scroller, height: ROW, beyond: 4 });
  useEffect(() => {
    // What is in sight stays where it is.
    const isInSight =
      rows.range && current !== null && current >= rows.range.startIndex && current < rows.range.endIndex;
    if (current !== null && !isInSight) rows.scrollToIndex(current);
  }, [current, rows]);
  const columns = useColumns(subject, scroller);
  return (
    <Box
      ref={scroller}
      flex="1"
      minH="0"
      overflow="auto"
      px="12px"
      role="table"
      aria-label="walked table"
      aria-rowcount={2 ** inputs.length + 1}
    >
      <WalkHead subject={subject} columns={columns} />
      <Box role="rowgroup" position="relative" style={{ height: rows.getTotalSize(), minWidth: columns.width }}>
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
            from={columns.from}
            to={columns.to}
            before={columns.before}
            onSet={onSet}
          />
        ))}
      </Box>
    </Box>
  );
}

interface WalkHeadProps {
  readonly subject: TableSubject;
  readonly columns: ReturnType<typeof useColumns>;
}

/** The names above the columns. */
function WalkHead({ subject, columns }: WalkHeadProps) {
  const { inputs, outputs } = subject;
  return (
    <Box
      role="row"
      aria-rowindex={1}
      display="flex"
      alignItems="center"
      h="30px"
      position="sticky"
      top="0"
      bg="card"
      zIndex="1"
      style={{ minWidth: columns.width }}
    >
      {isWide(subject) && <span style={{ flexShrink: 0, width: VERDICT }} />}
      {inputs.map((name) => (
        <Box
          key={name}
          role="columnheader"
          aria-label={name}
          overflow="hidden"
          flexShrink={0}
          style={{ width: inputWidthFor(inputs.length) }}
        >
          <Tag signal={name} />
        </Box>
      ))}
      <span style={{ flexShrink: 0, width: GAP + columns.before }} />
      {outputs.slice(columns.from, columns.to).map((name) => (
        <Box
          key={name}
          role="columnheader"
          aria-label={name}
          overflow="hidden"
          flexShrink={0}
          style={{ width: OUTPUT }}
        >
          <Tag signal={name} />
        </Box>
      ))}
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
  /** The outputs that are drawn, and the width of those before them. */
  readonly from: number;
  readonly to: number;
  readonly before: number;
  readonly onSet: (row: number) => void;
}

/** One row: switches, what is wanted and was seen of each output, and whether they agree. */
const WalkRow = memo(function WalkRow(props: WalkRowProps) {
  const { subject, table, own, row, start, seen, now, from, to, before, onSet } = props;
  const { inputs, outputs } = subject;
  const wanted = outputs.map((_, o) =>
    own ? levelOf(ownMark(own.table, o, row)) : table ? wantedAt(table, o, row) : null,
  );
  const written = !own || outputs.some((_, o) => ownMark(own.table, o, row) !== '.');
  const same = !own && !table ? null : seen !== undefined && agrees(seen, wanted);
  return (
    <Box
      role="row"
      aria-rowindex={row + 2}
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
      data-now={now || undefined}
      bg={now ? 'moss' : undefined}
      color={now ? 'onMoss' : 'ink'}
      _hover={now ? {} : { bg: 'wash' }}
      style={{ transform: `translateY(${start}px)` }}
      onClick={() => onSet(row)}
    >
      <span {...inputCells(inputs.length)} style={rowButton}>
        <button type="button" title="set the switches to this row" style={rowButton}>
          <span style={inputsStyle(inputs.length)}>
            {inputs.map((_, i) => inputAt(inputs.length, i, row)).join('')}
          </span>
        </button>
      </span>
      {before > 0 && <span style={{ flexShrink: 0, width: before }} />}
      {outputs.slice(from, to).map((name, i) => (
        <span key={name} {...cell} style={outputCell}>
          {own && table ? (
            <OwnCell own={own} table={table} output={from + i} name={name} row={row} now={now} />
          ) : (
            table && shownLevel(wanted[from + i] ?? null)
          )}{' '}
          <Lamp seen={seen?.[from + i]} />
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
const outputCell = { flexShrink: 0, width: OUTPUT, textAlign: 'center', whiteSpace: 'nowrap' } as const;

/** All inputs of a row are one text, its figures as far apart as the names above them. */
const inputsStyle = (inputs: number): CSSProperties => {
  const apart = `calc(${inputWidthFor(inputs)}px - 1ch)`;
  return {
    flexShrink: 0,
    letterSpacing: apart,
    paddingLeft: `calc(${apart} / 2)`,
    paddingRight: GAP,
    marginRight: `calc(${apart} / -2)`,
  };
};

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
    width: VERDICT,
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
  return (
    <span {...cell} style={style}>
      {seen === undefined ? '—' : same === null ? 'seen' : same ? 'agrees' : 'differs'}
    </span>
  );
}

/** Whether a table is too wide for its panel, so that it is scrolled sideways. */
export const isWide = ({ inputs, outputs }: TableSubject): boolean => inputs.length + outputs.length > 9;

const inputWidthFor = (inputs: number): number => (inputs > 6 ? 30 : 34);

/** The outputs whose columns are drawn: of a wide table those in sight; with the width of those before them, and of all. */
function useColumns(subject: TableSubject, scroller: RefObject<HTMLDivElement | null>) {
  const { inputs, outputs } = subject;
  const wide = isWide(subject);
  const lead = (wide ? VERDICT : 0) + inputs.length * inputWidthFor(inputs.length) + GAP;
  const columns = useVirtualizer({
    horizontal: true,
    enabled: wide,
    count: outputs.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => OUTPUT,
    paddingStart: lead,
    overscan: 3,
  });
  const shown = columns.getVirtualItems();
  const [from, to] = wide ? [shown[0]?.index ?? 0, (shown.at(-1)?.index ?? -1) + 1] : [0, outputs.length];
  return { from, to, before: from * OUTPUT, width: lead + outputs.length * OUTPUT + (wide ? 0 : VERDICT) };
}
