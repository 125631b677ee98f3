import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Browser, ElementHandle, Page, Viewport } from 'puppeteer-core';
import { root } from './server';

const axeSource = readFileSync(join(root, 'node_modules/axe-core/axe.min.js'), 'utf8');

/** What is met on the screen that is shown: those of other steps lie behind it, out of sight. */
export const shown = (selector: string): string => `${selector}:not([data-away] *)`;

/** The rules of axe that look at colours, but for the one that is off unless it is asked for. */
const colourRules = { type: 'rule' as const, values: ['color-contrast', 'link-in-text-block'] };

/** The usual screen. */
export const usual: Viewport = { width: 1280, height: 800 };

/** What is used of axe-core. */
interface Axe {
  run(
    context: { exclude: string[][] },
    options: { resultTypes: string[]; runOnly?: { type: 'rule'; values: string[] } },
  ): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
}

/** A person at a page: looks for text, presses what says so, types, points; and notes what the console says. */
export class Person {
  readonly complaints: string[] = [];

  private constructor(
    readonly page: Page,
    private readonly base: string,
  ) {}

  static async at(browser: Browser, base: string): Promise<Person> {
    const context = await browser.createBrowserContext();
    return Person.on(await context.newPage(), base);
  }

  static on(page: Page, base: string): Person {
    const person = new Person(page, base);
    page.setDefaultTimeout(15_000);
    page.on('console', (m) => {
      if (m.type() === 'error' || m.type() === 'warn') person.complaints.push(m.text());
    });
    page.on('pageerror', (e) => person.complaints.push(String(e)));
    // What the content security policy forbids is a complaint, whether or not the console shows it.
    void page.evaluateOnNewDocument(() => {
      document.addEventListener('securitypolicyviolation', (e) =>
        console.error(`${e.violatedDirective} forbids ${e.blockedURI} ${e.sample}`),
      );
    });
    return person;
  }

  /** Whether the application is open in the page. */
  private get isOpen(): boolean {
    return this.page.url().startsWith(this.base);
  }

  /** Comes to a path as from outside: the page is loaded anew. */
  async loads(path = '/'): Promise<void> {
    await this.page.goto(this.base + path, { waitUntil: 'networkidle0' });
  }

  /** Comes to a path as by a link within the page; from outside where the page is not open yet. */
  async goes(path = '/'): Promise<void> {
    if (!this.isOpen) return this.loads(path);
    await this.page.evaluate((to) => {
      history.pushState({}, '', to);
      dispatchEvent(new PopStateEvent('popstate'));
    }, path);
    await this.page.waitForNetworkIdle({ idleTime: 100 });
    await this.quiet();
  }

  /** Sits down again at the page as another test left it: before the usual screen or another, with nothing complained of. */
  async again(screen: Viewport = usual): Promise<this> {
    await this.page.bringToFront();
    await this.page.setViewport(screen);
    if (this.isOpen) await this.page.evaluate(() => localStorage.clear());
    this.complaints.length = 0;
    return this;
  }

  /** Takes a sample from the shelf; the job opens at Design. */
  async takes(sample: string): Promise<void> {
    await this.goes();
    await this.presses(`Open a copy of ${sample}`);
    await this.sees('nav[aria-label=steps]');
  }

  /** Begins a new job from the shelf; it opens at Design. */
  async begins(): Promise<void> {
    await this.goes();
    await this.presses('New job');
    await this.sees('nav[aria-label=steps]');
  }

  /** Brings a job file in from the shelf; the job opens. */
  async brings(path: string): Promise<void> {
    const input = (await this.page.$('input[type=file]')) as unknown as { uploadFile(path: string): Promise<void> };
    await input.uploadFile(path);
    await this.sees('nav[aria-label=steps]');
  }

  /** From now on, what is taken out is put into a folder. */
  async keepsDownloadsIn(folder: string): Promise<void> {
    const client = await this.page.createCDPSession();
    const browserContextId = this.page.browserContext().id as string;
    await client.send('Browser.setDownloadBehavior', { behavior: 'allow', downloadPath: folder, browserContextId });
  }

  /** The element with an accessible name. */
  async named(name: string): Promise<ElementHandle<Element>> {
    const found = await this.page.waitForSelector(`::-p-aria(${name})`, { visible: true });
    if (!found) throw new Error(`nothing is called ${name}`);
    return found;
  }

  async presses(name: string): Promise<void> {
    await this.clicks(`::-p-aria(${name})`);
  }

  /** Clicks on the first of what a selector finds, once it is there and stands still; looks again while it moves or is drawn anew. */
  async clicks(selector: string): Promise<void> {
    const pressed = this.page.locator(selector).click();
    await pressed.catch((cause: unknown) => {
      throw new Error(`${selector} cannot be clicked on`, { cause });
    });
  }

  /** Chooses a value in a field of choices by its label, once it is there. */
  async chooses(label: string, value: string): Promise<void> {
    await (await this.sees(`select[aria-label="${label}"]`)).select(value);
  }

  /** Puts the focus on the first of what a selector finds, once it is there. */
  async focuses(selector: string): Promise<void> {
    await (await this.sees(selector)).focus();
  }

  /** Draws with the mouse from one node of the gate diagram to the left side of another, so far down as `down` says. */
  async draws(from: string, to: string, down: number): Promise<void> {
    await this.quiet();
    const boxOf = async (node: string) =>
      (await this.page.waitForSelector(`[data-node="${node}"] path`))?.boundingBox();
    const [a, b] = [await boxOf(from), await boxOf(to)];
    if (!a || !b) throw new Error(`nothing to draw from ${from} to ${to}`);
    await this.page.mouse.move(a.x + a.width / 2, a.y + a.height / 2);
    await this.page.mouse.down();
    await this.page.mouse.move(b.x + 40, b.y + b.height * down, { steps: 4 });
    await this.page.mouse.move(b.x + 0.25 * b.width, b.y + b.height * down, { steps: 4 });
    await this.page.mouse.up();
  }

