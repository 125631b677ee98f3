import {
  arranged,
  numberOf,
  numberWords,
  type TraceColumns,
  type TraceNumber,
  type TraceSetup,
  type TraceWindow,
} from '@saddlebag/core';
import { timeWords } from '../base/words';
import { HEIGHT, waveformOf } from './waveform';

/** A row of a picture: a signal, or several as a number. */
export type PicturedRow =
  | { readonly name: string; readonly row: TraceColumns }
  | { readonly name: string; readonly number: TraceNumber; readonly rows: readonly TraceColumns[] };

/** Measures of the picture, in points. */
const PICTURE = { left: 110, width: 720, row: 40, top: 34, right: 20 } as const;
const INK = '#14201B';
const SOFT = '#5C6A62';

/** The size of a trace's picture, in points. */
export const pictureSize = (rows: number): { readonly width: number; readonly height: number } => ({
  width: PICTURE.left + PICTURE.width + PICTURE.right,
  height: PICTURE.top + rows * PICTURE.row + 30,
});

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c] ?? c);

const textAt = (x: number, y: number, text: string, more = ''): string =>
  `<text x="${x}" y="${y}" font-family="monospace" font-size="12" fill="${INK}" ${more}>${escaped(text)}</text>`;

/** What is in sight of a trace as an SVG drawing by itself: the rows with their names, the ends of the span, on white. */
export function tracePicture(
  title: string,
  { fromNs, toNs }: Pick<TraceWindow, 'fromNs' | 'toNs'>,
  rows: readonly PicturedRow[],
): string {
  const { width, height } = pictureSize(rows.length);
  const bottom = height - 10;
  const body = rows.map((row, i) => {
    const y = PICTURE.top + i * PICTURE.row;
    const columns = ('row' in row ? row.row : row.rows[0])?.to.length ?? 1;
    const inside = 'row' in row ? levelsOf(row.row) : stretchesOf(row);
    return `${textAt(8, y + 20, row.name, 'font-weight="600"')}<g transform="translate(${PICTURE.left} ${y}) scale(${PICTURE.width / columns} 1)">${inside}</g>${'row' in row ? '' : valuesOf(row, y, PICTURE.width / columns)}`;
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}">`,
    `<rect width="${width}" height="${height}" fill="#FFFFFF"/>`,
    textAt(8, 20, title, 'font-weight="600"'),
    ...body,
    textAt(PICTURE.left, bottom, timeWords(Math.max(0, fromNs))),
    textAt(PICTURE.left + PICTURE.width, bottom, timeWords(toNs), 'text-anchor="end"'),
    '</svg>',
  ].join('\n');
}

const pathOf = (d: string, stroke: string, dash = ''): string =>
  d === ''
    ? ''
    : `<path d="${d}" fill="none" stroke="${stroke}" stroke-width="1.4" vector-effect="non-scaling-stroke"${dash && ` stroke-dasharray="${dash}"`}/>`;

function levelsOf(row: TraceColumns): string {
  const { line, unknown, busy } = waveformOf(
    row,
    row.volts.reduce((most, v) => (v > most ? v : most), 5),
  );
  return pathOf(busy, SOFT) + pathOf(unknown, '#B3261E', '3 2') + pathOf(line, INK);
}

type Pictured = Extract<PicturedRow, { readonly number: TraceNumber }>;

function stretchesOf({ rows }: Pictured): string {
  return numberOf(rows)
    .map(({ from, to, isBusy }) =>
      isBusy
        ? `<rect x="${from}" y="5" width="${to - from}" height="${HEIGHT - 10}" fill="${SOFT}" opacity="0.5"/>`
        : pathOf(`M${from},5H${to}M${from},${HEIGHT - 5}H${to}M${from},5V${HEIGHT - 5}`, INK),
    )
    .join('');
}

function valuesOf({ rows, number }: Pictured, y: number, scale: number): string {
  return numberOf(rows)
    .map(({ from, to, value, isBusy }) => {
      const words = value === null ? '?' : numberWords(value, rows.length, number.form);
      const isRoomy = (to - from) * scale > 8 * words.length + 4;
      const x = PICTURE.left + ((from + to) / 2) * scale;
      return isBusy || !isRoomy ? '' : textAt(x, y + HEIGHT / 2 + 4, words, 'text-anchor="middle"');
    })
    .join('');
}

/** The rows of a picture as the trace is arranged; what is not traced is left out. */
export function picturedRows(trace: TraceWindow, setup: TraceSetup): PicturedRow[] {
  const names = trace.rows.map((row) => row.name);
  return arranged(names, setup).flatMap(({ name, number }): PicturedRow[] => {
    const own = (number?.of ?? [name]).flatMap((one) => trace.rows.find((row) => row.name === one) ?? []);
    const [row] = own;
    return number ? [{ name, number, rows: own }] : row ? [{ name, row }] : [];
  });
}
