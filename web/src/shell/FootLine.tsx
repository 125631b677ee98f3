import { Button, Flex, Text } from '@chakra-ui/react';
import { shownSignal } from '@saddlebag/core';
import { memo, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { colour } from '../base/colours';
import { useJobView } from '../base/job-context';
import { NARROW } from '../base/narrow';
import { says } from '../base/words';
import { FirstKeys } from '../kit/FirstKeys';
import { KeyCap } from '../kit/Panel';
import type { StepId } from './steps';
import { useFollowing } from './use-following';

/** The line at the foot: the keys that work here, and the one finding that matters most. */
export const FootLine = memo(function FootLine({ step, extra }: { readonly step: StepId; readonly extra?: ReactNode }) {
  const view = useJobView();
  const { id, findings } = view;
  const following = useFollowing(view);
  const navigate = useNavigate();
  const worst = findings?.find((f) => f.severity === 'error') ?? findings?.find((f) => f.severity === 'warning');
  return (
    <Flex
      as="footer"
      align="center"
      gap="8px"
      px="14px"
      h="42px"
      flexShrink={0}
      borderTopWidth="1px"
      borderColor="line"
      mx="12px"
      color="soft"
      fontSize="12.5px"
      css={{ '@media print': { display: 'none' }, [NARROW]: { display: following === null ? 'none' : 'flex' } }}
    >
      {following !== null && (
        <Flex gap="5px" align="center" flexShrink={0} role="status" color="ink" fontWeight="700">
          following {shownSignal(following)} <KeyCap>Esc</KeyCap> ends it
        </Flex>
      )}
      <FirstKeys />
      {extra}
      <Flex ml="auto" align="center" gap="10px" minW="0">
        {worst && step !== 'inspect' && (
          <>
            <Text truncate>
              <span style={{ color: colour(worst.severity === 'error' ? 'bad' : 'warn') }} aria-hidden="true">
                ●
              </span>{' '}
              <Text as="span" fontWeight="700" color="ink">
                {says(worst)}
              </Text>
            </Text>
            <Button flexShrink={0} onClick={() => void navigate(`/job/${id}/inspect`)}>
              Show me
            </Button>
          </>
        )}
      </Flex>
    </Flex>
  );
});
