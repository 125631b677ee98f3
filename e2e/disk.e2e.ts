import { describe, expect, it } from 'vitest';
import { people } from './people';

const { newcomer } = people();

describe('a job in a file on the disk', () => {
  it('is written where the person chooses, again after each step, and after a reload', async () => {
    const p = await newcomer();
    // The browser's own dialog cannot be pressed from here: the file is one of the page's own folder.
    await p.page.evaluateOnNewDocument(() => {
      Object.assign(window, {
        showSaveFilePicker: async ({ suggestedName }: { suggestedName: string }) =>
          (await navigator.storage.getDirectory()).getFileHandle(suggestedName, { create: true }),
      });
    });
    const onDisk = (): Promise<string> =>
      p.page.evaluate(async () => {
        const folder = await navigator.storage.getDirectory();
        const file = await (await folder.getFileHandle('Lock-interlock.saddlebag.json')).getFile();
        return file.text();
      });
    await p.takes('Lock interlock');
    await p.presses('Save to a file');
    await p.reads('In Lock-interlock.saddlebag.json');
    expect(JSON.parse(await onDisk())).toMatchObject({ name: 'Lock interlock' });
    await p.turnsTo('board');
    await p.tellsBoard('pull w5');
    await expect.poll(onDisk, { timeout: 10_000 }).not.toContain('"w5"');
    await p.page.reload();
    await p.sees('nav[aria-label=steps]');
    await p.reads('In Lock-interlock.saddlebag.json');
    await p.turnsTo('board');
    await p.tellsBoard('pull w6');
    await expect.poll(onDisk, { timeout: 10_000 }).not.toContain('"w6"');
    expect(p.complaints).toEqual([]);
  });
});
