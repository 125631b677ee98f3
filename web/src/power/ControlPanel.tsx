import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { LedState } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../app/job-context';
import { KeyCap, Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { switchKeys } from './switch-keys';

const ledWords: Readonly<Record<LedState, string>> = {
  dark: 'dark',
  lit: 'lit',
  dim: 'too dim to see',
  over: 'burning: no resistor',
  unknown: 'unknown level',
};

/** Large switches and lamps for what is on the board, each with its signal and its key. */
export function ControlPanel() {
  const { job, bench, reading } = useJobView();
  const state = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const { inputs = [], outputs = [] } = reading?.design ?? {};
  const parts = Object.values(job.board.parts);
  const keys = switchKeys(inputs.map((s) => s.name));
  const crowded = inputs.length + outputs.length > 9;
  const width = crowded ? '74px' : '86px';
  const at = (kind: string, signal: string) => parts.find((p) => p.part === kind && p.signal === signal);
  return (
    <Panel title="Switches and lamps" hint="the very ones on the board" flexShrink={0} maxH="230px">
      <Flex gap="6px 26px" wrap="wrap" px="14px" pb="12px" overflowY="auto">
        <Flex gap={crowded ? '4px' : '8px'} wrap="wrap">
          {inputs.map(({ name, label }) => {
            const part = at('switch', name);
            const on = part !== undefined && bench.isOn(part.ref);
            return (
              <Box key={name} textAlign="center" w={width}>
                <Button
                  h="50px"
                  w="38px"
                  p="0"
                  role="switch"
                  aria-checked={on}
                  aria-label={`${name}${label ? `, ${label}` : ''}`}
                  disabled={!part}
                  bg="leather"
                  borderColor="leather"
                  _hover={{ bg: 'leatherLight' }}
                  position="relative"
                  onClick={() => part && bench.flip(part.ref)}
                >
                  <Box
                    position="absolute"
                    left="6px"
                    right="6px"
                    h="19px"
                    rounded="4px"
                    bg={on ? 'lit' : '#F4EFE4'}
                    top={on ? '5px' : undefined}
                    bottom={on ? undefined : '5px'}
                  />
                </Button>
                <Flex justify="center" align="center" gap="4px" mt="3px">
                  <Tag signal={name} />
                  {keys.get(name) !== undefined && <KeyCap>{keys.get(name)}</KeyCap>}
                </Flex>
                <Text fontSize="11.5px" color="soft" lineHeight="14px" mt="2px">
                  {part ? !crowded && label : 'no switch'}
                </Text>
              </Box>
            );
          })}
        </Flex>
        <Flex gap={crowded ? '4px' : '8px'} wrap="wrap">
          {outputs.map(({ name, label }) => {
            const part = at('led', name);
            const led = part && state.on ? bench.led(part.ref) : 'dark';
            return (
              <Box key={name} textAlign="center" w={width}>
                <Flex h="50px" align="center" justify="center">
                  <Box
                    w="34px"
                    h="34px"
                    rounded="full"
                    role="img"
                    aria-label={`${name} ${part ? ledWords[led] : 'no LED'}`}
                    bg={led === 'lit' ? '#FF5B45' : led === 'over' ? '#FFFFFF' : '#5B2A25'}
                    borderWidth="2px"
                    borderColor={led === 'lit' ? '#FFC4BA' : '#2F1512'}
                    style={{ boxShadow: led === 'lit' ? '0 0 16px 4px rgba(255,91,69,0.55)' : undefined }}
                  />
                </Flex>
                <Flex justify="center" mt="3px">
                  <Tag signal={name} />
                </Flex>
                <Text
                  fontSize="11.5px"
                  color={led === 'over' || led === 'unknown' ? 'bad' : 'soft'}
                  lineHeight="14px"
                  mt="2px"
                >
                  {part ? (state.on ? ledWords[led] : !crowded && label) : 'no LED'}
                </Text>
              </Box>
            );
          })}
        </Flex>
      </Flex>
    </Panel>
  );
}
