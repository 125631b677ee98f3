import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  hasValue,
  holesOfStrip,
  isRail,
  jumperOf,
  labelPlacesOf,
  leadsOf,
  noteOf,
  occupancyOf,
  type PartType,
  parseHole,
  partOf,
  printHole,
  type SeatedPart,
  shownSignal,
  shownValue,
  stripOf,
  typeOf,
} from '@saddlebag/core';
import { useJobView } from '../base/job-context';
import { Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { allChosen, type Hands } from './hand';
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

function PartCard({ part, onDispatch, onSay }: CardProps & { readonly part: SeatedPart }) {
  const { board } = useJobView();
  const type = typeOf(part);
  const carries = (pin: string): string => {
    const net = board.nets.ofPin.get(pin);
    const name = net === undefined ? undefined : board.names.get(net);
    return name === undefined ? '—' : shownSignal(name);
  };
  const places = labelPlacesOf(part);
  return (
    <Panel
      title={`${part.ref} ${part.part}`}
      hint={type?.title}
      flex="1.3"
      actions={
        <>
          <Button
            aria-pressed={part.fixed === true}
            title="a fixed part stays where it is when the board is laid out"
            onClick={() => onSay(`${part.fixed ? 'unfix' : 'fix'} ${part.ref}`)}
          >
            {part.fixed ? 'Unfix' : 'Fix'}
          </Button>
          <Button onClick={() => onSay(`rotate ${part.ref}`)}>Rotate</Button>
          <Button onClick={() => onSay(`pull ${part.ref}`)}>Pull out</Button>
        </>
      }
    >
      <Box overflowY="auto" px="12px" tabIndex={0}>
        <Flex gap={places.length > 1 ? '2px 8px' : '14px'} mb="4px" wrap="wrap">
          {places.map(({ name, called, does, signal = '' }) => (
            <Field
              key={called}
              label={name === '' ? 'signal' : name}
              title={`the signal that ${called} ${does}s`}
              narrow={name !== ''}
              mayBeEmpty
              value={signal}
              onTake={(to) =>
                onDispatch({ kind: 'label', ref: part.ref, signal: to, ...(name !== '' && { of: name }) })
              }
            />
          ))}
          {hasValue(type?.kind) && (
            <Field
              label="value"
              value={shownValue(type?.kind ?? '', part.value).trim()}
              onTake={(text) => onSay(`value ${part.ref} ${text.replaceAll(' ', '')}`)}
            />
          )}
          {type?.spans && (
            <Field
              label="holes apart"
              title={`how far its leads are bent apart: ${type.spans.join(' to ')}`}
              narrow
              value={String(apartOf(type))}
              onTake={(text) => onSay(`span ${part.ref} ${text}`)}
            />
          )}
          {type?.kind === 'chip' && (
            <Field label="replace by" value={part.part} onTake={(by) => onSay(`replace ${part.ref} ${by}`)} />
          )}
        </Flex>
        <Box columnCount={type?.kind === 'chip' ? 2 : 1} columnGap="20px">
          {leadsOf(part).map(({ pin, type: p, hole }) => (
            <Flex key={pin} gap="8px" fontFamily="mono" fontSize="12px" lineHeight="17px">
              <Text w="18px" textAlign="right">
                {p.id}
              </Text>
              <Text w="52px" color="soft" truncate>
                {p.name}
              </Text>
              <Text flex="1" fontWeight="600" truncate>
                {carries(pin)}
              </Text>
              <Text color="soft">{hole ? printHole(hole) : 'no hole'}</Text>
            </Flex>
          ))}
        </Box>
        <Text fontSize="12.5px" color="soft" mt="3px">
          {type?.caveat}
        </Text>
      </Box>
    </Panel>
  );
}

/** A short text of a part that is taken when the person leaves it or presses Enter. */
function Field({
  label,
  title,
  value,
  narrow = false,
  mayBeEmpty = false,
  onTake,
}: {
  readonly label: string;
  readonly title?: string;
  readonly value: string;
  readonly narrow?: boolean;
  readonly mayBeEmpty?: boolean;
  readonly onTake: (text: string) => void;
}) {
  return (
    <Flex as="label" align="center" gap={narrow ? '4px' : '8px'} title={title}>
      <Text as="span" {...(narrow && { w: '18px', fontFamily: 'mono', fontSize: '12px', textAlign: 'right' as const })}>
        {label}
      </Text>
      <Input
        key={value}
        defaultValue={value}
        h="26px"
        w={narrow ? '58px' : '110px'}
        px={narrow ? '6px' : undefined}
        fontFamily="mono"
        bg="paper"
        borderColor="line"
        maxLength={120}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        onBlur={(e) => {
          const text = e.target.value.trim();
          if ((mayBeEmpty || text !== '') && text !== value) onTake(text);
        }}
      />
    </Flex>
  );
}

/** From the first lead of a part to the second, in tenths of an inch. */
const apartOf = ({ pins: [, second] }: PartType): number => Math.max(second?.dx ?? 0, second?.dy ?? 0);
