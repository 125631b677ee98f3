import { Box, Button, Flex, Text } from '@chakra-ui/react';
import {
  type Between,
  hertzWords,
  isAnalogue,
  type LiveState,
  type Scope,
  type TraceColumns,
  type TraceMarks,
  timeWords,
  UNKNOWN,
} from '@saddlebag/core';
import { type KeyboardEvent, type MouseEvent, memo, useSyncExternalStore } from 'react';
import { useJobView } from '../base/job-context';
import { useShortcuts } from '../base/shortcuts';
import { download, fileName } from '../kit/download';
import { Empty, Panel } from '../kit/Panel';
import { Tag } from '../kit/Tag';
import { LiveLines } from './LiveLines';
import { TourSection } from './TourSection';
import { HEIGHT, waveformOf } from './waveform';

/** Spans of time that can be looked at, in nanoseconds: from a gate delay to a day, each twice or two and a half times the one before. */
const SPANS = [
  ...Array.from({ length: 39 }, (_, i) => ([1, 2, 5][i % 3] ?? 1) * 10 ** (1 + Math.floor(i / 3))),
  86_400e9,
]
  .filter((span) => span <= 86_400e9)
  .sort((a, b) => a - b);

/** The next longer or shorter span; the same where there is none. */
const nextSpan = (spanNs: number, isLonger: boolean): number =>
  (isLonger ? SPANS.find((span) => span > spanNs) : SPANS.findLast((span) => span < spanNs)) ?? spanNs;
/** The volts to which curves are drawn, where a board has no more. */
const MOST_V = 5;

