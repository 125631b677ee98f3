import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Behaviour, clocksOf, stateTable } from '@saddlebag/core';
import { useMemo, useState } from 'react';
import { Empty } from '../kit/Panel';
import { Tag } from '../kit/Tag';

/** The states of a clocked design with what follows each, and a place to step through them. */
export function StatesPanel({ behaviour }: { readonly behaviour: Behaviour }) {
  const clocks = useMemo(() => clocksOf(behaviour), [behaviour]);
  const [clock] = clocks;
  const table = useMemo(() => (clock === undefined ? null : stateTable(behaviour, clock)), [behaviour, clock]);
  const [path, setPath] = useState<readonly string[]>([]);
  const [setting, setSetting] = useState<readonly number[]>([]);
  if (!table) return <Empty>What is stored here is clocked by no input; the board steps through it at Power up.</Empty>;
  const known = new Set(table.transitions.map((t) => t.from));
  const now = path.filter((s) => known.has(s)).at(-1) ?? table.start;
  const levels = table.inputs.map((_, i) => setting[i] ?? 0);
  const step = table.transitions.find((t) => t.from === now && t.inputs === levels.join(''));
  return (
    <Flex flex="1" minH="0" gap="0">
      <Box
        flex="1"
        minW="0"
        overflowY="auto"
        px="12px"
        pb="8px"
        tabIndex={0}
        role="region"
        aria-label="next-state table"
      >
        <Box as="table" fontFamily="mono" fontSize="12.5px" w="100%">
          <thead>
            <tr>
              <Head>{table.stored.join(' ')}</Head>
              {table.inputs.length > 0 && <Head>{table.inputs.join(' ')}</Head>}
              <Head>{table.outputs.join(' ')}</Head>
              <Head>next</Head>
            </tr>
          </thead>
          <tbody>
            {table.transitions.map((t) => (
              <Box
                as="tr"
                key={`${t.from} ${t.inputs}`}
                bg={t === step ? 'wash' : undefined}
                borderTopWidth="1px"
                borderColor="line"
              >
                <Word>{t.from}</Word>
                {table.inputs.length > 0 && <Word>{t.inputs}</Word>}
                <Word>{t.outputs}</Word>
                <Word strong>
                  {t.passing.length > 0 && (
                    <Box as="span" color="soft" fontWeight="400">
                      passing {t.passing.join(', ')} →{' '}
                    </Box>
                  )}
                  {t.to}
                </Word>
              </Box>
            ))}
          </tbody>
        </Box>
        {!table.whole && <Text color="soft">More states or settings than are listed here follow.</Text>}
      </Box>
      <Box w="230px" flexShrink={0} px="12px" pb="8px" borderLeftWidth="1px" borderColor="line" overflowY="auto">
        <Text color="soft" fontSize="12.5px">
          {clock} {table.edge === 'rise' ? 'rises' : 'falls'}: one step
        </Text>
        <Text fontFamily="mono" fontSize="20px" fontWeight="600" aria-live="polite">
          {now}
        </Text>
        <Text color="soft" fontSize="12px" fontFamily="mono">
          {table.stored.join(' ')}
        </Text>
        {table.inputs.map((name, i) => (
          <Flex key={name} align="center" gap="8px" py="2px">
            <Tag signal={name} />
            <Button
              ml="auto"
              fontFamily="mono"
              aria-label={`${name}: ${levels[i]}`}
              onClick={() => setSetting(levels.map((l, k) => (k === i ? 1 - l : l)))}
            >
              {levels[i]}
            </Button>
          </Flex>
        ))}
        <Flex gap="6px" pt="6px">
          <Button variant="solid" disabled={!step} onClick={() => step && setPath([...path, step.to])}>
            Step
          </Button>
          <Button disabled={path.length === 0} onClick={() => setPath(path.slice(0, -1))}>
            Back
          </Button>
          <Button disabled={path.length === 0} onClick={() => setPath([])}>
            Start
          </Button>
        </Flex>
        <Text fontFamily="mono" fontSize="12px" color="soft" pt="6px">
          {[table.start, ...path].slice(-12).join(' → ')}
        </Text>
      </Box>
    </Flex>
  );
}

function Head({ children }: { readonly children: React.ReactNode }) {
  return (
    <Box as="th" textAlign="center" fontWeight="600" position="sticky" top="0" bg="card" py="3px" px="6px">
      {children}
    </Box>
  );
}

function Word({ children, strong = false }: { readonly children: React.ReactNode; readonly strong?: boolean }) {
  return (
    <Box as="td" textAlign="center" py="2px" fontWeight={strong ? '600' : '400'}>
      {children}
    </Box>
  );
}
