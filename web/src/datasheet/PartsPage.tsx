import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import { findChip, type PartEntry, type PartType, partEntries, partType, searchParts } from '@saddlebag/core';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { Brand } from '../app/Brand';
import { ThemeButton } from '../app/ThemeButton';
import { Choice } from '../kit/Choice';
import { Leather } from '../kit/Leather';
import { Empty, KeyCap, Panel } from '../kit/Panel';
import { Datasheet } from './Datasheet';

const typeOf = (id: string | null | undefined): PartType | null => (id ? (partType(id) ?? findChip(id)) : null);

/** The shelf of parts: find one by number or by what it does, read its datasheet, lay a second beside it. */
export default function PartsPage() {
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const found = useMemo(() => searchParts(text), [text]);
  const part = typeOf(id);
  const second = typeOf(search.get('beside'));
  useEffect(() => {
    document.title = part ? `${part.id} · Saddlebag` : 'Parts · Saddlebag';
  }, [part]);
  const go = (to: string): void => void navigate(`/parts/${to}${second ? `?beside=${second.id}` : ''}`);
  return (
    <Flex direction="column" h="100%">
      <Flex as="header" align="center" px="18px" h="42px" flexShrink={0} gap="14px">
        <Brand />
        <Flex ml="auto" gap="8px">
          <ThemeButton />
        </Flex>
      </Flex>
      <Leather direction="row" px="18px" py="9px" align="baseline" gap="14px">
        <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="20px" color="onLeather">
          Parts
        </Text>
        <Text color="onLeather" fontSize="14px">
          Pins, function and limits from the published data sheets.
        </Text>
        <Box ml="auto" color="onLeather">
          <Link to="/">To the shelf</Link>
        </Box>
      </Leather>
      <Flex as="main" flex="1" minH="0" gap="10px" p="10px 12px">
        <Panel title="Find" hint={`${found.length} of ${partEntries.length}`} w="320px" flexShrink={0}>
          <Box px="12px" pb="8px">
            <Input
              size="sm"
              h="30px"
              aria-label="number or function"
              placeholder="7493, SN74LS00N, decade counter …"
              value={text}
              onChange={(e) => setText(e.target.value)}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && found[0]) go(found[0].id);
              }}
              bg="paper"
              borderColor="line"
            />
          </Box>
          {found.length === 0 && (
            <Empty>No part has these words. Try a number, or what it does: “two-input nor”.</Empty>
          )}
          <PartList entries={found} chosen={part?.id} query={second ? `?beside=${second.id}` : ''} />
        </Panel>
        <Panel
          title={part ? 'Datasheet' : 'Datasheets'}
          flex="1"
          actions={part && <Beside part={part} second={second} onChoose={(b) => setSearch(b ? { beside: b } : {})} />}
        >
          <Flex flex="1" minH="0">
            {part ? (
              <Sheet type={part} />
            ) : (
              <Empty>
                {id
                  ? `No part is known as ${id}.`
                  : 'Choose a part at the left: its package, function and limits stand here.'}
              </Empty>
            )}
            {part && second && (
              <Box flex="1" minW="0" borderLeftWidth="1px" borderColor="line" display="flex">
                <Sheet type={second} />
              </Box>
            )}
          </Flex>
        </Panel>
      </Flex>
      <Flex as="footer" px="18px" h="34px" align="center" gap="8px" color="soft" fontSize="12.5px" flexShrink={0}>
        <KeyCap>Enter</KeyCap> opens the first part found <KeyCap>Tab</KeyCap> from part to part
      </Flex>
    </Flex>
  );
}

function Sheet({ type }: { readonly type: PartType }) {
  return (
    <Box flex="1" minW="0" overflowY="auto" tabIndex={0} role="region" aria-label={`datasheet of ${type.id}`}>
      <Datasheet type={type} />
    </Box>
  );
}

interface PartListProps {
  readonly entries: readonly PartEntry[];
  readonly chosen: string | undefined;
  readonly query: string;
}

/** The parts found, under their groups when all are listed. */
function PartList({ entries, chosen, query }: PartListProps) {
  return (
    <Box as="ul" listStyleType="none" overflowY="auto" flex="1" minH="0">
      {entries.map((e) => (
        <Box as="li" key={e.id}>
          <Link to={`/parts/${e.id}${query}`} aria-current={e.id === chosen ? 'page' : undefined}>
            <Flex
              px="12px"
              py="3px"
              gap="10px"
              align="baseline"
              bg={e.id === chosen ? 'wash' : undefined}
              _hover={{ bg: 'wash' }}
            >
              <Text fontFamily="heading" fontWeight="600" w="86px" flexShrink={0} truncate>
                {e.number}
              </Text>
              <Text fontSize="13px" truncate title={e.title}>
                {e.title}
              </Text>
            </Flex>
          </Link>
        </Box>
      ))}
    </Box>
  );
}

interface BesideProps {
  readonly part: PartType;
  readonly second: PartType | null;
  readonly onChoose: (id: string | null) => void;
}

function Beside({ part, second, onChoose }: BesideProps) {
  return (
    <>
      <Choice
        label="part beside it"
        value={second?.id ?? ''}
        width="190px"
        onChange={(value) => onChoose(value || null)}
      >
        <option value="">Lay another beside it …</option>
        {partEntries
          .filter((e) => e.id !== part.id)
          .map((e) => (
            <option key={e.id} value={e.id}>
              {e.number}: {e.title}
            </option>
          ))}
      </Choice>
      {second && <Button onClick={() => onChoose(null)}>Put it back</Button>}
    </>
  );
}
