import { catalogue, findChip } from '@saddlebag/core';
import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { db } from '../store/db';
import { shelf } from '../store/shelf';
import { interlock } from '../testing/interlock';
import { renderPage } from '../testing/render';
import { Datasheet } from './Datasheet';
import PartsPage from './PartsPage';

const sheetOf = (id: string) => renderPage(<Datasheet type={findChip(id) ?? expect.fail(id)} />);

describe('a datasheet', () => {
  it('has the package with every pin, the function table, the catch, and the jobs that use it', async () => {
    await db.jobs.clear();
    const id = await shelf.add(interlock());
    sheetOf('7402');
    expect(screen.getByRole('heading', { name: '74HC02' })).toBeDefined();
    expect(screen.getByRole('img', { name: '74HC02 from above, pin 1 at the lower left' }).textContent).toContain(
      'VCC',
    );
    const rows = [...document.querySelectorAll('tbody tr')].map((tr) => tr.textContent);
    expect(rows).toEqual(['LLH', 'LHL', 'HLL', 'HHL']);
    expect(screen.getByText(/The outputs come first: pin 1 is an output here/)).toBeDefined();
    expect((await screen.findByRole('link', { name: 'Lock interlock' })).getAttribute('href')).toBe(`/job/${id}/board`);
  });

  it('gives the limits of the family that is chosen', async () => {
    sheetOf('7400');
    expect(screen.getByText('2 to 6 V')).toBeDefined();
    await userEvent.selectOptions(screen.getByLabelText('family'), 'LS');
    expect(screen.getByText('4.75 to 5.25 V')).toBeDefined();
    expect(screen.getByRole('heading', { name: '74LS00' })).toBeDefined();
  });

  it('of a part with memory says its edges and shows it in time', () => {
    sheetOf('7474');
    expect(screen.getByText(/Changes as 1CLK rises; set at once while 1PREn is low/)).toBeDefined();
    expect(screen.getByRole('img', { name: 'timing diagram' }).querySelectorAll('path')).toHaveLength(6);
  });

  it('of analogue switches says which pins they join, when they are closed, and at how many ohms', async () => {
    sheetOf('4051');
    expect(await screen.findByText('joins Z with Y0, Y1, Y2, Y3, Y4, Y5, Y6, Y7')).toBeDefined();
    await screen.findByRole('columnheader', { name: 'Y7' });
    const closed = [...document.querySelectorAll('tbody tr')].map((tr) => tr.textContent.match(/closed/g)?.length ?? 0);
    expect(closed.toSorted()).toEqual([0, 0, 1, 1, 1, 1, 1, 1, 1, 1]);
    expect(screen.getByText('70 Ω')).toBeDefined();
    expect(screen.queryByRole('button', { name: 'Try this chip' })).toBeNull();
  });

  it('can be made of every part there is', () => {
    for (const type of catalogue()) {
      const { container, unmount } = renderPage(<Datasheet type={type} />);
      expect(container.textContent).toContain(type.caveat);
      unmount();
    }
  }, 120_000);
});

describe('the shelf of parts', () => {
  it('finds by function, opens the first with Enter, and says when nothing fits', async () => {
    const { router } = renderPage(<PartsPage />);
    const field = screen.getByLabelText('number or function');
    await userEvent.type(field, 'teapot');
    expect(screen.getByText(/No part has these words/)).toBeDefined();
    await userEvent.clear(field);
    await userEvent.type(field, 'three-input nor{Enter}');
    expect(router.state.location.pathname).toBe('/parts/7427');
  });
});
