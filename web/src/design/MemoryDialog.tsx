import { Box, Flex } from '@chakra-ui/react';
import { chipLibrary, chips, type Finding, MAX_CONTENTS_LENGTH, memoryFromFile, withPart } from '@saddlebag/core';
import { useRef, useState } from 'react';
import { useJobView } from '../base/job-context';
import { Choice } from '../kit/Choice';
import { FindingLine } from '../kit/FindingLine';
import { FormDialog } from '../kit/FormDialog';
import { PickFile } from '../kit/PickFile';
import { TextField } from '../kit/TextField';

const memories = chips.filter((chip) => chip.memory);

/** Puts a memory on the sheet that holds what a file says; a memory of that name is programmed anew. */
export function MemoryDialog({ onClose }: { readonly onClose: () => void }) {
  const { session } = useJobView();
  const first = useRef<HTMLInputElement>(null);
  const [number, setNumber] = useState('74288');
  const [name, setName] = useState('MAP');
  const [file, setFile] = useState<{ readonly name: string; readonly text: string } | null>(null);
  const [findings, setFindings] = useState<readonly Finding[]>([]);
  const pick = async (picked: File): Promise<void> => {
    setFindings([]);
    setFile({ name: picked.name, text: await picked.slice(0, MAX_CONTENTS_LENGTH + 1).text() });
  };
  const program = (): void => {
    const title = file?.name.replace(/\.\w+$/, '').replaceAll('"', '') ?? '';
    const made = memoryFromFile(file?.text ?? '', { name: name.trim(), title, number }, chipLibrary);
    if (made.part === null) setFindings(made.findings);
    else {
      session.dispatch({ kind: 'write-sheet', text: withPart(session.job.sheet, name.trim(), made.part) });
      onClose();
    }
  };
  return (
    <FormDialog
      title="A memory from a file"
      done="Put on the sheet"
      canEnd={file !== null && name.trim() !== ''}
      first={first}
      onDone={program}
      onClose={onClose}
    >
      <TextField ref={first} label="What the sheet calls it" value={name} onChange={setName} />
      <Box mt="12px" mb="4px">
        Memory
      </Box>
      <Choice label="Memory" value={number} width="100%" onChange={setNumber}>
        {memories.map(({ base, title }) => (
          <option key={base} value={base}>
            {base}: {title}
          </option>
        ))}
      </Choice>
      <Flex align="center" gap="10px" mt="14px">
        <PickFile says="Choose a file" label="what it holds" accept=".hex,.ihx,.txt,.csv,.mem" onPick={pick} />
        <Box color="soft" fontSize="13px" aria-live="polite">
          {file?.name ?? 'Intel HEX, words in hexadecimal, or CSV of addresses and words'}
        </Box>
      </Flex>
      {findings.map((one) => (
        <FindingLine key={one.code} finding={one} />
      ))}
    </FormDialog>
  );
}
