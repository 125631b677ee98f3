import { applyEdit, type Job, newJob, readCommand, readDesign } from '@saddlebag/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { renderInJob } from '../testing/render';
import { TourSection } from './TourSection';

/** A job with a board of one chip that nothing is wired to. */
function jobWith(chip: string, sheet: string): Job {
  const job = newJob('test', sheet);
  const command = readCommand(job.board, `seat ${chip} b1.e20`);
  const applied = command.ok ? applyEdit(job, command.edit) : null;
  return applied?.ok ? applied.job : expect.fail(chip);
}

describe('a tour', () => {
  it('that was not made, since pulses end by themselves, does not say that all agrees', async () => {
    const sheet = 'in S\nout Y\nuse 74121 as P1 (A1 = 0, A2 = 0, B = S, Q = Y)';
    renderInJob(<TourSection />, jobWith('74121', sheet), { reading: readDesign(sheet) });
    await userEvent.click(screen.getByRole('button', { name: /Tour the states/ }));
    expect(await screen.findByText('no transition was seen')).toBeDefined();
    expect(screen.getByText(/The pulses of U1 end by themselves/)).toBeDefined();
    expect(screen.queryByText(/all agree/)).toBeNull();
  });
});
