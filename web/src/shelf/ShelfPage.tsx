import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { NARROW } from '../base/narrow';
import { changeSettings } from '../base/settings';
import { useShortcuts } from '../base/shortcuts';
import { useLatest } from '../base/use-latest';
import { says } from '../base/words';
import { Brand } from '../kit/Brand';
import { download } from '../kit/download';
import { FindingLine } from '../kit/FindingLine';
import { Leather } from '../kit/Leather';
import { tell } from '../kit/notices';
import { PageFoot } from '../kit/PageFoot';
import { Empty, Panel } from '../kit/Panel';
import { PickFile } from '../kit/PickFile';
import { SearchButton } from '../kit/SearchButton';
import { ThemeButton } from '../kit/ThemeButton';
import { type ShelfRow, shelf } from '../store/shelf';
import { filesDropped } from './dropped';
import type { Brought } from './import-file';
import { JobLine } from './JobLine';
import { keepForGood, RoomLeft } from './RoomLeft';
import type { Refusal } from './refusal';
import { SampleList } from './SampleList';

const shelfKeys = [
  { cap: 'Tab', does: 'from job to job', isFirst: true },
  { cap: 'Enter', does: 'open', isFirst: true },
] as const;

/** The list of jobs kept in this browser, and the samples to begin from. */
export function ShelfPage() {
  useShortcuts('On the shelf', shelfKeys);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<readonly Refusal[]>([]);
  useEffect(() => {
    document.title = 'Saddlebag';
  }, []);
  const acts = useShelf(setRefused);
  usePasting(acts.bring);
  return (
    <Flex
      direction="column"
      h="100%"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void filesDropped(e.dataTransfer).then(acts.bring);
      }}
    >
      <Box as="header" flexShrink={0}>
        <Flex align="center" px="18px" minH="42px" css={{ [NARROW]: { paddingBlock: '5px' } }} flexShrink={0}>
          <Brand />
          <Flex ml="auto" gap="8px">
            <SearchButton />
            <Button onClick={() => void navigate('/parts')}>Parts</Button>
            <ThemeButton />
          </Flex>
        </Flex>
        <Leather direction="column" px="18px" py="12px">
          <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="20px" color="onLeather">
            The shelf
          </Text>
          <Text color="onLeather" fontSize="14px">
            From equations to chips on a breadboard, checked and powered up before anything is built.
          </Text>
        </Leather>
      </Box>
      <Flex as="main" flex="1" minH="0" gap="10px" p="10px 12px" css={{ [NARROW]: { flexDirection: 'column' } }}>
        <JobsPanel acts={acts} refused={refused} onSeen={() => setRefused([])} />
        <SampleList onTake={(text) => trying(() => acts.takeText(text))} />
      </Flex>
      <PageFoot>
        <RoomLeft />
        <Text ml="auto">
          Jobs, sheets, Verilog and CSV tables that are dropped or pasted here are imported, and backups.
        </Text>
      </PageFoot>
    </Flex>
  );
}

/** What is pasted on the shelf, and not into a field, becomes a job. */
function usePasting(bring: (files: readonly File[]) => void): void {
  const latest = useLatest(bring);
  useEffect(() => {
    const onPaste = (e: ClipboardEvent): void => {
      const text = e.clipboardData?.getData('text/plain') ?? '';
      const isInField = e.target instanceof Element && e.target.closest('input, textarea, [contenteditable=true]');
      const files = [...(e.clipboardData?.files ?? [])];
      if (!isInField && files.length > 0) latest(files);
      else if (!isInField && text.trim() !== '') latest([new File([text], 'Pasted text')]);
    };
    document.addEventListener('paste', onPaste);
    return () => document.removeEventListener('paste', onPaste);
  }, [latest]);
}

interface JobsPanelProps {
  readonly acts: ReturnType<typeof useShelf>;
  readonly refused: readonly Refusal[];
  /** What was refused has been read. */
  readonly onSeen: () => void;
}

