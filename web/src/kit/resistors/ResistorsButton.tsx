import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { FoundResistor, Job } from '@saddlebag/core';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { contentKey } from '../../base/content-key';
import { useJobView } from '../../base/job-context';
import { fixed, readNumber } from '../../base/numbers';
import { shownValue } from '../../base/words';
import { useLooseValues } from '../../store/drawer';
import { stages } from '../../workers/stages';
import { Leaf } from '../Leaf';
import { MonoInput } from '../MonoInput';
import { Empty } from '../Panel';
import { TipButton } from '../Tip';

const hasResistors = ({ board }: Job): boolean => Object.values(board.parts).some(({ part }) => part === 'resistor');

/** Opens what the resistors of the board may be, by the data sheets of what they meet; not there where it has none. */
export function ResistorsButton() {
  const { job } = useJobView();
  const [open, setOpen] = useState(false);
  if (!hasResistors(job)) return null;
  return (
    <>
      <TipButton tip="what the resistors before LEDs and at inputs may be" onClick={() => setOpen(true)}>
        Resistors
      </TipButton>
      {open && <Resistors onClose={() => setOpen(false)} />}
    </>
  );
}

/** What an LED is wanted to get at first, in milliamperes. */
const USUAL_MA = '3.2';

function Resistors({ onClose }: { readonly onClose: () => void }) {
  const { job, session } = useJobView();
  const [wanted, setWanted] = useState(USUAL_MA);
  const ledMa = readNumber(wanted);
  const isRight = ledMa > 0 && ledMa < 1000;
  const { ohms: drawerOhms } = useLooseValues();
  const { data } = useQuery({
    queryKey: ['resistors', contentKey(job.board), job.family, isRight ? ledMa : 0, drawerOhms],
    queryFn: () => stages().resistors(job.board, { family: job.family, ledMa, drawerOhms }),
    enabled: isRight,
    placeholderData: keepPreviousData,
  });
  const put = ({ ref, suggestedOhms }: FoundResistor): unknown =>
    session.dispatch({ kind: 'set-value', ref, value: suggestedOhms });
  return (
    <Leaf
      label="resistors"
      title="Resistors"
      onClose={onClose}
      beside={
        <Flex as="label" align="center" gap="6px" fontSize="13px" color="soft" ml="auto">
          an LED is to get
          <MonoInput
            aria-label="milliamperes of an LED"
            aria-invalid={!isRight}
            w="58px"
            value={wanted}
            borderColor={isRight ? 'line' : 'bad'}
            onChange={(e) => setWanted(e.target.value)}
          />
          mA
        </Flex>
      }
    >
      <Box overflowY="auto" aria-live="polite">
        {!data && <Empty>Working them out …</Empty>}
        {data?.length === 0 && <Empty>No resistor stands before an LED, or pulls an input to a rail.</Empty>}
        {data?.map((found) => (
          <ResistorLine key={found.ref} found={found} onPut={put} />
        ))}
      </Box>
    </Leaf>
  );
}

const ohms = (value: number): string => shownValue('resistor', value).trim();

interface ResistorLineProps {
  readonly found: FoundResistor;
  readonly onPut: (found: FoundResistor) => unknown;
}

/** A resistor: what it is for, what it is, what it may be, and the value that suits best with one press. */
function ResistorLine({ found, onPut }: ResistorLineProps) {
  const { ref, use, of, ma, leastOhms, mostOhms, suggestedOhms, ohms: own } = found;
  const isWithin = own >= leastOhms && own <= mostOhms;
  return (
    <Flex align="center" gap="10px" py="5px" borderTopWidth="1px" borderColor="line" fontSize="13.5px">
      <Text w="44px" fontFamily="heading" fontWeight="600">
        {ref}
      </Text>
      <Text flex="1" minW="0" truncate>
        {use === 'led' ? `before ${of}, which gets ${fixed(ma ?? 0, 1)} mA` : `${use} at ${of}`}
      </Text>
      <Text w="74px" fontFamily="mono" fontSize="12.5px" color={isWithin ? 'ink' : 'bad'}>
        {ohms(own)}
      </Text>
      <Text w="150px" color="soft" fontSize="12.5px">
        {ohms(leastOhms)} to {ohms(mostOhms)}
      </Text>
      <Button
        w="96px"
        disabled={own === suggestedOhms}
        aria-label={`${ref}: ${ohms(suggestedOhms)}`}
        onClick={() => onPut(found)}
      >
        {ohms(suggestedOhms)}
      </Button>
    </Flex>
  );
}
