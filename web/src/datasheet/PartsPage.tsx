import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  findChip,
  ownPartType,
  type PartEntry,
  type PartType,
  partEntries,
  partType,
  searchParts,
} from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { NARROW } from '../base/narrow';
import { useShortcuts } from '../base/shortcuts';
import { Brand } from '../kit/Brand';
import { Choice } from '../kit/Choice';
import { Leather } from '../kit/Leather';
import { PageFoot } from '../kit/PageFoot';
import { Empty, Panel } from '../kit/Panel';
import { SearchButton } from '../kit/SearchButton';
import { ThemeButton } from '../kit/ThemeButton';
import { shelf } from '../store/shelf';
import { Datasheet } from './Datasheet';

/** A line of the list: a part of the catalogue, or of the job that defines it. */
type ListEntry = PartEntry & { readonly job?: string };

const typeOf = (id: string | null | undefined): PartType | null => (id ? (findChip(id) ?? partType(id)) : null);

/** The parts that jobs of the shelf define themselves. */
function useOwnParts(): readonly (PartEntry & { readonly job: string; readonly type: PartType })[] {
  const jobs = useLiveQuery(() => shelf.list());
  return useMemo(
    () =>
      (jobs ?? []).flatMap((row) =>
        (row.summary.ownParts ?? []).flatMap((definition) => {
          const type = ownPartType(definition);
          if (!type) return [];
          const title = `${type.title}, in ${row.name}`;
          const id = type.ownName ?? type.id;
          return [{ id, number: id, title, group: 'own parts', job: row.id, type }];
        }),
      ),
    [jobs],
  );
}

/** Where a part's datasheet is, with what lies beside it. */
function addressOf(e: ListEntry, beside: Record<string, string> | undefined): string {
  const search = new URLSearchParams({ ...(e.job !== undefined && { job: e.job }), ...beside }).toString();
  return `/parts/${e.id}${search === '' ? '' : `?${search}`}`;
}

const partsKeys = [
  { cap: 'Enter', does: 'opens the first part found', isFirst: true },
  { cap: 'Tab', does: 'from part to part', isFirst: true },
] as const;

/** The shelf of parts: find one by number or by what it does, read its datasheet, lay a second beside it. */
export default function PartsPage() {
  useShortcuts('Among the parts', partsKeys);
  const { id } = useParams();
  const [search, setSearch] = useSearchParams();
  const own = useOwnParts();
  const job = search.get('job');
  const part = job === null ? typeOf(id) : (own.find((e) => e.job === job && e.id === id)?.type ?? null);
  const second = typeOf(search.get('beside'));
  useEffect(() => {
    document.title = part ? `${part.id} · Saddlebag` : 'Parts · Saddlebag';
  }, [part]);
  return (
    <Flex direction="column" h="100%">
      <Head />
      <Flex as="main" flex="1" minH="0" gap="10px" p="10px 12px" css={{ [NARROW]: { flexDirection: 'column' } }}>
        <FindPanel own={own} part={part} job={job} second={second} />
        <Panel
          title={part ? 'Datasheet' : 'Datasheets'}
          flex="1"
          actions={
            part && (
              <SecondPart
                part={part}
                second={second}
                onChoose={(b) => setSearch({ ...(job !== null && { job }), ...(b && { beside: b }) })}
              />
            )
          }
        >
          <Sheets id={id} part={part} second={second} />
        </Panel>
      </Flex>
      <PageFoot />
    </Flex>
  );
}

interface SheetsProps {
  readonly id: string | undefined;
  readonly part: PartType | null;
  readonly second: PartType | null;
}

/** The datasheet of the part, and of the one beside it: below it on a narrow screen. */
function Sheets({ id, part, second }: SheetsProps) {
  if (!part)
    return (
      <Empty>
        {id ? `No part is known as ${id}.` : 'Choose a part in the list: its package, function and limits stand here.'}
      </Empty>
    );
  return (
    <Flex flex="1" minH="0" css={{ [NARROW]: { flexDirection: 'column' } }}>
      <Sheet type={part} />
      {second && (
        <Box flex="1" minW="0" minH="0" borderLeftWidth="1px" borderColor="line" display="flex">
          <Sheet type={second} />
        </Box>
      )}
    </Flex>
  );
}

/** The head of the page, with the way back to the shelf. */
function Head() {
  return (
    <Box as="header" flexShrink={0}>
      <Flex align="center" px="18px" minH="42px" css={{ [NARROW]: { paddingBlock: '5px' } }} flexShrink={0} gap="14px">
        <Brand />
        <Flex ml="auto" gap="8px">
          <SearchButton />
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
    </Box>
  );
}

interface FindPanelProps {
  /** The parts of jobs on the shelf. */
  readonly own: ReturnType<typeof useOwnParts>;
  readonly part: PartType | null;
  readonly job: string | null;
  readonly second: PartType | null;
}

/** Finds parts by number or function. */
function FindPanel({ own, part, job, second }: FindPanelProps) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const found = useMemo(() => searchParts(text, own), [text, own]);
  const beside = second ? { beside: second.id } : undefined;
  return (
    <Panel
      title="Find"
      hint={`${found.length} of ${partEntries.length + own.length}`}
      css={{ width: '320px', flexShrink: 0, [NARROW]: { width: 'auto', height: '34%' } }}
    >
      <Box px="12px" pb="8px">
        <Input
          size="sm"
          h="30px"
          aria-label="number or function"
          placeholder="7493, SN74LS00N, decade counter …"
          value={text}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && found[0]) void navigate(addressOf(found[0], beside));
          }}
          bg="paper"
          borderColor="line"
        />
      </Box>
      {found.length === 0 && <Empty>No part has these words. Try a number, or what it does: “two-input nor”.</Empty>}
      <PartList entries={found} chosen={part} job={job} beside={beside} />
    </Panel>
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
  readonly entries: readonly ListEntry[];
  readonly chosen: PartType | null;
  readonly job: string | null;
  readonly beside: Record<string, string> | undefined;
}

/** The parts found, under their groups when all are listed. */
function PartList({ entries, chosen, job, beside }: PartListProps) {
  const isChosen = (e: ListEntry): boolean => e.id === chosen?.id && (e.job ?? null) === job;
  return (
    <Box as="ul" listStyleType="none" overflowY="auto" flex="1" minH="0">
      {entries.map((e) => (
        <Box as="li" key={`${e.id} ${e.job ?? ''}`}>
          <Link to={addressOf(e, beside)} aria-current={isChosen(e) ? 'page' : undefined}>
            <Flex
              px="12px"
              py="3px"
              gap="10px"
              align="baseline"
              bg={isChosen(e) ? 'wash' : undefined}
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

interface SecondPartProps {
  readonly part: PartType;
  readonly second: PartType | null;
  readonly onChoose: (id: string | null) => void;
}

/** Chooses the part whose datasheet lies beside the first. */
function SecondPart({ part, second, onChoose }: SecondPartProps) {
  return (
    <>
      <Choice
        label="part beside it"
        value={second?.id ?? ''}
        width="min(376px, 100%)"
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
