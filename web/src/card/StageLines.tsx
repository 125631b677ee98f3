import { Box, Text } from '@chakra-ui/react';
import type { BuildCard, Stage } from '@saddlebag/core';
import { inOwnMarks } from '../base/numbers';

interface StageLinesProps {
  readonly stage: Stage;
  readonly lines: BuildCard['lines'];
}

/** What to seat, which jumpers to lay, and what to try, each with a box to tick on paper. */
export function StageLines({ stage, lines }: StageLinesProps) {
  return (
    <Box px="12px" pb="8px" pl="40px" fontSize="13px">
      {stage.parts.map((ref) => (
        <Text key={ref}>
          ☐ seat <b>{ref}</b> {inOwnMarks(lines[ref] ?? '')}
        </Text>
      ))}
      {stage.jumpers.map((id) => (
        <Text key={id}>
          ☐ <b>{id}</b> {lines[id]}
        </Text>
      ))}
      <Text mt="4px" fontWeight="700">
        Test:{' '}
        <Text as="span" fontWeight="400">
          {inOwnMarks(stage.test)}
        </Text>
      </Text>
      {(['high', 'low'] as const).map((level) => {
        const rows = stage.trial?.[level];
        return rows ? (
          <Text key={level}>
            {level === 'high' ? 'High' : 'Low'} with{' '}
            <Text as="span" fontFamily="mono">
              {rows}
            </Text>
          </Text>
        ) : null;
      })}
    </Box>
  );
}
