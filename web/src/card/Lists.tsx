import { Box, Flex, Text } from '@chakra-ui/react';
import type { BuildCard } from '@saddlebag/core';
import { Panel } from '../kit/Panel';

/** The parts list and the pin list, side by side. */
export function Lists({ card }: { readonly card: BuildCard }) {
  return (
    <Flex gap="10px" h="232px" flexShrink={0}>
      <Panel title="Parts" flex="1">
        <Box overflowY="auto" px="12px" pb="8px" tabIndex={0} role="region" aria-label="parts list">
          <PartsTable card={card} />
        </Box>
      </Panel>
      <Panel title="Pins" hint="what each pin carries" flex="1.2">
        <Box overflowY="auto" px="12px" pb="8px" tabIndex={0} role="region" aria-label="pin list">
          <PinTables card={card} />
        </Box>
      </Panel>
    </Flex>
  );
}

/** The parts of a job with their counts, as they are laid out before building. */
export function PartsTable({ card }: { readonly card: BuildCard }) {
  return (
    <Box as="table" w="100%" fontSize="13px">
      <tbody>
        {card.parts.map(({ count, what, refs }) => (
          <Box as="tr" key={what} borderTopWidth="1px" borderColor="line">
            <Box as="td" textAlign="right" pr="8px" fontFamily="mono" verticalAlign="top">
              {count}
            </Box>
            <Box as="td" pr="8px">
              {what}
            </Box>
            <Box as="td" color="soft" fontFamily="mono" fontSize="12px">
              {refs.join(' ')}
            </Box>
          </Box>
        ))}
      </tbody>
    </Box>
  );
}

/** For each chip its pins with what they carry and the holes they are in. */
export function PinTables({ card }: { readonly card: BuildCard }) {
  return (
    <Flex wrap="wrap" gap="10px 26px">
      {card.pins.map(({ ref, part, pins }) => (
        <Box key={ref} w="210px" breakInside="avoid">
          <Text fontFamily="heading" fontWeight="600">
            {ref} {part}
          </Text>
          <Box columnCount={2} columnGap="12px" fontFamily="mono" fontSize="12px" lineHeight="17px">
            {pins.map(({ id, name, carries }) => (
              <Flex key={id} gap="6px" breakInside="avoid">
                <Text w="16px" textAlign="right">
                  {id}
                </Text>
                <Text w="26px" color="soft">
                  {name}
                </Text>
                <Text fontWeight="600" truncate>
                  {carries}
                </Text>
              </Flex>
            ))}
          </Box>
        </Box>
      ))}
    </Flex>
  );
}
