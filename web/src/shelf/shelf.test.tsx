import { redo, startHistory, undo, writeJobFile } from '@saddlebag/core';
import { readJobFile } from '@saddlebag/core/job-reader';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { notices } from '../kit/notices';
import { db } from '../store/db';
import { keptHistory, recoverRescued, world } from '../store/environment';
import { JobSession, type SessionEnvironment } from '../store/session';
import { shelf } from '../store/shelf';
import { interlock } from '../testing/interlock';
import { renderPage } from '../testing/render';
import { bringFile, bringText } from './import-file';
import { renameRow } from './rename';
import { ShelfPage } from './ShelfPage';

const job = interlock();
const text = writeJobFile(job);

/** A server that has the interlock alone. */
function serve(works = true): void {
  vi.stubGlobal('fetch', async (path: string) => {
    if (!works) throw new TypeError('no server');
    const body = path === '/api/samples' ? JSON.stringify([{ id: 'lock-interlock', name: 'Lock interlock' }]) : text;
    return new Response(body);
  });
}

beforeEach(async () => {
  await db.jobs.clear();
  serve();
});
afterEach(() => vi.unstubAllGlobals());

describe('the shelf on the screen', () => {
  it('when empty says how to begin; a sample that is taken opens', async () => {
    const { router } = renderPage(<ShelfPage />);
    expect(await screen.findByText(/Nothing here yet/)).toBeDefined();
    await userEvent.click(await screen.findByRole('button', { name: 'Open a copy of Lock interlock' }));
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/job\/.+\/design$/));
    expect((await shelf.list()).map((r) => r.name)).toEqual(['Lock interlock']);
  });

  it('lists its keys at the foot and on ?', async () => {
    renderPage(<ShelfPage />);
    expect(screen.getByText('from job to job')).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: /all keys/ }));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toMatch(/On the shelf.*from job to job.*open.*Everywhere/);
  });

  it('shows a job with its signals and how far it is', async () => {
    await shelf.add(job);
    renderPage(<ShelfPage />);
    const line = await screen.findByRole('button', { name: 'Open Lock interlock' });
    expect(line.closest('li')?.textContent).toContain('K E U L → G P W');
    expect(screen.getByText(/2 chips, 28 jumpers/)).toBeDefined();
  });

  it('works without the server: samples say so and can be asked for again', async () => {
    serve(false);
    await shelf.addNew('Mine');
    renderPage(<ShelfPage />);
    expect(await screen.findByRole('button', { name: 'Open Mine' })).toBeDefined();
    const again = await screen.findByRole('button', { name: 'Try again' }, { timeout: 5000 });
    serve();
    await userEvent.click(again);
    expect(await screen.findByRole('button', { name: 'Open a copy of Lock interlock' })).toBeDefined();
  });

  it('duplicates and deletes', async () => {
    await shelf.add(job);
    renderPage(<ShelfPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Duplicate Lock interlock' }));
    expect(await screen.findByRole('button', { name: 'Open Lock interlock 2' })).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Delete Lock interlock' }));
    await waitFor(() => expect(screen.queryByRole('button', { name: 'Open Lock interlock' })).toBeNull());
  });

  it('takes a dropped job file, and refuses a broken one with a sentence', async () => {
    const { container, router } = renderPage(<ShelfPage />);
    await screen.findByText(/Nothing here yet/);
    const drop = (file: File) =>
      fireEvent.drop(container.firstElementChild as Element, { dataTransfer: { files: [file] } });
    drop(new File(['{'], 'torn.json'));
    const alert = await screen.findByRole('alert');
    expect(within(alert).getByText(/The file is not JSON/)).toBeDefined();
    expect(await shelf.list()).toHaveLength(0);
    drop(new File([text], 'good.json'));
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/job\//));
  });
});

