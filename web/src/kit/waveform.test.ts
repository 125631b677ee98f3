import { HIGH, LOW, NOT_YET, type TraceColumns, UNKNOWN } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { waveformOf } from './waveform';

/** Columns of single levels, each going over into the next; `busy` names columns that change more than once. */
function columns(levels: readonly number[], busy: readonly number[] = [], volts: readonly number[] = []): TraceColumns {
  const to = levels.map((level, c) =>
    levels[c + 1] === undefined || level === NOT_YET ? level : (levels[c + 1] ?? level),
  );
  return {
    name: 'x',
    from: Uint8Array.from(levels),
    to: Uint8Array.from(to),
    changes: Uint8Array.from(levels, (level, c) => (busy.includes(c) ? 2 : Number(level !== to[c]))),
    volts: Float32Array.from(levels, (_, c) => volts[c] ?? Number.NaN),
    figures: { edges: 0, periodNs: null, highShare: null, shortestNs: null },
  };
}

describe('a waveform', () => {
  it('is a line from level to level, high above low', () => {
    expect(waveformOf(columns([LOW, LOW, HIGH, HIGH]), 5)).toEqual({ line: 'M0,24H1H2V4H3H4', unknown: '', busy: '' });
  });

  it('begins where something is known, and shows what is not apart from it', () => {
    const { line, unknown } = waveformOf(columns([NOT_YET, NOT_YET, UNKNOWN, UNKNOWN, HIGH]), 5);
    expect(unknown).toBe('M2,14H3H4');
    expect(line).toBe('M4,4H5');
  });

  it('is a block where it changes too often to be told apart', () => {
    const { line, busy } = waveformOf(columns([LOW, LOW, LOW, LOW], [1, 2]), 5);
    expect(busy).toBe('M1.5,4V24M2.5,4V24');
    expect(line).toBe('M0,24H1M3,24H4');
  });

  it('is a curve where its volts are no level', () => {
    const { line, unknown } = waveformOf(columns([UNKNOWN, UNKNOWN, UNKNOWN], [], [0, 2.5, 5]), 5);
    expect([line, unknown]).toEqual(['M0.5,24.0L1.5,14.0L2.5,4.0', '']);
  });
});
