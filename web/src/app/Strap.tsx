import { Box, Flex, Text } from '@chakra-ui/react';
import { NavLink } from 'react-router';
import { type StepId, type StepStatus, stepIds, stepTitles } from './steps';

const markColours = { bad: '#FF9C8C', warn: '#F0C35A', ok: '#8FD3A6' } as const;
const markOnCard = { bad: 'var(--sb-colors-bad)', warn: 'var(--sb-colors-warn)', ok: 'var(--sb-colors-ok)' } as const;

interface StrapProps {
  readonly jobId: string;
  readonly current: StepId;
  readonly status: Readonly<Record<StepId, StepStatus>>;
}

/** The leather strap with the six steps; the chosen one is a card on it, and each says how far it is. */
export function Strap({ jobId, current, status }: StrapProps) {
  return (
    <Flex
      as="nav"
      aria-label="steps"
      bg="leather"
      backgroundImage="linear-gradient({colors.leatherLight}, {colors.leather})"
      rounded="10px"
      mx="12px"
      p="4px"
      h="56px"
      flexShrink={0}
      position="relative"
      css={{ '@media print': { display: 'none' } }}
    >
      <Box
        position="absolute"
        inset="4px 0"
        borderY="1px dashed"
        borderColor="thread"
        opacity={0.6}
        pointerEvents="none"
      />
      {stepIds.map((step, i) => {
        const chosen = step === current;
        const { words, mark } = status[step];
        return (
          <Box
            key={step}
            flex="1"
            minW="0"
            borderRightWidth={i < 5 && !chosen && stepIds[i + 1] !== current ? '1px' : '0'}
            borderColor="rgba(0,0,0,0.25)"
          >
            <NavLink
              to={`/job/${jobId}/${step}`}
              aria-current={chosen ? 'step' : undefined}
              style={{ display: 'block', height: '100%' }}
            >
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
                  {stepTitles[step]}
                </Text>
                <Text fontSize="12px" truncate>
                  {mark && (
                    <span
                      aria-hidden="true"
                      style={{ color: chosen ? markOnCard[mark] : markColours[mark], marginRight: 5 }}
                    >
                      ●
                    </span>
                  )}
                  {words}
                </Text>
              </Box>
            </NavLink>
          </Box>
        );
      })}
    </Flex>
  );
}
