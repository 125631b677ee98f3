import { Button, Text } from '@chakra-ui/react';
import type { LiveState } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { fixed } from '../base/numbers';
import { timeWords } from '../base/words';
import { Meter } from './Meter';

/** The power switch, and in a few words what the powered board does. */
export function PowerTools({ onPower }: { readonly onPower: () => void }) {
  const { bench, findings } = useJobView();
  const { on, seen, pace } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const toFix = findings?.filter((f) => f.severity === 'error').length ?? 0;
  return (
    <>
      <Button
        size="md"
        h="28px"
        variant="solid"
        bg={on ? 'bad' : 'moss'}
        borderColor={on ? 'bad' : 'moss'}
        color={on ? 'onBad' : 'onMoss'}
        onClick={onPower}
      >
        {on ? 'Power off' : 'Power on'}
      </Button>
      <Text fontSize="13px" role="status" color={seen?.isShorted ? 'bad' : 'ink'} truncate>
        {!on &&
          (toFix > 0 ? `${toFix} findings to fix before a real board is powered` : 'switches answer to their letters')}
        {on && seen && doing(seen, pace.isPaused)}
      </Text>
      <Meter />
    </>
  );
}

/** What a powered board does, in a line. */
function doing(
  { isShorted, isMoving, supplyMa, supplyV, settleNs, unknownLoop }: LiveState,
  isPaused: boolean,
): string {
  if (isShorted)
    return `at the supply's limit, ${supplyMa} mA, with ${fixed(supplyV, 2)} V left: supply and ground are joined`;
  if (unknownLoop)
    return `${fixed(supplyMa, 1)} mA · ${unknownLoop} hangs on itself: memory by chance shows what it does`;
  return `${fixed(supplyMa, 1)} mA · ${isMoving ? (isPaused ? 'time stands still' : 'running') : `at rest after ${timeWords(settleNs)}`}`;
}
