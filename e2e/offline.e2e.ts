import { once } from 'node:events';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from './browser';
import { Person } from './person';
import { root, serve } from './server';

let browser: Awaited<ReturnType<typeof launch>>;
beforeAll(async () => {
  browser = await launch();
});
afterAll(() => browser.stop());

/** Until the browser has kept all there is, and the page asks it instead of the server. */
const kept = (p: Person): Promise<unknown> =>
  p.page.waitForFunction(() => navigator.serviceWorker.controller?.state === 'activated', { timeout: 60_000 });

describe('without the server', () => {
  it('every step, sample and part page opens', async () => {
    const { base, child } = await serve();
    const p = await Person.at(browser.browser, base);
    await p.loads();
    await kept(p);
    child.kill('SIGTERM');
    await once(child, 'exit');
    await p.takes('Lock interlock');
    for (const step of ['pack', 'board', 'inspect', 'power', 'card']) await p.turnsTo(step);
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    await p.loads('/parts/7474?beside=74112');
    await p.reads('74HC112');
    await p.takes('Flood watch');
    await p.page.reload({ waitUntil: 'networkidle0' });
    await p.reads('10 inputs');
    expect(p.complaints.filter((c) => !c.includes('sw.js') && !c.includes('ERR_CONNECTION_REFUSED'))).toEqual([]);
  });

  it('what is new waits until it is taken; the page then comes anew', async () => {
    const { base, child } = await serve();
    const p = await Person.at(browser.browser, base);
    await p.loads();
    await kept(p);
    const path = join(root, 'web/dist/sw.js');
    const before = readFileSync(path, 'utf8');
    try {
      writeFileSync(path, `${before}\n// a newer one`);
      await p.page.evaluate(async () => (await navigator.serviceWorker.ready).update());
      await p.reads('There is a new version');
      await p.page.evaluate(() => Object.assign(window, { isOld: true }));
      await p.presses('Take it');
      await p.page.waitForFunction(() => !('isOld' in window));
      await p.sees('h1, h2');
      expect(p.complaints).toEqual([]);
    } finally {
      writeFileSync(path, before);
      child.kill();
    }
  });

  it('a page or screen that cannot be fetched says so and offers itself again, with the job as it was', async () => {
    const { base, child } = await serve();
    const p = await Person.at(browser.browser, base);
    let down = /JobPage/;
    await p.page.setRequestInterception(true);
    p.page.on('request', (request) => {
      if (down.test(request.url())) void request.abort();
      else void request.continue();
    });
    const isBackAfter = async (next: RegExp): Promise<void> => {
      await p.reads('This screen could not be fetched');
      down = next;
      await p.presses('Try again');
    };
    await p.loads();
    await p.presses('Open a copy of Lock interlock');
    await isBackAfter(/PackStep/);
    await p.sees('nav[aria-label=steps]');
    await p.clicks('nav a[href$="/pack"]');
    await isBackAfter(/nothing/);
    await p.reads('74HC21');
    child.kill();
  });
});
