import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { writeJobFile } from '@saddlebag/core';
import { memo, useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { useJobView, useSession } from '../base/job-context';
import { Brand } from '../kit/Brand';
import { download, fileName } from '../kit/download';
import { RenameJob } from '../kit/RenameJob';
import { ThemeButton } from '../kit/ThemeButton';
import { TipButton } from '../kit/Tip';

const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });

/** The top line: the job's name, whether it is kept, undo and redo, and taking it out. */
export const JobHeader = memo(function JobHeader() {
  const { name } = useJobView().job;
  const session = useSession();
  const hasFailed = useSyncExternalStore(session.subscribe, () => session.snapshot().saveState === 'failed');
  const [naming, setNaming] = useState(false);
  const navigate = useNavigate();
  return (
    <Flex
      as="header"
      align="center"
      gap="12px"
      px="18px"
      h="42px"
      flexShrink={0}
      css={{ '@media print': { display: 'none' } }}
    >
      <Brand />
      <Box w="1px" h="18px" bg="line" />
      <TipButton variant="ghost" onClick={() => setNaming(true)} tip="rename" px="4px" maxW="420px">
        <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="17px" truncate>
          {name}
        </Text>
      </TipButton>
      <Kept />
      <Flex ml="auto" gap="8px">
        <Button onClick={() => void navigate('/parts')}>Parts</Button>
        <ThemeButton />
        <BackAndForth />
        <Button
          variant={hasFailed ? 'solid' : 'outline'}
          onClick={() => download(fileName(name, '.saddlebag.json'), writeJobFile(session.job))}
        >
          Export
        </Button>
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
