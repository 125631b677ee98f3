import { writeJobFile } from '@saddlebag/core';
import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { db } from '../store/db';
import { replaceDrawer } from '../store/drawer';
import { shelf } from '../store/shelf';
import { keepVersion, versionsOf } from '../store/versions';
import { interlock } from '../testing/interlock';
import { renderPage } from '../testing/render';
import { restoreBackup, writeBackup } from './backup';
import { isBackup } from './backup-format';
import { bringAll, kindOf } from './import-file';
import { saysBytes } from './RoomLeft';
import { ShelfPage } from './ShelfPage';

const job = interlock();
const names = async (): Promise<string[]> => (await shelf.list()).map((row) => row.name).sort();

beforeEach(async () => {
  await db.jobs.clear();
  await replaceDrawer([]);
  vi.stubGlobal('fetch', async () => new Response('[]'));
});
afterEach(() => vi.unstubAllGlobals());

describe('a backup of the shelf', () => {
  it('brings every job and the drawer back, beside what is there, and once only', async () => {
    await shelf.add(job);
    await shelf.addNew('Weir', 'in A\nout Y\nY = ~A');
    await replaceDrawer([{ part: '74HC00', count: 3, price: 0.4 }]);
    const text = await writeBackup();
    expect(isBackup(text)).toBe(true);
    const texts = (await shelf.list()).map((row) => row.text).sort();
    expect(await restoreBackup(text)).toMatchObject({ jobs: 0, known: 2, parts: 0, refused: [] });
    await db.jobs.clear();
    await replaceDrawer([{ part: '74HC00', count: 1 }]);
    await shelf.addNew('Mine');
    expect(await restoreBackup(text)).toMatchObject({ jobs: 2, known: 0, parts: 0, refused: [] });
    expect((await shelf.list()).map((row) => row.text).sort()).toEqual(expect.arrayContaining(texts));
    expect(await names()).toEqual(['Lock interlock', 'Mine', 'Weir']);
    // What the drawer has is counted by who has it now.
    expect(await db.drawer.toArray()).toEqual([{ part: '74HC00', count: 1 }]);
    await replaceDrawer([]);
    expect((await restoreBackup(text)).parts).toBe(1);
  });

  it('brings versions back with their jobs; what is none is left out, and an emptied bin takes them along', async () => {
    const id = await shelf.add(job);
    await keepVersion(id, 'before the bell', job);
    const text = await writeBackup();
    await shelf.delete(id);
    await shelf.emptyBin();
    expect(await versionsOf(id)).toEqual([]);
    const spoilt = text.replace('"versions": [', '"versions": [7, {"name": 5},');
    expect(await restoreBackup(spoilt)).toMatchObject({ jobs: 1, refused: [] });
    const [row] = await shelf.list();
    expect((await versionsOf(row?.id ?? '')).map((v) => v.name)).toEqual(['before the bell']);
  });

  it('that is damaged brings back what is whole, tells the rest by name, and throws nothing', async () => {
    await shelf.add(job);
    await shelf.addNew('Weir');
    const text = await writeBackup();
    const damaged = text.replace('\\"version\\": 2', '\\"version\\": 77');
    await db.jobs.clear();
    const back = await restoreBackup(damaged);
    expect([back.jobs, back.refused.map((r) => [r.from, r.findings[0]?.code])]).toEqual([1, [['Weir', 'file/newer']]]);
    await fc.assert(
      fc.asyncProperty(fc.nat(), fc.constantFrom('', '0', '{', 'null', '"'), async (at, put) => {
        const cut = at % text.length;
        const { jobs, known, refused } = await restoreBackup(text.slice(0, cut) + put + text.slice(cut + 1));
        expect(jobs + known + refused.length).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 20 },
    );
  });
});

describe('what is imported', () => {
  it.each([
    ['a.SHEET', 'x', 'sheet'],
    ['a.V', 'x', 'verilog'],
    ['a.Csv', 'x', 'table'],
    ['a.JSON', 'x', 'job'],
    ['job.txt', writeJobFile(job), 'job'],
    ['notes', 'in A B\nout Y\nY = A & B', 'sheet'],
    ['notes.txt', '# the weir\nin A\nout Y\nY = A', 'sheet'],
    ['notes.txt', '// made\nmodule m(input a, output y);\nassign y = a;\nendmodule', 'verilog'],
    ['notes.txt', 'A,B,,Y\n0,0,,1\n', 'table'],
  ])('%s is known by its ending in any case, or by what stands in it', (name, text, kind) => {
    expect(kindOf(name, text)).toBe(kind);
  });

  it('may be several files at once: one that is refused keeps none of the others out', async () => {
    await shelf.addNew('Kept');
    const backup = await writeBackup();
    await db.jobs.clear();
    const { ids, refused, said } = await bringAll([
      new File([writeJobFile(job)], 'lock.json'),
      new File(['{"format": 1}'], 'odd.json'),
      new File(['in A\nout Y\nY = A'], 'weir.sheet'),
      new File([backup], 'shelf.json'),
    ]);
    expect([ids.length, refused.map((r) => r.from), said]).toEqual([
      2,
      ['odd.json'],
      '1 job came back. 2 jobs were imported.',
    ]);
    expect(await names()).toEqual(['Kept', 'Lock interlock', 'weir']);
  });

  it('may be dropped and pasted on the shelf; what is typed into a field stays there', async () => {
    const { router } = renderPage(<ShelfPage />);
    await screen.findByText(/Nothing here yet/);
    const paste = (text: string, on: Element = document.body) =>
      fireEvent.paste(on, { clipboardData: { getData: () => text } });
    paste('in A\nout Y\nY = ~A');
    await waitFor(() => expect(router.state.location.pathname).toMatch(/^\/job\//));
    expect(await names()).toEqual(['Pasted text']);
    const files = [new File(['in A\nout Y\nY = A'], 'a.sheet'), new File(['no job'], 'b.json')];
    const main = document.querySelector('main');
    fireEvent.drop(main ?? expect.fail(), { dataTransfer: { files } });
    await screen.findByText('b.json was not imported; nothing else has changed.');
    expect(await names()).toEqual(['Pasted text', 'a']);
    // A backup is pasted like any other text.
    const backup = await writeBackup();
    await db.jobs.clear();
    paste(backup);
    await waitFor(async () => expect(await names()).toEqual(['Pasted text', 'a']));
    const field = document.createElement('input');
    document.body.append(field);
    paste('in B\nout Z\nZ = B', field);
    field.remove();
    expect(await names()).toEqual(['Pasted text', 'a']);
  });

  it('is told how much room it takes, and asked to be kept for good when a job is opened', async () => {
    expect([900, 12_345, 4_200_000, 31e9, 5e15].map(saysBytes)).toEqual([
      '0.9 kB',
      '12 kB',
      '4.2 MB',
      '31 GB',
      '5000 TB',
    ]);
    const persist = vi.fn(async () => true);
    const estimate = async () => ({ usage: 3_100_000, quota: 2_003_100_000 });
    Object.defineProperty(navigator, 'storage', { value: { persist, estimate }, configurable: true });
    renderPage(<ShelfPage />);
    await screen.findByText('3.1 MB kept, room for 2.0 GB');
    expect(persist).not.toHaveBeenCalled();
    await userEvent.click(screen.getByRole('button', { name: 'New job' }));
    await waitFor(() => expect(persist).toHaveBeenCalled());
    Reflect.deleteProperty(navigator, 'storage');
  });

  it('and backed up with one press', async () => {
    await shelf.add(job);
    const made: Blob[] = [];
    vi.stubGlobal(
      'URL',
      Object.assign(URL, { createObjectURL: (blob: Blob) => made.push(blob) && 'blob:x', revokeObjectURL: () => {} }),
    );
    renderPage(<ShelfPage />);
    await userEvent.click(await screen.findByRole('button', { name: 'Back up' }));
    await waitFor(() => expect(made).toHaveLength(1));
    expect(isBackup((await made[0]?.text()) ?? '')).toBe(true);
  });
});
