import { Box, Flex, Text } from '@chakra-ui/react';
import { whyInRow } from '@saddlebag/core';
import { useMemo } from 'react';
import { useJobView } from '../base/job-context';
import { Tag } from '../kit/Tag';

interface WhyProps {
  readonly row: number;
  readonly signal: string;
  readonly settable: boolean;
}

/** Why a signal is what it is in a row: its expression, then with values, worked out gate by gate. */
export function Why({ row, signal, settable }: WhyProps) {
  const { reading } = useJobView();
  const reasons = useMemo(() => (reading ? whyInRow(reading.design, signal, row) : null), [reading, signal, row]);
  if (!reasons) return null;
  return (
    <Box
      borderTopWidth="1px"
      borderColor="line"
      bg="paper"
      px="12px"
      py="6px"
      flexShrink={0}
      maxH="96px"
      overflowY="auto"
      aria-label="why"
      role="region"
      tabIndex={0}
    >
      <Flex align="baseline" gap="8px">
        <Text color="soft" fontSize="12.5px">
          Row {row}: why {reasons[0]?.signal} is {reasons[0]?.value}
        </Text>
        {settable && (
          <Text ml="auto" color="soft" fontSize="12.5px">
            0, 1 or - sets the cell
          </Text>
        )}
      </Flex>
      {reasons.slice(0, 12).map((r) => (
        <Flex key={r.signal} gap="8px" align="baseline" fontFamily="mono" fontSize="12.5px" py="1px" wrap="wrap">
          <Tag signal={r.signal} />
          {r.steps.map((step, i) => (
            <Text
              as="span"
              key={step}
              color={i === r.steps.length - 1 ? 'ink' : 'soft'}
              fontWeight={i === r.steps.length - 1 ? 600 : 400}
            >
              {i > 0 && '= '}
              {step}
            </Text>
          ))}
        </Flex>
      ))}
    </Box>
  );
}
