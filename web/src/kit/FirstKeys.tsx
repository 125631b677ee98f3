import { Flex, Text } from '@chakra-ui/react';
import { useShownShortcuts } from '../base/shortcuts';
import { inOrder, KeysButton } from './KeysButton';
import { KeyCap } from './Panel';

/** The keys that are used most on this screen, and the way to all of them. */
export function FirstKeys() {
  const first = inOrder(useShownShortcuts()).flatMap((group) => group.shortcuts.filter((s) => s.isFirst));
  return (
    <>
      {first.map(({ cap, does }) => (
        <Flex key={cap} gap="5px" align="center" flexShrink={0}>
          <KeyCap>{cap}</KeyCap>
          <Text>{does}</Text>
        </Flex>
      ))}
      <KeysButton />
    </>
  );
}
