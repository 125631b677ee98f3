import { printCsv } from '../design';
import { elementAt } from '../element-at';
import { levelLetter, type Trace, type TraceRow } from './trace';

/** Ticks of a value change dump in a nanosecond: its times are whole tenths of a nanosecond. */
const TICKS_PER_NS = 10;

/** All changes of a trace in the order of time, those of one moment together. */
function* moments({
  rows,
}: Trace): Generator<{ timeNs: number; changes: readonly { row: TraceRow; i: number; r: number }[] }> {
  const next = rows.map(() => 0);
  for (;;) {
    let timeNs = Infinity;
    rows.forEach((row, r) => {
      if (elementAt(next, r) < row.length) timeNs = Math.min(timeNs, row.timeAt(elementAt(next, r)));
    });
    if (timeNs === Infinity) return;
    const changes = rows.flatMap((row, r) => {
      const i = elementAt(next, r);
      if (i >= row.length || row.timeAt(i) !== timeNs) return [];
      next[r] = i + 1;
      return [{ row, i, r }];
    });
    yield { timeNs, changes };
  }
}

/** The identifier of a variable in a value change dump: printable characters, shortest first. Source: IEEE 1364-2005, 18.2.3.7. */
function identifier(n: number): string {
  const [first, count] = [33, 94];
  return n < count
    ? String.fromCharCode(first + n)
    : identifier(Math.floor(n / count) - 1) + String.fromCharCode(first + (n % count));
}

/** A name as a dump allows it: no white space. */
const plainName = (name: string): string => name.replace(/\s/g, '_');

/**
 * A trace as a value change dump: each signal as a wire, and its volts as a real beside it. Source: IEEE 1364-2005, clause 18.
 */
export function vcdOf(trace: Trace, untilNs: number): string {
  const lines = ['$timescale 100 ps $end', '$scope module board $end'];
  trace.rows.forEach(({ name }, r) => {
    lines.push(`$var wire 1 ${identifier(2 * r)} ${plainName(name)} $end`);
    lines.push(`$var real 64 ${identifier(2 * r + 1)} ${plainName(name)}_volts $end`);
  });
  lines.push('$upscope $end', '$enddefinitions $end');
  let isFirst = true;
  for (const { timeNs, changes } of moments(trace)) {
    lines.push(`#${Math.round(timeNs * TICKS_PER_NS)}`);
    if (isFirst) lines.push('$dumpvars');
    for (const { row, i, r } of changes) {
      lines.push(`${levelLetter(row.levelAt(i))}${identifier(2 * r)}`);
      const volts = row.voltsAt(i);
      if (!Number.isNaN(volts)) lines.push(`r${Number(volts.toFixed(4))} ${identifier(2 * r + 1)}`);
    }
    if (isFirst) lines.push('$end');
    isFirst = false;
  }
  lines.push(`#${Math.round(untilNs * TICKS_PER_NS)}`);
  return `${lines.join('\n')}\n`;
}

/** A trace as a table: a line for each moment in which something changed, with the level and the volts of each signal from then on. */
export function traceCsvOf(trace: Trace): string {
  const now = trace.rows.map(() => ['x', ''] as [string, string]);
  const lines: string[][] = [['time_ns', ...trace.rows.flatMap(({ name }) => [name, `${name}_volts`])]];
  for (const { timeNs, changes } of moments(trace)) {
    for (const { row, i, r } of changes) {
      const volts = row.voltsAt(i);
      now[r] = [levelLetter(row.levelAt(i)), Number.isNaN(volts) ? '' : volts.toFixed(4)];
    }
    lines.push([String(timeNs), ...now.flat()]);
  }
  return printCsv(lines);
}
