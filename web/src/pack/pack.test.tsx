import { finding, newJob } from '@saddlebag/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import PackStep from './PackStep';

const job = interlock();

describe('packing', () => {
  it('shows each package with its count, and says how sure it is', () => {
    renderInJob(<PackStep />, job);
    expect(screen.getByRole('img', { name: 'U1 74HC21' })).toBeDefined();
    expect(screen.getByText(/two 4-input ANDs, 2 of 2 used/)).toBeDefined();
    expect(screen.getByText('4 units used, 2 spare')).toBeDefined();
    expect(screen.getByText(/^Proved: built gate for gate/)).toBeDefined();
  });

  it('claims no proof where there is none', () => {
    const packing = job.packing && { ...job.packing, proved: false };
    renderInJob(<PackStep />, { ...job, packing });
    expect(screen.queryByText(/Proved/)).toBeNull();
    expect(screen.getByText(/a smaller set may exist/)).toBeDefined();
  });

  it('tells where each gate sits and what a spare unit is put to', () => {
    renderInJob(<PackStep />, job);
    expect(screen.getByText("K·E'·U·L")).toBeDefined();
    expect(screen.getByText('spare unit as inverter, inputs joined')).toBeDefined();
    expect(screen.getByText('spare inputs joined')).toBeDefined();
  });

  it('lays the packing out on boards and goes there', async () => {
    const { session, router } = renderInJob(<PackStep />, { ...job, board: newJob('x').board });
    await userEvent.click(screen.getByRole('button', { name: 'Lay it out on boards' }));
    expect(session.job.board).toEqual(job.board);
    expect(router.state.location.pathname).toBe('/job/job-1/board');
  });

  it('can be stopped, and taken up again', async () => {
    const [stop, start] = [vi.fn(), vi.fn()];
    const { unmount } = renderInJob(<PackStep />, job, { packing: null, packingPending: true, stopPacking: stop });
    await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(stop).toHaveBeenCalledOnce();
    unmount();
    renderInJob(<PackStep />, job, { packing: null, startPacking: start });
    await userEvent.click(screen.getByRole('button', { name: 'Pack again' }));
    expect(start).toHaveBeenCalledOnce();
  });

  it.each([
    ['a mistake in the sheet', { ...newJob('x'), sheet: 'in A\nout Y\nY = B' }, /The sheet has a mistake/],
    ['nothing to pack', newJob('x'), /Nothing to pack yet|Stopped before/],
  ])('says what it waits for: %s', (_, j, text) => {
    renderInJob(<PackStep />, j);
    expect(screen.getByText(text)).toBeDefined();
  });

  it('tells a failed program as a finding', () => {
    const failed = finding('pack/no-solution', [], { status: 'Infeasible' });
    renderInJob(<PackStep />, job, { packing: null, packingFindings: [failed] });
    expect(screen.getByText('The integer program found no packing (Infeasible).')).toBeDefined();
  });
});
