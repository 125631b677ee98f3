import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { type Differences, differences, type Finding, type Job } from '@saddlebag/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useJobView } from '../base/job-context';
import { says } from '../base/words';
import { Leaf } from '../kit/Leaf';
import { tell } from '../kit/notices';
import { TextField } from '../kit/TextField';
import type { VersionRow } from '../store/db';
import { shelf } from '../store/shelf';
import { dropVersion, keepVersion, MOST_VERSIONS, versionsOf } from '../store/versions';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** The versions of the job that were kept by name: one more, what differs from one, one as a job of its own. */
export function VersionsLeaf({ onClose }: { readonly onClose: () => void }) {
  const { id, job } = useJobView();
  const versions = useLiveQuery(() => versionsOf(id), [id]);
  const [compared, setCompared] = useState<{ readonly id: string; readonly found: Differences } | null>(null);
  const compare = async (version: VersionRow): Promise<void> => {
    const before = await jobOf(version);
    if (before) setCompared({ id: version.id, found: differences(before, job) });
  };
  return (
    <Leaf label="versions" title="Versions" onClose={onClose}>
      <KeepVersion />
      <Box as="ul" listStyleType="none" overflowY="auto" mt="10px" aria-label="versions kept">
        {versions?.map((version) => (
          <Box as="li" key={version.id} borderTopWidth="1px" borderColor="line" py="6px">
            <VersionLine version={version} onCompare={() => void compare(version)} onClose={onClose} />
            {compared?.id === version.id && <Differing found={compared.found} />}
          </Box>
        ))}
        {versions?.length === 0 && (
          <Text color="soft" py="8px">
            None yet. A version keeps the job as it is now, whatever becomes of it; every step since can still be undone
            besides.
          </Text>
        )}
      </Box>
    </Leaf>
  );
}

/** The job of a version; null, and told, where its text cannot be read any more. */
async function jobOf({ text }: VersionRow): Promise<Job | null> {
  const { readJobFile } = await import('@saddlebag/core/job-reader');
  const read = readJobFile(text);
  if (read.ok) return read.job;
  tell(read.findings.map((f: Finding) => says(f)).join(' '));
  return null;
}

function KeepVersion() {
  const { id, session } = useJobView();
  const [name, setName] = useState('');
  const keep = async (): Promise<void> => {
    const isKept = await keepVersion(id, name.trim(), session.job);
    if (isKept) setName('');
    else tell(`${MOST_VERSIONS} versions are the most; let one go first.`);
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() !== '') void keep();
      }}
    >
      <Flex gap="10px" align="end">
        <Box flex="1">
          <TextField label="Keep the job as it is now, as" value={name} onChange={setName} />
        </Box>
        <Button size="md" variant="solid" type="submit" disabled={name.trim() === ''}>
          Keep
        </Button>
      </Flex>
    </form>
  );
}

interface VersionLineProps {
  readonly version: VersionRow;
  readonly onCompare: () => void;
  readonly onClose: () => void;
}

function VersionLine({ version, onCompare, onClose }: VersionLineProps) {
  const navigate = useNavigate();
  const open = async (): Promise<void> => {
    const job = await jobOf(version);
    if (!job) return;
    const made = await shelf.add({ ...job, name: `${job.name}: ${version.name}`.slice(0, 200) });
    onClose();
    await navigate(`/job/${made}/design`);
  };
  return (
    <Flex align="center" gap="8px" wrap="wrap">
      <Text fontWeight="700" flex="1" minW="120px" truncate>
        {version.name}
      </Text>
      <Text color="soft" fontSize="12.5px">
        {when.format(version.at)}
      </Text>
      <Button onClick={onCompare} aria-label={`What differs from ${version.name}`}>
        What differs
      </Button>
      <Button onClick={() => void open()} aria-label={`Open ${version.name} as a job of its own`}>
        Open as a job
      </Button>
      <Button color="bad" onClick={() => void dropVersion(version.id)} aria-label={`Let ${version.name} go`}>
        Let go
      </Button>
    </Flex>
  );
}

/** The most differences of either sort that are listed. */
const MOST_LISTED = 200;

function Differing({ found: { lines, things } }: { readonly found: Differences }) {
  if (lines.length + things.length === 0)
    return (
      <Text color="ok" role="status">
        Nothing differs.
      </Text>
    );
  return (
    <Box maxH="260px" overflowY="auto" tabIndex={0} role="region" aria-label="what differs" mt="4px" fontSize="12.5px">
      {lines.slice(0, MOST_LISTED).map(({ kind, line, text }) => (
        <Text key={`${kind} ${line}`} fontFamily="mono" color={kind === 'added' ? 'ok' : 'bad'} whiteSpace="pre-wrap">
          {`${kind === 'added' ? '+' : '−'} ${String(line).padStart(3)} ${text}`}
        </Text>
      ))}
      {things.slice(0, MOST_LISTED).map(({ about, says: words }) => (
        <Text key={about}>
          <b>{about}</b> {words}
        </Text>
      ))}
      {lines.length + things.length > MOST_LISTED && <Text color="soft">and more</Text>}
    </Box>
  );
}