/** The jobs that are kept, what was refused, and the bin. */
function JobsPanel({ acts, refused, onSeen }: JobsPanelProps) {
  const kept = useLiveQuery(listed);
  const jobs = kept && 'rows' in kept ? kept.rows : undefined;
  return (
    <Panel title="Your jobs" hint="kept in this browser" flex="1" actions={<BeginJob acts={acts} />}>
      {refused.length > 0 && <Refused refused={refused} onClose={onSeen} />}
      {kept && 'why' in kept && <Empty>{saysStorage(kept.why)}</Empty>}
      {jobs?.length === 0 && (
        <Empty>
          Nothing here yet. Begin a new job, or take one of the samples: each opens complete, from its equations to its
          lamps.
          <Button size="md" variant="solid" display="block" mx="auto" mt="14px" onClick={() => void acts.startFirst()}>
            Show me, from an empty sheet to a lit lamp
          </Button>
        </Empty>
      )}
      <Box as="ul" listStyleType="none" overflowY="auto" flex="1" minH="0">
        {jobs?.map((row) => (
          <JobLine
            key={row.id}
            row={row}
            onOpen={() => void acts.open(row.id)}
            onDuplicate={() => void acts.duplicate(row)}
            onDelete={() => void acts.remove(row.id, row.name)}
          />
        ))}
      </Box>
      <Bin onPutBack={(id) => void acts.putBack(id)} onEmpty={() => void trying(() => shelf.emptyBin())} />
    </Panel>
  );
}

/** A new job, or one from a file. */
function BeginJob({ acts }: Pick<JobsPanelProps, 'acts'>) {
  return (
    <>
      <PickFile
        says="Import files"
        label="job file"
        accept=".json,.sheet,.v,.sv,.csv,.txt"
        onPick={(file) => acts.bring([file])}
        onPickAll={acts.bring}
      />
      <Button onClick={() => void acts.backUp()}>Back up</Button>
      <Button variant="solid" onClick={() => void acts.startNew()}>
        New job
      </Button>
    </>
  );
}

/** What reads files is fetched when the first one comes. */
const importing = () => import('./import-file');

/** A job that leads from an empty sheet to a lit lamp. */
async function firstJob(): Promise<string> {
  const id = await shelf.addNew('First job');
  changeSettings({ firstJob: id });
  return id;
}

/** What can be done on the shelf; what is refused goes to `refuse`. */
function useShelf(refuse: (refused: readonly Refusal[]) => void) {
  const navigate = useNavigate();
  const open = (id: string) => {
    keepForGood();
    return navigate(`/job/${id}/design`);
  };
  const take = async (brought: Promise<Brought>): Promise<void> => {
    const result = await brought;
    if (!('id' in result)) return refuse([{ from: 'The sample', findings: result.findings }]);
    const [first, ...more] = result.partly ?? [];
    if (first) tell(`Left out: ${says(first)}${more.length > 0 ? ` And ${more.length} more.` : ''}`);
    await open(result.id);
  };
  const bring = (files: readonly File[]): void =>
    void trying(async () => {
      const { bringAll } = await importing();
      const { ids, partly, refused, said } = await bringAll(files);
      refuse(refused);
      const left = partly[0]
        ? `Left out: ${says(partly[0])}${partly.length > 1 ? ` And ${partly.length - 1} more.` : ''}`
        : '';
      const told = [said, left].filter(Boolean).join(' ');
      if (told !== '') tell(told);
      const [only, ...more] = ids;
      if (only && more.length === 0 && refused.length === 0) await open(only);
    });
  const takeText = async (text: string): Promise<void> => take((await importing()).bringText(text));
  const backUp = (): Promise<void> =>
    trying(async () => {
      const { writeBackup } = await import('./backup');
      download(`saddlebag-shelf-${new Date().toISOString().slice(0, 10)}.json`, await writeBackup());
    });
  const startNew = (): Promise<void> => trying(async () => open(await shelf.addNew()));
  const startFirst = (): Promise<void> => trying(async () => open(await firstJob()));
  const duplicate = (row: ShelfRow): Promise<void> =>
    trying(async () => {
      const made = await (await importing()).bringText(row.text);
      if (!('id' in made)) refuse([{ from: row.name, findings: made.findings }]);
    });
  const putBack = (id: string): Promise<void> => trying(() => shelf.putBack(id));
  const remove = (id: string, name: string): Promise<void> =>
    trying(async () => {
      await shelf.delete(id);
      tell(`${name} is in the bin.`, { label: 'Put back', onClick: () => void putBack(id) });
    });
  return { open, takeText, bring, backUp, startNew, startFirst, duplicate, putBack, remove };
}

