import { findChip, newJob, partEntries } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import keepers from '../../../samples/keepers-vote.saddlebag.json?raw';
import { db } from '../store/db';
import { shelf } from '../store/shelf';
import { renderPage } from '../testing/render';
import PartsPage from './PartsPage';

beforeEach(async () => {
  await db.jobs.clear();
});

const open = (at: string) => renderPage(<PartsPage />, { path: '/parts/:id?', at });
const sheetOf = (id: string) => screen.getByRole('region', { name: `datasheet of ${id}` });
const find = () => screen.getByLabelText('number or function');

describe('the page of parts', () => {
  it('has the part of its address, in the title too, and marks it in the list', () => {
    open('/parts/7400');
    expect(within(sheetOf('7400')).getByRole('heading', { name: '74HC00' })).toBeDefined();
    expect(document.title).toBe('7400 · Saddlebag');
    const current = screen.getAllByRole('link').filter((link) => link.getAttribute('aria-current') === 'page');
    expect(current.map((link) => link.getAttribute('href'))).toEqual(['/parts/7400']);
  });

  it('knows a part however it is printed, says so of one it does not know, and asks to choose where there is none', () => {
    const { unmount } = open('/parts/SN74LS00N');
    expect(screen.getByRole('heading', { name: '74HC00' })).toBeDefined();
    unmount();
    const lost = open('/parts/74HC9999');
    expect(screen.getByText('No part is known as 74HC9999.')).toBeDefined();
    lost.unmount();
    open('/parts');
    expect(screen.getByText(/Choose a part in the list/)).toBeDefined();
    expect(document.title).toBe('Parts · Saddlebag');
  });

  it('lists every part at first, and counts what is found of all', async () => {
    open('/parts');
    expect(screen.getAllByRole('listitem')).toHaveLength(partEntries.length);
    await userEvent.type(find(), 'decade counter');
    const found = screen.getAllByRole('listitem');
    expect(found.length).toBeLessThan(partEntries.length / 8);
    expect(screen.getByText(`${found.length} of ${partEntries.length}`)).toBeDefined();
    expect(found.map((line) => line.textContent).join()).toMatch(/7490/);
  });

  it('lays another part beside it, keeps that in the address and through a search, and puts it back', async () => {
    const { router } = open('/parts/7400');
    await userEvent.selectOptions(screen.getByLabelText('part beside it'), '7403');
    expect(router.state.location.search).toBe('?beside=7403');
    expect(within(sheetOf('7403')).getByText(/only pulls low/)).toBeDefined();
    await userEvent.type(find(), '7402{Enter}');
    await waitFor(() => expect(router.state.location.pathname).toBe('/parts/7402'));
    expect(sheetOf('7403')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Put it back' }));
    expect(router.state.location.search).toBe('');
    expect(screen.queryByRole('region', { name: 'datasheet of 7403' })).toBeNull();
  });

  it('has the parts that jobs of the shelf define, by the job they are from', async () => {
    const read = readJobFile(keepers);
    const id = await shelf.add(read.ok ? read.job : expect.fail('the sample cannot be read'));
    const { router } = open('/parts');
    const own = await screen.findByText('majority of three, with its opposite, in Keepers vote');
    await userEvent.click(own);
    expect(`${router.state.location.pathname}${router.state.location.search}`).toBe(`/parts/VOTE3?job=${id}`);
    expect(await screen.findByRole('region', { name: 'datasheet of VOTE3' })).toBeDefined();
    // Without the job there is no such part.
    await router.navigate('/parts/VOTE3');
    expect(await screen.findByText('No part is known as VOTE3.')).toBeDefined();
  });

  it('says of each limit under what it is promised, by the family that is chosen', async () => {
    open('/parts/7474');
    const limit = (name: string) => screen.getByText(name).nextElementSibling?.textContent?.replaceAll('\u00a0', ' ');
    expect(limit('Output high at least')).toBe('3.98 V at 4.5 V supply, 25 °C; 3.84 V from −40 to 85 °C');
    expect(limit('Set-up and hold at the clock')).toBe('20 and 0 ns at 4.5 V supply, 25 °C');
    await userEvent.selectOptions(screen.getByLabelText('family'), 'LS');
    expect(limit('Output high at least')).toBe('2.7 V at 4.75 V supply, 0 to 70 °C');
    expect(limit('Delay, typical and at most')).toMatch(/ at 5 V supply, 25 °C, 15 pF$/);
  });

  it('says which jobs of the shelf have the part on their boards', async () => {
    await shelf.add({ ...newJob('Spare board'), board: newJob('x').board });
    open('/parts/7474');
    expect(await screen.findByText('No job’s board has one.')).toBeDefined();
  });
});

describe('a chip that is tried', () => {
  it('comes on a board of its own, powered and wired, with the units that were chosen', async () => {
    const { router } = open('/parts/7400');
    await userEvent.click(screen.getByRole('button', { name: 'Try this chip' }));
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/job\/.+\/power$/));
    const [row] = await shelf.list();
    const read = readJobFile(row?.text ?? '');
    if (!read.ok) return expect.fail('the job cannot be read');
    const { board, ownTable } = read.job;
    const kinds = Object.values(board.parts).map((part) => part.part);
    expect(kinds.filter((part) => part === '74HC00')).toHaveLength(1);
    // One unit: two switches and a lamp, and a table to fill in.
    expect([kinds.filter((k) => k === 'switch').length, kinds.filter((k) => k === 'led').length]).toEqual([2, 1]);
    expect(ownTable).toBeDefined();
  });

  it('with all its units has a switch for every input', async () => {
    const { router } = open('/parts/7400');
    await userEvent.selectOptions(screen.getByLabelText('units to try'), 'all 4 units');
    await userEvent.click(screen.getByRole('button', { name: 'Try this chip' }));
    await waitFor(() => expect(router.state.location.pathname).toMatch(/power$/));
    const [row] = await shelf.list();
    expect(row?.summary.inputs).toHaveLength(8);
    expect(row?.summary.outputs).toHaveLength(4);
  });

  it('is not offered of parts that are no chips, nor of transceivers', () => {
    const { unmount } = open('/parts/led');
    expect(screen.queryByRole('button', { name: 'Try this chip' })).toBeNull();
    unmount();
    expect(findChip('74245')).toBeDefined();
    open('/parts/74245');
    expect(screen.queryByRole('button', { name: 'Try this chip' })).toBeNull();
  });
});