  /** Goes to a step by the strap. */
  async turnsTo(step: string): Promise<void> {
    await this.clicks(`nav a[href$="/${step}"]`);
    await this.page.waitForSelector(`nav a[href$="/${step}"][aria-current=step]`);
    // The screen before stays in sight, and keeps its keys, while the code of the next one is on its way.
    await this.page.waitForSelector(shown(`main[data-step=${step}]`));
    await this.quiet();
  }

  async sees(selector: string): Promise<ElementHandle<Element>> {
    const found = await this.page.waitForSelector(shown(selector), { visible: true });
    if (!found) throw new Error(`${selector} is not to be seen`);
    return found;
  }

  /** Waits until a text stands somewhere on the page. */
  async reads(text: string): Promise<void> {
    await this.page.waitForFunction((t) => document.body.innerText.includes(t), {}, text);
  }

  async readsNot(text: string): Promise<void> {
    await this.page.waitForFunction((t) => !document.body.innerText.includes(t), {}, text);
  }

  /** The text of an element, once it is there: a step's own code may still be on its way. */
  async text(selector: string): Promise<string> {
    await this.page.waitForSelector(shown(selector));
    return this.page.$eval(shown(selector), (e) => (e as HTMLElement).innerText);
  }

  /** Types into what has the focus. */
  async types(text: string): Promise<void> {
    await this.page.keyboard.type(text);
  }

  async keys(...keys: string[]): Promise<void> {
    for (const key of keys) {
      const parts = key.split('+');
      const last = parts.pop() as 'Enter';
      for (const locks of parts) await this.page.keyboard.down(locks as 'Control');
      await this.page.keyboard.press(last);
      for (const locks of parts.reverse()) await this.page.keyboard.up(locks as 'Control');
    }
  }

  /** Types a line to the board, as a person who speaks in pin numbers. */
  async tellsBoard(line: string): Promise<void> {
    const input = await this.named('type to the board');
    await input.click({ count: 3 });
    await this.types(line);
    await this.keys('Enter');
    await this.quiet();
  }

  /** Where a hole of the first board is on the screen. */
  async hole(column: number, y: number): Promise<{ x: number; y: number }> {
    return this.page.$eval(
      shown('[role=img][aria-label^=board] svg'),
      async (svg, c, r) => {
        const aim = () => {
          const p = new DOMPoint(c, r).matrixTransform((svg as SVGSVGElement).getScreenCTM() as DOMMatrix);
          return { x: p.x, y: p.y };
        };
        // A person aims at a board that stands still: one that has stood so for some frames.
        let [at, still] = [aim(), 0];
        while (still < 4) {
          await new Promise((done) => requestAnimationFrame(done));
          const next = aim();
          still = next.x === at.x && next.y === at.y ? still + 1 : 0;
          at = next;
        }
        return at;
      },
      column,
      y,
    );
  }

  async drags(from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
    const { mouse } = this.page;
    await mouse.move(from.x, from.y);
    await mouse.down();
    await mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2);
    await mouse.move(to.x, to.y);
    await mouse.up();
    await this.quiet();
  }

  /** Waits until what was asked of the workers has come back and been drawn. */
  async quiet(): Promise<void> {
    const frames = (): Promise<unknown> =>
      this.page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    for (let calm = 0; calm < 2; calm++) {
      await frames();
      await this.page.waitForFunction(() => !document.querySelector('[aria-busy=true]:not([data-away] *)'));
    }
    await frames();
  }

  /** Waits until nothing glides or fades any more: colours on the way from one to another are nobody's. */
  private async still(): Promise<void> {
    await this.quiet();
    await this.page.waitForFunction(() =>
      document.getAnimations().every((a) => a.effect?.getComputedTiming().endTime === Infinity),
    );
  }

  /**
   * Serious and critical findings of axe, in short; moderate ones too where they are asked for (`isStrict`). Of a page that was looked at in another theme only what hangs on colours is asked
   * again (`ofColours`): nothing else of it is another.
   */
  async axe({ isStrict = false, ofColours = false } = {}): Promise<string[]> {
    await this.still();
    if (!(await this.page.evaluate(() => 'axe' in window))) await this.page.evaluate(axeSource);
    const told = ['serious', 'critical', ...(isStrict ? ['moderate'] : [])];
    const options = { resultTypes: ['violations'], ...(ofColours && { runOnly: colourRules }) };
    return this.page.evaluate(
      async (impacts, asked) => {
        const { axe } = window as unknown as { axe: Axe };
        // The screens of other steps are on the page too, but nobody meets them there.
        const { violations } = await axe.run({ exclude: [['[data-away]']] }, asked);
        return violations
          .filter((v) => impacts.includes(v.impact))
          .flatMap((v) => v.nodes.map((n) => `${v.id}: ${n.html.slice(0, 160)}`));
      },
      told,
      options,
    );
  }

  /** Whether the page itself could be scrolled. */
  scrolls(): Promise<boolean> {
    return this.page.evaluate(() => {
      const { scrollHeight, scrollWidth, clientHeight, clientWidth } = document.documentElement;
      return scrollHeight > clientHeight || scrollWidth > clientWidth;
    });
  }
}
