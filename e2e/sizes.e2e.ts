import { describe, expect, it } from 'vitest';
import { people } from './people';
import { type Person, shown } from './person';

const { newcomer, regular } = people();
const steps = ['design', 'pack', 'board', 'inspect', 'power', 'card'] as const;

/** A person before a screen of some size; one who points by finger unless said otherwise. */
const atScreen = (width: number, height: number, hasTouch = true): Promise<Person> =>
  regular({ width, height, hasTouch, isMobile: false });

/** Turns to a step by the strap, which hangs its steps below it when it is pressed. */
async function turnsTo(p: Person, step: string): Promise<void> {
  await p.page.waitForSelector('nav[aria-label=steps] > button', { visible: true });
  await p.page.tap('nav[aria-label=steps] > button');
  await p.page.waitForSelector(`nav a[href$="/${step}"]`, { visible: true });
  await p.page.tap(`nav a[href$="/${step}"]`);
  await p.page.waitForSelector(shown(`main[data-step=${step}]`));
  await p.quiet();
}

/** Things to press that are in sight and smaller than a finger needs, by what they say; holes and lines of text apart. */
const tooSmall = (p: Person, least: number): Promise<string[]> =>
  p.page.$$eval(
    shown('button, select, [role=switch]'),
    (all, size) =>
      all
        .filter((e) => {
          const { width, height } = e.getBoundingClientRect();
          return e.checkVisibility({ visibilityProperty: true }) && width > 0 && (height < size || width < size);
        })
        .map((e) => `${e.getAttribute('aria-label') ?? e.textContent} ${e.getBoundingClientRect().height}`),
    least,
  );

const isTooWide = (p: Person): Promise<boolean> =>
  p.page.evaluate(() => document.documentElement.scrollWidth > document.documentElement.clientWidth);

describe.each([
  [390, 844],
  [820, 1180],
  [360, 640],
] as const)('a screen of %i by %i under a finger', (width, height) => {
  it('shows every step without a scroll to the side, and what is pressed is large enough', async () => {
    const p = await atScreen(width, height);
    await p.takes('Lock interlock');
    for (const step of steps) {
      if (step === 'design') await p.page.waitForSelector(shown('main[data-step=design] .cm-content'));
      else await turnsTo(p, step);
      expect(await isTooWide(p), step).toBe(false);
      const main = await p.page.$eval(shown(`main[data-step=${step}]`), (e) => e.getBoundingClientRect().height);
      expect(main, step).toBeGreaterThan(height / 2);
      expect(await p.axe(), step).toEqual([]);
    }
    await turnsTo(p, 'power');
    expect(await tooSmall(p, 24)).toEqual([]);
    const small = await p.page.$$eval(shown('nav button, header button, [aria-label=panels] button'), (all) =>
      all.flatMap((e) => (e.checkVisibility() && e.getBoundingClientRect().height < 44 ? [e.textContent] : [])),
    );
    expect(small).toEqual([]);
    expect(p.complaints).toEqual([]);
  });
});

describe('a phone', () => {
  it('is enough to power a board up: panels slide over it, a switch answers to a finger, and Esc puts the panel away', async () => {
    const p = await atScreen(390, 844);
    await p.takes('Lock interlock');
    await turnsTo(p, 'power');
    await (await p.named('Power on')).tap();
    await p.page.tap(shown('[aria-label=panels] button:last-child'));
    await p.page.waitForSelector(shown('[role=switch][aria-label^="K"]'), { visible: true });
    await p.page.tap(shown('[role=switch][aria-label^="K"]'));
    await p.page.tap(shown('[role=switch][aria-label^="E"]'));
    await p.page.waitForSelector(shown('[role=img][aria-label^="G lit"]'));
    await p.focuses('[role=switch][aria-label^="K"]');
    await p.keys('Escape');
    await p.page.waitForSelector(shown('[role=switch][aria-label^="K"]'), { hidden: true });
    expect(p.complaints).toEqual([]);
  });

  it('has a lens for the hole under a finger, which ends with it, and a finger lays a jumper', async () => {
    const p = await atScreen(390, 844);
    await p.takes('Lock interlock');
    await turnsTo(p, 'board');
    const wires = await p.page.$$eval(shown('[data-wire]'), (all) => all.length);
    const [from, to] = [await p.hole(2, 3), await p.hole(12, 3)];
    await p.page.touchscreen.touchStart(from.x, from.y);
    const first = await p.page.waitForSelector('[data-lens]');
    const name = await first?.evaluate((e) => e.getAttribute('data-lens'));
    expect(name).toMatch(/^b1\.[a-j]\d+$/);
    await p.page.touchscreen.touchMove(to.x, to.y);
    await p.page.waitForFunction(
      (was) => document.querySelector('[data-lens]')?.getAttribute('data-lens') !== was,
      {},
      name,
    );
    await p.page.touchscreen.touchEnd();
    await p.page.waitForSelector('[data-lens]', { hidden: true });
    await p.page.waitForFunction(
      (selector, count) => document.querySelectorAll(selector).length > count,
      {},
      shown('[data-wire]'),
      wires,
    );
    expect(p.complaints).toEqual([]);
  });
});

