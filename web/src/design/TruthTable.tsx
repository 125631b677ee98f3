import { Box } from '@chakra-ui/react';
import { inputAt, MAX_TABLE_INPUTS, type Netlist, valueAt } from '@saddlebag/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { useTable } from '../app/use-table';
import { useFollowed } from '../kit/follow';
import { Empty } from '../kit/Panel';
import { Tag } from '../kit/Tag';

const ROW = 24;

/** The table of the design, all rows, first input most significant; rows out of sight are not in the page. */
export function TruthTable({ netlist }: { readonly netlist: Netlist }) {
  const { inputs, outputs } = netlist;
  const tooWide = inputs.length > MAX_TABLE_INPUTS;
  const table = useTable(netlist);
  const scroller = useRef<HTMLDivElement>(null);
  const followed = useFollowed();
  const rows = useVirtualizer({
    count: tooWide ? 0 : 2 ** inputs.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  if (tooWide)
    return (
      <Empty>
        {inputs.length} inputs make too many rows to list; up to {MAX_TABLE_INPUTS} are listed. Gates, packing and board
        work all the same.
      </Empty>
    );
  if (!table) return <Empty>Filling the table …</Empty>;
  const cell = (net: string, value: 0 | 1, key: string) => (
    <Box
      as="td"
      key={key}
      textAlign="center"
      w="58px"
      minW="44px"
      fontWeight={value === 1 ? '600' : '400'}
      color={value === 1 ? 'ink' : 'soft'}
      bg={followed === net ? 'wash' : undefined}
    >
      {value}
    </Box>
  );
  return (
    <Box
      ref={scroller}
      flex="1"
      minH="0"
      overflow="auto"
      px="12px"
      pb="8px"
      tabIndex={0}
      role="region"
      aria-label="truth table"
    >
      <Box
        as="table"
        fontFamily="mono"
        fontSize="13px"
        w="100%"
        style={{ height: rows.getTotalSize() + 28, position: 'relative' }}
        display="block"
      >
        <Box as="thead" display="block" position="sticky" top="0" bg="card" zIndex="1">
          <Box as="tr" display="flex" h="28px" alignItems="center">
            {inputs.map((name) => (
              <Box as="th" key={name} w="58px" minW="44px" textAlign="center">
                <Tag signal={name} />
              </Box>
            ))}
            <Box as="td" w="34px" flexShrink={0} />
            {outputs.map(({ name }) => (
              <Box as="th" key={name} w="58px" minW="44px" textAlign="center">
                <Tag signal={name} />
              </Box>
            ))}
          </Box>
        </Box>
        <Box as="tbody" display="block" position="relative">
          {rows.getVirtualItems().map(({ index, start }) => (
            <Box
              as="tr"
              key={index}
              display="flex"
              alignItems="center"
              h={`${ROW}px`}
              borderTopWidth="1px"
              borderColor="line"
              position="absolute"
              top="0"
              left="0"
              right="0"
              _hover={{ bg: 'wash' }}
              style={{ transform: `translateY(${start}px)` }}
            >
              {inputs.map((name, i) => cell(name, inputAt(inputs.length, i, index), `i${name}`))}
              <Box as="td" w="34px" flexShrink={0} />
              {outputs.map(({ name, net }, o) => cell(net, valueAt(table, o, index), `o${name}`))}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}
