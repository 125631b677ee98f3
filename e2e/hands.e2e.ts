import { describe, expect, it } from 'vitest';
import { people } from './people';
import { shown } from './person';

const { newcomer, regular } = people();

describe('being led', () => {
  it('from a bare board to one with nothing to mend, by Enter alone; a wire laid elsewhere counts', async () => {
    const p = await regular();
    await p.takes('Towpath lamp');
    await p.turnsTo('board');
    await p.presses('Clear');
    await p.page.waitForFunction(() =>
      [...document.querySelectorAll('button')].some((b) => b.innerText.startsWith('Guide me wire') && !b.disabled),
    );
    await p.presses('Guide me wire by wire');
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
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    expect(p.complaints).toEqual([]);
  });
});

describe('reading the board', () => {
  /** The smallest letters on the mat that is shown, in points, and how many texts there are. */
  const smallest = (p: Awaited<ReturnType<typeof regular>>) =>
    p.page.evaluate(() => {
      const texts = [...document.querySelectorAll('[aria-label="the mat"] svg text')].filter(
        (t) => !t.closest('[data-away]') && t.textContent?.trim(),
      ) as SVGTextElement[];
      const high = texts.map(
        (t) =>
          Number.parseFloat(getComputedStyle(t).fontSize) *
          Math.hypot(t.getScreenCTM()?.a ?? 0, t.getScreenCTM()?.b ?? 0),
      );
      return { least: Math.min(...high), count: texts.length };
    });

  it('never asks for eyes that read less than eleven points, at any size, on any step; the size and the room are remembered', async () => {
    const p = await newcomer();
    await p.takes('Flood watch');
    const mat = shown('[aria-label="the mat"] > div');
    const width = () => p.page.$eval(mat, (drawing) => drawing.getBoundingClientRect().width);
    for (const step of ['board', 'inspect', 'power']) {
      await p.turnsTo(step);
      // The board takes the room there is once it is laid out.
      await expect.poll(() => smallest(p).then(({ least }) => least), { message: step }).toBeGreaterThan(10.9);
      expect((await smallest(p)).count, step).toBeGreaterThan(20);
      const narrow = await width();
      await p.presses('More room');
      await p.named('Panels');
      if (step !== 'board')
        await p.page.waitForFunction(
          (selector, w) => (document.querySelector(selector)?.getBoundingClientRect().width ?? 0) > w,
          {},
          mat,
          narrow,
        );
      expect((await smallest(p)).least).toBeGreaterThan(10.9);
    }
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.presses('larger');
    await p.presses('larger');
    const wide = await width();
    await p.page.reload({ waitUntil: 'networkidle0' });
    await p.named('Panels');
    await p.quiet();
    expect(Math.abs((await width()) - wide)).toBeLessThan(2);
    expect(p.complaints).toEqual([]);
  });
});

