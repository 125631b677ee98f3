import { newJob } from '@saddlebag/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { interlock } from '../../testing/interlock';
import { renderInJob } from '../../testing/render';
import { ResistorsButton } from './ResistorsButton';

async function opened() {
  const made = renderInJob(<ResistorsButton />, interlock());
  await userEvent.click(screen.getByRole('button', { name: 'Resistors' }));
  await screen.findAllByText(/^before D1/);
  return made;
}

describe('the resistors of a board', () => {
  it('are told with what they are for and what they may be, LEDs with their current', async () => {
    await opened();
    expect(screen.getByText('before D1, which gets 3.1 mA')).toBeDefined();
    expect(screen.getAllByText(/^pull-down at U1/)).toHaveLength(4);
    expect(screen.getAllByText('200 Ω to 100 kΩ')).toHaveLength(4);
  });

  it('get the value that suits by one press, for as much as an LED is to get; one undo brings the old one back', async () => {
    const { session } = await opened();
    const own = (ref: string) => session.job.board.parts[ref]?.value;
    const before = own('R5');
    const field = screen.getByLabelText('milliamperes of an LED');
    await userEvent.clear(field);
    await userEvent.type(field, '1.5');
    await userEvent.click(await screen.findByRole('button', { name: 'R5: 2.2 kΩ' }));
    expect(own('R5')).toBe(2200);
    session.undo();
    expect(own('R5')).toBe(before);
    await userEvent.clear(field);
    await userEvent.type(field, 'much');
    expect(field.getAttribute('aria-invalid')).toBe('true');
  });

  it('are not offered where there are none', () => {
    renderInJob(<ResistorsButton />, newJob('bare'));
    expect(screen.queryByRole('button', { name: 'Resistors' })).toBeNull();
  });
});
