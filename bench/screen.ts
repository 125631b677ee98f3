/** Speeds that only a screen shows: opening the application, and a switch flipped on a board of twenty chips. */
import { existsSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Job } from '@saddlebag/core';
import { writeJobFile } from '@saddlebag/core';
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
  if (!existsSync('web/dist/index.html') || !existsSync(process.env.CHROMIUM ?? '/usr/bin/chromium')) return null;
  const { base, child } = await serve();
  const { browser, stop } = await launch();
  try {
    const openMs = await medianOf(7, async () => {
      const p = await Person.at(browser, base);
      await p.page.evaluateOnNewDocument(noteShelf);
      await p.page.goto(base);
      await p.sees('button[aria-label="Take Lock interlock"]');
      return p.page.evaluate(() => (window as unknown as { shelfMs: number }).shelfMs);
    });
    const p = await Person.at(browser, base);
    await p.goes();
    const input = (await p.page.$('input[type=file]')) as unknown as { uploadFile(path: string): Promise<void> };
    const path = join(tmpdir(), 'saddlebag-bench.saddlebag.json');
    writeFileSync(path, writeJobFile(job));
    await input.uploadFile(path);
    await p.sees('nav[aria-label=steps]');
    await p.turnsTo('power');
    await p.sees('svg[aria-label^=board]');
    await p.keys(' ');
    await p.quiet();
    const flips = await p.page.evaluate(flipMany);
    return { openMs, flipMs: middle(flips.map((f) => f.done)), paintMs: middle(flips.map((f) => f.painted)) };
  } finally {
    await stop();
    child.kill();
  }
}

/** Runs in the page before all else: notes when the shelf stands there with its samples, in ms since the request. */
function noteShelf(): void {
  const watch = new MutationObserver(() => {
    if (!document.querySelector('button[aria-label="Take Lock interlock"]')) return;
    (window as unknown as { shelfMs: number }).shelfMs = performance.now();
    watch.disconnect();
  });
  watch.observe(document, { subtree: true, childList: true });
}

/** Runs in the page: presses a switch's key many times and notes when the drawing has changed and been painted. */
async function flipMany(): Promise<{ done: number; painted: number }[]> {
  const taken: { done: number; painted: number }[] = [];
  const svg = document.querySelector('svg[aria-label^=board]') as SVGElement;
  for (let i = 0; i < 21; i++) {
    await new Promise((done) => requestAnimationFrame(done));
    const start = performance.now();
    const changed = new Promise<number>((done) => {
      const watch = new MutationObserver(() => {
        watch.disconnect();
        done(performance.now() - start);
      });
      watch.observe(svg, { subtree: true, attributes: true, childList: true, characterData: true });
    });
    window.dispatchEvent(new KeyboardEvent('keydown', { key: '0', bubbles: true }));
    const done = await changed;
    await new Promise((painted) => requestAnimationFrame(() => setTimeout(painted)));
    taken.push({ done, painted: performance.now() - start });
  }
  return taken;
}

const middle = (list: readonly number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1] as number;

async function medianOf(times: number, task: () => Promise<number>): Promise<number> {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) taken.push(await task());
  return middle(taken);
}
