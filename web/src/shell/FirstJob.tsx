import { Button, Flex, Text } from '@chakra-ui/react';
import { useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { useJobView, useSession } from '../base/job-context';
import { jobAddress } from '../base/links';
import { changeSettings, useSettings } from '../base/settings';
import { firstSheet, LEADINGS, type Leading, leadingOf } from './first-job';
import type { StepId } from './steps';

/** On the first job of a newcomer: the one thing to do next, above every step. Nothing on other jobs. */
export function FirstJob({ step }: { readonly step: StepId }) {
  const view = useJobView();
  const { firstJob } = useSettings();
  // Drawn again with every picture of the board under power.
  useSyncExternalStore(view.bench.subscribe, () => view.bench.snapshot().picture);
  if (firstJob !== view.id) return null;
  const leading = leadingOf(view, step);
  return (
    <Flex
      as="aside"
      aria-label="first job"
      align="center"
      gap="12px"
      mx="12px"
      mt="8px"
      px="14px"
      py="7px"
      bg="wash"
      borderWidth="1px"
      borderColor="line"
      rounded="10px"
      flexShrink={0}
      wrap="wrap"
    >
      <Text fontFamily="heading" fontWeight="600" whiteSpace="nowrap">
        {leading.number} of {LEADINGS}
      </Text>
      <Text flex="1" minW="180px" role="status" aria-label="what to do next">
        {leading.says}
      </Text>
      <Pressed press={leading.press} />
      {leading.press?.does !== 'end' && (
        <Button variant="ghost" onClick={() => changeSettings({ firstJob: null })}>
          I know the rest
        </Button>
      )}
    </Flex>
  );
}

/** The press that does it, where there is one. */
function Pressed({ press }: Pick<Leading, 'press'>) {
  const { id } = useJobView();
  const session = useSession();
  const navigate = useNavigate();
  if (!press) return null;
  const { does } = press;
  const act = (): void => {
    if (does === 'write') session.dispatch({ kind: 'write-sheet', text: firstSheet });
    else if (does === 'end') changeSettings({ firstJob: null });
    else void navigate(jobAddress(id, does.turnsTo));
  };
  return (
    <Button variant="solid" onClick={act}>
      {press.says}
    </Button>
  );
}
