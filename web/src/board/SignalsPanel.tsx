import { Box, Flex, Text } from '@chakra-ui/react';
import { expectationOf, sourcesOf } from '@saddlebag/core';
import { memo, useMemo } from 'react';
import { useJobView } from '../base/job-context';
import { LongList } from '../kit/LongList';
import { Empty, Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';

interface Reach {
  readonly signal: string;
  readonly joined: number;
  readonly wanted: number;
}

/** Every signal with how many of its pins are joined to its source. It depends on the job alone, not on what is chosen. */
export const SignalsPanel = memo(function SignalsPanel() {
  const { packing, board, colours, reading } = useJobView();
  const reached = useMemo((): Reach[] => {
    if (!packing) return [];
    const sources = sourcesOf(packing, board.board);
    const counts = new Map<string, { joined: number; wanted: number }>();
    for (const [pin, signal] of expectationOf(packing, board.board, board.nets)) {
      const source = sources.get(signal);
      if (source === undefined || source === pin) continue;
      const home = board.nets.ofPin.get(source);
      const { joined, wanted } = counts.get(signal) ?? { joined: 0, wanted: 0 };
      const there = home !== undefined && board.nets.ofPin.get(pin) === home;
      counts.set(signal, { joined: joined + Number(there), wanted: wanted + 1 });
    }
    return [...counts].map(([signal, count]) => ({ signal, ...count }));
  }, [packing, board]);
  const labels = useMemo(() => {
    const { inputs = [], outputs = [], netlist } = reading?.design ?? {};
    const gates = (netlist?.gates ?? []).map((g): [string, string] => [g.output, g.says ?? '']);
    const declared = [...inputs, ...outputs].flatMap((s): [string, string][] => (s.label ? [[s.name, s.label]] : []));
    return new Map([...gates, ...declared]);
  }, [reading]);
  return (
    <Panel title="Signals" hint="point at one to light its strips and wires" flex="1">
      {reached.length === 0 && <Empty>The design's signals stand here once its parts are seated.</Empty>}
      <LongList
        label="signals"
        things={reached}
        keyOf={({ signal }) => signal}
        row={(reach) => (
          <SignalRow {...reach} label={labels.get(reach.signal) ?? ''} colour={colours.of(reach.signal)} />
        )}
      />
    </Panel>
  );
});

interface SignalRowProps extends Reach {
  readonly label: string;
  readonly colour: string | null;
}

const SignalRow = memo(function SignalRow({ signal, joined, wanted, label, colour }: SignalRowProps) {
  return (
    <Flex align="center" gap="8px" px="12px" h="100%">
      <Box w="64px" flexShrink={0}>
        <Tag signal={signal} />
      </Box>
      <Box flex="1" minW="0">
        <Text fontSize="12.5px" truncate lineHeight="15px">
          {label}
        </Text>
        <Box h="3px" bg="line" rounded="2px">
          <Box
            h="3px"
            rounded="2px"
            style={{ width: `${(100 * joined) / wanted}%`, background: colour ?? undefined }}
          />
        </Box>
      </Box>
      <Text fontFamily="mono" fontSize="12px" color="soft">
        {joined}/{wanted}
      </Text>
    </Flex>
  );
});
