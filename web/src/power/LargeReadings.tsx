import { Box, Flex, Text } from '@chakra-ui/react';
import { type Board, byNumber, type LedState, pinOf, placeNamed, typeOf } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import type { PowerBench } from '../base/bench';
import { colour } from '../base/colours';
import { domes } from '../kit/board/SmallParts';

interface ReadingsProps {
  readonly board: Board;
  readonly bench: PowerBench;
  readonly outputs: readonly string[];
}

/** What lamps say together: the displays of the board as digits, and the lamps of a bus as a number. */
export function LargeReadings({ board, bench, outputs }: ReadingsProps) {
  useSyncExternalStore(bench.subscribe, bench.snapshot);
  const displays = Object.values(board.parts).filter((part) => typeOf(part)?.kind === 'display');
  const buses = busesOf(outputs);
  if (displays.length + buses.length === 0) return null;
  return (
    <Flex gap="14px" align="flex-start" role="group" aria-label="numbers">
      {displays
        .sort((a, b) => byNumber(a.ref, b.ref))
        .map(({ ref }) => (
          <Digit key={ref} called={ref} stateOf={(segment) => bench.led(pinOf(ref, segment))} />
        ))}
      {buses.map((names) => (
        <BusNumber key={names[0]} names={names} values={names.map((name) => bitOf(board, bench, name))} />
      ))}
    </Flex>
  );
}

/** Outputs that are wires of one bus, each most significant first: names that differ in the number at their end alone. */
export function busesOf(outputs: readonly string[]): string[][] {
  const wires = new Map<string, { name: string; at: number }[]>();
  for (const name of outputs) {
    const [, stem, at] = /^(.*?)(\d{1,3})$/.exec(name) ?? [];
    if (stem) wires.set(stem, [...(wires.get(stem) ?? []), { name, at: Number(at) }]);
  }
  return [...wires.values()]
    .map((list) => list.sort((a, b) => b.at - a.at))
    .filter((list) => list.length > 1 && list.every(({ at }, i) => at === (list[0]?.at ?? 0) - i))
    .map((list) => list.map(({ name }) => name));
}

/** What a signal's lamp says: null where it says nothing. */
function bitOf(board: Board, bench: PowerBench, name: string): 0 | 1 | null {
  const { called, inverted = false } = placeNamed(board, 'show', name) ?? {};
  const state = called === undefined || !bench.snapshot().on ? null : bench.led(called);
  if (state !== 'lit' && state !== 'dark') return null;
  return (state === 'lit') !== inverted ? 1 : 0;
}

interface BusNumberProps {
  readonly names: readonly string[];
  readonly values: readonly (0 | 1 | null)[];
}

function BusNumber({ names, values }: BusNumberProps) {
  const number = values.includes(null) ? null : values.reduce<bigint>((sum, bit) => 2n * sum + BigInt(bit ?? 0), 0n);
  const [first, last] = [names[0] ?? '', names[names.length - 1] ?? ''];
  return (
    <Box textAlign="center" minW="74px">
      <Flex h="50px" align="center" justify="center">
        <Text
          fontFamily="heading"
          fontWeight="600"
          fontSize="34px"
          lineHeight="1"
          color={number === null ? 'soft' : 'ink'}
          role="img"
          aria-label={`${first} to ${last}: ${number ?? 'unknown'}`}
        >
          {number === null ? '?' : number.toString()}
        </Text>
      </Flex>
      <Text fontFamily="mono" fontSize="12px" mt="3px">
        {first}…{last}
      </Text>
      <Text fontSize="11.5px" color="soft" mt="2px">
        {number === null ? '' : `${number.toString(16).toUpperCase()} hex`}
      </Text>
    </Box>
  );
}

/** The segments of a digit as strokes, in a box of 30 by 46. */
const strokes: Readonly<Record<string, string>> = {
  a: 'M6,4H24',
  b: 'M26,6V21',
  c: 'M26,25V40',
  d: 'M6,42H24',
  e: 'M4,25V40',
  f: 'M4,6V21',
  g: 'M6,23H24',
};
/** Digits by the segments that make them, as decoders do: some draw the tails of 6 and 9, some do not. Source: data sheets of the 7447 and CD4511. */
const digits: Readonly<Record<string, string>> = {
  abcdef: '0',
  bc: '1',
  abdeg: '2',
  abcdg: '3',
  bcfg: '4',
  acdfg: '5',
  acdefg: '6',
  cdefg: '6',
  abc: '7',
  abcdefg: '8',
  abcdfg: '9',
  abcfg: '9',
};

interface DigitProps {
  readonly called: string;
  readonly stateOf: (segment: string) => LedState;
}

/** A display, large, with what it shows in words. */
export function Digit({ called, stateOf }: DigitProps) {
  const isLit = (segment: string): boolean => ['lit', 'over'].includes(stateOf(segment));
  const lit = Object.keys(strokes).filter(isLit).join('');
  const shown = lit === '' ? 'nothing' : (digits[lit] ?? `segments ${[...lit].join(' ')}`);
  return (
    <Box textAlign="center">
      <svg width="38" height="50" viewBox="-2 -1 38 50" role="img" aria-label={`${called} shows ${shown}`}>
        <rect x="-2" y="-1" width="38" height="50" rx="4" fill="#1B1412" />
        {Object.entries(strokes).map(([segment, d]) => (
          <path
            key={segment}
            d={d}
            stroke={isLit(segment) ? domes.red.lit : '#3A2622'}
            strokeWidth="4.4"
            strokeLinecap="round"
            transform="skewX(-4) translate(2 0)"
          />
        ))}
        {isLit('DP') && <circle cx="32" cy="44" r="2.6" fill={domes.red.lit} />}
      </svg>
      <Text fontFamily="mono" fontSize="12px" mt="3px" color={colour('ink')}>
        {called}
      </Text>
    </Box>
  );
}
