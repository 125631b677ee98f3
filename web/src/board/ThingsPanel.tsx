import { Box, Text } from '@chakra-ui/react';
import { byNumber, labelPlacesOf, type SeatedPart, shownValue, typeOf } from '@saddlebag/core';
import { useJobView } from '../app/job-context';
import { Panel } from '../kit/Panel';

interface ThingsPanelProps {
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (ref: string) => void;
}

/** The signals that a part is labelled with, as a list. */
function signalsOf(part: SeatedPart): string | undefined {
  const all = labelPlacesOf(part).flatMap((p) => p.signal ?? []);
  return all.length > 0 ? all.join(' ') : part.signal;
}

/** Everything on the board: parts with their places, then jumpers. Choosing one here chooses it on the board. */
export function ThingsPanel({ chosen, onChoose }: ThingsPanelProps) {
  const { job } = useJobView();
  const { parts, jumpers, notes = {} } = job.board;
  const rows = [
    ...Object.values(parts)
      .sort((a, b) => byNumber(a.ref, b.ref))
      .map((p) => ({
        id: p.ref,
        what: `${p.part}${shownValue(typeOf(p)?.kind ?? '', p.value)}`,
        signal: signalsOf(p),
        at: p.at,
      })),
    ...Object.values(jumpers)
      .sort((a, b) => byNumber(a.id, b.id))
      .map((j) => ({ id: j.id, what: 'jumper', signal: undefined, at: `${j.from} > ${j.to}` })),
    ...Object.values(notes)
      .sort((a, b) => byNumber(a.id, b.id))
      .map((n) => ({ id: n.id, what: n.text, signal: undefined, at: n.at })),
  ];
  return (
    <Panel
      title="On the board"
      hint={`${Object.keys(parts).length} parts, ${Object.keys(jumpers).length} jumpers`}
      flex="1.15"
    >
      <Box as="ul" listStyleType="none" overflowY="auto" tabIndex={0} aria-label="parts and jumpers">
        {rows.map(({ id, what, signal, at }) => (
          <Box as="li" key={id}>
            <Box
              as="button"
              display="grid"
              gridTemplateColumns="44px 1fr auto"
              gap="8px"
              w="100%"
              px="12px"
              py="2px"
              textAlign="left"
              cursor="pointer"
              bg={chosen.has(id) ? 'wash' : undefined}
              aria-pressed={chosen.has(id)}
              onClick={() => onChoose(id)}
            >
              <Text fontFamily="heading" fontWeight="600">
                {id}
              </Text>
              <Text truncate>
                {what}{' '}
                {signal && (
                  <Text as="span" fontFamily="mono">
                    {signal}
                  </Text>
                )}
              </Text>
              <Text fontFamily="mono" fontSize="12px" color="soft">
                {at}
              </Text>
            </Box>
          </Box>
        ))}
      </Box>
    </Panel>
  );
}
