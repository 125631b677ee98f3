import { Box, Flex, Text } from '@chakra-ui/react';
import {
  holesOfStrip,
  isRail,
  jumperOf,
  noteOf,
  occupancyOf,
  parseHole,
  partOf,
  printHole,
  stripOf,
} from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { allChosen, type Hands } from './hand';
import { PartCard } from './PartCard';
import { type CardProps, JumperCard, ManyCard, NoteCard } from './ThingCards';

interface ChosenPanelProps extends CardProps {
  readonly hands: Hands;
}

/** What is chosen, a part, a jumper, a note or several things, with what can be done with it; otherwise the strip at the cursor. */
export function ChosenPanel({ hands, ...acts }: ChosenPanelProps) {
  const { board } = useJobView().job;
  const { chosen, others } = hands;
  if (chosen === null) return <StripCard cursor={hands.cursor} />;
  if (others.length > 0) return <ManyCard what={allChosen(hands)} {...acts} />;
  const [part, jumper, note] = [partOf(board, chosen), jumperOf(board, chosen), noteOf(board, chosen)];
  if (part) return <PartCard part={part} {...acts} />;
  if (jumper) return <JumperCard jumper={jumper} {...acts} />;
  return note ? <NoteCard note={note} {...acts} /> : <StripCard cursor={hands.cursor} />;
}

/** The strip at the cursor: its signal, what is in it and which of its holes are free. */
function StripCard({ cursor }: { readonly cursor: string }) {
  const { board, job } = useJobView();
  const hole = parseHole(cursor);
  const taken = occupancyOf(job.board);
  const net = hole && board.nets.ofStrip.get(stripOf(hole));
  const signal = net === null || net === undefined ? undefined : board.names.get(net);
  const holes = hole ? holesOfStrip(hole) : [];
  const free = holes.filter((h) => !taken.has(printHole(h)));
  const inside = holes.flatMap((h) => taken.get(printHole(h)) ?? []);
  const rail = hole !== null && isRail(hole.row);
  return (
    <Panel title={`Strip at ${cursor}`} hint={rail ? 'rail' : undefined} flex="1.3">
      <Box px="12px" overflowY="auto" tabIndex={0} aria-label="strip" role="region">
        <Flex align="center" gap="8px" mb="4px" minH="24px" wrap="wrap">
          {signal === undefined ? <Text color="soft">carries nothing named</Text> : <Tag signal={signal} />}
          <Text>
            {free.length === 0
              ? 'no free hole'
              : rail
                ? `${free.length} free holes`
                : `free: ${free.map((h) => h.row).join(' ')}`}
          </Text>
          {inside.length > 0 && (
            <Text fontFamily="mono" fontSize="12px" color="soft">
              {inside.slice(0, 12).join(' ')}
              {inside.length > 12 ? ' …' : ''}
            </Text>
          )}
        </Flex>
        <Text color="soft" fontSize="12.5px" lineHeight="17px">
          Press a part to choose or drag it; Alt leaves its jumpers, Shift adds to what is chosen, Shift and a drag over
          the mat frames many. Press a hole to see its strip, draw from one hole to another for a jumper; an end of the
          chosen jumper to plug it elsewhere. Or type: U1.8 &gt; U3.2, w3.2 &gt; b1.e17, seat led, value R1 4k7, colour
          w3 red, fix U1, note b1.e17 text, board half.
        </Text>
      </Box>
    </Panel>
  );
}
