import { applyEdit, type Job, newJob, readCommand } from '@saddlebag/core';
import { act, fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import InspectStep from './InspectStep';

const job = interlock();
/** The interlock after some typed commands. */
const following = (...commands: string[]): Job =>
  commands.reduce((current, text) => {
    const command = readCommand(current.board, text);
    const applied = command.ok ? applyEdit(current, command.edit) : null;
    return applied?.ok ? applied.job : expect.fail(text);
  }, job);
const press = (key: string) => act(() => fireEvent.keyDown(document.body, { key }));

describe('inspection', () => {
  it('of a sound board says what was looked at and where to go next', () => {
    renderInJob(<InspectStep />, job);
    expect(screen.getByText('No problems found')).toBeDefined();
    expect(screen.getByRole('link', { name: 'Power up' }).getAttribute('href')).toBe('/job/job-1/power');
  });

  it('of a bare board leads to the board', () => {
    renderInJob(<InspectStep />, newJob('x'));
    expect(screen.getByRole('link').getAttribute('href')).toBe('/job/job-1/board');
  });

  it('lists findings, the gravest first, and shows the chosen one at its place', () => {
    renderInJob(<InspectStep />, following('pull w2', 'rotate D1', 'pull w28'));
    expect(screen.getByText('2 to fix, 1 to look at')).toBeDefined();
    const said = screen.getAllByText(/has no ground|wrong way round|unused gate is open/).map((e) => e.tagName);
    expect(said.length).toBeGreaterThanOrEqual(4);
    press('ArrowDown');
    const [, second] =
      screen.getAllByRole('button', { pressed: true }).length > 0
        ? screen.getAllByRole('button', { name: /to fix|to look at/ })
        : [];
    expect(second?.getAttribute('aria-pressed')).toBe('true');
  });

  it('leaves a finding unsaid at its place, with a reason that stays, until it is told again; undo works', async () => {
    const { session } = renderInJob(<InspectStep />, following('pull C1'));
    expect(screen.getByText('0 to fix, 1 to look at')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Silence …' }));
    await userEvent.type(await screen.findByLabelText('Why it is all right here'), 'a larger one sits beside{Enter}');
    expect(session.job.silenced).toEqual([{ code: 'no-capacitor', place: 'U1', reason: 'a larger one sits beside' }]);
    expect(screen.getByText('No problems found')).toBeDefined();
    expect(screen.getByText(/U1: a larger one sits beside/)).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Show again: no-capacitor at U1' }));
    expect(session.job.silenced).toBeUndefined();
    expect(screen.getByText('0 to fix, 1 to look at')).toBeDefined();
    session.undo();
    expect(session.job.silenced).toHaveLength(1);
  });

  it('mends a finding with its button, or with Enter, and both can be undone', async () => {
    const { session } = renderInJob(<InspectStep />, following('rotate D1', 'pull w2'));
    await userEvent.click(screen.getByRole('button', { name: 'rotate D1' }));
    expect(session.job.board.parts.D1?.rotation).toBe(0);
    act(() => (document.activeElement as HTMLElement).blur());
    press('Enter');
    expect(screen.getByText('No problems found')).toBeDefined();
    act(() => {
      session.undo();
      session.undo();
    });
    expect(session.job.board).toEqual(following('rotate D1', 'pull w2').board);
  });

  it('says once that the sheet has moved on since the board was laid out', () => {
    const { packing } = job;
    const moved = { ...job, packing: packing && { ...packing, design: '0'.repeat(14) } };
    renderInJob(<InspectStep />, moved, {
      findings: [{ code: 'board-outdated', severity: 'warning', places: [], facts: {} }],
    });
    expect(screen.getByText('The sheet has changed since the board was laid out.')).toBeDefined();
  });
});
