import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser } from 'puppeteer-core';
import { usual } from './person';

/** Debian's Chromium: the one without a window where it is installed (scripts/ensure.mjs), or the one that is named. */
function chromium(): string {
  const windowless = '/usr/bin/chromium-headless-shell';
  return process.env.CHROMIUM ?? (existsSync(windowless) ? windowless : '/usr/bin/chromium');
}

/** A fresh Chromium with an empty profile, 1280 by 800, that asks nothing of the outside. */
export async function launch(): Promise<{ browser: Browser; stop: () => Promise<void> }> {
  const userDataDir = mkdtempSync(join(tmpdir(), 'saddlebag-chromium-'));
  const browser = await puppeteer.launch({
    executablePath: chromium(),
    headless: true,
    userDataDir,
    defaultViewport: usual,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--lang=en-GB',
    ],
  });
  return {
    browser,
    stop: async () => {
      await browser.close();
      rmSync(userDataDir, { recursive: true, force: true, maxRetries: 5 });
    },
  };
}
