import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { writeJobFile } from '@saddlebag/core';
import { memo, useState, useSyncExternalStore } from 'react';
import { useNavigate } from 'react-router';
import { download, fileName } from '../kit/download';
import { RenameJob } from '../kit/RenameJob';
import { Brand } from './Brand';
import { useJobView } from './job-context';
import { ThemeButton } from './ThemeButton';

const clock = new Intl.DateTimeFormat(undefined, { hour: '2-digit', minute: '2-digit' });

/** The top line: the job's name, whether it is kept, undo and redo, and taking it out. */
export const JobHeader = memo(function JobHeader() {
  const { job, session } = useJobView();
  const { history, saveState, savedAtMs } = useSyncExternalStore(session.subscribe, session.snapshot);
  const [naming, setNaming] = useState(false);
  const navigate = useNavigate();
  const last = history.past[history.past.length - 1];
  const next = history.future[history.future.length - 1];
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
      <Button variant="ghost" onClick={() => setNaming(true)} title="rename" px="4px" maxW="420px">
        <Text as="h1" fontFamily="heading" fontWeight="600" fontSize="17px" truncate>
          {job.name}
        </Text>
      </Button>
      <Text color={saveState === 'failed' ? 'bad' : 'soft'} fontSize="12.5px" role="status">
        {saveState === 'saved' && `kept in this browser · ${clock.format(savedAtMs)}`}
        {saveState === 'pending' && 'keeping …'}
        {saveState === 'failed' && 'not kept: the browser’s storage is full or shut. Take the job out.'}
      </Text>
      <Flex ml="auto" gap="8px">
        <Button onClick={() => void navigate('/parts')}>Parts</Button>
        <ThemeButton />
        <Button disabled={!last} onClick={() => session.undo()} title={last && `undo ${last.says}`}>
          Undo
        </Button>
        <Button disabled={!next} onClick={() => session.redo()} title={next && `redo ${next.says}`}>
          Redo
        </Button>
        <Button
          variant={saveState === 'failed' ? 'solid' : 'outline'}
          onClick={() => download(fileName(job.name, '.saddlebag.json'), writeJobFile(job))}
        >
          Take out
        </Button>
      </Flex>
      {naming && (
        <RenameJob
          name={job.name}
          onRename={(name) => session.dispatch({ kind: 'rename', name })}
          onClose={() => setNaming(false)}
        />
      )}
    </Flex>
  );
});
