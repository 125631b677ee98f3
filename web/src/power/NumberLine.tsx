import { Box, Button, Text } from '@chakra-ui/react';
import {
  type NumberForm,
  type NumberStretch,
  numberAtEnd,
  numberForms,
  numberOf,
  numberWords,
  type PassingState,
  type TraceColumns,
  type TraceNumber,
} from '@saddlebag/core';
import { timeWords } from '../base/words';
import { HEIGHT } from '../kit/waveform';
import { type RowHands, RowHead } from './RowHead';

/** Columns that a digit takes up: a stretch that is narrower than its number stays without one. */
const DIGIT = 7;
const EDGE = 5;

interface NumberLineProps {
  readonly number: TraceNumber;
  /** Its signals, most significant first. */
  readonly rows: readonly TraceColumns[];
  /** The states that it passed through last. */
  readonly passing: readonly PassingState[];
  readonly hands: RowHands;
  readonly onForm: (form: NumberForm) => void;
}

/** Several signals as one number: its values as stretches, and the form it is written in. */
export function NumberLine({ number: { name, form }, rows, passing, hands, onForm }: NumberLineProps) {
  const stretches = numberOf(rows);
  const columns = rows[0]?.to.length ?? 0;
  const atEnd = numberAtEnd(rows);
  const words = (value: bigint | null): string => (value === null ? '?' : numberWords(value, rows.length, form));
  const next = numberForms[(numberForms.indexOf(form) + 1) % numberForms.length] ?? 'binary';
  return (
    <>
      <RowHead name={name} hands={hands} ends="take this number apart into its signals" />
      <Box w="224px" flexShrink={0}>
        <svg
          style={{ display: 'block' }}
          viewBox={`0 0 ${columns} ${HEIGHT}`}
          preserveAspectRatio="none"
          width="224"
          height={HEIGHT}
          role="img"
          aria-label={`trace of ${name}`}
        >
          {stretches.map((stretch) => (
            <Stretch key={stretch.from} stretch={stretch} words={words(stretch.value)} />
          ))}
        </svg>
        <Button
          h="16px"
          px="4px"
          variant="ghost"
          fontSize="10.5px"
          fontFamily="mono"
          color="soft"
          aria-label={`${name} is written ${form}; write it ${next}`}
          onClick={() => onForm(next)}
        >
          {form}
        </Button>
        {passing.length > 0 && (
          <Text
            as="span"
            fontSize="10.5px"
            fontFamily="mono"
            color="soft"
            title="states that it passed through last, and how long each was"
          >
            passed {passing.map(({ value, ns }) => `${words(value)} ${timeWords(ns)}`).join(', ')}
          </Text>
        )}
      </Box>
      <Box w="40px" flexShrink={0} fontFamily="mono" fontSize="12px" lineHeight="14px" textAlign="right" truncate>
        {atEnd !== undefined && words(atEnd)}
      </Box>
    </>
  );
}

/** The time in which a number stays the same: its words between two lines; hatched where it changes too often to be told apart. */
function Stretch({
  stretch: { from, to, isBusy, value },
  words,
}: {
  readonly stretch: NumberStretch;
  readonly words: string;
}) {
  if (isBusy)
    return (
      <rect
        x={from}
        y={EDGE}
        width={to - from}
        height={HEIGHT - 2 * EDGE}
        fill="var(--sb-colors-soft)"
        opacity={0.55}
      />
    );
  const ink = `var(--sb-colors-${value === null ? 'bad' : 'ink'})`;
  return (
    <>
      <path
        d={`M${from},${EDGE}H${to}M${from},${HEIGHT - EDGE}H${to}M${from},${EDGE}V${HEIGHT - EDGE}`}
        stroke={ink}
        strokeWidth="1.2"
        strokeDasharray={value === null ? '3 2' : undefined}
        fill="none"
      />
      {to - from > DIGIT * words.length + 3 && (
        <text
          x={(from + to) / 2}
          y={HEIGHT / 2 + 4}
          textAnchor="middle"
          fontSize="11.5"
          fill={ink}
          style={{ fontFamily: 'var(--sb-fonts-mono)' }}
        >
          {words}
        </text>
      )}
    </>
  );
}
