import { Box, Button, Flex, Text } from '@chakra-ui/react';
import type { Start } from '@saddlebag/core';
import { useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { NARROW } from '../base/narrow';
import { useShortcuts } from '../base/shortcuts';
import { timeWords } from '../base/words';
import { Choice } from '../kit/Choice';
import { KeyCap } from '../kit/Panel';
import { TipButton } from '../kit/Tip';
import { TimersButton } from '../kit/timers/TimersButton';
import { useTraceSetup } from './use-trace-setup';

/** Seconds of the board in a second of the person's, as they are chosen from. */
const speeds: readonly (readonly [name: string, speed: number])[] = [
  ['10 ns a second', 1e-8],
  ['1 µs a second', 1e-6],
  ['1 ms a second', 1e-3],
  ['0.1 × real time', 0.1],
  ['real time', 1],
  ['10 × real time', 10],
  ['as fast as it goes', Infinity],
];

/** What is stored when the power comes on, as it is chosen from. */
const starts: readonly (readonly [name: string, start: Start])[] = [
  ['memory unknown', 'unknown'],
  ['memory by chance', { chance: 1 }],
  ['memory clear', 'clear'],
];

/** How time runs on the powered board: on or stopped, how fast, how it begins, and how far it has come. */
export function TimeControls() {
  const { bench } = useJobView();
  const { on, seen, pace } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const pause = (): void => bench.setPace({ isPaused: !pace.isPaused });
  const step = (): void => bench.step();
  const back = (): void => bench.inTime({ kind: 'back' });
  const { arrange } = useTraceSetup();
  const changeSpeed = (speed: number): void => {
    bench.setSpeed(speed);
    arrange((setup) => ({ ...setup, speed: Number.isFinite(speed) ? speed : null }));
  };
  useShortcuts(
    'Under power',
    on
      ? [
          { cap: ',', does: 'stop time, or let it run', keys: [','], take: pause },
          { cap: '.', does: 'go on to the next change', keys: ['.'], take: step },
          { cap: '⌫', does: 'wind time back to the change before', keys: ['Backspace'], take: back },
        ]
      : [],
  );
  return (
    <Flex align="center" gap="6px" css={{ [NARROW]: { flexWrap: 'wrap' } }} role="group" aria-label="time">
      <Elapsed />
      {on && (
        <>
          <Button h="26px" px="8px" gap="6px" onClick={pause}>
            {pace.isPaused ? 'Run' : 'Pause'} <KeyCap>,</KeyCap>
          </Button>
          <TipButton h="26px" px="8px" gap="6px" tip="wind time back to the change before" onClick={back}>
            Back <KeyCap>⌫</KeyCap>
          </TipButton>
          <Button h="26px" px="8px" gap="6px" onClick={step} disabled={seen?.isMoving !== true}>
            Step <KeyCap>.</KeyCap>
          </Button>
        </>
      )}
      <TimersButton />
      <Choice
        label="speed of time"
        value={speeds.find(([, speed]) => speed === pace.speed)?.[0] ?? ''}
        onChange={(chosen) => changeSpeed(speeds.find(([name]) => name === chosen)?.[1] ?? 1)}
        width="142px"
      >
        <Names of={speeds} />
      </Choice>
      <Choice
        label="what is stored at power up"
        value={
          starts.find(([, start]) => typeof start === typeof pace.start && String(start) === String(pace.start))?.[0] ??
          ''
        }
        onChange={(chosen) => bench.setPace({ start: starts.find(([name]) => name === chosen)?.[1] ?? 'unknown' })}
        width="134px"
      >
        <Names of={starts} />
      </Choice>
      <Flex as="label" gap="5px" align="center" fontSize="12.5px" cursor="pointer" whiteSpace="nowrap">
        <input
          type="checkbox"
          aria-label="contacts bounce"
          title="contacts bounce for some milliseconds when they move"
          checked={pace.bounces}
          onChange={(e) => bench.setPace({ bounces: e.target.checked })}
        />
        bounce
      </Flex>
    </Flex>
  );
}

/** How far time has come on the powered board, and below it whether it runs slower than it should. */
function Elapsed() {
  const { bench } = useJobView();
  const { on, seen } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  return (
    <Text
      fontSize="12.5px"
      lineHeight="13px"
      color="soft"
      whiteSpace="nowrap"
      role="timer"
      aria-label="time since power up"
    >
      {on && seen && timeWords(seen.timeNs)}
      {on && seen?.isBehind && (
        <Box as="span" display="block" fontSize="11.5px" title="time runs slower than asked">
          slower
        </Box>
      )}
    </Text>
  );
}

/** The names of a list to choose from, as options. */
function Names({ of }: { readonly of: readonly (readonly [name: string, value: unknown])[] }) {
  return of.map(([name]) => (
    <option key={name} value={name}>
      {name}
    </option>
  ));
}
