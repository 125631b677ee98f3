import { Box, Text } from '@chakra-ui/react';
import { type Between, isAnalogue, NOT_YET, type TraceColumns, type TraceMarks, UNKNOWN } from '@saddlebag/core';
import { type KeyboardEvent, type MouseEvent, memo } from 'react';
import { useJobView } from '../base/job-context';
import { fixed, grouped } from '../base/numbers';
import { hertzWords, timeWords } from '../base/words';
import { HEIGHT, waveformOf } from '../kit/waveform';
import { type RowHands, RowHead } from './RowHead';

/** The volts to which curves are drawn, where a board has no more. */
const MOST_V = 5;
/** A mark falls on an edge that is so many columns away at the most. */
const SNAP = 8;

/** What a signal did between the marks, in few words. */
function betweenWords({ edges, highShare, voltsAt: [a, b] }: Between, isCurve: boolean): string {
  if (isCurve) return `A ${a === null ? '?' : fixed(a, 2)} V · B ${b === null ? '?' : fixed(b, 2)} V`;
  const count = edges === 1 ? '1 edge' : `${grouped(edges)} edges`;
  return `A to B: ${count}${highShare === null ? '' : ` · ${fixed(100 * highShare, 1)} % high`}`;
}

interface WaveformProps {
  readonly row: TraceColumns;
  /** What the sheet wants of the signal, once the board has done otherwise somewhere. */
  readonly wanted: TraceColumns | undefined;
  readonly marks: TraceMarks;
  readonly fromNs: number;
  readonly toNs: number;
}

interface TraceLineProps extends WaveformProps {
  readonly hands: RowHands;
  /** Whether it is traced beside the labelled signals, and can be ended. */
  readonly isPin: boolean;
}

/** A signal: its tag, its waveform, and what it is at the end of the span. A press sets mark A, with Shift mark B; arrows move them from edge to edge. */
export const TraceLine = memo(function TraceLine({ row, wanted, marks, hands, isPin, fromNs, toNs }: TraceLineProps) {
  const { bench } = useJobView();
  const perColumn = (toNs - fromNs) / row.to.length;
  const put = (e: MouseEvent<HTMLElement>): void => {
    const box = e.currentTarget.getBoundingClientRect();
    const timeNs = fromNs + ((e.clientX - box.left) / box.width) * (toNs - fromNs);
    bench.setMark(e.shiftKey ? 'b' : 'a', { name: row.name, timeNs, withinNs: SNAP * perColumn });
  };
  const move = (e: KeyboardEvent): void => {
    if (e.altKey || (e.key !== 'ArrowLeft' && e.key !== 'ArrowRight')) return;
    e.preventDefault();
    bench.moveMark(e.shiftKey ? 'b' : 'a', row.name, e.key === 'ArrowRight');
  };
  const measured = marks.between[row.name];
  const last = row.to[row.to.length - 1] ?? UNKNOWN;
  const volts = row.volts[row.to.length - 1] ?? Number.NaN;
  const level = last === UNKNOWN ? (Number.isNaN(volts) ? '?' : `${fixed(volts, 1)} V`) : String(last);
  return (
    <>
      <RowHead name={row.name} hands={hands} ends={isPin ? 'trace this no longer' : null} />
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
        <Waveform row={row} wanted={wanted} marks={marks} fromNs={fromNs} toNs={toNs} />
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
    </>
  );
});

/** The levels or volts of a signal over the span, with the marks that lie in it. */
function Waveform({ row, wanted, marks, fromNs, toNs }: WaveformProps) {
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
      {wanted && differs(row, wanted) && (
        <path
          data-wanted={row.name}
          d={waveformOf(wanted, mostV).line}
          stroke="var(--sb-colors-brass)"
          strokeWidth="3.4"
          strokeDasharray="5 3"
          fill="none"
        />
      )}
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

/** Whether a signal is at the end of a column otherwise than its sheet wants it. */
const differs = (row: TraceColumns, wanted: TraceColumns): boolean =>
  wanted.to.some((level, c) => level < UNKNOWN && row.to[c] !== level && (row.to[c] ?? NOT_YET) < NOT_YET);

/** Between which volts a curve lies, as far as it is in sight. */
function rangeWords(volts: Float32Array): string {
  const known = [...volts].filter((v) => !Number.isNaN(v));
  return `${fixed(Math.min(...known), 2)} to ${fixed(Math.max(...known), 2)} V`;
}

/** What a signal has done, in few words: how often, how much of it high, its shortest pulse. */
function figureWords({ edges, periodNs, highShare, shortestNs }: TraceColumns['figures']): string {
  const count = edges === 1 ? '1 edge' : `${grouped(edges)} edges`;
  if (periodNs === null) return shortestNs === null ? count : `${count} · shortest ${timeWords(shortestNs)}`;
  return `${hertzWords(1e9 / periodNs)} · ${fixed(100 * (highShare ?? 0), 1)} % high · ${count}`;
}
