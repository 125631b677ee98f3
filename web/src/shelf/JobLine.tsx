import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { NARROW } from '../base/narrow';
import { download, fileName } from '../kit/download';
import { tell } from '../kit/notices';
import { RenameJob } from '../kit/RenameJob';
import type { ShelfRow } from '../store/shelf';
import { renameRow } from './rename';

interface JobLineProps {
  readonly row: ShelfRow;
  readonly onOpen: () => void;
  readonly onDuplicate: () => void;
  readonly onDelete: () => void;
}

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** A job on the shelf: its name, its signals, how far it is, and what can be done with it. */
export function JobLine({ row, onOpen, onDuplicate, onDelete }: JobLineProps) {
  const [naming, setNaming] = useState(false);
  const { inputs, outputs, chips, jumpers } = row.summary;
  const locks = `${chips} ${chips === 1 ? 'chip' : 'chips'}`;
  const rename = async (name: string): Promise<void> => {
    const problem = await renameRow(row.id, name);
    if (problem !== null) tell(problem);
  };
  return (
    <Flex
      as="li"
      align="center"
      gap="14px"
      px="12px"
      py="8px"
      borderTopWidth="1px"
      borderColor="line"
      _hover={{ bg: 'wash' }}
      css={{ [NARROW]: { flexWrap: 'wrap', rowGap: '6px' } }}
    >
      <Box minW="0" position="relative" css={{ flex: 1, [NARROW]: { flexBasis: '100%' } }}>
        <Box
          as="button"
          display="block"
          maxW="100%"
          textAlign="left"
          cursor="pointer"
          onClick={onOpen}
          aria-label={`Open ${row.name}`}
          // The whole entry can be pressed; only the name is the button's own.
          _after={{ content: '""', position: 'absolute', inset: 0 }}
        >
          <Text fontFamily="heading" fontWeight="600" fontSize="17px" truncate>
            {row.name}
          </Text>
        </Box>
        <Text fontFamily="mono" fontSize="12px" color="soft" truncate>
          {row.damaged
            ? 'damaged: what is left of it can be exported'
            : inputs.length === 0 && outputs.length === 0
              ? 'an empty sheet'
              : `${inputs.join(' ')} → ${outputs.join(' ')}`}
        </Text>
      </Box>
      <Text color="soft" fontSize="12.5px" flexShrink={0} css={{ width: '150px', [NARROW]: { width: '100%' } }}>
        {chips + jumpers === 0 ? 'no board yet' : jumpers > 0 ? `${locks}, ${jumpers} jumpers` : locks}
        <br />
        {row.changedAt > 0 && when.format(row.changedAt)}
      </Text>
      <Flex gap="4px" flexShrink={0}>
        <Button onClick={() => setNaming(true)} aria-label={`Rename ${row.name}`}>
          Rename
        </Button>
        <Button onClick={onDuplicate} aria-label={`Duplicate ${row.name}`}>
          Duplicate
        </Button>
        <Button
          onClick={() => download(fileName(row.name, '.saddlebag.json'), row.text)}
          aria-label={`Export ${row.name}`}
        >
          Export
        </Button>
        <Button onClick={onDelete} aria-label={`Delete ${row.name}`} color="bad">
          Delete
        </Button>
      </Flex>
      {naming && <RenameJob name={row.name} onRename={(name) => void rename(name)} onClose={() => setNaming(false)} />}
    </Flex>
  );
}
