import { elementAt, HIGH, isAnalogue, LOW, NOT_YET, type TraceColumns, UNKNOWN } from '@saddlebag/core';

/** What is drawn of one signal, as SVG paths in a box of `columns` by `HEIGHT`: its levels, what is unknown, and where it changes too often to be told apart. */
export interface Waveform {
  readonly line: string;
  readonly unknown: string;
  readonly busy: string;
}

/** Height of a waveform's box, and how far high and low are from its edges. */
export const HEIGHT = 28;
const EDGE = 4;
const yOf = (level: number): number => (level === HIGH ? EDGE : level === LOW ? HEIGHT - EDGE : HEIGHT / 2);

/** The waveform of a signal. One whose volts are no level somewhere is drawn as a curve up to `mostV`. */
export function waveformOf(row: TraceColumns, mostV: number): Waveform {
  return isAnalogue(row) ? { line: curveOf(row, mostV), unknown: '', busy: '' } : edgesOf(row);
}

function edgesOf({ from, to, changes }: TraceColumns): Waveform {
  const paths = { line: '', unknown: '', busy: '' };
  let pen = null as { readonly y: number; readonly of: 'line' | 'unknown' } | null;
  for (let c = 0; c < from.length; c++) {
    const level = elementAt(from, c);
    if (level === NOT_YET && to[c] === NOT_YET) {
      pen = null;
      continue;
    }
    if (elementAt(changes, c) > 1) {
      paths.busy += `M${c + 0.5},${EDGE}V${HEIGHT - EDGE}`;
      pen = null;
      continue;
    }
    const begin = level === NOT_YET ? elementAt(to, c) : level;
    const of = begin === UNKNOWN ? 'unknown' : 'line';
    if (pen?.of !== of || pen.y !== yOf(begin)) paths[of] += `M${c},${yOf(begin)}`;
    paths[of] += `H${c + 1}`;
    pen = { y: yOf(begin), of };
    const end = elementAt(to, c);
    if (end === begin || end === UNKNOWN || begin === UNKNOWN) continue;
    paths.line += `V${yOf(end)}`;
    pen = { y: yOf(end), of: 'line' };
  }
  return paths;
}

function curveOf({ volts }: TraceColumns, mostV: number): string {
  let path = '';
  let isDown = false;
  volts.forEach((v, c) => {
    if (Number.isNaN(v)) {
      isDown = false;
      return;
    }
    const y = HEIGHT - EDGE - (Math.max(0, Math.min(mostV, v)) / mostV) * (HEIGHT - 2 * EDGE);
    path += `${isDown ? 'L' : 'M'}${c + 0.5},${y.toFixed(1)}`;
    isDown = true;
  });
  return path;
}
