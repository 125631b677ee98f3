import { Box, Button, Flex, Input, Text } from '@chakra-ui/react';
import {
  chargeCurve,
  type Edit,
  type FoundTimer,
  fastSwitch,
  type Rhythm,
  rhythmOf,
  rhythmSwitched,
  type Suggestion,
  spreadOf,
  suggested,
  TIMES_FASTER,
  timersOf,
} from '@saddlebag/core';
import { useMemo, useState } from 'react';
import { useJobView } from '../../base/job-context';
import { fixed, inOwnMarks, readNumber } from '../../base/numbers';
import { hertzWords, remedy, says, shownValue, timeWords } from '../../base/words';
import { useLooseValues } from '../../store/drawer';
import { Choice } from '../Choice';
import { Leaf } from '../Leaf';
import { TipButton } from '../Tip';
import { Chart } from './Chart';

/** Opens what timers, one-shots and Schmitt oscillators of the board come to; not there where it has none. */
export function TimersButton() {
  const { board } = useJobView();
  const timers = useMemo(() => timersOf(board.board, board.nets), [board]);
  const [open, setOpen] = useState(false);
  if (timers.length === 0) return null;
  return (
    <>
      <TipButton
        h="26px"
        px="8px"
        tip="what the timers of the board come to, and other parts for them"
        onClick={() => setOpen(true)}
      >
        Timers
      </TipButton>
      {open && <Timers timers={timers} onClose={() => setOpen(false)} />}
    </>
  );
}

const kinds = { astable: 'runs by itself', pulse: 'one pulse when it is started', schmitt: 'runs by itself' } as const;

function Timers({ timers, onClose }: { readonly timers: readonly FoundTimer[]; readonly onClose: () => void }) {
  const [pin, choose] = useState(timers[0]?.pin ?? '');
  const timer = timers.find((t) => t.pin === pin) ?? timers[0];
  if (!timer) return null;
  return (
    <Leaf
      label="timers"
      title="Timers"
      onClose={onClose}
      beside={
        <>
          <Choice label="timer" value={timer.pin} width="110px" onChange={choose}>
            {timers.map((t) => (
              <option key={t.pin} value={t.pin}>
                {t.pin}
              </option>
            ))}
          </Choice>
          <Text color="soft" fontSize="13px">
            {kinds[timer.kind]}
          </Text>
        </>
      }
    >
      <Figures timer={timer} />
      <WantedParts key={timer.pin} timer={timer} />
      <Curves timer={timer} />
    </Leaf>
  );
}

const periodOf = ({ highS, lowS }: Rhythm): number => highS + (lowS ?? 0);
const inWords = (seconds: number): string => timeWords(seconds * 1e9);

/** What a timer comes to with the parts that are seated, and with parts that are as far off as they may be. */
function Figures({ timer }: { readonly timer: FoundTimer }) {
  const { board } = useJobView().board;
  const rhythm = rhythmOf(timer.law, timer.values);
  const [least, most] = spreadOf(timer, board);
  const { lowS } = rhythm;
  return (
    <Box fontSize="14px" role="status">
      <Text>
        {lowS === null ? (
          <>
            a pulse of <b>{inWords(rhythm.highS)}</b>, with the tolerances of its parts {inWords(least.highS)} to{' '}
            {inWords(most.highS)}
          </>
        ) : (
          <>
            <b>{hertzWords(1 / periodOf(rhythm))}</b>, with the tolerances of its parts {hertzWords(1 / periodOf(most))}{' '}
            to {hertzWords(1 / periodOf(least))} · period {inWords(periodOf(rhythm))} · high{' '}
            {fixed((100 * rhythm.highS) / periodOf(rhythm), 0)} %
          </>
        )}
      </Text>
      <Text fontFamily="mono" fontSize="12.5px" color="soft">
        {[
          ...timer.resistors.map((ref, i) => `${ref}${shownValue('resistor', timer.values.ohms[i])}`),
          `${timer.capacitor}${shownCapacitor(timer.values.farads)}`,
        ].join(' · ')}
      </Text>
      <FastSwitch timer={timer} />
    </Box>
  );
}

