import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  arranged,
  type LiveState,
  type NumberForm,
  type PassingState,
  type Scope,
  type TraceMarks,
  type TraceRowShown,
  type TraceWindow,
  withForm,
  withNumber,
  withPin,
  withRowMoved,
} from '@saddlebag/core';
import { type ReactNode, type RefObject, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { useLatest } from '../base/use-latest';
import { hertzWords, timeWords } from '../base/words';
import { Empty, Panel } from '../kit/Panel';
import { TipButton } from '../kit/Tip';
import { LiveLines } from './LiveLines';
import { NumberLine } from './NumberLine';
import { PassageSection } from './PassageSection';
import { RowFrame, type RowHands } from './RowHead';
import { TimeSearch } from './TimeSearch';
import { TourSection } from './TourSection';
import { TraceFiles } from './TraceFiles';
import { TraceLine } from './TraceLine';
import { nextSpan, panned, zoomed } from './trace-spans';
import { useMarksKept, useTraceSetup } from './use-trace-setup';

/** What the labelled switches and lamps of the powered board have done of late, as a timing diagram. */
export function TracePanel({ onTable }: { readonly onTable: (() => void) | null }) {
  const { bench } = useJobView();
  const { on, seen, scope } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const trace = on ? (seen?.trace ?? null) : null;
  const [picked, pick] = useState<readonly string[] | null>(null);
  const picking: Picking = { picked, pick };
  useMarksKept();
  const stretch = (isLonger: boolean): void => bench.setScope({ spanNs: nextSpan(scope.spanNs, isLonger) });
  useShortcuts(
    'Under power',
    on
      ? [
          { cap: '[', does: 'trace a shorter span', keys: ['['], take: () => stretch(false) },
          { cap: ']', does: 'trace a longer span', keys: [']'], take: () => stretch(true) },
          { cap: 'Ctrl wheel', does: 'on the trace: a longer or a shorter span; with Shift: earlier, later' },
          { cap: '← →', does: 'on a signal: mark A from edge to edge; with Shift mark B' },
          { cap: 'Alt ↑ ↓', does: 'on a signal: move its row' },
        ]
      : [],
  );
  return (
    <Panel title="Trace" actions={trace && seen && <ScopeButtons seen={seen} />} w="372px" flexShrink={0}>
      {!on && <Empty>Power the board up: what its labelled switches and lamps do is drawn here as time runs.</Empty>}
      {trace?.rows.length === 0 && (
        <Empty>
          No switch or lamp of this board is labelled. Label them at Board, or point at a strip and press ; to trace it.
        </Empty>
      )}
      {trace && trace.rows.length > 0 && seen && <Rows trace={trace} seen={seen} picking={picking} />}
      <PassageSection />
      <LiveLines />
      <TourSection />
      {(trace || onTable) && (
        <MarksBar seen={seen} trace={trace}>
          {trace && trace.rows.length > 1 && !picking.picked && (
            <TipButton tip="several signals as one number" onClick={() => picking.pick([])}>
              Number
            </TipButton>
          )}
          {trace && trace.rows.length > 0 && <TraceFiles trace={trace} />}
          {onTable && <Button onClick={onTable}>Truth table</Button>}
        </MarksBar>
      )}
    </Panel>
  );
}

/** The signals that are picked to be a number; null while none is being made. */
interface Picking {
  readonly picked: readonly string[] | null;
  readonly pick: (names: readonly string[] | null) => void;
}

interface RowsProps {
  readonly trace: TraceWindow;
  readonly seen: LiveState;
  readonly picking: Picking;
}

/** The rows as they are arranged, and below them what can be looked for in time. */
function Rows({ trace, seen, picking: { picked, pick } }: RowsProps) {
  const { bench } = useJobView();
  const { scope } = bench.snapshot();
  const { setup, arrange } = useTraceSetup();
  const scroller = useRef<HTMLDivElement>(null);
  useWheel(scroller, seen.timeNs);
  const names = useMemo(() => trace.rows.map((row) => row.name), [trace]);
  const end = useLatest((name: string): void =>
    arrange((s) => (s.numbers.some((n) => n.name === name) ? withForm(s, name, null) : withPin(s, name))),
  );
  const move = useLatest((name: string, by: number): void => arrange((s) => withRowMoved(s, names, name, by)));
  const press = useLatest((name: string): void =>
    pick(picked?.includes(name) ? picked.filter((n) => n !== name) : [...(picked ?? []), name]),
  );
  const hands = useMemo<RowHands>(
    () => ({ picked, onPick: press, onMove: move, onEnd: end }),
    [picked, press, move, end],
  );
  const done = (): void => {
    if (picked) arrange((s) => withNumber(s, picked));
    pick(null);
  };
  return (
    <>
      <Box ref={scroller} flex="1" minH="0" overflowY="auto" px="12px">
        {arranged(names, setup).map((row, at) => (
          <RowFrame key={row.name} name={row.name} at={at} hands={hands}>
            <Row
              shown={row}
              trace={trace}
              wanted={seen.wanted}
              passing={seen.passing.get(row.name) ?? none}
              marks={seen.marks}
              hands={hands}
              pins={setup.pins}
              onForm={(form) => arrange((s) => withForm(s, row.name, form))}
            />
          </RowFrame>
        ))}
        <Flex justify="space-between" pl="74px" pr="46px" color="soft" fontSize="11.5px" fontFamily="mono">
          <span>{trace.fromNs >= 0 && `−${timeWords(scope.spanNs)}`}</span>
          <span>{timeWords(trace.toNs)}</span>
        </Flex>
      </Box>
      {picked ? <PickingBar picked={picked} onDone={done} onCancel={() => pick(null)} /> : <TimeSearch names={names} />}
    </>
  );
}

const none: readonly PassingState[] = [];

interface RowProps {
  readonly shown: TraceRowShown;
  readonly trace: TraceWindow;
  readonly wanted: LiveState['wanted'];
  readonly passing: readonly PassingState[];
  readonly marks: TraceMarks;
  readonly hands: RowHands;
  readonly pins: readonly string[];
  readonly onForm: (form: NumberForm) => void;
}

function Row({ shown: { name, number }, trace, wanted, passing, marks, hands, pins, onForm }: RowProps) {
  const of = number?.of ?? [name];
  const rows = of.flatMap((one) => trace.rows.find((row) => row.name === one) ?? []);
  const [row] = rows;
  if (!row) return null;
  if (number) return <NumberLine number={number} rows={rows} passing={passing} hands={hands} onForm={onForm} />;
  const { fromNs, toNs } = trace;
  const own = wanted.find((w) => w.name === name);
  return (
    <TraceLine
      row={row}
      wanted={own}
      marks={marks}
      hands={hands}
      isPin={pins.includes(name)}
      fromNs={fromNs}
      toNs={toNs}
    />
  );
}

interface PickingBarProps {
  readonly picked: readonly string[];
  readonly onDone: () => void;
  readonly onCancel: () => void;
}

function PickingBar({ picked, onDone, onCancel }: PickingBarProps) {
  return (
    <Flex gap="8px" px="12px" py="8px" align="center" borderTopWidth="1px" borderColor="line" flexShrink={0}>
      <Text fontSize="13px" flex="1" role="status">
        Press the signals of the number, the most significant first.
      </Text>
      <Button variant="solid" disabled={picked.length < 2} onClick={onDone}>
        Done
      </Button>
      <Button onClick={onCancel}>Cancel</Button>
    </Flex>
  );
}

interface MarksBarProps {
  readonly seen: LiveState | null;
  readonly trace: TraceWindow | null;
  readonly children: ReactNode;
}

const NO_MARKS: TraceMarks = { a: null, b: null, between: {} };

/** What lies between the marks, and what is done with the trace as a whole. */
function MarksBar({ seen, trace, children }: MarksBarProps) {
  const { bench } = useJobView();
  const { scope } = bench.snapshot();
  const marks = seen?.marks ?? NO_MARKS;
  const hasMarks = marks.a !== null || marks.b !== null;
  const clear = (): void => {
    bench.setMark('a', null);
    bench.setMark('b', null);
  };
  const { a } = marks;
  return (
    <Flex
      gap="6px"
      p="8px 12px"
      borderTopWidth="1px"
      borderColor="line"
      align="center"
      flexShrink={0}
      wrap="wrap"
      minH="53px"
    >
      <Text fontSize="13px" color="soft" flex="1" whiteSpace="pre-line" minW="90px">
        {hasMarks
          ? markWords(marks)
          : trace && `${timeWords(scope.spanNs)} across${scope.endNs === null ? '' : ', stopped there'}`}
      </Text>
      {hasMarks && <Button onClick={clear}>No marks</Button>}
      {a !== null && seen && a < seen.timeNs && (
        <TipButton
          tip="time is wound back to mark A, and what came after has not been"
          onClick={() => bench.inTime({ kind: 'wind', timeNs: a })}
        >
          Back to A
        </TipButton>
      )}
      {children}
    </Flex>
  );
}

/** What a notch of a wheel is worth: so many points double the span. */
const WHEEL = 300;

/** The wheel with Ctrl makes the span longer or shorter about the pointer, with Shift it goes back and forth in time. */
function useWheel(scroller: RefObject<HTMLDivElement | null>, nowNs: number): void {
  const { bench } = useJobView();
  const turn = useLatest((e: WheelEvent): void => {
    const box = (e.target as Element).closest('[data-row]')?.querySelector('svg')?.getBoundingClientRect();
    const by = e.deltaX === 0 ? e.deltaY : e.deltaX;
    if (!e.ctrlKey && !e.shiftKey && e.deltaX === 0) return;
    // Not passive: the browser would zoom the page, or go back to the one before.
    e.preventDefault();
    const { scope } = bench.snapshot();
    const share = box && box.width > 0 ? Math.max(0, Math.min(1, (e.clientX - box.left) / box.width)) : 1;
    bench.setScope(
      e.ctrlKey
        ? zoomed(scope, 2 ** (e.deltaY / WHEEL), share, nowNs)
        : panned(scope, (by / WHEEL) * scope.spanNs, nowNs),
    );
  });
  useEffect(() => {
    const element = scroller.current;
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, [scroller, turn]);
}

/** Buttons that look at a longer or a shorter span, further back, or at what happens now. */
function ScopeButtons({ seen }: { readonly seen: LiveState }) {
  const { bench } = useJobView();
  const { scope } = bench.snapshot();
  const turn = (change: Partial<Scope>) => (): void => bench.setScope(change);
  const end = scope.endNs ?? seen.timeNs;
  return (
    <>
      <Button
        aria-label="earlier"
        disabled={end <= scope.spanNs}
        onClick={turn(panned(scope, -scope.spanNs / 2, seen.timeNs))}
      >
        ‹
      </Button>
      <Button
        aria-label="later"
        disabled={scope.endNs === null}
        onClick={turn(panned(scope, scope.spanNs / 2, seen.timeNs))}
      >
        ›
      </Button>
      <Button disabled={scope.endNs === null} onClick={turn({ endNs: null })}>
        Now
      </Button>
      <Button aria-label="longer span" onClick={turn({ spanNs: nextSpan(scope.spanNs, true) })}>
        −
      </Button>
      <Button aria-label="shorter span" onClick={turn({ spanNs: nextSpan(scope.spanNs, false) })}>
        +
      </Button>
    </>
  );
}

/** The marks in words: their times, and what lies between them as a time and as a frequency. */
function markWords({ a, b }: TraceMarks): string {
  const one = (name: string, at: number | null): string => (at === null ? '' : `${name} ${timeWords(at)}`);
  if (a === null || b === null) return one('A', a) || one('B', b);
  const apart = Math.abs(b - a);
  return `A to B ${timeWords(apart)}${apart > 0 ? `\n= ${hertzWords(1e9 / apart)}` : ''}`;
}
