import { describe, expect, it } from 'vitest';
import type { Board, SeatedPart } from '../board';
import { interlockSheet, laidOut } from '../testing/interlock';
import { sourcesOf } from './expectation';

const { job, packing } = await laidOut(interlockSheet);
const withPart = (ref: string, part: string): Board => ({
  ...job.board,
  parts: { ...job.board.parts, [ref]: { ...(job.board.parts[ref] as SeatedPart), part } },
});
const pinsOf = (ref: string, board: Board): string[] =>
  [...sourcesOf(packing, board).values()].filter((pin) => pin.startsWith(`${ref}.`));

describe('where signals come from', () => {
  it('is no pin of a part that sits in the place of a package and does something else', () => {
    const packed = packing.packages.find((p) => p.ref === 'U1')?.part ?? expect.fail('no U1');
    expect(pinsOf('U1', job.board).length).toBeGreaterThan(0);
    expect(pinsOf('U1', withPart('U1', '74HC4051'))).toEqual([]);
    expect(pinsOf('U2', withPart('U1', '74HC4051'))).toEqual(pinsOf('U2', job.board));
    // The same gates in another family give the same.
    expect(pinsOf('U1', withPart('U1', packed.replace('HC', 'LS')))).toEqual(pinsOf('U1', job.board));
  });

  it('is told beforehand of packages that are not seated yet', () => {
    const { U1: _, ...parts } = job.board.parts;
    expect(pinsOf('U1', { ...job.board, parts })).toEqual(pinsOf('U1', job.board));
  });
});