/** What a timer comes to while its fast switch is closed; one to be had by a press, where it has none. */
function FastSwitch({ timer }: { readonly timer: FoundTimer }) {
  const { session, board } = useJobView();
  const [refused, setRefused] = useState<string | null>(null);
  const closed = rhythmSwitched(timer);
  if (closed)
    return (
      <Text pt="4px">
        While {timer.switched.map(({ by }) => by).join(' and ')} is closed: <b>{rhythmWords(closed)}</b>, with{' '}
        {timer.switched.map(({ ref, farads }) => `${ref}${shownCapacitor(farads)}`).join(' and ')} beside it.
      </Text>
    );
  const wire = (): void => {
    const wired = fastSwitch(board.board, timer);
    if ('finding' in wired) setRefused(`${says(wired.finding)} ${remedy(wired.finding)}`);
    else session.dispatch(wired.edit);
  };
  return (
    <Flex align="center" gap="10px" pt="6px">
      <TipButton
        h="26px"
        px="8px"
        tip={`its capacitor goes behind a switch, one of a hundredth stays: open, it runs ${TIMES_FASTER} times as fast`}
        onClick={wire}
      >
        Wire a fast switch
      </TipButton>
      {refused && (
        <Text color="bad" fontSize="13px">
          {refused}
        </Text>
      )}
    </Flex>
  );
}

const rhythmWords = (rhythm: Rhythm): string =>
  rhythm.lowS === null ? `a pulse of ${inWords(rhythm.highS)}` : hertzWords(1 / periodOf(rhythm));

/** Farads as a parts list writes them. */
const shownCapacitor = (farads: number): string => shownValue('capacitor', Number((farads * 1e9).toPrecision(4)));

/** What is wanted in, parts of the series out, each put on the board with one press. */
function WantedParts({ timer }: { readonly timer: FoundTimer }) {
  const { session } = useJobView();
  const isPulse = timer.kind === 'pulse';
  const now = rhythmOf(timer.law, timer.values);
  const [first, setFirst] = useState('');
  const [share, setShare] = useState('');
  const amount = readNumber(first);
  const highShare = timer.kind === 'astable' && share.trim() !== '' ? readNumber(share) / 100 : null;
  const isRight = amount > 0 && Number.isFinite(amount) && (highShare === null || (highShare > 0 && highShare < 1));
  const drawer = useLooseValues();
  const wanted = isPulse ? { pulseS: amount / 1000 } : { hertz: amount, highShare };
  const found = isRight ? suggested(timer, wanted, drawer) : [];
  const put = ({ values }: Suggestion): void => {
    const edits: Edit[] = [
      ...timer.resistors.map((ref, i): Edit => ({ kind: 'set-value', ref, value: values.ohms[i] ?? 1000 })),
      { kind: 'set-value', ref: timer.capacitor, value: Number((values.farads * 1e9).toPrecision(4)) },
    ];
    session.dispatch({ kind: 'all', says: `parts of the timer at ${timer.pin}`, edits });
  };
  return (
    <Box my="10px" p="10px 12px" borderWidth="1px" borderColor="line" rounded="8px">
      <Flex align="center" gap="8px" fontSize="14px">
        wanted
        <Amount
          label={isPulse ? 'milliseconds' : 'hertz'}
          value={first}
          onChange={setFirst}
          hint={inOwnMarks((isPulse ? now.highS * 1000 : 1 / periodOf(now)).toPrecision(3))}
        />
        {isPulse ? 'ms' : 'Hz'}
        {timer.kind === 'astable' && (
          <>
            , high for
            <Amount label="high share in percent" value={share} onChange={setShare} hint="any" />%
          </>
        )}
        {timer.switched.length > 0 && (
          <Text color="soft">while {timer.switched.map(({ by }) => by).join(' and ')} is open</Text>
        )}
      </Flex>
      <Flex direction="column" gap="6px" pt="8px" minH="96px">
        {first.trim() === '' && (
          <Text fontSize="13px" color="soft">
            Type what you want, and the parts that come nearest are offered: those of the drawer first, then of the
            series E24.
          </Text>
        )}
        {first.trim() !== '' && found.length === 0 && (
          <Text fontSize="13px" color="bad">
            {isRight
              ? 'No parts of the series come within a third of that.'
              : 'Type a number above 0, and a share between 0 and 100 %.'}
          </Text>
        )}
        {found.map((s) => (
          <Offer key={JSON.stringify(s.values)} timer={timer} suggestion={s} onPut={() => put(s)} />
        ))}
      </Flex>
    </Box>
  );
}