type Listed = { readonly rows: readonly ShelfRow[] } | { readonly why: string };

const because = (e: unknown): string => (e instanceof Error ? `${e.name}: ${e.message}`.slice(0, 200) : String(e));

/** The jobs on the shelf, or why the browser does not give them. */
async function listed(): Promise<Listed> {
  try {
    return { rows: await shelf.list() };
  } catch (e) {
    return { why: because(e) };
  }
}

const saysStorage = (why: string): string =>
  `This browser’s storage is full or shut (${why}). Nothing was changed: make room, or allow storage for this page, and try again.`;

/** Does something to the shelf; when the browser refuses, that is said and nothing else happens. */
async function trying(act: () => Promise<unknown>): Promise<void> {
  try {
    await act();
  } catch (e) {
    tell(saysStorage(because(e)));
  }
}

interface BinProps {
  readonly onPutBack: (id: string) => void;
  readonly onEmpty: () => void;
}

/** What was deleted: it lies here until the bin is emptied. Not there while it is empty. */
function Bin({ onPutBack, onEmpty }: BinProps) {
  const rows = useLiveQuery(() => shelf.bin().catch(() => [])) ?? [];
  const [open, setOpen] = useState(false);
  if (rows.length === 0) return null;
  return (
    <Box borderTopWidth="1px" borderColor="line" flexShrink={0} maxH="45%" overflowY="auto">
      <Flex px="12px" py="6px" align="center" gap="8px">
        <Button variant="ghost" aria-expanded={open} onClick={() => setOpen(!open)}>
          Bin: {rows.length} {rows.length === 1 ? 'job' : 'jobs'}
        </Button>
        {open && (
          <Button ml="auto" color="bad" onClick={onEmpty}>
            Empty the bin
          </Button>
        )}
      </Flex>
      {open &&
        rows.map((row) => (
          <Flex key={row.id} px="12px" py="5px" align="center" gap="10px" borderTopWidth="1px" borderColor="line">
            <Text flex="1" truncate>
              {row.name}
            </Text>
            <Button aria-label={`Put back ${row.name}`} onClick={() => onPutBack(row.id)}>
              Put back
            </Button>
          </Flex>
        ))}
    </Box>
  );
}

interface RefusedProps {
  readonly refused: readonly Refusal[];
  readonly onClose: () => void;
}

/** What was not imported, and why. */
function Refused({ refused, onClose }: RefusedProps) {
  return (
    <Box
      role="alert"
      borderWidth="1px"
      borderColor="bad"
      rounded="8px"
      mx="12px"
      mb="8px"
      maxH="180px"
      overflowY="auto"
      flexShrink={0}
    >
      <Flex px="12px" pt="6px" align="center">
        <Text fontWeight="700">
          {refused.length === 1
            ? `${refused[0]?.from} was not imported; nothing else has changed.`
            : `${refused.length} were not imported; everything else was.`}
        </Text>
        <Button ml="auto" variant="ghost" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {refused.map(({ from, findings }) => (
        <Box key={from}>
          {refused.length > 1 && (
            <Text px="12px" pt="4px" fontWeight="600">
              {from}
            </Text>
          )}
          {findings.map((f) => (
            <FindingLine key={says(f)} finding={f} />
          ))}
        </Box>
      ))}
    </Box>
  );
}
