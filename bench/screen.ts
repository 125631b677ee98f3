/** Speeds that only a screen shows: opening the application, a switch flipped, and the frames of a large board. */

import { existsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Job } from '@saddlebag/core';
import { elementAt, writeJobFile } from '@saddlebag/core';
import { launch } from '../e2e/browser';
import { Person } from '../e2e/person';
import { serve } from '../e2e/server';

export interface ScreenFigures {
  /** From the request for the page to the shelf with its samples, nothing cached, in ms. */
  readonly openMs: number;
  /** From the key to the LED's new look in the page, and to the end of the frame it is painted in, in ms. */
  readonly flipMs: number;
  readonly paintMs: number;
}

/** Measures in Chromium against the built server; null where either is missing. */
export async function measureScreen(job: Job): Promise<ScreenFigures | null> {
  if (!isThere()) return null;
  const { base, child } = await serve();
  const { browser, stop } = await launch();
  try {
    const openMs = await medianOf(7, async () => {
      const p = await Person.at(browser, base);
      await p.page.evaluateOnNewDocument(noteShelf);
      await p.page.goto(base);
      await p.sees('button[aria-label="Open a copy of Lock interlock"]');
      return p.page.evaluate(() => (window as unknown as { shelfMs: number }).shelfMs);
    });
    const p = await Person.at(browser, base);
    await bringsIn(p, job);
    await p.turnsTo('power');
    await p.sees('[role=img][aria-label^=board]');
    await p.keys(' ');
    await p.quiet();
    const flips = await p.page.evaluate(flipMany);
    return { openMs, flipMs: middle(flips.map((f) => f.done)), paintMs: middle(flips.map((f) => f.painted)) };
  } finally {
    await stop();
    child.kill();
  }
}

/**
 * The time from frame to frame, in ms, on the board of a job while nothing happens, and while in each frame another
 * signal, or the supply, is lit or let go, or the wheel zooms: median and ninth decile. Null where Chromium or the built server is missing.
 */
export async function measureFrames(job: Job): Promise<Record<'still' | 'signals' | 'rails' | 'zoom', Frames> | null> {
  if (!isThere()) return null;
  const { base, child } = await serve();
  const { browser, stop } = await launch();
  try {
    const p = await Person.at(browser, base);
    // The diagram of so many gates takes its time in its worker.
    p.page.setDefaultTimeout(180_000);
    await bringsIn(p, job);
    await p.turnsTo('board');
    const wires = Object.keys(job.board.jumpers).length;
    await p.page.waitForFunction(
      (n) => document.querySelectorAll('[data-wire]:not([data-away] *)').length === n,
      {},
      wires,
    );
    await p.quiet();
    const frames = (what: 'still' | 'signals' | 'rails' | 'zoom'): Promise<Frames> =>
      p.page.evaluate(framesDuring, what);
    const still = await frames('still');
    const signals = await frames('signals');
    const rails = await frames('rails');
    return { still, signals, rails, zoom: await frames('zoom') };
  } finally {
    await stop();
    child.kill();
  }
}

/** What a person waits for with a large sheet and its board, in ms. */
export interface Felt {
  /** The screen's own thread for each key typed into the sheet, and for each in a comment. */
  readonly key: number;
  readonly comment: number;
  /** The longest that the thread was not to be had while typing. */
  readonly longest: number;
  /** From the first sight of the job to its gate diagram. */
  readonly diagram: number;
  /** From the press on a step to the frame it is painted in, by step. */
  readonly steps: Readonly<Record<string, number>>;
}

/** Types into the sheet of a job and goes through its steps; null where Chromium or the built server is missing. */
export async function measureFelt(job: Job): Promise<Felt | null> {
  if (!isThere()) return null;
  const { base, child } = await serve();
  const { browser, stop } = await launch();
  try {
    const p = await Person.at(browser, base);
    p.page.setDefaultTimeout(180_000);
    await bringsIn(p, job);
    const began = Date.now();
    await p.sees('svg[aria-label="gate diagram"]');
    const diagram = Date.now() - began;
    await p.quiet();
    await p.page.evaluate(noteLongTasks);
    await p.page.click('.cm-content');
    await p.keys('Control+End', 'Enter');
    const key = await taskMsPerKey(p, 'zz = F0 & F1');
    await p.keys('Enter');
    const comment = await taskMsPerKey(p, '# see to it');
    const longest = await p.page.evaluate(() => (window as unknown as { longestMs: number }).longestMs);
    const steps: Record<string, number> = {};
    for (const round of ['first', 'again'])
      for (const step of ['board', 'inspect', 'power', 'card', 'pack', 'design']) {
        await new Promise((done) => setTimeout(done, 2000));
        steps[`${step}, ${round}`] = await p.page.evaluate(turnTo, step);
      }
    return { key, comment, longest, diagram, steps };
  } finally {
    await stop();
    child.kill();
  }
}