interface OfferProps {
  readonly timer: FoundTimer;
  readonly suggestion: Suggestion;
  readonly onPut: () => void;
}

/** Parts that come near to what is wanted, and what the timer comes to with them. */
function Offer({ timer, suggestion: { values, rhythm, isInDrawer }, onPut }: OfferProps) {
  return (
    <Flex align="center" gap="10px" fontSize="13px">
      <Button onClick={onPut}>Put on the board</Button>
      <Text fontFamily="mono">
        {[
          ...timer.resistors.map((ref, i) => `${ref}${shownValue('resistor', values.ohms[i])}`),
          `${timer.capacitor}${shownCapacitor(values.farads)}`,
        ].join(' · ')}
      </Text>
      <Text color="soft">
        {rhythm.lowS === null
          ? inWords(rhythm.highS)
          : `${hertzWords(1 / periodOf(rhythm))}, high ${fixed((100 * rhythm.highS) / periodOf(rhythm), 0)} %`}
      </Text>
      {isInDrawer && <Text color="soft">in the drawer</Text>}
    </Flex>
  );
}

interface AmountProps {
  readonly label: string;
  readonly value: string;
  readonly hint: string;
  readonly onChange: (value: string) => void;
}

function Amount({ label, value, hint, onChange }: AmountProps) {
  return (
    <Input
      aria-label={label}
      value={value}
      placeholder={hint}
      _placeholder={{ color: 'soft' }}
      onChange={(e) => onChange(e.target.value)}
      inputMode="decimal"
      maxLength={12}
      w="84px"
      h="28px"
      px="8px"
      fontFamily="mono"
      fontSize="13px"
      bg="card"
      borderColor="line"
    />
  );
}

/** How the capacitor is charged, and how the time goes with the last resistor. */
function Curves({ timer }: { readonly timer: FoundTimer }) {
  const charge = useMemo(() => {
    const curve = chargeCurve(timer);
    const end = curve[curve.length - 1]?.s ?? 1;
    const [unit, factor] = end < 1e-3 ? ['µs', 1e6] : end < 1 ? ['ms', 1e3] : ['s', 1];
    return { unit, line: { label: 'capacitor', points: curve.map(({ s, v }) => ({ x: s * factor, y: v })) } };
  }, [timer]);
  const rate = useMemo(() => {
    const last = timer.values.ohms.length - 1;
    const at = (ohms: number): number => {
      const rhythm = rhythmOf(timer.law, { ...timer.values, ohms: timer.values.ohms.with(last, ohms) });
      return rhythm.lowS === null ? rhythm.highS * 1000 : 1 / periodOf(rhythm);
    };
    const points = Array.from({ length: 61 }, (_, i) => 10 ** (3 + i / 20)).map((x) => ({ x: x / 1000, y: at(x) }));
    const own = timer.values.ohms[last] ?? 1000;
    return { ref: timer.resistors[last], line: { label: 'rate', points }, here: { x: own / 1000, y: at(own) } };
  }, [timer]);
  const what = timer.kind === 'pulse' ? 'pulse, ms' : 'rate, Hz';
  return (
    <Flex gap="14px">
      <Chart
        label={`volts of ${timer.capacitor} as time goes on`}
        x={`time, ${charge.unit}`}
        y={`${timer.capacitor}, V`}
        line={charge.line}
      />
      <Chart
        label={`${what} against ${rate.ref}`}
        x={`${rate.ref}, kΩ`}
        y={what}
        isLogarithmic
        line={rate.line}
        here={rate.here}
      />
    </Flex>
  );
}
