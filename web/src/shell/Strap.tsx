import { Box, Text } from '@chakra-ui/react';
import { memo, useSyncExternalStore } from 'react';
import { NavLink } from 'react-router';
import { useJobView } from '../base/job-context';
import { Leather } from '../kit/Leather';
import { type StepId, type StepStatus, statusOf, stepIds, stepTitles } from './steps';

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
  return (
    <Leather as="nav" aria-label="steps" p="4px" h="56px" css={{ '@media print': { display: 'none' } }}>
      {stepIds.map((step, i) => (
        <StepLink
          key={step}
          to={`/job/${view.id}/${step}`}
          title={stepTitles[step]}
          words={status[step].words}
          mark={status[step].mark}
          chosen={step === current}
          parted={i < 5 && step !== current && stepIds[i + 1] !== current}
        />
      ))}
    </Leather>
  );
});

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