describe('bringing in', () => {
  it('a sheet makes a job of it, named after the file', async () => {
    const brought = await bringFile(new File(['in A\nout Y\nY = A'], 'sluice.sheet'));
    const row = 'id' in brought ? await shelf.get(brought.id) : undefined;
    expect(row).toMatchObject({ name: 'sluice', summary: { inputs: ['A'], outputs: ['Y'] } });
  });

  it('Verilog and tables come in as sheets; what was left out is told, what is nothing is refused', async () => {
    const bringAs = async (name: string, text: string) => {
      const brought = await bringFile(new File([text], name));
      const row = 'id' in brought ? await shelf.get(brought.id) : undefined;
      return { row, brought };
    };
    const verilog = await bringAs(
      'gate.v',
      'module gate(input a, output y);\n initial y = 0;\n assign y = ~a;\nendmodule\n',
    );
    expect(verilog.row).toMatchObject({ name: 'gate' });
    expect(verilog.row?.text).toContain('y = ~a');
    expect(verilog.brought).toMatchObject({ partly: [{ code: 'verilog/not-understood' }] });
    const table = await bringAs('dial.csv', 'A,B,,Y\n0,0,,1\n1,1,,0\n');
    expect(table.row?.text).toContain('table Y of A B');
    expect((await bringAs('odd.csv', 'A,,Y\n0,,7\n')).brought).toMatchObject({ findings: [{ code: 'csv/bad-cell' }] });
    expect((await bringAs('odd.v', 'nothing here')).brought).toMatchObject({
      findings: [{ code: 'verilog/not-understood' }],
    });
  });

  it('a file that is too large is refused unread', async () => {
    const file = new File([''], 'huge.json');
    Object.defineProperty(file, 'size', { value: 9e6 });
    const read = vi.spyOn(file, 'text');
    expect(await bringFile(file)).toMatchObject({ findings: [{ code: 'file/too-big' }] });
    expect(read).not.toHaveBeenCalled();
  });

  it('a job twice gives two names', async () => {
    await bringText(text);
    await bringText(text);
    expect((await shelf.list()).map((r) => r.name).sort()).toEqual(['Lock interlock', 'Lock interlock 2']);
  });
});

describe('renaming on the shelf', () => {
  it('changes name and file, and says so when the job is gone', async () => {
    const id = await shelf.add(job);
    expect(await renameRow(id, 'Weir')).toBeNull();
    const row = await shelf.get(id);
    expect(row?.name).toBe('Weir');
    expect(JSON.parse(row?.text ?? '{}')).toMatchObject({ name: 'Weir' });
    expect(await renameRow('none', 'x')).toBe('The job is no longer on the shelf.');
  });
});

describe('work that a closing tab could only rescue', () => {
  const rescue = (id: string, base: number, kept: string) =>
    localStorage.setItem(`saddlebag:rescue:${id}`, JSON.stringify({ base, text: kept }));
  const renamed = writeJobFile({ ...job, name: 'Rescued' });

  it('is on the shelf when the job is opened again', async () => {
    const id = await shelf.add(job);
    rescue(id, 1, renamed);
    await recoverRescued(id);
    expect((await shelf.get(id))?.name).toBe('Rescued');
    expect(localStorage.getItem(`saddlebag:rescue:${id}`)).toBeNull();
  });

  it('becomes a copy when the job has moved on since', async () => {
    const id = await shelf.add(job);
    await shelf.save(id, { ...job, name: 'Newer' }, 1);
    rescue(id, 1, renamed);
    await recoverRescued(id);
    expect((await shelf.list()).map((r) => r.name).sort()).toEqual(['Newer', 'Rescued (other tab)']);
  });

  it('that had got through after all is not brought back twice', async () => {
    const id = await shelf.add(job);
    await shelf.save(id, { ...job, name: 'Rescued' }, 1);
    rescue(id, 1, renamed);
    await recoverRescued(id);
    expect(await shelf.list()).toHaveLength(1);
  });

  it('that is torn is dropped without a word', async () => {
    const id = await shelf.add(job);
    localStorage.setItem(`saddlebag:rescue:${id}`, '{"base":');
    await recoverRescued(id);
    expect((await shelf.list()).map((r) => r.name)).toEqual(['Lock interlock']);
  });
});