/** What the labelled switches and lamps of the powered board have done of late, as a timing diagram. */
export function TracePanel({ onTable }: { readonly onTable: (() => void) | null }) {
  const { bench } = useJobView();
  const { on, seen, scope } = useSyncExternalStore(bench.subscribe, bench.snapshot);
  const trace = on ? seen?.trace : null;
  const stretch = (isLonger: boolean): void => bench.setScope({ spanNs: nextSpan(scope.spanNs, isLonger) });
  useShortcuts(
    'Under power',
    on
      ? [
          { cap: '[', does: 'trace a shorter span', keys: ['['], take: () => stretch(false) },
          { cap: ']', does: 'trace a longer span', keys: [']'], take: () => stretch(true) },
          { cap: '← →', does: 'on a signal: mark A from edge to edge; with Shift mark B' },
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
      {trace && trace.rows.length > 0 && (
        <Box flex="1" minH="0" overflowY="auto" px="12px">
          {trace.rows.map((row) => (
            <TraceLine
              key={row.name}
              row={row}
              marks={seen?.marks ?? NO_MARKS}
              fromNs={trace.fromNs}
              toNs={trace.toNs}
            />
          ))}
          <Flex justify="space-between" pl="74px" pr="46px" color="soft" fontSize="11.5px" fontFamily="mono">
            <span>{trace.fromNs >= 0 && `−${timeWords(scope.spanNs)}`}</span>
            <span>{timeWords(trace.toNs)}</span>
          </Flex>
        </Box>
      )}
      <LiveLines />
      <TourSection />
      <Flex gap="8px" p="10px 12px" borderTopWidth="1px" borderColor="line" align="center" flexShrink={0} minH="53px">
        <Text fontSize="13px" color="soft" flex="1" whiteSpace="pre-line">
          {seen && markWords(seen.marks)}
          {trace &&
            !hasMarks(seen?.marks) &&
            `${timeWords(scope.spanNs)} across${scope.endNs === null ? '' : ', stopped there'}`}
        </Text>
        {hasMarks(seen?.marks) && (
          <Button
            onClick={() => {
              bench.setMark('a', null);
              bench.setMark('b', null);
            }}
          >
            No marks
          </Button>
        )}
        {trace && trace.rows.length > 0 && <WriteButtons />}
        {onTable && <Button onClick={onTable}>Truth table</Button>}
      </Flex>
    </Panel>
  );
}

/** Buttons that take the whole trace out: as a value change dump (IEEE 1364), and as a table. */
function WriteButtons() {
  const { bench, job } = useJobView();
  const write = (kind: 'vcd' | 'csv', type: string) => (): void =>
    bench.writeTrace(kind, (text) => download(fileName(job.name, `-trace.${kind}`), text, type));
  return (
    <>
      <Button title="the whole trace as a value change dump, IEEE 1364" onClick={write('vcd', 'text/plain')}>
        VCD
      </Button>
      <Button title="the whole trace as a table" onClick={write('csv', 'text/csv')}>
        CSV
      </Button>
    </>
  );
}

/** Buttons that look at a longer or a shorter span, further back, or at what happens now. */
function ScopeButtons({ seen }: { readonly seen: LiveState }) {
  const { bench } = useJobView();
  const { scope } = bench.snapshot();
  const turn = (change: Partial<Scope>) => (): void => bench.setScope(change);
  const longer = nextSpan(scope.spanNs, true);
  const shorter = nextSpan(scope.spanNs, false);
  const end = scope.endNs ?? seen.timeNs;
  const back = Math.max(scope.spanNs, end - scope.spanNs / 2);
  const forth = end + scope.spanNs / 2;
  return (
    <>
      <Button aria-label="earlier" disabled={end <= scope.spanNs} onClick={turn({ endNs: back })}>
        ‹
      </Button>
      <Button
        aria-label="later"
        disabled={scope.endNs === null}
        onClick={turn({ endNs: forth >= seen.timeNs ? null : forth })}
      >
        ›
      </Button>
      <Button disabled={scope.endNs === null} onClick={turn({ endNs: null })}>
        Now
      </Button>
      <Button aria-label="longer span" onClick={turn({ spanNs: longer })}>
        −
      </Button>
      <Button aria-label="shorter span" onClick={turn({ spanNs: shorter })}>
        +
      </Button>
    </>
  );
}

const NO_MARKS: TraceMarks = { a: null, b: null, between: {} };
/** A mark falls on an edge that is so many columns away at the most. */
const SNAP = 8;
const hasMarks = (marks: TraceMarks | undefined): boolean =>
  marks !== undefined && (marks.a !== null || marks.b !== null);

/** The marks in words: their times, and what lies between them as a time and as a frequency. */
function markWords({ a, b }: TraceMarks): string {
  const one = (name: string, at: number | null): string => (at === null ? '' : `${name} ${timeWords(at)}`);
  if (a === null || b === null) return one('A', a) || one('B', b);
  const apart = Math.abs(b - a);
  return `A to B ${timeWords(apart)}${apart > 0 ? `\n= ${hertzWords(1e9 / apart)}` : ''}`;
}

/** What a signal did between the marks, in few words. */
function betweenWords({ edges, highShare, voltsAt: [a, b] }: Between, isCurve: boolean): string {
  if (isCurve) return `A ${a === null ? '?' : a.toFixed(2)} V · B ${b === null ? '?' : b.toFixed(2)} V`;
  const count = edges === 1 ? '1 edge' : `${edges.toLocaleString('en')} edges`;
  return `A to B: ${count}${highShare === null ? '' : ` · ${(100 * highShare).toFixed(1)} % high`}`;
}

interface TraceLineProps {
  readonly row: TraceColumns;
  readonly marks: TraceMarks;
  readonly fromNs: number;
  readonly toNs: number;
}

/** A signal: its tag, its waveform, and what it is at the end of the span. A press sets mark A, with Shift mark B; arrows move them from edge to edge. */
const TraceLine = memo(function TraceLine({ row, marks, fromNs, toNs }: TraceLineProps) {
  const { bench } = useJobView();
  const perColumn = (toNs - fromNs) / row.to.length;
  const put = (e: MouseEvent<HTMLElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    const timeNs = fromNs + ((e.clientX - box.left) / box.width) * (toNs - fromNs);
    bench.setMark(e.shiftKey ? 'b' : 'a', { name: row.name, timeNs, withinNs: SNAP * perColumn });
  };
  const move = (e: KeyboardEvent): void => {
    if (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight') return;
    e.preventDefault();
    bench.moveMark(e.shiftKey ? 'b' : 'a', row.name, e.key === 'ArrowRight');
  };
  const measured = marks.between[row.name];
  const last = row.to[row.to.length - 1] ?? UNKNOWN;
  const volts = row.volts[row.to.length - 1] ?? Number.NaN;
  const level = last === UNKNOWN ? (Number.isNaN(volts) ? '?' : `${volts.toFixed(1)} V`) : String(last);
  return (
    <Flex align="center" gap="8px" py="3px" borderBottomWidth="1px" borderColor="line">
      <Flex w="66px" flexShrink={0} overflow="hidden">
        {bench.snapshot().traced.includes(row.name) ? (
          <Button
            h="20px"
            px="5px"
            fontFamily="mono"
            fontSize="11.5px"
            title="trace this no longer"
            onClick={() => bench.toggleTraced(row.name)}
          >
            {row.name} ×
          </Button>
        ) : (
          <Tag signal={row.name} />
        )}
      </Flex>
      <Box
        tabIndex={0}
        role="group"
        title="press: mark A here, on an edge that is near; with Shift: mark B"
        aria-label={`${row.name}: arrows move mark A from edge to edge, with Shift mark B`}
        w="224px"
        cursor="crosshair"
        onClick={put}
        onKeyDown={move}
      >
        <Waveform row={row} marks={marks} fromNs={fromNs} toNs={toNs} />
        {(row.figures.edges > 0 || isAnalogue(row)) && (
          <Text fontSize="10.5px" lineHeight="13px" color="soft" fontFamily="mono" whiteSpace="nowrap">
            {measured
              ? betweenWords(measured, isAnalogue(row))
              : isAnalogue(row)
                ? rangeWords(row.volts)
                : figureWords(row.figures)}
          </Text>
        )}
      </Box>
      <Box w="40px" flexShrink={0} fontFamily="mono" fontSize="12px" lineHeight="14px" textAlign="right">
        {last > UNKNOWN ? '' : level}
      </Box>
    </Flex>
  );
});

/** The levels or volts of a signal over the span, with the marks that lie in it. */
function Waveform({ row, marks, fromNs, toNs }: TraceLineProps) {
  const columns = row.to.length;
  const perColumn = (toNs - fromNs) / columns;
  const mostV = row.volts.reduce((most, v) => (v > most ? v : most), MOST_V);
  const { line, unknown, busy } = waveformOf(row, mostV);
  return (
    <svg
      style={{ display: 'block' }}
      viewBox={`0 0 ${columns} ${HEIGHT}`}
      preserveAspectRatio="none"
      width="224"
      height={HEIGHT}
      role="img"
      aria-label={`trace of ${row.name}`}
    >
      <path d={busy} stroke="var(--sb-colors-soft)" strokeWidth="1" fill="none" />
      <path d={unknown} stroke="var(--sb-colors-bad)" strokeWidth="1.4" strokeDasharray="3 2" fill="none" />
      <path d={line} stroke="var(--sb-colors-ink)" strokeWidth="1.6" fill="none" />
      {(['a', 'b'] as const).map((mark) => {
        const at = marks[mark];
        if (at === null || at < fromNs || at > toNs) return null;
        const x = (at - fromNs) / perColumn;
        const dash = mark === 'b' ? '4 3' : undefined;
        return (
          <path
            key={mark}
            data-mark={mark}
            d={`M${x},0V${HEIGHT}`}
            stroke="var(--sb-colors-brass)"
            strokeWidth="2"
            strokeDasharray={dash}
          />
        );
      })}
    </svg>
  );
}

/** Between which volts a curve lies, as far as it is in sight. */
function rangeWords(volts: Float32Array): string {
  const known = [...volts].filter((v) => !Number.isNaN(v));
  return `${Math.min(...known).toFixed(2)} to ${Math.max(...known).toFixed(2)} V`;
}

/** What a signal has done, in few words: how often, how much of it high, its shortest pulse. */
function figureWords({ edges, periodNs, highShare, shortestNs }: TraceColumns['figures']): string {
  const count = edges === 1 ? '1 edge' : `${edges.toLocaleString('en')} edges`;
  if (periodNs === null) return shortestNs === null ? count : `${count} · shortest ${timeWords(shortestNs)}`;
  return `${hertzWords(1e9 / periodNs)} · ${(100 * (highShare ?? 0)).toFixed(1)} % high · ${count}`;
}
