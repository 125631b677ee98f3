import { Box, Flex, Text } from '@chakra-ui/react';
import { memo, type ReactNode, useSyncExternalStore } from 'react';
import { NavLink } from 'react-router';
import { useJobView } from '../base/job-context';
import { useIsNarrow } from '../base/narrow';
import { DropDown } from '../kit/DropDown';
import { Leather } from '../kit/Leather';
import { type StepStatus, statusOf } from './step-status';
import { type StepId, stepIds, stepTitles } from './steps';

const markColours = { bad: '#FF9C8C', warn: '#F0C35A', ok: '#8FD3A6' } as const;
const markOnCard = { bad: 'var(--sb-colors-bad)', warn: 'var(--sb-colors-warn)', ok: 'var(--sb-colors-ok)' } as const;

interface StrapProps {
  readonly current: StepId;
  /** How many stages the build card has; null before there is one. */
  readonly stages: number | null;
}

/** The leather strap with the six steps; the chosen one is a card on it, and each says how far it is. */
export const Strap = memo(function Strap({ current, stages }: StrapProps) {
  const view = useJobView();
  // Not of every moment of a running board: whether it is on, and which rows have been seen.
  const { bench } = view;
  useSyncExternalStore(bench.subscribe, () => bench.snapshot().on);
  useSyncExternalStore(bench.subscribe, () => bench.snapshot().walked);
  const status = statusOf(view, bench.snapshot(), stages);
  const isNarrow = useIsNarrow();
  const links = stepIds.map((step, i) => (
    <StepLink
      key={step}
      to={`/job/${view.id}/${step}`}
      title={stepTitles[step]}
      words={status[step].words}
      mark={status[step].mark}
      chosen={step === current}
      parted={!isNarrow && i < 5 && step !== current && stepIds[i + 1] !== current}
    />
  ));
  if (isNarrow) return <StepMenu title={stepTitles[current]} status={status[current]} links={links} />;
  return (
    <Leather as="nav" aria-label="steps" p="4px" h="56px" css={{ '@media print': { display: 'none' } }}>
      {links}
    </Leather>
  );
});

interface StepMenuProps {
  readonly title: string;
  readonly status: StepStatus;
  readonly links: ReactNode;
}

/** On a narrow screen the strap shows where one is; pressed, all steps hang from it. */
function StepMenu({ title, status, links }: StepMenuProps) {
  return (
    <Leather as="nav" aria-label="steps" p="2px" h="48px" css={{ '@media print': { display: 'none' } }}>
      <DropDown
        top="92px"
        variant="ghost"
        flex="1"
        h="100%"
        justifyContent="flex-start"
        color="onLeather"
        _hover={{ bg: 'rgba(255,255,255,0.08)' }}
        face={
          <Flex flex="1" minW="0" align="baseline" gap="10px">
            <Text fontFamily="heading" fontWeight="600" fontSize="16.5px">
              {title}
            </Text>
            <Text fontSize="13px" truncate>
              {status.words}
            </Text>
            <Text ml="auto" aria-hidden="true">
              ▾
            </Text>
          </Flex>
        }
      >
        <Flex direction="column" bg="leather" rounded="7px" p="3px">
          {links}
        </Flex>
      </DropDown>
    </Leather>
  );
}

interface StepLinkProps extends StepStatus {
  readonly to: string;
  readonly title: string;
  readonly chosen: boolean;
  /** Whether a seam parts it from the next one. */
  readonly parted: boolean;
}

const StepLink = memo(function StepLink({ to, title, words, mark, chosen, parted }: StepLinkProps) {
  return (
    <Box flex="1" minW="0" borderRightWidth={parted ? '1px' : '0'} borderColor="rgba(0,0,0,0.25)">
      <NavLink to={to} aria-current={chosen ? 'step' : undefined} style={{ display: 'block', height: '100%' }}>
        <Box
          bg={chosen ? 'card' : undefined}
          color={chosen ? 'ink' : 'onLeather'}
          rounded="7px"
          h="100%"
          px="16px"
          py="5px"
          position="relative"
          _hover={chosen ? {} : { bg: 'rgba(255,255,255,0.08)' }}
        >
          <Text fontFamily="heading" fontWeight="600" fontSize="15.5px" lineHeight="1.3">
            {title}
          </Text>
          <Text fontSize="12px" truncate>
            {mark && (
              <span aria-hidden="true" style={{ color: chosen ? markOnCard[mark] : markColours[mark], marginRight: 5 }}>
                ●
              </span>
            )}
            {words}
          </Text>
        </Box>
      </NavLink>
    </Box>
  );
});