describe('a tab that dies at any moment', () => {
  const never = new Promise<never>(() => {});
  const saves: Record<string, SessionEnvironment['save']> = {
    'nothing is saved': () => never,
    'the job is saved, and the tab does not hear of it': async (...args) => {
      await world.save(...args);
      return never;
    },
    'the job is saved, and its steps are not': world.save,
  };
  const opened = async (save: SessionEnvironment['save']) => {
    const id = await shelf.add(job);
    const keepHistory = vi.fn(() => never);
    const session = new JobSession({ id, history: startHistory(job), rev: 1 }, { ...world, save, keepHistory });
    for (const name of ['Weir 1', 'Weir 2', 'Weir 3']) session.dispatch({ kind: 'rename', name });
    session.undo();
    return { id, session, keepHistory };
  };
  const foundAgain = async (id: string) => {
    await recoverRescued(id);
    const row = (await shelf.get(id)) ?? expect.fail();
    const read = readJobFile(row.text);
    const history = await keptHistory(id, row.rev, read.ok ? read.job : expect.fail());
    return [undo(history).job.name, history.job.name, redo(history).job.name];
  };

  it.each(Object.keys(saves))('loses neither the job nor a step: %s', async (when) => {
    const { id, session } = await opened(saves[when] ?? expect.fail());
    session.rescue();
    await new Promise((done) => setTimeout(done, 50));
    expect(await foundAgain(id)).toEqual(['Weir 1', 'Weir 2', 'Weir 3']);
  });

  it('loses no step either when it is closed after its job was saved', async () => {
    const { id, session, keepHistory } = await opened(world.save);
    void session.flush();
    await vi.waitFor(() => expect(keepHistory).toHaveBeenCalled());
    session.rescue();
    expect(await foundAgain(id)).toEqual(['Weir 1', 'Weir 2', 'Weir 3']);
  });

  it('makes no copy of a job that was saved and has moved on since in another tab', async () => {
    const { id, session, keepHistory } = await opened(world.save);
    void session.flush();
    await vi.waitFor(() => expect(keepHistory).toHaveBeenCalled());
    session.rescue();
    await shelf.save(id, { ...job, name: 'Newer' }, 2);
    await recoverRescued(id);
    expect((await shelf.list()).map((r) => r.name)).toEqual(['Newer']);
  });
});

describe('a browser that keeps nothing', () => {
  afterEach(() => vi.restoreAllMocks());
  const full = () => Promise.reject(new DOMException('no room', 'QuotaExceededError'));

  it('says so when a job cannot be begun or taken, and changes nothing', async () => {
    const told = vi.spyOn(notices, 'create');
    vi.spyOn(shelf, 'add').mockImplementation(full);
    const { router } = renderPage(<ShelfPage />);
    for (const name of ['New job', 'Open a copy of Lock interlock']) {
      told.mockClear();
      await userEvent.click(await screen.findByRole('button', { name }));
      await waitFor(() => expect(told).toHaveBeenCalled());
      expect(told.mock.calls[0]?.[0]?.title).toMatch(/full or shut \(QuotaExceededError: no room\)/);
    }
    expect(router.state.location.pathname).toBe('/');
  });

  it('still shows the samples when the shelf cannot be read', async () => {
    vi.spyOn(shelf, 'list').mockImplementation(full as never);
    renderPage(<ShelfPage />);
    expect(await screen.findByText(/storage is full or shut/)).toBeDefined();
    expect(await screen.findByRole('button', { name: 'Open a copy of Lock interlock' })).toBeDefined();
  });

  it('with one damaged row shows the rest, and lets its text be taken out', async () => {
    await shelf.addNew('Sound');
    await db.jobs.put({ id: 'hurt', name: 'Hurt', text: 'what is left', deletedAt: 0, changedAt: 'once' } as never);
    renderPage(<ShelfPage />);
    expect(await screen.findByRole('button', { name: 'Open Sound' })).toBeDefined();
    expect(screen.getByText('damaged: what is left of it can be exported')).toBeDefined();
    expect(screen.getByRole('button', { name: 'Export Hurt' })).toBeDefined();
  });
});

describe('the bin', () => {
  it('keeps what was deleted until it is emptied, and gives it back', async () => {
    await shelf.addNew('Mine');
    await shelf.addNew('Other');
    renderPage(<ShelfPage />);
    for (const name of ['Mine', 'Other'])
      await userEvent.click(await screen.findByRole('button', { name: `Delete ${name}` }));
    await userEvent.click(await screen.findByRole('button', { name: 'Bin: 2 jobs' }));
    await userEvent.click(screen.getByRole('button', { name: 'Put back Mine' }));
    expect(await screen.findByRole('button', { name: 'Open Mine' })).toBeDefined();
    await userEvent.click(screen.getByRole('button', { name: 'Empty the bin' }));
    await waitFor(() => expect(screen.queryByText(/^Bin/)).toBeNull());
    expect((await db.jobs.toArray()).map((r) => r.name)).toEqual(['Mine']);
  });
});
