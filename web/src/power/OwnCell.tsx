import { cellAt, inputAt, isRight, type OwnMark, type OwnTable, ownMark, type Table } from '@saddlebag/core';
import type { CSSProperties, KeyboardEvent } from 'react';
import { colour } from '../base/colours';

/** A table being filled in: its marks, whether they stand compared with the sheet's, and how to write one. */
export interface Filling {
  readonly table: OwnTable;
  readonly compared: boolean;
  readonly onMark: (output: number, row: number, mark: OwnMark) => void;
}

interface OwnCellProps {
  readonly own: Filling;
  /** The sheet's table. */
  readonly table: Table;
  readonly output: number;
  readonly name: string;
  readonly row: number;
  readonly now: boolean;
}

const next: Readonly<Record<OwnMark, OwnMark>> = { '.': '0', '0': '1', '1': '-', '-': '.' };
const keyMarks: Readonly<Record<string, OwnMark>> = {
  '0': '0',
  '1': '1',
  '-': '-',
  '.': '.',
  Backspace: '.',
  Delete: '.',
};
const moves: Readonly<Record<string, readonly [rows: number, outputs: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** A cell of the person's own table: 0, 1 or - by key or by pressing, and what the sheet has once the two are compared. */
export function OwnCell({ own, table, output, name, row, now }: OwnCellProps) {
  const mark = ownMark(own.table, output, row);
  const is = cellAt(table, output, row);
  const wrong = own.compared && mark !== '.' && !isRight(mark, is);
  const said = mark === '.' ? 'open' : mark;
  const { inputs } = own.table;
  const at = inputs.map((input, i) => `${input}=${inputAt(inputs.length, i, row)}`).join(' ');
  const onKeyDown = (e: KeyboardEvent<HTMLButtonElement>): void => {
    const marked = keyMarks[e.key];
    const move = moves[e.key];
    if (e.ctrlKey || e.metaKey || e.altKey || (marked === undefined && !move)) return;
    e.preventDefault();
    // Keys in a cell write there; they do not flip switches.
    e.stopPropagation();
    if (marked !== undefined) own.onMark(output, row, marked);
    const [rows, outputs] = move ?? (marked === '.' ? [0, 0] : [1, 0]);
    focusCell(e.currentTarget, row + rows, output + outputs);
  };
  return (
    <span style={{ position: 'relative' }}>
      <button
        type="button"
        data-cell={`${row} ${output}`}
        aria-label={`${name} at ${at}: ${said}${wrong ? `, the sheet has ${is}` : ''}`}
        title={wrong ? `the sheet has ${is} here` : '0, 1 or - for off; press to change'}
        style={{ ...cellStyle, ...(wrong ? wrongStyle : now ? { borderColor: 'currentColor' } : {}) }}
        onClick={(e) => {
          e.stopPropagation();
          own.onMark(output, row, next[mark]);
        }}
        onKeyDown={onKeyDown}
      >
        {mark === '.' ? ' ' : mark}
      </button>
      {wrong && <span style={correction}>{is}</span>}
    </span>
  );
}

/** What the sheet has, small in the corner of a wrong cell. */
const correction: CSSProperties = {
  position: 'absolute',
  top: 0,
  right: 3,
  fontSize: 9.5,
  lineHeight: '11px',
  fontWeight: 700,
  color: colour('bad'),
  pointerEvents: 'none',
};
const cellStyle: CSSProperties = {
  width: 22,
  height: 20,
  lineHeight: '18px',
  textAlign: 'center',
  borderWidth: 1,
  borderStyle: 'solid',
  borderColor: colour('line'),
  borderRadius: 4,
  cursor: 'pointer',
};
const wrongStyle: CSSProperties = { borderColor: colour('bad'), color: colour('bad'), fontWeight: 700 };

function focusCell(from: HTMLElement, row: number, output: number): void {
  from.closest('[role=table]')?.querySelector<HTMLElement>(`[data-cell="${row} ${output}"]`)?.focus();
}
