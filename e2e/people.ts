import type { ChildProcess } from 'node:child_process';
import type { Browser, Viewport } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll } from 'vitest';
import { launch } from './browser';
import { Person } from './person';
import { serve } from './server';

/** People at a browser. */
interface People {
  /** One with nothing on the shelf, whose page is loaded for the first time; `rests`: whose browser is idle at times. */
  readonly newcomer: (how?: { readonly rests: boolean }) => Promise<Person>;
  /** One who goes on at the page of the test before, with whatever is on the shelf: its code is loaded and warm, which is more than half of what opening a job costs. */
  readonly regular: (screen?: Viewport) => Promise<Person>;
}

/**
 * Serves the application and opens a browser for the tests of a file. Its people's browsers are never idle, unless they are asked to be: no step is made ready before one turns to it, and
 * nothing is kept for when the server is gone. For each of them that takes a third of the processor time; the tests of the whole journey and of working offline have it.
 */
export function people(): People {
  let browser: Browser;
  let stop: () => Promise<void>;
  let base: string;
  let child: ChildProcess;
  let sitting: Person | null = null;
  beforeAll(async () => {
    ({ base, child } = await serve());
    ({ browser, stop } = await launch());
  });
  // What a test that failed leaves behind is nobody's ground.
  afterEach(({ task }) => {
    if (task.result?.state === 'fail') sitting = null;
  });
  afterAll(async () => {
    await stop();
    child.kill();
  });
  const newcomer = async ({ rests } = { rests: false }): Promise<Person> => {
    const person = await Person.at(browser, base);
    if (rests) return person;
    await person.page.evaluateOnNewDocument(() => Object.assign(window, { requestIdleCallback: () => 0 }));
    return person;
  };
  const regular = async (screen?: Viewport): Promise<Person> => {
    sitting ??= await newcomer();
    return sitting.again(screen);
  };
  return { newcomer, regular };
}
