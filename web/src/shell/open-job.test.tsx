import { writeJobFile } from '@saddlebag/core';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import { db } from '../store/db';
import { shelf } from '../store/shelf';
import { interlock } from '../testing/interlock';
import { renderPage } from '../testing/render';
import { JobPage } from './JobPage';

const job = interlock();

beforeEach(async () => {
  await db.jobs.clear();
});
const open = (id: string, step = 'inspect') =>
  renderPage(<JobPage />, { path: '/job/:id/:step', at: `/job/${id}/${step}` });

describe('an open job', () => {
  it('shows its name, that it is kept, and how far each step is', async () => {
    open(await shelf.add(job));
    expect(await screen.findByRole('heading', { name: 'Lock interlock' })).toBeDefined();
    expect(await screen.findByText('4 inputs · 3 outputs · 4 gates')).toBeDefined();
    expect(screen.getByText(/^kept in this browser/)).toBeDefined();
    await waitFor(() => expect(document.title).toBe('Lock interlock · Inspect · Saddlebag'));
  });

  it('undoes and redoes by key, and the shelf follows', async () => {
    const id = await shelf.add(job);
    open(id);
    await screen.findByText('No problems found');
    const named = (name: string) => waitFor(async () => expect((await shelf.get(id))?.name).toBe(name));
    fireEvent.click(screen.getByRole('heading', { level: 1 }));
    const field = await screen.findByLabelText('Name');
    fireEvent.change(field, { target: { value: 'Weir' } });
    fireEvent.submit(field.closest('form') as HTMLFormElement);
    await named('Weir');
    act(() => fireEvent.keyDown(document.body, { key: 'z', ctrlKey: true }));
    await named('Lock interlock');
    act(() => fireEvent.keyDown(document.body, { key: 'Z', ctrlKey: true, shiftKey: true }));
    await named('Weir');
  });

  it('leaves undo in a field to the field', async () => {
    const id = await shelf.add(job);
    open(id);
    await screen.findByText('No problems found');
    fireEvent.click(screen.getByRole('heading', { level: 1 }));
    const field = await screen.findByLabelText('Name');
    const taken = !fireEvent.keyDown(field, { key: 'z', ctrlKey: true });
    expect(taken).toBe(false);
  });

  it('goes to a step by Alt and its number', async () => {
    const id = await shelf.add(job);
    const { router } = open(id);
    await screen.findByText('No problems found');
    act(() => fireEvent.keyDown(document.body, { key: '3', code: 'Digit3', altKey: true }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/job/${id}/board`));
  });

  it('says at the foot what matters most, and leads there', async () => {
    const { w12: _, ...jumpers } = job.board.jumpers;
    const id = await shelf.add({ ...job, board: { ...job.board, jumpers } });
    const { router } = open(id, 'card');
    fireEvent.click(await screen.findByRole('button', { name: 'Show me' }));
    await waitFor(() => expect(router.state.location.pathname).toBe(`/job/${id}/inspect`));
  });
});

describe('a job that cannot be opened', () => {
  it('is not on the shelf', async () => {
    open('nowhere');
    expect(await screen.findByText(/it is not on the shelf/)).toBeDefined();
  });

  it('is broken: its text can be taken out, and nothing else happens to it', async () => {
    const id = await shelf.add(job);
    const text = writeJobFile(job).replace('"version": 2', '"version": 7');
    await db.jobs.update(id, { text });
    open(id);
    expect(await screen.findByText(/this program knows versions up to 2/)).toBeDefined();
    expect(screen.getByRole('button', { name: 'Export its file' })).toBeDefined();
    expect((await shelf.get(id))?.text).toBe(text);
  });
});
