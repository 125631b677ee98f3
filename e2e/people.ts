import puppeteer, { type Browser, type Page, type Viewport } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, inject } from 'vitest';
import { Person, usual } from './person';

/** People at a browser. */
interface People {
  /** One with nothing on the shelf, whose page is loaded for the first time; `rests`: whose browser is idle at times. */
  readonly newcomer: (how?: { readonly rests: boolean }) => Promise<Person>;
  /** One who goes on at the page of the test before, with whatever is on the shelf: its code is loaded and warm, which is more than half of what opening a job costs. */
  readonly regular: (screen?: Viewport) => Promise<Person>;
}

/** The name of the window of the one who goes on, from file to file. */
const REGULAR = 'regular';

/**
 * People for the tests of a file, at the browser of all of them. Their browsers are never idle, unless they are asked to be: no step is made ready before one turns to it, and
 * nothing is kept for when the server is gone. For each of them that takes a third of the processor time; the tests of the whole journey and of working offline have it.
 */
export function people(): People {
  let browser: Browser;
  let sitting: Person | null = null;
  const guests: Person[] = [];
  beforeAll(async () => {
    browser = await puppeteer.connect({ browserWSEndpoint: inject('bench').browser, defaultViewport: usual });
    const page = await pageNamed(browser, REGULAR);
    sitting = page && Person.on(page, inject('bench').base);
  });
  // What a test that failed leaves behind is nobody's ground.
  afterEach(async ({ task }) => {
    if (task.result?.state !== 'fail' || !sitting) return;
    await sitting.page.browserContext().close();
    sitting = null;
  });
  afterAll(async () => {
    for (const guest of guests) await guest.page.browserContext().close();
    await browser.disconnect();
  });
  const arrives = async (rests: boolean): Promise<Person> => {
    const person = await Person.at(browser, inject('bench').base);
    if (!rests) await person.page.evaluateOnNewDocument(() => Object.assign(window, { requestIdleCallback: () => 0 }));
    return person;
  };
  const newcomer = async ({ rests } = { rests: false }): Promise<Person> => {
    const person = await arrives(rests);
    guests.push(person);
    return person.again();
  };
  const regular = async (screen?: Viewport): Promise<Person> => {
    if (!sitting) {
      sitting = await arrives(false);
      await sitting.page.evaluate((name) => {
        window.name = name;
      }, REGULAR);
    }
    return sitting.again(screen);
  };
  return { newcomer, regular };
}

async function pageNamed(browser: Browser, wanted: string): Promise<Page | null> {
  for (const context of browser.browserContexts())
    for (const page of await context.pages()) if ((await page.evaluate(() => window.name)) === wanted) return page;
  return null;
}
