import { type Job, newJob } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { leadingOf } from './first-job';

type View = Parameters<typeof leadingOf>[0];

/** A job as far as it is; the lamps named are lit. */
function view(
  job: Job,
  { outputs = [], on = false, lit = [] }: { outputs?: string[]; on?: boolean; lit?: string[] } = {},
): View {
  return {
    job,
    packing: job.packing ?? null,
    reading: { findings: [], design: { outputs: outputs.map((name) => ({ name })) } } as unknown as View['reading'],
    bench: {
      snapshot: () => ({ on }),
      led: (ref: string) => (lit.includes(ref) ? 'lit' : 'dark'),
    } as unknown as View['bench'],
  };
}

describe('the first job', () => {
  const bare = newJob('first');
  const wired = interlock();

  it('leads from the empty sheet to a lit lamp, by what is there', () => {
    const numbers = [
      leadingOf(view(bare), 'design'),
      leadingOf(view(bare, { outputs: ['Y'] }), 'design'),
      leadingOf(view(bare, { outputs: ['Y'] }), 'board'),
      leadingOf(view(wired, { outputs: ['G'] }), 'board'),
      leadingOf(view(wired, { outputs: ['G'] }), 'power'),
      leadingOf(view(wired, { outputs: ['G'], on: true }), 'power'),
      leadingOf(view(wired, { outputs: ['G'], on: true, lit: ['D1'] }), 'power'),
    ].map(({ number }) => number);
    expect(numbers).toEqual([1, 2, 3, 4, 4, 5, 6]);
  });

  it('goes back with undo: what is not there any more is asked for again', () => {
    expect(leadingOf(view(bare, { outputs: ['Y'] }), 'power').number).toBe(2);
    expect(leadingOf(view(bare), 'power').number).toBe(1);
  });
});
