import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import { benchParts, chips, partNumber, partType, searchParts } from '@saddlebag/core';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
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
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!open) return;
    const outside = (e: PointerEvent): void => {
      if (!box.current?.contains(e.target as Node)) setOpen(false);
    };
    window.addEventListener('pointerdown', outside);
    return () => window.removeEventListener('pointerdown', outside);
  }, [open]);
  const seat = (name: string): void => {
    recent = [name, ...recent.filter((r) => r !== name)].slice(0, MOST_RECENT);
    setOpen(false);
    onSeat(name);
  };
  return (
    <Box position="relative" ref={box}>
      <Button aria-haspopup="listbox" aria-expanded={open} onClick={() => setOpen(!open)}>
        Seat a part
      </Button>
      {open && <Search onSeat={seat} onClose={() => setOpen(false)} />}
    </Box>
  );
}

/** Parts that are listed; more words find the others. */
const MOST_LISTED = 60;

/** The field, what is found by it, and the outline of what is chosen. */
function Search({ onSeat, onClose }: { readonly onSeat: (name: string) => void; readonly onClose: () => void }) {
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  const list = found(words).slice(0, MOST_LISTED);
  const chosen = list[Math.min(at, list.length - 1)];
  const onKeyDown = (e: KeyboardEvent): void => {
    if (e.key === 'ArrowDown') setAt(Math.min(at + 1, list.length - 1));
    else if (e.key === 'ArrowUp') setAt(Math.max(at - 1, 0));
    else if (e.key === 'Enter') chosen && onSeat(chosen.name);
    else if (e.key === 'Escape') onClose();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <Box
      position="absolute"
      top="32px"
      left="0"
      zIndex="10"
      w="430px"
      bg="card"
      borderWidth="1px"
      borderColor="line"
      rounded="8px"
      p="8px"
      boxShadow="0 8px 24px rgba(0,0,0,0.18)"
    >
      <Input
        ref={field}
        role="combobox"
        aria-label="find a part to seat"
        aria-expanded="true"
        aria-controls="seatable"
        aria-activedescendant={chosen && `seat-${chosen.name}`}
        placeholder="7400, decade counter, LED …"
        _placeholder={{ color: 'soft' }}
        value={words}
        h="30px"
        bg="card"
        borderColor="line"
        onChange={(e) => {
          setWords(e.target.value);
          setAt(0);
        }}
        onKeyDown={onKeyDown}
      />
      <Flex gap="10px" mt="6px">
        <FoundList list={list} chosen={chosen} onPoint={setAt} onSeat={onSeat} />
        <Box w="118px" flexShrink={0}>
          {chosen && <Outline name={chosen.name} />}
        </Box>
      </Flex>
    </Box>
  );
}

interface FoundListProps {
  readonly list: readonly Seatable[];
  readonly chosen: Seatable | undefined;
  readonly onPoint: (at: number) => void;
  readonly onSeat: (name: string) => void;
}

function FoundList({ list, chosen, onPoint, onSeat }: FoundListProps) {
  return (
    <Box id="seatable" role="listbox" aria-label="parts" flex="1" minW="0" h="230px" overflowY="auto" tabIndex={0}>
      {list.map((s, i) => (
        <Flex
          key={s.name}
          id={`seat-${s.name}`}
          role="option"
          aria-selected={s === chosen}
          gap="8px"
          px="6px"
          py="3px"
          rounded="4px"
          cursor="pointer"
          bg={s === chosen ? 'wash' : undefined}
          ref={(e: HTMLDivElement | null) => {
            if (s === chosen) e?.scrollIntoView?.({ block: 'nearest' });
          }}
          onPointerMove={() => onPoint(i)}
          onClick={() => onSeat(s.name)}
        >
          <Text fontFamily="mono" fontSize="12.5px" w="104px" flexShrink={0} truncate>
            {s.name}
          </Text>
          <Text fontSize="13px" truncate>
            {s.title}
          </Text>
        </Flex>
      ))}
      {list.length === 0 && (
        <Text p="6px" color="soft" fontSize="13px">
          No part is found by these words.
        </Text>
      )}
    </Box>
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
