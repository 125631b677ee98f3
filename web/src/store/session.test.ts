import { type Job, newJob, perform, redo, startHistory, undo, writeHistory, writeJobFile } from '@saddlebag/core';
import { readHistory, readJobFile } from '@saddlebag/core/job-reader';
import { describe, expect, it } from 'vitest';
import { ShelfDb } from './db';
import { JobSession, type SessionEnvironment } from './session';
import { freeName, Shelf } from './shelf';

let count = 0;
/** A shelf of its own with a clock and ids that count up. */
function freshShelf() {
  let time = 1000;
  let id = 0;
  const shelf = new Shelf(
    new ShelfDb(`test-${++count}`),
    () => ++time,
    () => `job-${++id}`,
  );
  return {
    shelf,
    pass: (ms: number) => {
      time += ms;
    },
  };
}

/** A session on a shelf, with timers run by hand and a place for rescued work. */
async function opened(shelf: Shelf, id: string, change: Partial<SessionEnvironment> = {}) {
  const row = (await shelf.get(id)) ?? expect.fail('no row');
  const timers: (() => void)[] = [];
  const rescued = new Map<string, string>();
  const moves: string[] = [];
  const world: SessionEnvironment = {
    save: (...args) => shelf.save(...args),
    keepHistory: (key, rev, history) => shelf.keepSteps(key, rev, writeHistory(history)),
    saveCopy: (job) => shelf.add({ ...job, name: `${job.name} (other tab)` }),
    now: () => 5,
    later: (run) => {
      timers.push(run);
      return () => timers.splice(timers.indexOf(run), 1);
    },
    rescue: (key, text) => (text === null ? rescued.delete(key) : rescued.set(key, text)),
    ...change,
  };
  const job: Job = newJob(row.name);
  return {
    session: new JobSession({ id, history: startHistory(job), rev: row.rev }, world, (to) => moves.push(to)),
    timers,
    rescued,
    moves,
  };
}

describe('the shelf', () => {
  it('adds, lists the newest first, deletes and puts back', async () => {
    const { shelf } = freshShelf();
    const a = await shelf.addNew('A');
    const b = await shelf.addNew('B');
    expect((await shelf.list()).map((r) => r.name)).toEqual(['B', 'A']);
    await shelf.delete(b);
    expect((await shelf.list()).map((r) => r.id)).toEqual([a]);
    await shelf.putBack(b);
    expect(await shelf.list()).toHaveLength(2);
  });

  it('keeps deleted jobs in the bin until that is emptied', async () => {
    const { shelf, pass } = freshShelf();
    const [a, b] = [await shelf.addNew('A'), await shelf.addNew('B')];
    await shelf.delete(a);
    pass(400 * 24 * 3600 * 1000);
    await shelf.delete(b);
    expect((await shelf.bin()).map((r) => r.name)).toEqual(['B', 'A']);
    await shelf.putBack(a);
    await shelf.emptyBin();
    expect([(await shelf.list()).map((r) => r.name), await shelf.bin()]).toEqual([['A'], []]);
  });

  it.each([
    ['no summary', { summary: undefined }],
    ['a date as text', { changedAt: 'yesterday' }],
    ['no text', { text: null }],
    ['numbers for names', { name: 7, summary: { inputs: [1], outputs: null } }],
    ['nothing but its id', { name: undefined, text: undefined, rev: undefined, changedAt: undefined, summary: null }],
  ])('with a row that has %s shows all the others, and that one as damaged', async (_, change) => {
    const store = new ShelfDb(`damaged-${++count}`);
    const shelf = new Shelf(store);
    await shelf.addNew('Sound');
    const id = await shelf.addNew('Hurt');
    await store.jobs.put({ ...(await shelf.get(id)), ...change } as never);
    const rows = await shelf.list();
    expect(rows.map((r) => r.damaged).sort()).toEqual([false, true]);
    for (const row of rows) {
      expect(typeof row.name + typeof row.text + typeof row.changedAt).toBe('stringstringnumber');
      expect(row.summary.inputs).toEqual([]);
    }
  });

  it('never gives two jobs one name', async () => {
    const { shelf } = freshShelf();
    for (let i = 0; i < 3; i++) await shelf.addNew('Lock');
    expect((await shelf.list()).map((r) => r.name).sort()).toEqual(['Lock', 'Lock 2', 'Lock 3']);
    expect(freeName('Lock 2', new Set(['Lock 2', 'Lock 3']))).toBe('Lock 4');
  });
});

