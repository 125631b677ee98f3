import { newJob } from '@saddlebag/core';
import { describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { localBench } from '../testing/local-bench';
import { viewFor } from '../testing/view';
import { statusOf } from './step-status';

const words = (view: ReturnType<typeof viewFor>, stages: number | null = null) => {
  const status = statusOf(view, view.bench.snapshot(), stages);
  return Object.fromEntries(Object.entries(status).map(([step, s]) => [step, s.words]));
};

describe('the strap says how far each step is', () => {
  it('of a job just begun', () => {
    expect(words(viewFor(newJob('new')))).toEqual({
      design: 'an empty sheet',
      pack: '—',
      board: 'not begun',
      inspect: '—',
      power: 'off',
      card: '—',
    });
  });

  it('of the interlock, laid out', () => {
    expect(words(viewFor(interlock()), 11)).toEqual({
      design: '4 inputs · 3 outputs · 4 gates',
      pack: '2 chips · 2 spare',
      board: '28 jumpers on 1 board',
      inspect: 'no problems found',
      power: 'off',
      card: '11 stages',
    });
  });

  it('of a sheet with a mistake, marked', () => {
    const view = viewFor({ ...newJob('wrong'), sheet: 'in A\nout Y\nY = B' });
    expect(statusOf(view, view.bench.snapshot(), null).design).toEqual({
      words: '1 mistake in the sheet',
      mark: 'bad',
    });
  });

  it('of a board with a jumper pulled, marked, with what is to be done', () => {
    const job = interlock();
    const { w12: _, ...jumpers } = job.board.jumpers;
    const view = viewFor({ ...job, board: { ...job.board, jumpers } });
    expect(statusOf(view, view.bench.snapshot(), null).inspect).toMatchObject({ mark: 'bad' });
    expect(words(view).inspect).toMatch(/^\d+ to fix/);
  });

  it('of a powered board, with the rows seen', () => {
    const view = viewFor(interlock(), localBench());
    view.bench.powerOn();
    view.bench.addWalked(view.job.board, [{ row: 0, seen: [0, 0, 1], settled: true }]);
    expect(words(view).power).toBe('on · 1 of 16 rows seen');
  });
});
