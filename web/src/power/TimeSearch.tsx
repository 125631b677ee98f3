import { Box, Button, Flex, Text } from '@chakra-ui/react';
import { MOST_PULSES } from '@saddlebag/core';
import { useState, useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { remedy, says } from '../base/words';
import { Choice } from '../kit/Choice';
import { MonoInput } from '../kit/MonoInput';
import { ProgressBar } from '../kit/ProgressBar';
import { TipButton } from '../kit/Tip';

/** Looks for moments: edges of a signal, one or many, and when an expression of the sheet language is true. */
export function TimeSearch({ names }: { readonly names: readonly string[] }) {
  const { bench } = useJobView();
  const { seen } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  if (!seen) return null;
  const { isOn, isWaiting, findings, share } = seen.search;
  const stop = (): void => bench.inTime({ kind: 'stop-seeking' });
  if (isOn)
    return (
      <Flex gap="8px" px="12px" py="6px" align="center" minH="76px" borderTopWidth="1px" borderColor="line">
        <Text fontSize="13px" flex={share === null ? '1' : undefined} role="status">
          {share === null ? 'On the way there …' : `On the way there: ${Math.floor(100 * share)} %`}
        </Text>
        {share !== null && <ProgressBar flex="1" value={100 * share} label="on the way" />}
        <Button onClick={stop}>Stop</Button>
      </Flex>
    );
  return (
    <Box
      px="12px"
      py="6px"
      borderTopWidth="1px"
      borderColor="line"
      flexShrink={0}
      role="group"
      aria-label="find in time"
    >
      <Edges names={names} />
      <WhenTrue />
      <RunOn />
      {isWaiting && (
        <Flex align="center" gap="8px" pt="4px">
          <Text fontSize="12.5px" flex="1" role="status">
            Waiting: the trace stands still when it comes.
          </Text>
          <Button h="22px" px="8px" onClick={stop}>
            Stop waiting
          </Button>
        </Flex>
      )}
      {findings.map((f) => (
        <Text key={says(f)} role="status" fontSize="12.5px" color={f.severity === 'error' ? 'bad' : 'soft'} pt="3px">
          {says(f)} {remedy(f)}
        </Text>
      ))}
    </Box>
  );
}

/** So many edges of a signal: awaited where the board makes them, given where a person's switch does. */
function Edges({ names }: { readonly names: readonly string[] }) {
  const { bench } = useJobView();
  const [chosen, choose] = useState<string | null>(null);
  const [text, setText] = useState('1');
  const name = chosen !== null && names.includes(chosen) ? chosen : (names[0] ?? '');
  const count = Math.round(Number(text));
  const isRight = count >= 1 && count <= MOST_PULSES;
  const seek = (to: 0 | 1) => (): void =>
    bench.inTime({ kind: 'seek', sought: { kind: 'edges', name, to, count }, stops: true });
  const times = count === 1 ? '' : ` ${count} times`;
  return (
    <Flex gap="6px" align="center">
      <Choice label="signal whose edges" value={name} width="96px" onChange={choose}>
        {names.map((n) => (
          <option key={n} value={n}>
            {n}
          </option>
        ))}
      </Choice>
      {(['up', 'down'] as const).map((way) => (
        <TipButton
          key={way}
          h="26px"
          px="8px"
          disabled={!isRight}
          aria-label={`${name} ${way}${times}`}
          tip={`until ${name} has gone ${way}${times}; a switch is pressed`}
          onClick={seek(way === 'up' ? 1 : 0)}
        >
          {way} {way === 'up' ? '↑' : '↓'}
        </TipButton>
      ))}
      <Flex as="label" gap="4px" align="center" fontSize="13px" color="soft" ml="auto" whiteSpace="nowrap">
        so many times
        <MonoInput
          aria-label="so many times"
          aria-invalid={!isRight}
          value={text}
          onChange={(e) => setText(e.target.value)}
          inputMode="numeric"
          w="58px"
          px="6px"
          borderColor={isRight ? 'line' : 'bad'}
        />
      </Flex>
    </Flex>
  );
}

const small = { h: '26px', px: '8px' } as const;

/** When an expression such as `Q3 & ~Q1` is true: before, next, or as soon as it is while time goes on as it does. */
function WhenTrue() {
  const { bench } = useJobView();
  const [text, setText] = useState('');
  const isEmpty = text.trim() === '';
  const find = (isForward: boolean) => (): void => {
    if (!isEmpty) bench.inTime({ kind: 'find', text, isForward });
  };
  return (
    <Flex
      as="form"
      gap="6px"
      pt="6px"
      align="center"
      onSubmit={(e) => {
        e.preventDefault();
        find(true)();
      }}
    >
      <MonoInput
        aria-label="true when"
        placeholder="Q3 & ~Q1 is true"
        value={text}
        maxLength={400}
        onChange={(e) => setText(e.target.value)}
        flex="1"
        minW="0"
      />
      <TipButton {...small} tip="the last time before mark A, or before now" disabled={isEmpty} onClick={find(false)}>
        Before
      </TipButton>
      <TipButton
        {...small}
        tip="the next time after mark A, or from now on: time runs until it comes"
        disabled={isEmpty}
        type="submit"
      >
        Next
      </TipButton>
      <TipButton
        {...small}
        tip="when it comes next, at the speed that time has: the trace stands still there, with what went before"
        disabled={isEmpty}
        onClick={() => bench.inTime({ kind: 'seek', sought: { kind: 'true', text }, stops: false })}
      >
        Wait
      </TipButton>
    </Flex>
  );
}

/** Stretches of time to run on by, in nanoseconds. */
const stretches = [
  ['a second', 1e9],
  ['a minute', 60e9],
  ['an hour', 3600e9],
  ['a day', 86_400e9],
] as const;

/** Runs time on by a second or a day as fast as it goes; time stands then. */
function RunOn() {
  const { bench } = useJobView();
  const [chosen, choose] = useState<string>('an hour');
  const forNs = stretches.find(([name]) => name === chosen)?.[1] ?? 0;
  return (
    <Flex gap="6px" pt="6px" align="center">
      <Choice label="time to run on" value={chosen} width="96px" onChange={choose}>
        {stretches.map(([name]) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </Choice>
      <TipButton
        {...small}
        tip="time runs on by so much, as fast as it goes, and stands then"
        onClick={() => bench.inTime({ kind: 'run-on', forNs })}
      >
        Run on
      </TipButton>
    </Flex>
  );
}
