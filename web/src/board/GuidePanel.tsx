import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { NextStep } from '@saddlebag/core';
import { remedy, says } from '../base/words';
import { KeyCap, Panel } from '../kit/Panel';

interface GuidePanelProps {
  /** Null while it is being worked out. */
  readonly next: NextStep | null;
  readonly onLay: () => void;
  readonly onLeave: () => void;
}

/** What to lay next, how far the build is, and what to try of what was finished last. */
export function GuidePanel({ next, onLay, onLeave }: GuidePanelProps) {
  const built = next !== null && next.step === null && next.stopped === null;
  return (
    <Panel
      title={built ? 'All is built' : (next?.stage ?? 'Looking …')}
      hint={next ? `${next.done} of ${next.total}` : undefined}
      flex="1.15"
      actions={<Button onClick={onLeave}>Leave</Button>}
    >
      <Box px="12px" pb="8px" overflowY="auto" tabIndex={0} role="region" aria-label="what to do next">
        {next && (
          <Box h="4px" bg="line" rounded="2px" mb="8px">
            <Box h="4px" rounded="2px" bg="moss" style={{ width: `${(100 * next.done) / Math.max(1, next.total)}%` }} />
          </Box>
        )}
        {next?.step && (
          <Flex align="center" gap="10px" mb="8px">
            <Text flex="1" aria-live="polite" lineHeight="18px">
              {next.step.says}
            </Text>
            <Button variant="solid" onClick={onLay}>
              Do it
            </Button>
            <KeyCap>Enter</KeyCap>
          </Flex>
        )}
        {next?.stopped && (
          <Text color="bad" mb="8px" role="alert">
            {says(next.stopped)} {remedy(next.stopped)}
          </Text>
        )}
        {built && <Text mb="8px">Inspect it, power up and walk the table.</Text>}
        {next?.tested && <TryIt tested={next.tested} />}
      </Box>
    </Panel>
  );
}

function TryIt({ tested: { title, trial } }: { readonly tested: NonNullable<NextStep['tested']> }) {
  return (
    <Box borderTopWidth="1px" borderColor="line" pt="6px">
      <Text fontWeight="600">Just finished: {title}</Text>
      {trial && (
        <Text fontSize="12.5px" lineHeight="17px">
          Look at {trial.pin.replace('.', ' pin ')}.{' '}
          {trial.high !== null && (
            <>
              High with{' '}
              <Text as="span" fontFamily="mono">
                {trial.high}
              </Text>
              .{' '}
            </>
          )}
          {trial.low !== null && (
            <>
              Low with{' '}
              <Text as="span" fontFamily="mono">
                {trial.low}
              </Text>
              .
            </>
          )}
        </Text>
      )}
    </Box>
  );
}
