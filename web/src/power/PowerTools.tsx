import { Button, Text } from '@chakra-ui/react';
import { restless, says } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { Meter } from './Meter';

/** The power switch, and in a few words what the powered board does. */
export function PowerTools({ onPower }: { readonly onPower: () => void }) {
  const { bench, findings } = useJobView();
  const { on, shorted, settled, supplyMa } = useSyncExternalStore(bench.subscribe, bench.snapshot);
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
      <Text fontSize="13px" role="status" color={shorted || settled?.settled === false ? 'bad' : 'ink'} truncate>
        {!on &&
          (toFix > 0 ? `${toFix} findings to fix before a real board is powered` : 'switches answer to their letters')}
        {on && shorted && 'supply and ground are joined: on the bench this would smoke'}
        {on && !shorted && settled?.settled === false && says(restless())}
        {on &&
          !shorted &&
          settled?.settled === true &&
          `${supplyMa.toFixed(1)} mA · at rest after ${Math.round(settled.timeNs)} ns of changes`}
      </Text>
      <Meter />
    </>
  );
}
