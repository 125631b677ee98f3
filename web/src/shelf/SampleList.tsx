import { Box, Button, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { NARROW } from '../base/narrow';
import { Empty, Panel } from '../kit/Panel';
import { type SampleName, sampleText, useSamples } from './samples';

/** One line on what each sample shows, by its id. */
const notes: Readonly<Record<string, string>> = {
  'lock-interlock': 'three permits from four switches, in two chips',
  'boat-tally': 'sums that share their XORs',
  'towpath-lamp': 'NAND gates and nothing else',
  'flood-watch': 'ten floats, wide gates split, several boards',
  'level-dial': 'bands of a number by table, with don’t-cares',
  'boat-counter': 'a counter used by number, and its clock',
  'keepers-vote': 'a chip of one’s own, written on the sheet',
  'lamp-relay': 'flip-flops written as equations',
  'gate-votes': 'far fewer chips than it looks',
  'stile-lamps': 'built from a drawer without XORs',
  'transistor-bell': 'gates of transistors and diodes',
  'fog-beacon': 'a timer that runs, and counts its flashes',
  'keepers-clock': 'twenty-four hours, with a fast switch',
  'ropes-by-tens': 'a ripple counter cut at ten by a NAND',
  'seconds-digit': 'timer, counter, decoder and display',
  'paddle-panel': 'a digit, a buzzer and buttons, planned whole',
  'up-and-down': 'ripple counters, stepped by hand',
  'false-alarm': 'a hazard that clocks a flip-flop',
  'steady-button': 'bounces counted, and kept out',
  'diode-gates': 'an OR and an AND, and what they lose',
  'rtl-gates': 'a NOT and a NOR, a transistor for each input',
  'two-highs': 'what a high is worth with a base hanging on it',
  'dtl-gate': 'a NAND of four diodes and a transistor',
  'ttl-gate': 'the inside of a 7400, totem pole and all',
  'nmos-gates': 'NOT, NAND and NOR, with resistors as loads',
  'cmos-gates': 'the same in pairs: no current at rest',
  'gauge-selector': 'four floats on one lamp, by analogue switches',
  'apprentice-bench': 'seven mistakes, made on purpose',
};

const order = Object.keys(notes);
const byOrder = (a: SampleName, b: SampleName): number => order.indexOf(a.id) - order.indexOf(b.id);

/** The sample jobs of Barrowmere lock; taking one puts a copy on the shelf. */
export function SampleList({ onTake }: { readonly onTake: (text: string) => Promise<void> }) {
  const samples = useSamples();
  const [taking, setTaking] = useState<string | null>(null);
  const take = async (id: string): Promise<void> => {
    setTaking(id);
    try {
      await onTake(await sampleText(id));
    } finally {
      setTaking(null);
    }
  };
  return (
    <Panel
      title="Barrowmere lock"
      hint="samples; you get a copy"
      css={{ width: '370px', flexShrink: 0, [NARROW]: { width: 'auto', flex: 1 } }}
    >
      {samples.isError && (
        <Empty>
          The server does not answer, so there are no samples just now.
          <Button display="block" mx="auto" mt="10px" onClick={() => void samples.refetch()}>
            Try again
          </Button>
        </Empty>
      )}
      <Box as="ul" listStyleType="none" overflowY="auto">
        {[...(samples.data ?? [])].sort(byOrder).map(({ id, name }) => (
          <Box
            as="li"
            key={id}
            px="12px"
            py="9px"
            borderTopWidth="1px"
            borderColor="line"
            display="flex"
            alignItems="center"
            gap="10px"
          >
            <Box flex="1">
              <Text fontFamily="heading" fontWeight="600" fontSize="16px">
                {name}
              </Text>
              <Text color="soft" fontSize="13px">
                {notes[id] ?? ''}
              </Text>
            </Box>
            <Button aria-label={`Open a copy of ${name}`} disabled={taking !== null} onClick={() => void take(id)}>
              Open a copy
            </Button>
          </Box>
        ))}
      </Box>
    </Panel>
  );
}