describe('an open job', () => {
  it('is on the shelf soon after an edit', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('A');
    const { session, timers } = await opened(shelf, id);
    session.dispatch({ kind: 'rename', name: 'B' });
    expect(session.snapshot().saveState).toBe('pending');
    timers.shift()?.();
    await session.flush();
    expect(session.snapshot().saveState).toBe('saved');
    expect((await shelf.get(id))?.name).toBe('B');
    session.undo();
    await session.flush();
    expect((await shelf.get(id))?.name).toBe('A');
  });

  it('goes on in a copy when another tab has saved first: neither loses anything', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('A');
    const one = await opened(shelf, id);
    const two = await opened(shelf, id);
    one.session.dispatch({ kind: 'write-sheet', text: 'one' });
    two.session.dispatch({ kind: 'write-sheet', text: 'two' });
    await one.session.flush();
    await two.session.flush();
    expect(two.moves).toHaveLength(1);
    const texts = (await shelf.list()).map((r) => (JSON.parse(r.text) as Job).sheet).sort();
    expect(texts).toEqual(['one', 'two']);
  });

  it('takes over what another tab saves, but never over unsaved work', async () => {
    const { shelf } = freshShelf();
    const { session } = await opened(shelf, await shelf.addNew('A'));
    expect(session.adopt(newJob('other'), 2)).toBe(true);
    expect(session.job.name).toBe('other');
    expect(session.adopt(newJob('older'), 2)).toBe(false);
    session.dispatch({ kind: 'rename', name: 'mine' });
    expect(session.adopt(newJob('theirs'), 3)).toBe(false);
    expect(session.job.name).toBe('mine');
  });

  it('says when it cannot be kept, keeps trying with the next edit, and loses nothing', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('A');
    let full = true;
    const save: SessionEnvironment['save'] = (...args) =>
      full ? Promise.reject(new DOMException('full', 'QuotaExceededError')) : shelf.save(...args);
    const { session } = await opened(shelf, id, { save });
    session.dispatch({ kind: 'rename', name: 'B' });
    await session.flush();
    expect(session.snapshot().saveState).toBe('failed');
    full = false;
    session.dispatch({ kind: 'write-sheet', text: 'more' });
    await session.flush();
    expect(session.snapshot().saveState).toBe('saved');
    expect((await shelf.get(id))?.name).toBe('B');
  });

  it('of a tab that closes is rescued at once, and the rescue is dropped when the save gets through', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('A');
    const { session, rescued } = await opened(shelf, id);
    session.rescue();
    expect(rescued.size).toBe(0);
    session.dispatch({ kind: 'rename', name: 'B' });
    session.rescue();
    expect(JSON.parse(rescued.get(id) ?? '{}')).toEqual({
      base: 1,
      text: writeJobFile(session.job),
      history: writeHistory(session.snapshot().history),
      isSaved: false,
    });
    await session.flush();
    expect(rescued.size).toBe(0);
  });

  it('can be undone after it was opened again, and done again; steps that belong to another state are not kept', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('Weir');
    const { session } = await opened(shelf, id);
    for (const name of ['Weir 1', 'Weir 2', 'Weir 3']) session.dispatch({ kind: 'rename', name });
    session.undo();
    await session.flush();
    const again = async () => {
      const row = (await shelf.get(id)) ?? expect.fail();
      const read = readJobFile(row.text);
      const opened = read.ok ? read.job : expect.fail();
      return readHistory((await shelf.steps(id, row.rev)) ?? '', opened) ?? startHistory(opened);
    };
    const history = await again();
    expect([history.job.name, history.past.length, history.future.length]).toEqual(['Weir 2', 2, 1]);
    expect([undo(history).job.name, redo(history).job.name]).toEqual(['Weir 1', 'Weir 3']);
    // Saved by somebody who keeps no steps, they lead nowhere.
    const row = (await shelf.get(id)) ?? expect.fail();
    await shelf.save(id, newJob('Lock'), row.rev);
    expect((await again()).past).toEqual([]);
  });

  it('is saved though there is no room for its steps, and old jobs lose theirs first', async () => {
    const { shelf } = freshShelf();
    const id = await shelf.addNew('Weir');
    const { session } = await opened(shelf, id, { keepHistory: () => Promise.resolve() });
    session.dispatch({ kind: 'rename', name: 'Sluice' });
    await session.flush();
    expect([session.snapshot().saveState, (await shelf.get(id))?.name]).toEqual(['saved', 'Sluice']);
    const step = perform(startHistory(newJob('a')), { kind: 'rename', name: 'b' }, 0).history;
    for (let n = 0; n < 45; n++) await shelf.keepSteps(`job-x${n}`, 1, writeHistory(step));
    const isKept = async (n: number) => (await shelf.steps(`job-x${n}`, 1)) !== null;
    expect([await isKept(0), await isKept(4), await isKept(5), await isKept(44)]).toEqual([false, false, true, true]);
  });
});
