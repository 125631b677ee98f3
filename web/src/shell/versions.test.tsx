import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { db } from '../store/db';
import { shelf } from '../store/shelf';
import { keepVersion, MOST_VERSIONS, versionsOf } from '../store/versions';
import { interlock } from '../testing/interlock';
import { renderInJob } from '../testing/render';
import { VersionsLeaf } from './VersionsLeaf';

const job = interlock();
beforeEach(() => db.versions.clear());

describe('versions of a job', () => {
  it('are kept by name, tell what differs from the job now, and open as a job of their own', async () => {
    const { session } = renderInJob(<VersionsLeaf onClose={() => {}} />, job);
    await userEvent.type(await screen.findByLabelText('Keep the job as it is now, as'), 'before the bell{Enter}');
    const list = await screen.findByRole('list', { name: 'versions kept' });
    await within(list).findByText('before the bell');
    await userEvent.click(screen.getByRole('button', { name: 'What differs from before the bell' }));
    await screen.findByText('Nothing differs.');
    session.dispatch({ kind: 'pull-jumper', id: 'w5' });
    session.dispatch({ kind: 'write-sheet', text: `${job.sheet}\n# a bell\n` });
    await userEvent.click(screen.getByRole('button', { name: 'What differs from before the bell' }));
    const found = await screen.findByRole('region', { name: 'what differs' });
    await waitFor(() => expect(found.textContent).toContain('# a bell'));
    expect(found.textContent).toMatch(/w5 gone: \S+ to \S+/);
    await userEvent.click(screen.getByRole('button', { name: 'Open before the bell as a job of its own' }));
    await waitFor(async () => {
      const rows = await shelf.list();
      expect(rows.map((row) => row.name)).toContain(`${job.name}: before the bell`);
    });
  });

  it('are let go one by one, and are no more than can be looked through', async () => {
    for (let n = 0; n < MOST_VERSIONS; n++) expect(await keepVersion('job-1', `v${n}`, job)).toBe(true);
    expect(await keepVersion('job-1', 'one more', job)).toBe(false);
    expect(await keepVersion('job-2', 'of another', job)).toBe(true);
    renderInJob(<VersionsLeaf onClose={() => {}} />, job);
    await userEvent.click(await screen.findByRole('button', { name: 'Let v7 go' }));
    await waitFor(async () => expect(await versionsOf('job-1')).toHaveLength(MOST_VERSIONS - 1));
  });
});