/** How long the page's thread works for each key, what follows in the next half second included. */
async function taskMsPerKey(p: Person, text: string): Promise<number> {
  const busy = async (): Promise<number> => 1000 * ((await p.page.metrics()).TaskDuration ?? 0);
  const before = await busy();
  for (const letter of text) {
    await p.page.keyboard.type(letter);
    await new Promise((done) => setTimeout(done, 500));
  }
  return ((await busy()) - before) / text.length;
}

/** Runs in the page: notes the longest task from now on. */
function noteLongTasks(): void {
  const found = window as unknown as { longestMs: number };
  found.longestMs = 0;
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) found.longestMs = Math.max(found.longestMs, entry.duration);
  }).observe({ entryTypes: ['longtask'] });
}

/** Runs in the page: turns to a step and waits until its screen stands there and is painted. */
async function turnTo(step: string): Promise<number> {
  const link = document.querySelector(`nav a[href$="/${step}"]`) as HTMLElement;
  const began = performance.now();
  link.click();
  const painted = (): Promise<number> => new Promise((done) => requestAnimationFrame(() => setTimeout(done)));
  do await painted();
  while (!document.querySelector(`main[data-step="${step}"] section`)?.checkVisibility());
  return performance.now() - began;
}

export interface Frames {
  readonly median: number;
  readonly ninthDecile: number;
}

const isThere = (): boolean =>
  existsSync('web/dist/index.html') && existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium');

async function bringsIn(p: Person, job: Job): Promise<void> {
  const path = join(tmpdir(), 'saddlebag-bench.saddlebag.json');
  writeFileSync(path, writeJobFile(job));
  await p.goes();
  await p.brings(path);
}

/** Runs in the page: in each frame points at another wire, every third time at none, or turns the wheel. */
async function framesDuring(what: 'still' | 'signals' | 'rails' | 'zoom'): Promise<Frames> {
  const drawing = document.querySelector('[role=img][aria-label^=board]:not([data-away] *)') as Element;
  const isRail = (e: Element): boolean => ['0', '1'].includes(e.getAttribute('data-signal') ?? '');
  const wires = [...document.querySelectorAll('[data-wire]:not([data-away] *)')].filter(
    (e) => isRail(e) === (what === 'rails'),
  );
  const taken: number[] = [];
  let before = 0;
  for (let i = 0; i < 120; i++) {
    const now = await new Promise<number>((done) => requestAnimationFrame(done));
    if (i > 0) taken.push(now - before);
    before = now;
    if (what === 'still') continue;
    if (what === 'zoom') {
      const rotation = { deltaY: i % 40 < 20 ? -20 : 20, ctrlKey: true, clientX: 640, clientY: 320 };
      drawing.dispatchEvent(new WheelEvent('wheel', { ...rotation, bubbles: true, cancelable: true }));
      continue;
    }
    const [on, kind] = i % 3 === 2 ? [drawing, 'pointerout'] : [wires[(7 * i) % wires.length], 'pointerover'];
    on?.dispatchEvent(new PointerEvent(kind as string, { bubbles: true, relatedTarget: document.body }));
  }
  taken.sort((a, b) => a - b);
  return { median: taken[taken.length >> 1] ?? 0, ninthDecile: taken[Math.floor(0.9 * taken.length)] ?? 0 };
}

/** Runs in the page before all else: notes when the shelf stands there with its samples, in ms since the request. */
function noteShelf(): void {
  const watch = new MutationObserver(() => {
    if (!document.querySelector('button[aria-label="Open a copy of Lock interlock"]')) return;
    (window as unknown as { shelfMs: number }).shelfMs = performance.now();
    watch.disconnect();
  });
  watch.observe(document, { subtree: true, childList: true });
}

/** Runs in the page: presses a switch's key many times and notes when the drawing has changed and been painted. */
async function flipMany(): Promise<{ done: number; painted: number }[]> {
  const taken: { done: number; painted: number }[] = [];
  const drawing = document.querySelector('[role=img][aria-label^=board]:not([data-away] *)') as Element;
  for (let i = 0; i < 21; i++) {
    await new Promise((done) => requestAnimationFrame(done));
    const start = performance.now();
    const changed = new Promise<number>((done) => {
      const watch = new MutationObserver(() => {
        watch.disconnect();
        done(performance.now() - start);
      });
      watch.observe(drawing, { subtree: true, attributes: true, childList: true, characterData: true });
    });
    window.dispatchEvent(new KeyboardEvent('keydown', { key: '0', bubbles: true }));
    const done = await changed;
    await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
    taken.push({ done, painted: performance.now() - start });
  }
  return taken;
}

const middle = (list: readonly number[]): number =>
  elementAt(
    [...list].sort((a, b) => a - b),
    list.length >> 1,
  );

async function medianOf(times: number, task: () => Promise<number>): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) taken.push(await task());
  return middle(taken);
}
