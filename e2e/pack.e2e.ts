import type { ChildProcess } from 'node:child_process';
import type { Browser } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { launch } from './browser';
import { Person } from './person';
import { serve } from './server';

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

describe('packing', () => {
  it('in another way: found, looked at, taken, laid out, inspected and walked; undo brings the old one back', async () => {
    const p = await Person.at(browser, base);
    await p.takes('Lock interlock');
    await p.turnsTo('pack');
    await p.presses('Find NANDs alone');
    await p.named('Look at NANDs alone');
    await p.presses('Look at NANDs alone');
    await p.reads('3 chips, 8 units');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.presses('Take NANDs alone');
    await p.reads('laid out afresh');
    await p.turnsTo('inspect');
    await p.reads('Nothing to mend');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    await p.turnsTo('pack');
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelector('nav')?.textContent?.includes('2 chips'));
    expect(p.complaints).toEqual([]);
  });

  it('by keyboard alone: the drawer is filled, kept for other jobs, and packed from', async () => {
    const p = await Person.at(browser, base);
    await p.takes('Towpath lamp');
    await p.turnsTo('pack');
    const tabTo = async (label: string): Promise<void> => {
      for (let i = 0; i < 80; i++) {
        const there = await p.page.evaluate(() => {
          const at = document.activeElement;
          return at?.getAttribute('aria-label') ?? at?.textContent;
        });
        if (there === label) return;
        await p.keys('Tab');
      }
      throw new Error(`no way to ${label} by Tab`);
    };
    await tabTo('Drawer');
    await p.keys('Enter');
    await tabTo('part number');
    await p.types('SN74HC02N');
    await p.keys('Tab');
    await p.page.keyboard.down('Control');
    await p.page.keyboard.press('a');
    await p.page.keyboard.up('Control');
    await p.types('4');
    await p.keys('Enter');
    await p.named('how many 74HC02');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await tabTo('Done');
    await p.keys('Enter');
    await tabTo('Find From the drawer');
    await p.keys('Enter');
    await p.reads('All of it is in the drawer.');
    await p.takes('Lock interlock');
    await p.turnsTo('pack');
    await p.presses('Drawer');
    await p.named('how many 74HC02');
    expect(p.complaints).toEqual([]);
  });

  it('of flip-flops written as equations is built like any other', async () => {
    const p = await Person.at(browser, base);
    await p.takes('Lamp relay');
    await p.turnsTo('pack');
    await p.named('U3 74HC74');
    await p.turnsTo('inspect');
    await p.reads('Nothing to mend');
    expect(p.complaints).toEqual([]);
  });
});
