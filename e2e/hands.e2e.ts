import { describe, expect, it } from 'vitest';
import { newcomers } from './newcomers';

const newcomer = newcomers();

describe('being led', () => {
  it('from a bare board to one with nothing to mend, by Enter alone; a wire laid elsewhere counts', async () => {
    const p = await newcomer();
    await p.takes('Towpath lamp');
    await p.turnsTo('board');
    await p.presses('Clear');
    await p.page.waitForFunction(() =>
      [...document.querySelectorAll('button')].some((b) => b.innerText.startsWith('Lead me wire') && !b.disabled),
    );
    await p.presses('Lead me wire by wire');
    await p.sees('[data-ghost=part]');
    const region = await p.sees('[role=application]');
    await region.focus();
    const state = (): Promise<string> => p.text('[aria-label="what to do next"]');
    for (let n = 0; n < 120; n++) {
      const before = await state();
      if (before.includes('walk the table')) break;
      await p.keys('Enter');
      await p.page.waitForFunction(
        (text) => (document.querySelector('[aria-label="what to do next"]') as HTMLElement).innerText !== text,
        {},
        before,
      );
    }
    await p.reads('All is built');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.turnsTo('inspect');
    await p.reads('Nothing to mend');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    expect(p.complaints).toEqual([]);
  });
});

describe('hands', () => {
  it('frame many, copy and paste them into another job, and colour a jumper', async () => {
    const p = await newcomer();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.page.keyboard.down('Shift');
    await p.drags(await p.hole(-0.4, 2.2), await p.hole(15, 17.7));
    await p.page.keyboard.up('Shift');
    await p.reads('chosen');
    const chosen = Number((await p.text('h2 ~ *, body')).match(/(\d+) chosen/)?.[1]);
    expect(chosen).toBeGreaterThanOrEqual(8);
    await p.keys('Control+c');
    await p.goes();
    await p.presses('New job');
    await p.sees('nav[aria-label=steps]');
    await p.turnsTo('board');
    await p.tellsBoard('board');
    const region = await p.sees('[role=application]');
    await region.focus();
    expect(await p.page.$$('[data-ref]')).toHaveLength(0);
    // A whole page load forgets what was copied: it says so.
    await p.keys('Control+v');
    await p.reads('Nothing has been copied yet');
    await p.tellsBoard('seat led');
    await region.focus();
    await p.keys('n', 'Control+c', 'Control+v');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref]').length === 2);
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref]').length === 1);
    expect(p.complaints).toEqual([]);
  });

  it('fix a chip where they want it, by keys alone, and have everything else laid out around it', async () => {
    const p = await newcomer();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.keys('/');
    for (const line of ['move U2 b1.e52', 'pull D3', 'pull D2', 'move U2 b1.e52', 'fix U2']) {
      await p.types(line);
      await p.keys('Enter');
    }
    await p.sees('[data-fixed=U2]');
    const placeOf = (ref: string): Promise<string | undefined> =>
      p.page.$$eval(
        '[aria-label="parts and jumpers"] button',
        (rows, of) => rows.map((r) => (r as HTMLElement).innerText).find((t) => t.startsWith(`${of}\n`)),
        ref,
      );
    const fixed = await placeOf('U2');
    expect(fixed).toContain('fixed');
    await p.keys('Escape');
    await (await p.named('Lay out afresh')).focus();
    await p.keys('Enter');
    await p.reads('Laid out around what is fixed');
    expect(await placeOf('U2')).toBe(fixed);
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.turnsTo('inspect');
    await p.reads('Nothing to mend');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    // Undo gives back the board as it was before.
    await p.turnsTo('board');
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref^=D]').length === 1);
    expect(p.complaints).toEqual([]);
  });

  it('bend a wire so that it can be followed, by mouse and by typing, and it stays so', async () => {
    const p = await newcomer();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.tellsBoard('b1.a54 > b1.a62');
    // The corners of the wire as it is drawn.
    const way = (): Promise<string> =>
      p.page.$eval('[data-wire=w29] path', (e) => (e.getAttribute('d') ?? '').replaceAll(/[ML]/g, ' ').trim());
    const straight = await way();
    expect(straight).toBe('54,14 62,14');
    await p.drags(await p.hole(58.5, 14), await p.hole(58.5, 12.4));
    await p.reads('Unbend');
    const bent = await way();
    expect(bent).toBe('54,14 54,12.5 62,12.5 62,14');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.page.reload({ waitUntil: 'networkidle0' });
    await p.sees('[data-wire=w29]');
    expect(await way()).toBe(bent);
    await p.tellsBoard('bend w29 b1.c54 b1.c62');
    expect(await way()).toBe('54,14 54,12 62,12 62,14');
    await p.keys('Escape');
    await p.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await p.keys('Control+z');
    await expect.poll(way).toBe(bent);
    await p.turnsTo('inspect');
    expect(p.complaints).toEqual([]);
  });

  it('work boards of other kinds: a push-button and a display beside each other, pressed under power', async () => {
    const p = await newcomer();
    await p.goes();
    await p.presses('New job');
    await p.sees('nav[aria-label=steps]');
    await p.turnsTo('board');
    for (const line of [
      'board half',
      'board half right',
      'pull b1',
      'seat supply bh2.top+3',
      'seat push-button bh2.e5',
      'seat display-cathode bh2r.e10',
      'seat resistor bh2.f20',
      'S1.1 > bh2.top+',
      'S1.3 > R1.1',
      'R1.2 > H1.7',
      'H1.3 > bh2.top-',
      'note bh2.a20 segment a',
    ])
      await p.tellsBoard(line);
    await p.reads('On the board');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.turnsTo('power');
    await p.presses('Power on');
    const lit = (): Promise<number> =>
      p.page.$$eval(
        '[data-ref=H1] line',
        (lines) => lines.filter((l) => l.getAttribute('stroke') === '#FF5B45').length,
      );
    expect(await lit()).toBe(0);
    await p.page.click('input[type=checkbox]');
    await p.page.waitForFunction(() => document.querySelector('[data-ref=H1] line[stroke="#FF5B45"]') !== null);
    expect(await lit()).toBe(1);
    expect([await p.axe(), p.complaints]).toEqual([[], []]);
  });
});
