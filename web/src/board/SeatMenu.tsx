import { Box, Button, createListCollection, Flex, Listbox, Popover, Portal, Text } from '@chakra-ui/react';
import { benchParts, chips, partNumber, partType, searchParts } from '@saddlebag/core';
import { useMemo, useRef, useState } from 'react';
import { colour } from '../base/colours';
import { SvgText } from '../kit/SvgText';

interface Seatable {
  readonly name: string;
  readonly title: string;
}

const all: readonly Seatable[] = [
  ...benchParts.map((p) => ({ name: p.id, title: p.title })),
  ...chips.map((c) => ({
    name: partNumber(c.base, c.families.includes('HC') ? 'HC' : (c.families[0] ?? 'HC')),
    title: c.title,
  })),
];
const byName = new Map(all.map((s) => [s.name, s]));
/** What was seated last, the newest first; for this visit. */
let recent: readonly string[] = [];
const MOST_RECENT = 6;

/** Parts that a person may mean: by number, by what they do, by kind; without words what was seated last and then all. */
function found(words: string): readonly Seatable[] {
  const first = recent.flatMap((name) => byName.get(name) ?? []);
  if (words.trim() === '') return [...first, ...all.filter((s) => !recent.includes(s.name))];
  const plain = words.toLowerCase();
  const starts = all.filter((s) => s.name.toLowerCase().includes(plain) || s.title.toLowerCase().includes(plain));
  const meant = searchParts(words).flatMap(({ number, id }) => byName.get(number) ?? byName.get(id) ?? []);
  return [...new Set([...starts.filter((s) => recent.includes(s.name)), ...meant, ...starts])];
}

/** Finds a part to seat: a search over numbers, functions and kinds, each with its outline; arrows and Enter choose. */
export function SeatMenu({ onSeat }: { readonly onSeat: (part: string) => void }) {
  const [open, setOpen] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const seat = (name: string): void => {
    recent = [name, ...recent.filter((r) => r !== name)].slice(0, MOST_RECENT);
    setOpen(false);
    onSeat(name);
  };
  return (
    <Popover.Root
      open={open}
      onOpenChange={(e) => setOpen(e.open)}
      initialFocusEl={() => field.current}
      positioning={{ placement: 'bottom-start' }}
      lazyMount
      unmountOnExit
    >
      <Popover.Trigger asChild>
        <Button>Seat a part</Button>
      </Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content
            aria-label="seat a part"
            w="560px"
            bg="card"
            borderWidth="1px"
            borderColor="line"
            rounded="8px"
            p="8px"
            zIndex="10"
            boxShadow="0 8px 24px rgba(0,0,0,0.18)"
          >
            <Search field={field} onSeat={seat} />
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

/** Parts that are listed; more words find the others. */
const MOST_LISTED = 60;

interface SearchProps {
  readonly field: React.RefObject<HTMLInputElement | null>;
  readonly onSeat: (name: string) => void;
}

/** The field, what is found by it, and the outline of what is chosen. */
function Search({ field, onSeat }: SearchProps) {
  const [words, setWords] = useState('');
  const list = useMemo(() => found(words).slice(0, MOST_LISTED), [words]);
  const [pointed, setPointed] = useState<string | null>(null);
  const collection = useMemo(
    () => createListCollection({ items: [...list], itemToValue: (s) => s.name, itemToString: (s) => s.name }),
    [list],
  );
  const chosen = list.find((s) => s.name === pointed) ?? list[0];
  return (
    <Listbox.Root
      collection={collection}
      value={[]}
      highlightedValue={chosen?.name ?? null}
      onHighlightChange={(e) => setPointed(e.highlightedValue)}
      onValueChange={(e) => e.value[0] !== undefined && onSeat(e.value[0])}
    >
      <Listbox.Label srOnly>find a part to seat</Listbox.Label>
      <Listbox.Input
        ref={field}
        role="combobox"
        aria-expanded="true"
        aria-label="find a part to seat"
        placeholder="7400, decade counter, LED …"
        _placeholder={{ color: 'soft' }}
        w="100%"
        h="30px"
        px="10px"
        bg="card"
        borderWidth="1px"
        borderColor="line"
        rounded="6px"
        value={words}
        onChange={(e) => {
          setWords(e.target.value);
          setPointed(null);
        }}
      />
      <Flex gap="10px" mt="6px">
        <FoundList list={list} chosen={chosen} />
        <Box w="118px" flexShrink={0}>
          {chosen && <Outline name={chosen.name} />}
        </Box>
      </Flex>
    </Listbox.Root>
  );
}

interface FoundListProps {
  readonly list: readonly Seatable[];
  readonly chosen: Seatable | undefined;
}

function FoundList({ list, chosen }: FoundListProps) {
  return (
    <Listbox.Content flex="1" minW="0" h="230px" overflowY="auto">
      {list.map((s) => (
        <Listbox.Item
          key={s.name}
          item={s}
          display="flex"
          gap="8px"
          px="6px"
          py="3px"
          rounded="4px"
          cursor="pointer"
          bg={s === chosen ? 'wash' : undefined}
        >
          <Text fontFamily="mono" fontSize="12.5px" w="88px" flexShrink={0} truncate>
            {s.name}
          </Text>
          <Text fontSize="13px" truncate>
            {s.title}
          </Text>
        </Listbox.Item>
      ))}
      {list.length === 0 && (
        <Text p="6px" color="soft" fontSize="13px">
          No part is found by these words.
        </Text>
      )}
    </Listbox.Content>
  );
}

/** A part as it will lie on the board: its body and its pins, in holes. */
function Outline({ name }: { readonly name: string }) {
  const type = partType(name);
  if (!type) return null;
  const [xs, ys] = [type.pins.map((p) => p.dx), type.pins.map((p) => p.dy)];
  const { body } = type;
  const [x1, y1] = [Math.min(body.x, ...xs) - 0.7, Math.min(body.y, ...ys) - 0.7];
  const [x2, y2] = [Math.max(body.x + body.width, ...xs) + 0.7, Math.max(body.y + body.height, ...ys) + 0.7];
  return (
    <svg
      viewBox={`${x1} ${y1} ${x2 - x1} ${y2 - y1}`}
      role="img"
      aria-label={`outline of ${name}`}
      style={{ width: '100%', maxHeight: 150 }}
    >
      <rect {...body} rx={0.3} fill={colour('bone')} stroke={colour('boneLine')} strokeWidth={0.12} />
      {type.pins.map((p) => (
        <g key={p.id}>
          <circle cx={p.dx} cy={p.dy} r={0.3} fill="#B9BBB4" stroke={colour('hole')} strokeWidth={0.08} />
          {type.pins.length <= 4 && (
            <SvgText x={p.dx} y={p.dy + 0.14} size={0.4} fill="#14201B">
              {p.id}
            </SvgText>
          )}
        </g>
      ))}
    </svg>
  );
}