describe('hands', () => {
  it('undo what they did before the page was loaded anew, and do it again', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.tellsBoard('pull U1');
    const isPulled = () =>
      p.page.waitForFunction((chip) => document.querySelector(chip) === null, {}, shown('[data-ref=U1]'));
    await isPulled();
    await p.reads('kept in this browser');
    await p.page.reload({ waitUntil: 'networkidle0' });
    await p.sees('[data-ref=U2]');
    expect(await p.page.$$(shown('[data-ref=U1]'))).toHaveLength(0);
    await p.keys('Control+z');
    await p.sees('[data-ref=U1]');
    await p.page.reload({ waitUntil: 'networkidle0' });
    await p.sees('[data-ref=U1]');
    await p.keys('Control+y');
    await isPulled();
    expect(p.complaints).toEqual([]);
  });

  it('frame many, copy and paste them into another job, and colour a jumper', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.page.keyboard.down('Shift');
    await p.drags(await p.hole(-0.4, 2.2), await p.hole(15, 17.7));
    await p.page.keyboard.up('Shift');
    await p.reads('chosen');
    const chosen = Number((await p.text('h2 ~ *, body')).match(/(\d+) chosen/)?.[1]);
    expect(chosen).toBeGreaterThanOrEqual(8);
    await p.keys('Control+c');
    await p.begins();
    await p.turnsTo('board');
    await p.tellsBoard('board');
    const region = await p.sees('[role=application]');
    await region.focus();
    expect(await p.page.$$(shown('[data-ref]'))).toHaveLength(0);
    await p.keys('Control+v');
    await p.page.waitForFunction(
      (some, count) => document.querySelectorAll(some).length === count,
      {},
      shown('[data-ref]'),
      chosen,
    );
    await p.keys('Control+z');
    await p.page.waitForFunction((some) => document.querySelector(some) === null, {}, shown('[data-ref]'));
    // A whole page load forgets what was copied: it says so.
    await p.loads(new URL(p.page.url()).pathname);
    await (await p.sees('[role=application]')).focus();
    await p.keys('Control+v');
    await p.reads('Nothing has been copied yet');
    await p.tellsBoard('seat led');
    await (await p.sees('[role=application]')).focus();
    await p.keys('n', 'Control+c', 'Control+v');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref]:not([data-away] *)').length === 2);
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref]:not([data-away] *)').length === 1);
    expect(p.complaints).toEqual([]);
  });

  it('fix a chip where they want it, by keys alone, and have everything else laid out around it', async () => {
    const p = await regular();
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
        shown('[aria-label="parts and jumpers"] button'),
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
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    // Undo gives back the board as it was before.
    await p.turnsTo('board');
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-ref^=D]:not([data-away] *)').length === 1);
    expect(p.complaints).toEqual([]);
  });

  it('bend a wire so that it can be followed, by mouse and by typing, and it stays so', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.tellsBoard('b1.a54 > b1.a62');
    // The corners of the wire as it is drawn.
    const way = (): Promise<string> =>
      p.page.$eval('[data-wire=w29] path:not([data-away] *)', (e) =>
        (e.getAttribute('d') ?? '').replaceAll(/[ML]/g, ' ').trim(),
      );
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

  it('see what they are at, wherever it is on the mat, and zoom about the place they point at', async () => {
    const p = await regular();
    await p.takes('Gate votes');
    await p.turnsTo('board');
    await p.sees('[data-wire=w91]');
    const middle = (what: string): Promise<{ x: number; y: number }> =>
      p.page.$eval(shown(what), (e) => {
        const box = e.getBoundingClientRect();
        return { x: box.left + box.width / 2, y: box.top + box.height / 2 };
      });
    const isInSight = async (what: string): Promise<boolean> => {
      const { y } = await middle(what);
      return y > 148 && y < 538;
    };
    expect(await isInSight('[data-ref=U5]')).toBe(false);
    await p.presses('Fit');
    await p.quiet();
    expect([await isInSight('[data-ref=U5]'), await isInSight('[data-ref=S1]')]).toEqual([true, true]);
    await p.presses('Fit');
    await p.page.mouse.move(640, 330);
    // The first in the list is on the first board, the last of all on the second.
    await p.focuses('[role=application]');
    await p.keys('n');
    await p.quiet();
    expect(await isInSight('[data-ref=C1]')).toBe(true);
    await p.keys('Shift+N');
    await p.reads('b2.j28 > b2.top-29');
    expect([await isInSight('[data-ref=C1]'), await isInSight('[data-wire=w91]')]).toEqual([false, true]);
    const before = await middle('[data-ref=U1]');
    const width = await p.page.$eval('[data-ref=U1]:not([data-away] *)', (e) => e.getBoundingClientRect().width);
    await p.page.mouse.move(before.x, before.y);
    await p.page.keyboard.down('Control');
    await p.page.mouse.wheel({ deltaY: -200 });
    await p.page.keyboard.up('Control');
    // Stretched at once, painted in its new size when the wheel rests.
    await p.page.waitForFunction(
      (old) =>
        !document.querySelector('[style*="scale("]') &&
        (document.querySelector('[data-ref=U1]:not([data-away] *)')?.getBoundingClientRect().width ?? 0) > 1.3 * old,
      {},
      width,
    );
    const after = await middle('[data-ref=U1]');
    expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeLessThan(3);
    // The middle button draws the mat along.
    await p.page.mouse.down({ button: 'middle' });
    await p.page.mouse.move(before.x - 60, before.y + 20, { steps: 3 });
    await p.page.mouse.up({ button: 'middle' });
    const drawn = await middle('[data-ref=U1]');
    expect(Math.hypot(drawn.x - after.x + 60, drawn.y - after.y - 20)).toBeLessThan(3);
    // Turned away from and back to, the mat lies as it was left.
    await p.turnsTo('power');
    await p.turnsTo('board');
    const found = await middle('[data-ref=U1]');
    expect(Math.hypot(found.x - drawn.x, found.y - drawn.y)).toBeLessThan(3);
    // A finding on the second board is shown there.
    await p.tellsBoard('rotate U5');
    await p.turnsTo('inspect');
    await p.reads('U5');
    await p.page.waitForFunction(() => {
      const box = document.querySelector('[data-ref=U5]:not([data-away] *)')?.getBoundingClientRect();
      return box !== undefined && box.top > 140 && box.bottom < 760;
    });
    expect(p.complaints).toEqual([]);
  });

  it('zoom with two fingers on a tablet, and nothing is laid by it; one finger still lays a jumper', async () => {
    const p = await regular();
    await p.begins();
    await p.turnsTo('board');
    await p.tellsBoard('seat led');
    const client = await p.page.createCDPSession();
    const touch = async (type: 'touchStart' | 'touchMove' | 'touchEnd', ...at: [number, number][]): Promise<void> => {
      const touchPoints = at.map(([x, y], id) => ({ x, y, id }));
      await client.send('Input.dispatchTouchEvent', { type, touchPoints });
    };
    const width = async (): Promise<number> => (await p.hole(41, 12)).x - (await p.hole(40, 12)).x;
    const before = await width();
    const free = await p.hole(40, 12);
    await touch('touchStart', [free.x, free.y]);
    await touch('touchStart', [free.x, free.y], [free.x + 80, free.y]);
    for (const by of [20, 40, 80]) await touch('touchMove', [free.x - by / 2, free.y], [free.x + 80 + by / 2, free.y]);
    await touch('touchEnd');
    await expect.poll(width, { timeout: 5000 }).toBeGreaterThan(1.8 * before);
    await p.page.waitForFunction(() => !document.querySelector('[style*="scale("]'));
    expect(await p.page.$$('[data-wire]')).toHaveLength(0);
    const [from, to] = [await p.hole(40, 12), await p.hole(42, 12)];
    await touch('touchStart', [from.x, from.y]);
    await touch('touchMove', [(from.x + to.x) / 2, from.y]);
    await touch('touchMove', [to.x, to.y]);
    await touch('touchEnd');
    await p.page.waitForFunction(() => document.querySelectorAll('[data-wire]:not([data-away] *)').length === 1);
    expect(p.complaints).toEqual([]);
  });

  it('work boards of other kinds: a push-button and a display beside each other, pressed under power', async () => {
    const p = await regular();
    await p.begins();
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
        shown('[data-ref=H1] line'),
        (lines) => lines.filter((l) => l.getAttribute('stroke') === '#FF5B45').length,
      );
    expect(await lit()).toBe(0);
    await p.clicks('button[role=switch][aria-label="S1"]');
    await p.page.waitForFunction(
      () => document.querySelector('[data-ref=H1] line[stroke="#FF5B45"]:not([data-away] *)') !== null,
    );
    expect(await lit()).toBe(1);
    await p.clicks('button[role=switch][aria-label="S1"]');
    const isLit = (): boolean =>
      document.querySelector('[data-ref=H1] line[stroke="#FF5B45"]:not([data-away] *)') !== null;
    await p.page.waitForFunction(`!(${isLit})()`);
    // By its key the button is held for as long as the key is.
    await p.page.keyboard.down('s');
    await p.page.waitForFunction(isLit);
    await p.page.keyboard.up('s');
    await p.page.waitForFunction(`!(${isLit})()`);
    expect([await p.axe(), p.complaints]).toEqual([[], []]);
  });
});
