import { currentPacking, readDesign } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { mutated } from '../../core/src/testing/mutate';
import text from '../../samples/apprentice-bench.saddlebag.json?raw';
import { boardPicture } from './picture';

describe('pictures', () => {
  it('are drawn of whatever board a file may hold', () => {
    const document = JSON.parse(text) as object;
    let drawn = 0;
    fc.assert(
      fc.property(fc.nat(), (seed) => {
        const read = readJobFile(JSON.stringify(mutated(document, seed)));
        if (!read.ok) return;
        const reading = readDesign(read.job.sheet);
        const packing = currentPacking(read.job, reading.design.netlist, null);
        expect(boardPicture({ job: read.job, reading, packing }).svg).toMatch(/^<svg /);
        drawn++;
      }),
      { numRuns: 250 },
    );
    expect(drawn).toBeGreaterThan(20);
  });
});
