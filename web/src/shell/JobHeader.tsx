import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { writeJobFile } from '@saddlebag/core';
import { memo, type ReactNode, Suspense, useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { fetched } from '../base/fetched';
import { useJobView, useSession } from '../base/job-context';
import { useIsNarrow } from '../base/narrow';
import { Brand } from '../kit/Brand';
import { DropDown } from '../kit/DropDown';
import { download, fileName } from '../kit/download';
import { RenameJob } from '../kit/RenameJob';
import { SearchButton } from '../kit/SearchButton';
import { ThemeButton } from '../kit/ThemeButton';
import { TipButton } from '../kit/Tip';
import { DiskButton } from './DiskButton';

const { Shown: VersionsLeaf } = fetched(async () => (await import('./VersionsLeaf')).VersionsLeaf);

const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });

/** The top line: the job's name, whether it is kept, undo and redo, and taking it out. */
export const JobHeader = memo(function JobHeader() {
  const { name } = useJobView().job;
  const session = useSession();
  const hasFailed = useSyncExternalStore(session.subscribe, () => session.snapshot().saveState === 'failed');
  const [naming, setNaming] = useState(false);
  const isNarrow = useIsNarrow();
  return (
    <Flex
      as="header"
      align="center"
      gap="12px"
      px="18px"
      minH="42px"
      py={isNarrow ? '5px' : '0'}
      flexShrink={0}
      css={{ '@media print': { display: 'none' } }}
    >
      <Brand isShort={isNarrow} />
      <Box w="1px" h="18px" bg="line" flexShrink={0} />
      <TipButton
        variant="ghost"
        onClick={() => setNaming(true)}
        tip="rename"
        px="4px"
        maxW="420px"
        minW="0"
        flexShrink={1}
      >
        <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="17px" truncate>
          {name}
        </Text>
      </TipButton>
      {!isNarrow && <Kept />}
      <Flex ml="auto" gap="8px" flexShrink={0}>
        {isNarrow ? (
          <>
            <BackAndForth />
            <DropDown label="more" face="⋯" top="46px" variant={hasFailed ? 'solid' : 'outline'}>
              <Kept />
              <Flex direction="column" gap="8px" mt="8px" align="stretch">
                <JobButtons hasFailed={hasFailed} />
              </Flex>
            </DropDown>
          </>
        ) : (
          <JobButtons hasFailed={hasFailed}>
            <BackAndForth />
          </JobButtons>
        )}
      </Flex>
      {naming && (
        <RenameJob
          name={name}
          onRename={(name) => session.dispatch({ kind: 'rename', name })}
          onClose={() => setNaming(false)}
        />
      )}
    </Flex>
  );
});

interface JobButtonsProps {
  readonly hasFailed: boolean;
  /** What stands before taking the job out. */
  readonly children?: ReactNode;
}

/** To the parts, the theme, and the job as a file. */
function JobButtons({ hasFailed, children }: JobButtonsProps) {
  const { name } = useJobView().job;
  const session = useSession();
  const navigate = useNavigate();
  return (
    <>
      <SearchButton />
      <VersionsButton />
      <Button onClick={() => void navigate('/parts')}>Parts</Button>
      <ThemeButton />
      {children}
      <DiskButton />
      <Button
        variant={hasFailed ? 'solid' : 'outline'}
        onClick={() => download(fileName(name, '.saddlebag.json'), writeJobFile(session.job))}
      >
        Export
      </Button>
    </>
  );
}

function VersionsButton() {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <TipButton tip="versions of this job kept by name, and what differs" onClick={() => setOpen(true)}>
        Versions
      </TipButton>
      {isOpen && (
        <Suspense fallback={null}>
          <VersionsLeaf onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

/** Whether the job is kept, and since when. */
function Kept() {
  const session = useSession();
  const state = useSyncExternalStore(session.subscribe, () => session.snapshot().saveState);
  const at = useSyncExternalStore(session.subscribe, () => session.snapshot().savedAtMs);
  return (
    <Text color={state === 'failed' ? 'bad' : 'soft'} fontSize="12.5px" role="status">
      {state === 'saved' && `kept in this browser · ${clock.format(at)}`}
      {state === 'pending' && 'keeping …'}
      {state === 'failed' && 'not kept: the browser’s storage is full or closed. Export the job.'}
    </Text>
  );
}

/** Undo and redo, each with what it would do. */
function BackAndForth() {
  const session = useSession();
  const last = useSyncExternalStore(session.subscribe, () => session.snapshot().history.past.at(-1)?.says);
  const next = useSyncExternalStore(session.subscribe, () => session.snapshot().history.future.at(-1)?.says);
  return (
    <>
      <TipButton disabled={last === undefined} onClick={() => session.undo()} tip={last && `undo ${last}`}>
        Undo
      </TipButton>
      <TipButton disabled={next === undefined} onClick={() => session.redo()} tip={next && `redo ${next}`}>
        Redo
      </TipButton>
    </>
  );
}
