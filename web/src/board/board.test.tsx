import { type Job, newJob } from '@saddlebag/core';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import BoardStep from './BoardStep';

const job = interlock();
const open = (j: Job = job) => renderInJob(<BoardStep />, j);
const type = async (text: string) => {
  const line = screen.getByLabelText('type to the board');
  await userEvent.clear(line);
  await userEvent.type(line, `${text}{Enter}`);
  return line as HTMLInputElement;
};
const press = (key: string, more = {}) =>
  act(() => fireEvent.keyDown(screen.getByRole('application'), { key, ...more }));

describe('a bare board', () => {
  it('offers to lay everything out, and does', async () => {
    const { session } = open({ ...job, board: newJob('x').board });
    await userEvent.click(screen.getByRole('button', { name: 'Lay it all out' }));
    await waitFor(() => expect(session.job.board).toEqual(job.board));
    expect(screen.queryByText('The board is bare')).toBeNull();
  });

  it('without a design asks for a sheet or for hands', () => {
    open(newJob('empty'));
    expect(screen.getByRole('button', { name: 'Lay it all out' })).toHaveProperty('disabled', true);
    expect(screen.getByText(/Write a sheet first/)).toBeDefined();
  });
});

describe('typing to the board', () => {
  it('does what is typed and is empty for the next line', async () => {
    const { session } = open();
    const line = await type('pull w5');
    expect(session.job.board.jumpers.w5).toBeUndefined();
    expect(line.value).toBe('');
  });

  it('keeps a line it cannot take, and says what is wrong and what to do', async () => {
    const { session } = open();
    const line = await type('U9.1 > U1.2');
    expect(screen.getByRole('status').textContent).toBe(
      'There is no U9 on the board. Look at the labels on the board; references are U1, S1, D1, R1, C1.',
    );
    expect(line.value).toBe('U9.1 > U1.2');
    expect(session.job).toBe(session.job);
    expect(session.snapshot().history.past).toHaveLength(0);
  });

  it('finds a part by what it does, seats it by keys, and chooses it', async () => {
    const { session } = renderInJob(<BoardStep />, job);
    await userEvent.click(screen.getByRole('button', { name: 'Seat a part' }));
    await userEvent.type(screen.getByRole('combobox'), 'decade');
    const options = within(screen.getByRole('listbox', { name: 'find a part to seat' })).getAllByRole('option');
    expect(options.length).toBeGreaterThan(1);
    expect(screen.getByRole('combobox').getAttribute('aria-activedescendant')).toBe(options[0]?.id);
    expect(screen.getByRole('img', { name: /^outline of / })).toBeDefined();
    const before = Object.keys(session.job.board.parts);
    await userEvent.clear(screen.getByRole('combobox'));
    await userEvent.type(screen.getByRole('combobox'), 'LED{Enter}');
    const [ref = ''] = Object.keys(session.job.board.parts).filter((r) => !before.includes(r));
    expect(session.job.board.parts[ref]?.part).toBe('led');
    await waitFor(() => expect(screen.queryByRole('listbox')).toBeNull());
    // What was just seated is chosen, and comes first the next time.
    expect(screen.getByRole('button', { name: 'Rotate' })).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Seat a part' }));
    expect(screen.getAllByRole('option')[0]?.textContent).toContain('led');
  });
});

describe('what is chosen', () => {
  it('from the list shows its pins, what they carry and where they are', async () => {
    open();
    await userEvent.click(within(screen.getByLabelText('parts and jumpers')).getByText('U1'));
    expect(screen.getByText('two 4-input ANDs')).toBeDefined();
    expect(screen.getByText(/Pins 3 and 11 lead nowhere/)).toBeDefined();
    expect(screen.getAllByText('VCC').length).toBe(1);
  });

  it('can be turned and pulled out with buttons', async () => {
    const { session } = open();
    const list = screen.getByLabelText('parts and jumpers');
    await userEvent.click(within(list).getByText('D1'));
    await userEvent.click(screen.getByRole('button', { name: 'Rotate' }));
    expect(session.job.board.parts.D1?.rotation).toBe(180);
    await userEvent.click(screen.getByRole('button', { name: 'Pull out' }));
    expect(session.job.board.parts.D1).toBeUndefined();
    session.undo();
    session.undo();
    expect(session.job.board).toEqual(job.board);
  });

  it('can be fixed where it is and set free again, which the list and the drawing show', async () => {
    const { session, container } = open();
    const list = screen.getByLabelText('parts and jumpers');
    await userEvent.click(within(list).getByText('U1'));
    await userEvent.click(screen.getByRole('button', { name: 'Fix' }));
    expect(session.job.board.parts.U1?.fixed).toBe(true);
    expect(within(list).getByText(/^74HC21, fixed/)).toBeDefined();
    expect(container.querySelector('[data-fixed=U1]')).not.toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Unfix' }));
    expect(session.job.board).toEqual(job.board);
    expect(container.querySelector('[data-fixed]')).toBeNull();
  });

  it('a switch can be given another signal', async () => {
    const { session } = open();
    await userEvent.click(within(screen.getByLabelText('parts and jumpers')).getByText('S1'));
    const field = screen.getByLabelText('signal');
    await userEvent.clear(field);
    await userEvent.type(field, 'E');
    fireEvent.blur(field);
    expect(session.job.board.parts.S1?.signal).toBe('E');
  });

  it('a jumper shows its holes and its signal', async () => {
    open();
    const [id = '', jumper] = Object.entries(job.board.jumpers).find(([, j]) => /^b1\.[a-e]5$/.test(j.from)) ?? [];
    await userEvent.click(within(screen.getByLabelText('parts and jumpers')).getByText(id));
    expect(screen.getByText(`${jumper?.from} > ${jumper?.to}`, { selector: 'p:not(li p)' })).toBeDefined();
    expect(screen.getAllByRole('button', { name: 'follow K' }).length).toBe(2);
  });
});

describe('keys at the board', () => {
  it('go to the line with /, step through things with N, pull with Delete', () => {
    const { session } = open();
    press('/');
    expect(document.activeElement).toBe(screen.getByLabelText('type to the board'));
    screen.getByRole('application').focus();
    press('n');
    press('Delete');
    expect(session.job.board.parts.C1).toBeUndefined();
  });

  it('leave the page its own keys while something is being typed or a command key is held', () => {
    const { session } = open();
    press('n');
    fireEvent.keyDown(screen.getByLabelText('type to the board'), { key: 'Delete' });
    press('Delete', { ctrlKey: true });
    expect(session.job.board).toEqual(job.board);
  });
});

describe('signals', () => {
  it('tell how many of their pins are joined to their source', async () => {
    open();
    const list = screen.getByRole('region', { name: 'signals' });
    const count = (name: string) =>
      within(list)
        .getByRole('button', { name: `follow ${name}` })
        .closest('div')?.parentElement?.textContent;
    expect(count('K')).toContain('2/2');
    const [id = ''] = Object.entries(job.board.jumpers).find(([, j]) => /^b1\.[a-e]5$/.test(j.from)) ?? [];
    await type(`pull ${id}`);
    expect(count('K')).toContain('0/2');
  });
});
