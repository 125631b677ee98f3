import { Box, Text } from '@chakra-ui/react';
import {
  agrees,
  HIGH,
  inputAt,
  LOW,
  type Netlist,
  type Table,
  UNKNOWN,
  valueAt,
  type WalkedRow,
} from '@saddlebag/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { SvgText } from '../kit/SvgText';
import { Tag } from '../kit/Tag';

const ROW = 26;
const words = { [LOW]: '0', [HIGH]: '1', [UNKNOWN]: '?' } as const;

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
  readonly netlist: Netlist;
  readonly table: Table;
  readonly walked: ReadonlyMap<number, WalkedRow>;
  readonly current: number | null;
  readonly onSet: (row: number) => void;
}

/** The table as the sheet wants it, beside what the board showed, row by row. Pressing a row sets its switches. */
export function WalkTable({ netlist, table, walked, current, onSet }: WalkTableProps) {
  const { inputs, outputs } = netlist;
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: table.rows,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
  });
  useEffect(() => {
    if (current !== null) rows.scrollToIndex(current);
  }, [current, rows]);
  const inputWidth = inputs.length > 6 ? '24px' : '34px';
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
        {inputs.map((name) => (
          <Box key={name} w={inputWidth} overflow="hidden" flexShrink={0}>
            <Tag signal={name} />
          </Box>
        ))}
        <Box w="10px" flexShrink={0} />
        {outputs.map(({ name }) => (
          <Box key={name} w="46px" overflow="hidden" flexShrink={0}>
            <Tag signal={name} />
          </Box>
        ))}
      </Box>
      <Box position="relative" style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const seen = walked.get(index)?.seen;
          const wanted = outputs.map((_, o) => valueAt(table, o, index));
          const same = seen !== undefined && agrees(seen, wanted);
          const now = index === current;
          return (
            <Box
              as="button"
              key={index}
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
              bg={now ? 'moss' : undefined}
              color={now ? 'onMoss' : 'ink'}
              _hover={now ? {} : { bg: 'wash' }}
              style={{ transform: `translateY(${start}px)` }}
              onClick={() => onSet(index)}
              title="set the switches to this row"
            >
              {inputs.map((name, i) => (
                <Box key={name} w={inputWidth} textAlign="center" flexShrink={0}>
                  {inputAt(inputs.length, i, index)}
                </Box>
              ))}
              <Box w="10px" flexShrink={0} />
              {outputs.map(({ name }, o) => (
                <Box
                  key={name}
                  w="46px"
                  display="flex"
                  gap="5px"
                  alignItems="center"
                  justifyContent="center"
                  flexShrink={0}
                >
                  {words[wanted[o] ?? UNKNOWN]}
                  <Lamp seen={seen?.[o]} />
                </Box>
              ))}
              <Text
                w="64px"
                textAlign="left"
                pl="8px"
                fontFamily="body"
                fontSize="12.5px"
                color={now ? undefined : seen === undefined ? 'soft' : same ? 'ok' : 'bad'}
                fontWeight={seen && !same ? '700' : '400'}
                flexShrink={0}
              >
                {seen === undefined ? '—' : same ? 'agrees' : 'differs'}
              </Text>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
