import type { ChildProcess } from 'node:child_process';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll } from 'vitest';
import { launch } from './browser';
import { Person } from './person';
import { serve } from './server';

/**
 * Serves the application and opens a browser for the tests of a file; gives a way to people with nothing on their shelf. Their browser is never idle: no step is made ready
 * before one turns to it, and nothing is kept for when the server is gone. For each of some 60 people that takes a third of the processor time; the tests of the whole journey and of
 * working offline have it.
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
    await person.page.evaluateOnNewDocument(() => Object.assign(window, { requestIdleCallback: () => 0 }));
    return person;
  };
}
