import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { EVERYWHERE, ON_THE_MAT, type ShortcutGroup, useShortcuts, useShownShortcuts } from '../base/shortcuts';
import { Leaf } from './Leaf';
import { KeyCap } from './Panel';
import { TipButton } from './Tip';

/** Opens the list of all keys that work on this screen; so does `?`. */
export function KeysButton() {
  const [open, setOpen] = useState(false);
  useShortcuts(EVERYWHERE, [{ cap: '?', does: 'all keys', keys: ['Shift+?', '?'], take: () => setOpen(true) }]);
  return (
    <>
      <TipButton flexShrink={0} tip="all keys of this screen: ?" onClick={() => setOpen(true)}>
        <KeyCap>?</KeyCap> all keys
      </TipButton>
      {open && <KeySheet onClose={() => setOpen(false)} />}
    </>
  );
}

function KeySheet({ onClose }: { readonly onClose: () => void }) {
  const groups = inOrder(useShownShortcuts());
  return (
    <Leaf label="keys" title="Keys of this screen" onClose={onClose}>
      <Flex gap="28px" overflowY="auto" fontSize="13px">
        {[groups.filter((g) => !isShared(g)), groups.filter(isShared)].map((column) => (
          <Box key={column[0]?.place} flex="1" _empty={{ display: 'none' }}>
            {column.map((group) => (
              <Group key={group.place} group={group} />
            ))}
          </Box>
        ))}
      </Flex>
    </Leaf>
  );
}

function Group({ group: { place, shortcuts } }: { readonly group: ShortcutGroup }) {
  return (
    <Box as="section" mb="14px">
      <Heading as="h3" fontFamily="heading" fontWeight="600" fontSize="14px" mb="4px">
        {place}
      </Heading>
      {shortcuts.map(({ cap, does }) => (
        <Flex key={`${cap} ${does}`} align="center" gap="8px" py="2px">
          <Box w="104px" flexShrink={0}>
            <KeyCap>{cap}</KeyCap>
          </Box>
          <Text>{does}</Text>
        </Flex>
      ))}
    </Box>
  );
}

const shared: readonly string[] = [ON_THE_MAT, EVERYWHERE];
const isShared = ({ place }: ShortcutGroup): boolean => shared.includes(place);

/** Groups of one place as one: the screen's own in the order in which they came, then those that screens share. */
export function inOrder(groups: readonly ShortcutGroup[]): readonly ShortcutGroup[] {
  const places = [...new Set(groups.map((g) => g.place))];
  return places
    .sort((a, b) => shared.indexOf(a) - shared.indexOf(b))
    .map((place) => ({ place, shortcuts: groups.flatMap((g) => (g.place === place ? g.shortcuts : [])) }));
}
