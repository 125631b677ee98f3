import { Box, Text } from '@chakra-ui/react';
import { type Job, type Stage, shownValue, typeOf } from '@saddlebag/core';

/** What to seat, which jumpers to lay, and what to try, each with a box to tick on paper. */
export function StageLines({ stage, job }: { readonly stage: Stage; readonly job: Job }) {
  const { parts, jumpers } = job.board;
  return (
    <Box px="12px" pb="8px" pl="40px" fontSize="13px">
      {stage.parts.map((ref) => {
        const part = parts[ref];
        if (!part) return null;
        return (
          <Text key={ref}>
            ☐ seat <b>{ref}</b> {part.part}
            {shownValue(typeOf(part)?.kind ?? '', part.value)} at{' '}
            <Text as="span" fontFamily="mono">
              {part.at}
            </Text>
            {part.rotation === 0 ? '' : `, rotated ${part.rotation}°`}
          </Text>
        );
      })}
      {stage.jumpers.map((id) => {
        const jumper = jumpers[id];
        return jumper ? (
          <Text key={id}>
            ☐ {id} <Text as="span" fontFamily="mono">{`${jumper.from} > ${jumper.to}`}</Text>
          </Text>
        ) : null;
      })}
      <Text mt="4px" fontWeight="700">
        Test:{' '}
        <Text as="span" fontWeight="400">
          {stage.test}
        </Text>
      </Text>
      {stage.trial?.high && (
        <Text>
          High with{' '}
          <Text as="span" fontFamily="mono">
            {stage.trial.high}
          </Text>
        </Text>
      )}
      {stage.trial?.low && (
        <Text>
          Low with{' '}
          <Text as="span" fontFamily="mono">
            {stage.trial.low}
          </Text>
        </Text>
      )}
    </Box>
  );
}
