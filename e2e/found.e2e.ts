import { describe, expect, it } from 'vitest';
import { people } from './people';
import { type Person, shown } from './person';

const { newcomer, regular } = people();

/** Opens the search by its key and writes some words; the first thing found stands ready. */
async function searches(p: Person, words: string): Promise<void> {
  await p.keys('Control+k');
  await p.page.waitForSelector('[aria-label="find anything"]', { visible: true });
  await p.types(words);
}

describe('one key for everything', () => {
  it('takes an action, a step, a part on the board, a signal, a part of the catalogue and a job', async () => {
    const p = await regular();
    await p.takes('Boat tally');
    await p.takes('Lock interlock');
    await p.sees('main[data-step=design] .cm-content');
    await searches(p, 'power up');
    await p.keys('Enter');
    await p.sees('main[data-step=power]');
    await searches(p, 'power on');
    await p.keys('Enter');
    await p.reads('Power off');
    await searches(p, 'u1');
    await p.keys('Enter');
    await p.sees('main[data-step=board]');
    await p.page.waitForFunction(() =>
      document.querySelector('main[data-step=board]')?.textContent.includes('replace by'),
    );
    expect(p.page.url()).toContain('/board?show=U1');
    await searches(p, 'gate permit');
    await p.keys('Enter');
    await p.reads('following G');
    await p.keys('Escape');
    await searches(p, 'decade counter');
    await p.keys('Enter');
    await p.reads('by 2 and by 5');
    await searches(p, 'boat tally');
    await p.keys('Enter');
    await p.page.waitForFunction(() => document.title.startsWith('Boat tally'));
    expect(await p.axe()).toEqual([]);
    expect(p.complaints).toEqual([]);
  });

  it('finds a finding and leads to it; its link leads there again', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    for (const line of ['pull w5', 'rotate D1', 'pull w12']) await p.tellsBoard(line);
    await p.turnsTo('inspect');
    await p.sees('main[data-step=inspect] [aria-live] [aria-pressed=true]');
    const says = await p.page.$$eval(shown('main[data-step=inspect] [aria-live] [aria-pressed]'), (all) =>
      all.map((e) => e.textContent),
    );
    expect(says.length).toBeGreaterThan(1);
    const last = says.at(-1) ?? expect.fail('no finding');
    await p.turnsTo('design');
    await searches(
      p,
      last
        .replace(/^to (fix|look at|know):?/, '')
        .trim()
        .slice(0, 24),
    );
    await p.keys('Enter');
    await p.sees('main[data-step=inspect]');
    const chosen = () =>
      p.page.$eval(shown('main[data-step=inspect] [aria-live] [aria-pressed=true]'), (e) => e.textContent);
    await p.page.waitForFunction(
      (text) =>
        document.querySelector('main[data-step=inspect] [aria-live] [aria-pressed=true]:not([data-away] *)')
          ?.textContent === text,
      {},
      last,
    );
    const address = p.page.url();
    expect(address).toContain('finding=');
    await p.loads(address.replace(/^https?:\/\/[^/]+/, ''));
    await p.sees('main[data-step=inspect] [aria-live] [aria-pressed=true]');
    expect(await chosen()).toBe(last);
    expect(p.complaints).toEqual([]);
  });

  it('a link to a row sets its switches', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    const at = new URL(p.page.url()).pathname.replace(/\/\w+$/, '');
    await p.loads(`${at}/power?row=12`);
    await p.page.waitForSelector(shown('[data-row="12"][data-now]'));
    expect(p.complaints).toEqual([]);
  });
});

describe('the first job', () => {
  it('leads a newcomer from the empty shelf to a lit lamp, by what it says alone', async () => {
    const p = await newcomer();
    await p.goes();
    await p.presses('Show me, from an empty sheet to a lit lamp');
    const next = (number: number) => p.reads(`${number} of 6`);
    await next(1);
    expect(await p.axe()).toEqual([]);
    await p.presses('Write it for me');
    await next(2);
    await p.presses('To Board');
    await next(3);
    await p.presses('Lay it all out');
    await next(4);
    await p.presses('To Power up');
    await p.reads('Press Power on');
    await p.presses('Power on');
    await next(5);
    await p.keys('a', 'b');
    await next(6);
    await p.presses('Done');
    await p.readsNot('6 of 6');
    expect(p.complaints).toEqual([]);
  });
});

it('numbers and dates are written as in the language that the browser is set to', async () => {
  const p = await newcomer();
  await (await p.page.createCDPSession()).send('Emulation.setLocaleOverride', { locale: 'de-DE' });
  await p.takes('Paddle panel');
  await p.turnsTo('power');
  await p.presses('Power on');
  const bench = 'main[data-step=power]';
  await p.page.waitForFunction((at) => /\d,\d\smA/.test(document.querySelector(at)?.textContent ?? ''), {}, bench);
  expect(await p.page.$eval(bench, (e) => /\d\.\d\smA/.test(e.textContent))).toBe(false);
  await p.turnsTo('card');
  const card = shown('main[data-step=card]');
  await p.page.waitForFunction((at) => /\d,\d\skΩ/.test(document.querySelector(at)?.textContent ?? ''), {}, card);
  expect(await p.page.$eval(card, (e) => /\d\.\d\skΩ/.test(e.textContent))).toBe(false);
  await p.goes();
  await p.page.waitForFunction(() => /\d\d\.\d\d\.\d{4}, \d\d:\d\d/.test(document.body.textContent ?? ''));
  expect(p.complaints).toEqual([]);
});
