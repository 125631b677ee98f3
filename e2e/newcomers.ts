import type { ChildProcess } from 'node:child_process';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll } from 'vitest';
import { launch } from './browser';
import { Person } from './person';
import { serve } from './server';

/**
 * Serves the application and opens a browser for the tests of a file; gives a way to people with nothing on their shelf. Nothing is kept for them for when the server is gone: to
 * fetch and store all of it for each takes a quarter of the processor time. The tests of the whole journey and of working offline have it.
 */
export function newcomers(): () => Promise<Person> {
  let browser: Browser;
  let stop: () => Promise<void>;
  let base: string;
  let child: ChildProcess;
  beforeAll(async () => {
    ({ base, child } = await serve());
    ({ browser, stop } = await launch());
  });
  afterAll(async () => {
    await stop();
    child.kill();
  });
  return async () => {
    const person = await Person.at(browser, base);
    await person.page.evaluateOnNewDocument(() => Reflect.deleteProperty(Navigator.prototype, 'serviceWorker'));
    return person;
  };
}
