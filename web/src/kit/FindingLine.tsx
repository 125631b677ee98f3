import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { Finding } from '@saddlebag/core';
import { remedy, says } from '../base/words';

/** Words and colour of each severity; the word is always there, so the colour is never alone. */
export const severityLook = {
  error: { word: 'to fix', token: 'bad', mark: '●' },
  warning: { word: 'to look at', token: 'warn', mark: '◆' },
  note: { word: 'to know', token: 'soft', mark: '○' },
} as const;

interface FindingLineProps {
  readonly finding: Finding;
  readonly where?: string;
  readonly chosen?: boolean;
  readonly onChoose?: () => void;
  readonly onFix?: () => void;
  readonly onSilence?: () => void;
}

/** A finding: what is wrong, what to do, where; and one press that does it, where there is one. */
export function FindingLine({ finding, where, chosen = false, onChoose, onFix, onSilence }: FindingLineProps) {
  const look = severityLook[finding.severity];
  return (
    <Flex
      gap="9px"
      px="12px"
      py="7px"
      borderBottomWidth="1px"
      borderColor="line"
      bg={chosen ? 'wash' : undefined}
      align="flex-start"
    >
      <Text color={look.token} lineHeight="1.4" fontSize="11px" pt="2px" aria-hidden="true">
        {look.mark}
      </Text>
      <Box flex="1" minW="0">
        <Box
          as={onChoose ? 'button' : 'div'}
          display="block"
          textAlign="left"
          width="100%"
          cursor={onChoose ? 'pointer' : undefined}
          onClick={onChoose}
          aria-pressed={onChoose ? chosen : undefined}
        >
          <Text fontWeight="700" fontSize="13.5px">
            {says(finding)}
          </Text>
          <Text color={chosen ? 'ink' : 'soft'} fontSize="13px">
            {remedy(finding)}
          </Text>
          <Text fontSize="11.5px" color={chosen && look.token === 'soft' ? 'ink' : look.token} mt="1px">
            {look.word}
            {where ? ` · ${where}` : ''}
          </Text>
        </Box>
        <Flex gap="6px" wrap="wrap">
          {onFix && (
            <Button mt="5px" onClick={onFix} fontFamily="mono" fontSize="12px">
              {finding.fix}
            </Button>
          )}
          {onSilence && (
            <Button mt="5px" onClick={onSilence} fontSize="12px">
              Silence …
            </Button>
          )}
        </Flex>
      </Box>
    </Flex>
  );
}
