import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  type Edit,
  isGiver,
  isShower,
  jumperOf,
  leadsOf,
  partOf,
  printHole,
  type SeatedPart,
  shownSignal,
  typeOf,
} from '@saddlebag/core';
import { useJobView } from '../app/job-context';
import { Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';

interface ChosenPanelProps {
  readonly chosen: string | null;
  readonly onDispatch: (edit: Edit) => boolean;
  readonly onSay: (text: string) => boolean;
}

/** The part or jumper that is chosen: its pins and what they carry, and what can be done with it. */
export function ChosenPanel({ chosen, onDispatch, onSay }: ChosenPanelProps) {
  const { job } = useJobView();
  const part = chosen === null ? undefined : partOf(job.board, chosen);
  const jumper = chosen === null ? undefined : jumperOf(job.board, chosen);
  if (part) return <PartCard part={part} onDispatch={onDispatch} onSay={onSay} />;
  if (!jumper)
    return (
      <Panel title="Chosen" flex="1.3">
        <Text px="12px" color="soft">
          Press a part to choose or drag it; Alt leaves its jumpers where they are. Press a free hole and then another
          one to lay a jumper. Or type: pins are written U1.8, holes b1.e17, rails b1.top+.
        </Text>
      </Panel>
    );
  return (
    <Panel
      title={jumper.id}
      hint="jumper"
      flex="1.3"
      actions={<Button onClick={() => onSay(`pull ${jumper.id}`)}>Pull out</Button>}
    >
      <Text px="12px" fontFamily="mono">
        {jumper.from} &gt; {jumper.to}
      </Text>
      <Box px="12px" pt="6px">
        <JumperSignal id={jumper.id} />
      </Box>
    </Panel>
  );
}

function JumperSignal({ id }: { readonly id: string }) {
  const { board } = useJobView();
  const net = board.nets.nets.find((n) => n.jumpers.includes(id));
  const signal = net && board.names.get(net.index);
  return signal === undefined ? (
    <Text color="soft">It carries nothing that the design names.</Text>
  ) : (
    <Tag signal={signal} />
  );
}

function PartCard({ part, onDispatch, onSay }: { readonly part: SeatedPart } & Omit<ChosenPanelProps, 'chosen'>) {
  const { board } = useJobView();
  const type = typeOf(part);
  const carries = (pin: string): string => {
    const net = board.nets.ofPin.get(pin);
    const name = net === undefined ? undefined : board.names.get(net);
    return name === undefined ? '—' : shownSignal(name);
  };
  const labelled = isGiver(type) || isShower(type);
  return (
    <Panel
      title={`${part.ref} ${part.part}`}
      hint={type?.title}
      flex="1.3"
      actions={
        <>
          <Button onClick={() => onSay(`turn ${part.ref}`)}>Turn</Button>
          <Button onClick={() => onSay(`pull ${part.ref}`)}>Pull out</Button>
        </>
      }
    >
      <Box overflowY="auto" px="12px" tabIndex={0}>
        {labelled && (
          <Flex as="label" align="center" gap="8px" mb="4px">
            signal
            <Input
              key={part.signal}
              defaultValue={part.signal ?? ''}
              h="26px"
              w="120px"
              fontFamily="mono"
              bg="paper"
              borderColor="line"
              maxLength={120}
              onBlur={(e) =>
                e.target.value.trim() !== (part.signal ?? '') &&
                e.target.value.trim() !== '' &&
                onDispatch({ kind: 'label', ref: part.ref, signal: e.target.value.trim() })
              }
            />
          </Flex>
        )}
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
          {type?.catch}
        </Text>
      </Box>
    </Panel>
  );
}
