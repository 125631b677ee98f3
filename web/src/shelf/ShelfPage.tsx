import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Finding, says } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { useShortcuts } from '../base/shortcuts';
import { Brand } from '../kit/Brand';
import { FindingLine } from '../kit/FindingLine';
import { FirstKeys } from '../kit/FirstKeys';
import { Leather } from '../kit/Leather';
import { tell } from '../kit/notices';
import { Empty, Panel } from '../kit/Panel';
import { PickFile } from '../kit/PickFile';
import { ThemeButton } from '../kit/ThemeButton';
import { type ShelfRow, shelf } from '../store/shelf';
import { type Brought, bringFile, bringText } from './import-file';
import { JobLine } from './JobLine';
import { SampleList } from './SampleList';

const shelfKeys = [
  { cap: 'Tab', does: 'from job to job', isFirst: true },
  { cap: 'Enter', does: 'open', isFirst: true },
] as const;

/** The list of jobs kept in this browser, and the samples to begin from. */
export function ShelfPage() {
  useShortcuts('On the shelf', shelfKeys);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<readonly Finding[]>([]);
  useEffect(() => {
    document.title = 'Saddlebag';
  }, []);
  const acts = useShelf(setRefused);
  return (
    <Flex
      direction="column"
      h="100%"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        acts.bring(e.dataTransfer.files[0]);
      }}
    >
      <Flex as="header" align="center" px="18px" h="42px" flexShrink={0}>
        <Brand />
        <Flex ml="auto" gap="8px">
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
      <Flex as="main" flex="1" minH="0" gap="10px" p="10px 12px">
        <JobsPanel acts={acts} refused={refused} onSeen={() => setRefused([])} />
        <SampleList onTake={(text) => trying(() => acts.take(bringText(text)))} />
      </Flex>
      <Flex as="footer" px="18px" h="42px" align="center" gap="8px" color="soft" fontSize="12.5px" flexShrink={0}>
        <FirstKeys />
        <Text ml="auto">A job, a sheet, Verilog or a CSV table dropped on the shelf is imported.</Text>
      </Flex>
    </Flex>
  );
}

interface JobsPanelProps {
  readonly acts: ReturnType<typeof useShelf>;
  readonly refused: readonly Finding[];
  /** What was refused has been read. */
  readonly onSeen: () => void;
}

/** The jobs that are kept, what was refused, and the bin. */
function JobsPanel({ acts, refused, onSeen }: JobsPanelProps) {
  const kept = useLiveQuery(listed);
  const jobs = kept && 'rows' in kept ? kept.rows : undefined;
  return (
    <Panel title="Your jobs" hint="kept in this browser" flex="1" actions={<BeginJob acts={acts} />}>
      {refused.length > 0 && <Refused findings={refused} onClose={onSeen} />}
      {kept && 'why' in kept && <Empty>{saysStorage(kept.why)}</Empty>}
      {jobs?.length === 0 && (
        <Empty>
          Nothing here yet. Begin a new job, or take one of the samples beside: each opens complete, from its equations
          to its lamps.
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
      <PickFile says="Import a file" label="job file" accept=".json,.sheet,.v,.csv" onPick={acts.bring} />
      <Button variant="solid" onClick={() => void acts.startNew()}>
        New job
      </Button>
    </>
  );
}

/** What can be done on the shelf; what is refused goes to `refuse`. */
function useShelf(refuse: (findings: readonly Finding[]) => void) {
  const navigate = useNavigate();
  const open = (id: string) => navigate(`/job/${id}/design`);
  const take = async (brought: Promise<Brought>): Promise<void> => {
    const result = await brought;
    if (!('id' in result)) return refuse(result.findings);
    const [first, ...more] = result.partly ?? [];
    if (first) tell(`Left out: ${says(first)}${more.length > 0 ? ` And ${more.length} more.` : ''}`);
    await open(result.id);
  };
  const bring = (file: File | undefined): void => {
    if (file) void trying(() => take(bringFile(file)));
  };
  const startNew = (): Promise<void> => trying(async () => open(await shelf.addNew()));
  const duplicate = (row: ShelfRow): Promise<void> =>
    trying(async () => {
      const made = await bringText(row.text);
      if (!('id' in made)) refuse(made.findings);
    });
  const putBack = (id: string): Promise<void> => trying(() => shelf.putBack(id));
  const remove = (id: string, name: string): Promise<void> =>
    trying(async () => {
      await shelf.delete(id);
      tell(`${name} is in the bin.`, { label: 'Put back', onClick: () => void putBack(id) });
    });
  return { open, take, bring, startNew, duplicate, putBack, remove };
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

function Refused({ findings, onClose }: { readonly findings: readonly Finding[]; readonly onClose: () => void }) {
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
        <Text fontWeight="700">The file was not imported; nothing else has changed.</Text>
        <Button ml="auto" variant="ghost" onClick={onClose}>
          Close
        </Button>
      </Flex>
      {findings.map((f) => (
        <FindingLine key={says(f)} finding={f} />
      ))}
    </Box>
  );
}
