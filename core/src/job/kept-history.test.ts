import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryEdits } from '../testing/edits';
import { laidOut } from '../testing/interlock';
import type { Edit } from './edit';
import { readJobFile } from './file';
import { type History, perform, redo, startHistory, undo } from './history';
import type { Job } from './job';
import { readHistory, writeHistory } from './kept-history';
import { writeJobFile } from './write';

/** The job as it comes back from its file. */
function again(job: Job): Job {
  const read = readJobFile(writeJobFile(job));
  return read.ok ? read.job : expect.fail(JSON.stringify(read.findings));
}

const { job: interlock, packing } = await laidOut('in A B\nout Y Z\nY = A & B\nZ = ~Y');
const edits: fc.Arbitrary<Edit> = fc.oneof(
  ...Object.entries(arbitraryEdits(interlock, packing)).map(([kind, rest]) =>
    (rest as fc.Arbitrary<object>).map((r) => ({ kind, ...r }) as Edit),
  ),
);
/** A history of random edits, some of them undone again. */
const histories = fc.array(fc.option(edits, { freq: 5, nil: null }), { maxLength: 14 }).map((steps) => {
  let history = startHistory(interlock);
  for (const [i, step] of steps.entries())
    history = step === null ? undo(history) : perform(history, step, 1000 * i).history;
  return history;
});

/** Every job that undoing and then redoing all comes through. */
function allJobs(history: History): Job[] {
  const seen: Job[] = [];
  let at = history;
  for (const [list, step] of [
    ['past', undo],
    ['future', redo],
  ] as const)
    while (at[list].length > 0) {
      at = step(at);
      seen.push(at.job);
    }
  return seen;
}

describe('a history that is kept', () => {
  it('comes back with its job: undone and done again step by step, it goes through the same jobs', () => {
    let steps = 0;
    fc.assert(
      fc.property(histories, (history) => {
        const job = again(history.job);
        // What a file does not keep as it is, such as a name that is cut, has no way back from there.
        fc.pre(writeJobFile(job) === writeJobFile(history.job));
        const read = readHistory(writeHistory(history), job);
        if (!read) return expect.fail('not read');
        expect(read.job).toBe(job);
        expect(allJobs(read).map(writeJobFile)).toEqual(allJobs(history).map(writeJobFile));
        steps += history.past.length;
      }),
    );
    expect(steps).toBeGreaterThan(100);
  });

  it('is as long as there is room: the newest steps stay', () => {
    fc.assert(
      fc.property(histories, fc.integer({ min: 0, max: 4000 }), (history, most) => {
        const text = writeHistory(history, most);
        expect(text.length).toBeLessThanOrEqual(most + 40);
        const { past, future } = JSON.parse(text) as History;
        expect(past).toEqual(JSON.parse(JSON.stringify(history.past.slice(history.past.length - past.length))));
        expect(future).toEqual(JSON.parse(JSON.stringify(history.future.slice(history.future.length - future.length))));
      }),
    );
  });

  it('of another job, or changed by whatever it was, is left out and throws nothing', () => {
    let left = 0;
    fc.assert(
      fc.property(histories, fc.nat(), fc.constantFrom('', '0', '{', '"b1.e5"', 'null', ']'), (history, at, put) => {
        const text = writeHistory(history);
        const cut = at % (text.length + 1);
        for (const damaged of [text.slice(0, cut) + put, text.slice(0, cut) + put + text.slice(cut + 1), put]) {
          const read = readHistory(damaged, interlock);
          if (read) expect(allJobs(read).length).toBeGreaterThanOrEqual(0);
          else left++;
        }
      }),
    );
    expect(left).toBeGreaterThan(50);
  });
});
