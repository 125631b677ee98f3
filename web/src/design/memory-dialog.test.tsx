import { newJob } from '@saddlebag/core';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { renderInJob } from '../testing/render';
import { MemoryDialog } from './MemoryDialog';

const sheet = 'in A\nout Y\nY = A\n';

/** The dialog on a job, filled in by hand. */
async function programmed(name: string, contents: string, onClose = () => {}) {
  const made = renderInJob(<MemoryDialog onClose={onClose} />, { ...newJob('lock'), sheet });
  const field = await screen.findByLabelText('What the sheet calls it');
  await userEvent.clear(field);
  await userEvent.type(field, name);
  await userEvent.upload(screen.getByLabelText('what it holds'), new File([contents], 'digits.hex'));
  await screen.findByText('digits.hex');
  await userEvent.click(screen.getByRole('button', { name: 'Put on the sheet' }));
  return { text: () => made.session.job.sheet, undo: () => made.session.undo() };
}

describe('a memory from a file', () => {
  it('comes onto the sheet with what the file holds, by the keys and a file alone; undo takes it off', async () => {
    let closed = 0;
    const { text, undo } = await programmed('DIGIT', '3F 06', () => closed++);
    await waitFor(() => expect(text()).toBe(`${sheet}part DIGIT "digits" of 74288\n  holds 3F 06\nend\n`));
    expect(closed).toBe(1);
    undo();
    expect(text()).toBe(sheet);
  });

  it('says what is wrong with the file, and leaves the sheet as it is', async () => {
    const { text } = await programmed('DIGIT', '3F WRONG');
    await screen.findByText(/Line 1 has WRONG, which is no word/);
    expect(text()).toBe(sheet);
  });

  it('cannot be put there without a file', async () => {
    renderInJob(<MemoryDialog onClose={() => {}} />, { ...newJob('lock'), sheet });
    expect((await screen.findByRole('button', { name: 'Put on the sheet' })).hasAttribute('disabled')).toBe(true);
  });
});
