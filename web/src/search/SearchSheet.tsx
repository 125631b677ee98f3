import { Box, createListCollection, Dialog, Flex, Listbox, Portal, Text } from '@chakra-ui/react';
import { useMemo, useRef, useState } from 'react';
import type { Searchable } from '../base/searchable';
import { KeyCap } from '../kit/Panel';
import { found } from './found';
import { useFindable } from './use-findable';

const keyOf = ({ kind, title, detail }: Searchable): string => `${kind} ${title} ${detail}`;

/** The search over everything: words narrow it, arrows and Enter take, Esc leaves. */
export function SearchSheet({ onClose }: { readonly onClose: () => void }) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <Dialog.Root
      open
      onOpenChange={({ open }) => !open && onClose()}
      initialFocusEl={() => field.current}
      size="lg"
      motionPreset="none"
      placement="top"
    >
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="card" rounded="10px" p="12px" mt="8vh" aria-label="search">
            <Search field={field} onClose={onClose} />
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

interface SearchProps {
  readonly field: React.RefObject<HTMLInputElement | null>;
  readonly onClose: () => void;
}

function Search({ field, onClose }: SearchProps) {
  const [words, setWords] = useState('');
  const [pointed, setPointed] = useState<string | null>(null);
  const all = useFindable(words);
  const list = useMemo(() => found(all, words), [all, words]);
  const collection = useMemo(
    () => createListCollection({ items: [...list], itemToValue: keyOf, itemToString: (one) => one.title }),
    [list],
  );
  const [first] = list;
  const isListed = list.some((one) => keyOf(one) === pointed);
  const take = (key: string | undefined): void => {
    const one = list.find((other) => keyOf(other) === key);
    if (!one) return;
    onClose();
    one.take();
  };
  return (
    <Listbox.Root
      collection={collection}
      value={[]}
      highlightedValue={isListed ? pointed : first ? keyOf(first) : null}
      onHighlightChange={(e) => setPointed(e.highlightedValue)}
      onValueChange={(e) => take(e.value[0])}
    >
      <Listbox.Label srOnly>find an action, a step, a finding, a part, a job</Listbox.Label>
      <Field field={field} words={words} onWords={setWords} />
      <FoundList list={list} words={words} />
    </Listbox.Root>
  );
}

interface FieldProps extends Pick<SearchProps, 'field'> {
  readonly words: string;
  readonly onWords: (words: string) => void;
}

function Field({ field, words, onWords }: FieldProps) {
  return (
    <Listbox.Input
      ref={field}
      role="combobox"
      aria-expanded="true"
      aria-label="find anything"
      placeholder="lay out, decade counter, U1, floating, Boat tally …"
      _placeholder={{ color: 'soft' }}
      w="100%"
      h="40px"
      px="12px"
      fontSize="16px"
      bg="paper"
      borderWidth="1px"
      borderColor="line"
      rounded="6px"
      value={words}
      onChange={(e) => onWords(e.target.value)}
    />
  );
}

function FoundList({ list, words }: { readonly list: readonly Searchable[]; readonly words: string }) {
  if (list.length === 0)
    return (
      <Text px="12px" pt="12px" color="soft" role="status">
        Nothing is found by “{words}”.
      </Text>
    );
  return (
    <Listbox.Content mt="8px" maxH="56vh" overflowY="auto">
      {list.map((one) => (
        <Listbox.Item
          key={keyOf(one)}
          item={one}
          display="flex"
          alignItems="baseline"
          gap="10px"
          px="10px"
          py="6px"
          rounded="6px"
          cursor="pointer"
          _highlighted={{ bg: 'wash' }}
        >
          <Box as="span" w="92px" flexShrink={0} color="soft" fontSize="12px">
            {one.kind}
          </Box>
          <Flex
            as="span"
            direction={one.kind === 'help' ? 'column' : 'row'}
            gap="0 10px"
            flex="1"
            minW="0"
            align="baseline"
          >
            <Text as="span" fontWeight="700" flexShrink={0} maxW="100%" truncate>
              {one.title}
            </Text>
            <Text as="span" color="soft" fontSize="13px" minW="0" truncate={one.kind !== 'help'}>
              {one.detail}
            </Text>
          </Flex>
          {one.cap !== undefined && <KeyCap>{one.cap}</KeyCap>}
        </Listbox.Item>
      ))}
    </Listbox.Content>
  );
}
