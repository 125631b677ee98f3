import { currentPacking, readDesign } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { describe, expect, it } from 'vitest';
import { coloursOf, readBoard, signalsOf } from './job-context';
import { neighboursOf } from './neighbours';

const samples = import.meta.glob('../../../samples/*.saddlebag.json', {
  query: '?raw',
  import: 'default',
  eager: true,
});
/** The weight of signals on strips side by side, and the most signals around one that a palette of twelve can tell apart. */
const STRIPS = 100;
const MOST = 11;

describe('colours of signals', () => {
  it.each(Object.entries(samples))('%s: what is seen side by side never looks the same', (_, text) => {
    const read = readJobFile(text as string);
    if (!read.ok) return expect.fail('not read');
    const { job } = read;
    const reading = readDesign(job.sheet);
    const packing = currentPacking(job, reading.design.netlist, null);
    const board = readBoard(job.board, packing);
    const colours = coloursOf(signalsOf(reading, packing), packing, board);
    let pairs = 0;
    for (const [signal, others] of neighboursOf(packing, board))
      for (const [other, weight] of others) {
        if (weight < STRIPS && others.size > MOST) continue;
        expect(colours.of(signal), `${signal} beside ${other}`).not.toBe(colours.of(other));
        pairs++;
      }
    expect(pairs).toBeGreaterThan(0);
  });

  it('are there without a design as well: no wire of a bare-handed board is without one', () => {
    const read = readJobFile(samples['../../../samples/transistor-bell.saddlebag.json'] as string);
    if (!read.ok) return expect.fail('not read');
    const board = readBoard(read.job.board, null);
    const colours = coloursOf(signalsOf(null, null), null, board);
    for (const { index, jumpers } of board.nets.nets)
      if (jumpers.length > 0) expect(colours.of(board.names.get(index)), `net ${index}`).not.toBeNull();
  });
});