describe('a finger that is held on a button', () => {
  it('reads what the button is for, and presses nothing', async () => {
    const p = await atScreen(390, 844);
    await p.takes('Lock interlock');
    await turnsTo(p, 'board');
    const larger = await p.named('larger');
    const width = () => p.page.$eval(shown('[role=img][aria-label^=board]'), (e) => e.getBoundingClientRect().width);
    const before = await width();
    const { x = 0, y = 0 } = (await larger.boundingBox()) ?? {};
    await p.page.touchscreen.touchStart(x + 10, y + 10);
    await p.reads('larger: +');
    await p.page.touchscreen.touchEnd();
    await p.quiet();
    expect(await width()).toBe(before);
    // Pressed as usual it does what it says.
    await larger.tap();
    await p.quiet();
    expect(await width()).toBeGreaterThan(before);
    expect(p.complaints).toEqual([]);
  });
});

describe('letters at twice and four times their size', () => {
  it.each([
    [640, 400],
    [320, 400],
  ] as const)('leave a page of %i by %i that reads from top to bottom, by keys alone', async (width, height) => {
    const p = await atScreen(width, height, false);
    await p.takes('Lock interlock');
    for (const step of steps) {
      await p.keys(`Alt+${steps.indexOf(step) + 1}`);
      await p.page.waitForSelector(shown(`main[data-step=${step}]`));
      await p.quiet();
      expect(await isTooWide(p), step).toBe(false);
      const main = await p.page.$eval(shown(`main[data-step=${step}]`), (e) => e.getBoundingClientRect().height);
      expect(main, step).toBeGreaterThan(250);
    }
    await p.focuses('[aria-label=panels] button');
    await p.keys('Enter');
    await p.reads('Stages');
    expect(p.complaints).toEqual([]);
  });
});

describe('every view in both themes', () => {
  it('has nothing that axe finds more than minor', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    const job = new URL(p.page.url()).pathname.replace(/\/\w+$/, '');
    for (const at of ['/', '/parts', '/parts/7474', '/nothing', ...steps.map((step) => `${job}/${step}`)]) {
      await p.goes(at);
      await p.quiet();
      for (const isDim of [false, true]) {
        await p.page.evaluate((dim) => document.documentElement.classList.toggle('dark', dim), isDim);
        await p.page.waitForFunction(() => document.getAnimations().length === 0);
        expect(await p.axe({ isStrict: true, ofColours: isDim }), `${at} ${isDim}`).toEqual([]);
      }
    }
    expect(p.complaints).toEqual([]);
  });
});

describe('colours of the system', () => {
  it('leave switch positions, lamps and the current row apart', async () => {
    const p = await newcomer();
    const client = await p.page.createCDPSession();
    await client.send('Emulation.setEmulatedMedia', { features: [{ name: 'forced-colors', value: 'active' }] });
    await p.takes('Lock interlock');
    await p.turnsTo('power');
    await p.keys('Space', 'k', 'e');
    await p.page.waitForSelector(shown('[role=img][aria-label^="G lit"]'));
    const look = (selector: string) =>
      p.page.$eval(shown(selector), (e) => {
        const { backgroundColor, outlineStyle } = getComputedStyle(e);
        return { backgroundColor, outlineStyle };
      });
    const [lit, dark] = [await look('[role=img][aria-label^="G lit"]'), await look('[role=img][aria-label^="P dark"]')];
    expect(lit.backgroundColor).not.toBe(dark.backgroundColor);
    expect((await look('[data-row][data-now]')).outlineStyle).toBe('solid');
    expect(p.complaints).toEqual([]);
  });
});
