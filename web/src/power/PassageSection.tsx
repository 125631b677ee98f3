import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { HIGH, LOW, type LongestPath, longestPath } from '@saddlebag/core';
import { useState, useSyncExternalStore } from 'react';
import { isSlow } from '../base/bench';
import { useJobView } from '../base/job-context';
import { timeWords } from '../base/words';
import { Tag } from '../kit/Tag';

/** How the last change goes through the chips, gate by gate with its time, while time is slow or stands; and the longest path of the board. */
export function PassageSection() {
  const { bench } = useJobView();
  const { seen, pace } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (!seen || !isSlow(pace)) return null;
  const { steps, isCut } = seen.passage;
  return (
    <Box borderTopWidth="1px" borderColor="line" flexShrink={0} role="group" aria-label="what passes">
      <Flex px="12px" pt="6px" align="center" gap="8px">
        <Text fontFamily="heading" fontWeight="600" fontSize="14px" flex="1">
          What passes
        </Text>
        <LongestButton />
      </Flex>
      <Box
        as="ol"
        px="12px"
        pb="6px"
        maxH="112px"
        overflowY="auto"
        listStyleType="none"
        tabIndex={0}
        aria-label="gate by gate"
      >
        {steps.length === 0 && (
          <Text as="li" fontSize="13px" color="soft">
            Move a switch, and step: each gate on the way is listed, and its wires are lit.
          </Text>
        )}
        {steps.map(({ pin, level, ns }) => (
          <Step
            key={`${ns} ${pin}`}
            pin={pin}
            ns={ns}
            says={level === HIGH ? 'goes high' : level === LOW ? 'goes low' : 'is unknown'}
          />
        ))}
        {isCut && (
          <Text as="li" fontSize="13px" color="soft">
            … and more
          </Text>
        )}
      </Box>
    </Box>
  );
}

interface StepProps {
  readonly pin: string;
  readonly ns: number;
  readonly says: string;
}

function Step({ pin, ns, says }: StepProps) {
  const { board } = useJobView();
  const name = board.names.get(board.nets.ofPin.get(pin) ?? -1);
  return (
    <Flex as="li" gap="8px" align="center" fontFamily="mono" fontSize="12px" py="1px">
      <Box w="70px" color="soft" flexShrink={0}>
        +{timeWords(ns)}
      </Box>
      <Box w="52px" flexShrink={0}>
        {pin}
      </Box>
      {name !== undefined && <Tag signal={name} />}
      <span>{says}</span>
    </Flex>
  );
}

/** Lights the longest path of the board and tells how long it is; found when it is first asked for. */
function LongestButton() {
  const { bench, board } = useJobView();
  const [found, setFound] = useState<{ readonly of: typeof board; readonly path: LongestPath | null } | null>(null);
  const path = found?.of === board ? found.path : null;
  const isShown = path !== null;
  const show = (): void => {
    if (isShown) {
      setFound(null);
      bench.light([]);
      return;
    }
    const longest = longestPath(board.board, board.nets);
    setFound({ of: board, path: longest });
    bench.light(longest?.steps.map((s) => s.pin) ?? []);
  };
  return (
    <>
      {path && (
        <Text fontSize="12.5px" color="soft" role="status">
          {path.steps.length} gates, {timeWords(path.typicalNs)}, at most {timeWords(path.mostNs)}
        </Text>
      )}
      <Button h="24px" px="8px" aria-pressed={isShown} onClick={show}>
        Longest path
      </Button>
    </>
  );
}
