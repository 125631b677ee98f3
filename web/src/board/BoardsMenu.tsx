import { Button, Menu, Portal } from '@chakra-ui/react';
import { breadboardKinds, breadboardTitles, hasBareBoard, nextBreadboard } from '@saddlebag/core';
import { useJobView } from '../base/job-context';

interface Entry {
  readonly title: string;
  /** What one would type. */
  readonly says: string;
}

const entryFor = (kind: (typeof breadboardKinds)[number], where: '' | ' right'): Entry => ({
  title: breadboardTitles[kind].replace('breadboard, ', ''),
  says: `board ${kind}${where}`,
});

/** Boards of every kind to add, below or beside, and bare ones to remove. Each entry is what one would type. */
export function BoardsMenu({ onSay }: { readonly onSay: (text: string) => boolean }) {
  const { board } = useJobView().job;
  const beside = breadboardKinds.filter((kind) => nextBreadboard(board, kind, true) !== null);
  const bare = board.breadboards.filter((b) => board.breadboards.length > 1 && hasBareBoard(board, b.id));
  const groups: readonly (readonly [title: string, entries: readonly Entry[]])[] = [
    ['add below', breadboardKinds.map((kind) => entryFor(kind, ''))],
    ['add on the right', beside.map((kind) => entryFor(kind, ' right'))],
    ['remove', bare.map(({ id }) => ({ title: id, says: `pull ${id}` }))],
  ];
  return (
    <Menu.Root onSelect={(e) => onSay(e.value)} positioning={{ placement: 'bottom-start' }} lazyMount unmountOnExit>
      <Menu.Trigger asChild>
        <Button>Boards …</Button>
      </Menu.Trigger>
      <Portal>
        <Menu.Positioner>
          <Menu.Content
            bg="card"
            borderWidth="1px"
            borderColor="line"
            rounded="8px"
            p="6px"
            minW="260px"
            fontSize="13.5px"
            zIndex="10"
            boxShadow="0 8px 24px rgba(0,0,0,0.18)"
            outline="none"
          >
            {groups.map(([title, entries]) => entries.length > 0 && <Group key={title} title={title} of={entries} />)}
          </Menu.Content>
        </Menu.Positioner>
      </Portal>
    </Menu.Root>
  );
}

function Group({ title, of }: { readonly title: string; readonly of: readonly Entry[] }) {
  return (
    <Menu.ItemGroup>
      <Menu.ItemGroupLabel px="8px" pt="4px" pb="2px" color="soft" fontSize="12.5px">
        {title}
      </Menu.ItemGroupLabel>
      {of.map((entry) => (
        <Menu.Item
          key={entry.says}
          value={entry.says}
          px="8px"
          py="3px"
          rounded="4px"
          cursor="pointer"
          _highlighted={{ bg: 'wash' }}
        >
          {entry.title}
        </Menu.Item>
      ))}
    </Menu.ItemGroup>
  );
}
