import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Finding, says } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Brand } from '../app/Brand';
import { ThemeButton } from '../app/ThemeButton';
import { FindingLine } from '../kit/FindingLine';
import { Leather } from '../kit/Leather';
import { tell } from '../kit/notices';
import { Empty, KeyCap, Panel } from '../kit/Panel';
import { shelf } from '../store/shelf';
import { type Brought, bringFile, bringText } from './bring';
import { JobLine } from './JobLine';
import { SampleList } from './SampleList';

/** The list of jobs kept in this browser, and the samples to begin from. */
export function ShelfPage() {
  const jobs = useLiveQuery(() => shelf.list());
  const navigate = useNavigate();
  const [refused, setRefused] = useState<readonly Finding[]>([]);
  const picker = useRef<HTMLInputElement>(null);
  useEffect(() => {
    document.title = 'Saddlebag';
  }, []);
  const open = (id: string) => navigate(`/job/${id}/design`);
  const take = async (brought: Promise<Brought>): Promise<void> => {
    const result = await brought;
    if (!('id' in result)) return setRefused(result.findings);
    const [first, ...more] = result.partly ?? [];
    if (first) tell(`Left out: ${says(first)}${more.length > 0 ? ` And ${more.length} more.` : ''}`);
    await open(result.id);
  };
  const bring = (file: File | undefined): void => {
    if (file) void take(bringFile(file)).catch((e: unknown) => tell(`The file could not be read: ${String(e)}`));
  };
  const startNew = async (): Promise<void> => open(await shelf.addNew());
  const duplicate = async (id: string): Promise<void> => {
    const row = await shelf.get(id);
    if (row) await bringText(row.text);
  };
  const remove = async (id: string, name: string): Promise<void> => {
    await shelf.delete(id);
    tell(`${name} is off the shelf.`, { label: 'Put back', onClick: () => void shelf.putBack(id) });
  };
  return (
    <Flex
      direction="column"
      h="100%"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        bring(e.dataTransfer.files[0]);
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
        <Panel
          title="Your jobs"
          hint="kept in this browser"
          flex="1"
          actions={
            <>
              <Button onClick={() => picker.current?.click()}>Bring in a file</Button>
              <Button variant="solid" onClick={() => void startNew()}>
                New job
              </Button>
            </>
          }
        >
          <input
            ref={picker}
            type="file"
            accept=".json,.sheet,.v,.csv"
            hidden
            aria-label="job file"
            onChange={(e) => {
              bring(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
          {refused.length > 0 && <Refused findings={refused} onClose={() => setRefused([])} />}
          {jobs?.length === 0 && (
            <Empty>
              Nothing here yet. Begin a new job, or take one of the samples beside: each opens complete, from its
              equations to its lamps.
            </Empty>
          )}
          <Box as="ul" listStyleType="none" overflowY="auto" flex="1" minH="0">
            {jobs?.map((row) => (
              <JobLine
                key={row.id}
                row={row}
                onOpen={() => void open(row.id)}
                onDuplicate={() => void duplicate(row.id)}
                onDelete={() => void remove(row.id, row.name)}
              />
            ))}
          </Box>
        </Panel>
        <SampleList onTake={(text) => take(bringText(text))} />
      </Flex>
      <Flex as="footer" px="18px" h="34px" align="center" gap="8px" color="soft" fontSize="12.5px" flexShrink={0}>
        <KeyCap>Tab</KeyCap> from job to job <KeyCap>Enter</KeyCap> open
        <Text ml="auto">A job, a sheet, Verilog or a CSV table dropped on the shelf is brought in.</Text>
      </Flex>
    </Flex>
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
        <Text fontWeight="700">The file was not brought in; nothing else has changed.</Text>
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
