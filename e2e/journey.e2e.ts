import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { people } from './people';
import { Person, shown } from './person';

const { newcomer, regular } = people();
/** Who goes on from one test of a room to the next. */
let person: Person;

const folder = mkdtempSync(join(tmpdir(), 'saddlebag-e2e-'));

describe('from a sheet of equations to a lit LED', () => {
  it('a person says what signals come from and are shown on, and finds it on the board; another wish is brought up to date by one press', async () => {
    const p = await regular();
    await p.goes();
    await p.presses('New job');
    await (await p.sees('.cm-content')).click();
    await p.types('in A from button\nin B\nout Y on lamp purple\nY = A & B');
    await p.reads('“purple” is no colour of a lamp.');
    await p.keys('Escape', 'ArrowUp', 'End', ...Array<string>(6).fill('Backspace'));
    await p.types('green');
    await p.readsNot('is no colour');
    await p.turnsTo('pack');
    await p.reads('1 chip');
    await p.presses('Lay it out on boards');
    await p.sees('[data-ref=S1]');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('4 of 4 rows seen, all agree');
    await p.turnsTo('design');
    await (await p.sees('.cm-content')).click();
    await p.keys('Escape', 'Control+End', 'ArrowUp', 'End', ...Array<string>('lamp green'.length).fill('Backspace'));
    await p.types('buzzer');
    await p.turnsTo('board');
    await p.presses('Bring up to date');
    await p.sees('[data-ref=Z1]');
    await p.sees('[data-ref=S1]');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('4 of 4 rows seen, all agree');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('a person writes a sheet, has it packed and laid out, powers it up and prints the card', async () => {
    const p = await newcomer({ rests: true });
    person = p;
    await p.goes();
    await p.presses('New job');
    await (await p.sees('.cm-content')).click();
    await p.types('in A "float at the weir"  B "float at the tail"\nout Y "sluice"\nY = A & & B');
    await p.reads('A signal is missing before “&”.');
    await p.sees('.cm-lintRange-error');
    await p.keys('Backspace', 'Backspace', 'Backspace');
    await p.types('~B');
    await p.readsNot('is missing before');
    await p.sees('svg[aria-label="gate diagram"]');
    await p.reads('4 rows');
    await p.reads('2 inputs · 1 output · 2 gates');

    await p.turnsTo('pack');
    await p.reads('1 chip');
    await p.presses('Lay it out on boards');
    await p.reads('on 1 board');

    await p.turnsTo('inspect');
    await p.reads('No problems found');

    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('4 of 4 rows seen, all agree');
    await p.keys('a');
    await p.named('Y lit');
    await p.keys('b');
    await p.named('Y dark');

    await p.turnsTo('card');
    await p.reads('Switches and their pull-downs');
    const pdf = await p.page.pdf();
    expect(pdf.length).toBeGreaterThan(20_000);
    expect(new TextDecoder('latin1').decode(pdf).match(/\/Type \/Page\b/g)?.length).toBeGreaterThan(1);
    expect(p.complaints).toEqual([]);
  });

  it('finds it all again after the tab was closed', async () => {
    const p = person;
    const url = p.page.url();
    const page = await p.page.browserContext().newPage();
    await p.page.close();
    const again = Person.on(page, new URL(url).origin);
    await page.goto(url, { waitUntil: 'networkidle0' });
    await again.reads('stages');
    await again.turnsTo('design');
    expect(await again.text('.cm-content')).toContain('Y = A & ~B');
  });
});

describe('the shelf', () => {
  it('renames, duplicates, deletes with a way back, takes out and brings in', async () => {
    const p = await regular();
    person = p;
    await p.takes('Boat tally');
    await p.presses('Saddlebag, to the shelf');
    await p.presses('Rename Boat tally');
    await p.keys('Control+a');
    await p.types('Tally of May');
    await p.keys('Enter');
    await p.presses('Duplicate Tally of May');
    await p.named('Open Tally of May 2');
    await p.presses('Delete Tally of May');
    await p.page.waitForSelector('::-p-aria(Open Tally of May)', { hidden: true });
    await p.presses('Put back');
    await p.named('Open Tally of May');

    await p.keepsDownloadsIn(folder);
    await p.presses('Export Tally of May');
    const path = join(folder, 'Tally-of-May.saddlebag.json');
    await expect.poll(() => readable(path), { timeout: 10_000 }).toBe('Tally of May');
    await p.brings(path);
    await p.reads('Tally of May 3');
    expect(p.complaints).toEqual([]);
  });

  it.each([
    ['torn', '{"format": "saddlebag-job", ', 'The file is not JSON'],
    ['newer', '{"format": "saddlebag-job", "version": 99}', 'this program knows versions up to 2'],
    ['foreign', '{"parts": []}', 'does not say that it is a Saddlebag job'],
    ['deep', '['.repeat(5000), 'nested over 32 levels deep'],
    ['huge', ' '.repeat(8 * 1024 * 1024 + 1), 'the most that is read'],
  ])('refuses a %s file with a sentence, and everything stays as it was', async (name, text, sentence) => {
    const p = person;
    await p.goes();
    const before = await p.text('ul');
    const path = join(folder, `${name}.json`);
    writeFileSync(path, text);
    const input = (await p.page.$('input[type=file]')) as unknown as { uploadFile(path: string): Promise<void> };
    await input.uploadFile(path);
    await p.reads(sentence);
    await p.reads('nothing else has changed');
    expect(await p.text('ul')).toBe(before);
  });
});

describe('the board under a person’s hands', () => {
  const jumpers = async (p: Person): Promise<number> =>
    Number(/(\d+) jumpers/.exec(await p.text('nav a[href$="/board"]'))?.[1]);

  it('by typing: a jumper between pins, and what is wrong with another', async () => {
    const p = await regular();
    person = p;
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    expect(await jumpers(p)).toBe(28);
    await p.tellsBoard('U1.3 > U1.11');
    expect(await jumpers(p)).toBe(29);
    await p.tellsBoard('U1.99 > U1.1');
    await p.reads('U1 has no pin 99.');
    await p.keys('Escape');
    await p.presses('Undo');
    await p.quiet();
    expect(await jumpers(p)).toBe(28);
    await p.presses('Redo');
    await p.quiet();
    expect(await jumpers(p)).toBe(29);
    await p.keys('Control+z');
    await p.quiet();
    expect(await jumpers(p)).toBe(28);
  });

  it('by mouse: lays a jumper, pulls it out, drags a chip and is told where it cannot go', async () => {
    const p = person;
    await p.drags(await p.hole(60, 12), await p.hole(60, 5));
    expect(await jumpers(p)).toBe(29);
    const middle = await p.hole(60, 8.5);
    await p.page.mouse.click(middle.x, middle.y);
    await p.keys('Delete');
    await p.quiet();
    expect(await jumpers(p)).toBe(28);

    const at = async (): Promise<string | undefined> =>
      /U2\s+74HC02\s+(b1\.e\d+)/.exec(await p.text('[aria-label="parts and jumpers"]'))?.[1];
    const start = await at();
    const column = Number(start?.slice(4));
    const from = await p.hole(column + 3, 8.5);
    await p.drags(from, await p.hole(column + 2, 8.5));
    expect(await at()).toBe(`b1.e${column - 1}`);
    await p.drags(await p.hole(column + 2, 8.5), await p.hole(20, 8.5));
    await p.reads('is taken by');
    expect(await at()).toBe(`b1.e${column - 1}`);
    await p.keys('Control+z');
    await p.quiet();
    expect(await at()).toBe(start);
  });

  it('by keys alone: lays a jumper, steps to a part, turns it and pulls it out', async () => {
    const p = person;
    await p.focuses('[role=application]');
    await p.keys('Escape', 'Enter', 'ArrowDown', 'ArrowRight', 'Enter');
    await p.quiet();
    const count = await jumpers(p);
    expect(count).toBe(29);
    await p.keys('Control+z');
    await p.quiet();
    await p.keys('n', 'n', 'n');
    await p.reads('D1 led');
    await p.keys('r');
    await p.quiet();
    await p.turnsTo('inspect');
    await p.reads('D1 is the wrong way round; it will never light.');
    await p.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await p.keys('Enter');
    await p.reads('No problems found');
    expect(p.complaints).toEqual([]);
  });
});

describe('finding what is wrong', () => {
  it('a jumper pulled from the interlock is found at its pin, makes rows differ, and is mended with one press', async () => {
    const p = await regular();
    person = p;
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    const row = await p.text('[aria-label="parts and jumpers"]');
    expect(row).toContain('w10');
    await p.tellsBoard('pull w10');
    await p.turnsTo('inspect');
    await p.reads('open, though in use for K');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('differ');
    await p.reads('differs');
    await p.turnsTo('inspect');
    await p.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await p.keys('Enter');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('16 of 16 rows seen, all agree');
  });

  it('a switch on the board answers to the mouse, and strips and chips show their levels', async () => {
    const p = person;
    const before = await p.page.$$eval('[data-strip] text:not([data-away] *)', (t) =>
      t.map((e) => e.textContent).join(''),
    );
    await p.clicks('[data-ref=S1]:not([data-away] *)');
    await p.quiet();
    const after = await p.page.$$eval('[data-strip] text:not([data-away] *)', (t) =>
      t.map((e) => e.textContent).join(''),
    );
    expect(after).not.toBe(before);
    expect(await p.page.$eval('[role=switch][aria-label^=K]', (e) => e.getAttribute('aria-checked'))).toBe('true');
    expect(p.complaints).toEqual([]);
  });

  it('pointing at a signal lights it everywhere', async () => {
    const p = person;
    await p.turnsTo('board');
    const tag = await p.named('follow E');
    await tag.hover();
    await p.quiet();
    const strength = (what: string): Promise<number> =>
      p.page.$eval(shown(what), (e) => Number(getComputedStyle(e.closest('svg') as Element).opacity));
    expect(await strength('[data-wire]')).toBeLessThan(0.3);
    expect(await strength('[data-lit]')).toBe(1);
    const lit = await p.page.$eval(
      '[data-lit]:not([data-away] *)',
      (e) => e.getAttribute('data-lit')?.split(' ') ?? [],
    );
    const carrying = await p.page.$$eval('[data-wire][data-signal=E]:not([data-away] *)', (g) =>
      g.map((e) => e.getAttribute('data-wire')),
    );
    expect(lit.sort()).toEqual(carrying.sort());
    expect(lit.length).toBeGreaterThan(0);
  });
});

describe('two tabs', () => {
  it('with one job: what one does the other shows', async () => {
    const p = await regular();
    await p.takes('Towpath lamp');
    const other = Person.on(await p.page.browserContext().newPage(), new URL(p.page.url()).origin);
    await other.page.goto(p.page.url(), { waitUntil: 'networkidle0' });
    await p.page.bringToFront();
    await p.turnsTo('board');
    await p.tellsBoard('pull w5');
    await other.page.bringToFront();
    await other.reads('26 jumpers on 1 board');
    expect(other.complaints).toEqual([]);
    await other.page.close();
  });
});

describe('every screen', () => {
  it.each(['day', 'dim'])(
    'has no serious finding of axe, no page scroll and a silent console, by %s',
    async (theme) => {
      const p = await regular();
      const ofColours = theme === 'dim';
      await p.goes();
      if (ofColours) await p.presses('Dim');
      expect(await p.axe({ ofColours }), 'shelf').toEqual([]);
      await p.takes('Lock interlock');
      for (const step of ['design', 'pack', 'board', 'inspect', 'power', 'card']) {
        await p.turnsTo(step);
        expect(await p.scrolls(), step).toBe(false);
        // As it is first met every screen is looked at in sizes.e2e.ts.
        if (step !== 'power') continue;
        await p.keys('w');
        await p.quiet();
        expect(await p.axe({ ofColours }), 'a table being walked').toEqual([]);
        expect(await p.scrolls(), 'a table being walked').toBe(false);
      }
      await p.turnsTo('board');
      await p.tellsBoard('pull w4');
      await p.tellsBoard('rotate D1');
      for (const step of ['inspect', 'power']) {
        await p.turnsTo(step);
        expect(await p.axe({ ofColours }), `${step} with findings`).toEqual([]);
      }
      await p.turnsTo('design');
      await p.clicks('.cm-content');
      await p.keys('Control+End');
      await p.types('\nX = = 3');
      await p.reads('mistake');
      expect(await p.axe({ ofColours }), 'design with a mistake').toEqual([]);
      if (ofColours) await p.presses('Dim');
      expect(p.complaints).toEqual([]);
    },
  );

  it('is reached and worked by keyboard alone', async () => {
    const p = await newcomer();
    await p.goes();
    for (let i = 0; i < 12; i++) {
      await p.keys('Tab');
      if (
        (await p.page.evaluate(() => document.activeElement?.getAttribute('aria-label'))) ===
        'Open a copy of Lock interlock'
      )
        break;
    }
    await p.keys('Enter');
    await p.sees('nav[aria-label=steps]');
    for (const [digit, text] of [
      ['2', 'Packages'],
      ['3', 'On the board'],
      ['4', 'Findings'],
      ['5', 'Walk the table'],
      ['6', 'Stages'],
    ] as const) {
      await p.keys(`Alt+${digit}`);
      await p.reads(text);
    }
    await p.keys('ArrowDown', 'ArrowDown');
    await p.reads('3 of 11');
  });
});

/** The name in a job file that is being downloaded, once it is whole. */
function readable(path: string): string | null {
  try {
    return (JSON.parse(readFileSync(path, 'utf8')) as { name: string }).name;
  } catch {
    return null;
  }
}

describe('the first load', () => {
  it('is under 350 kB of compressed code', async () => {
    const p = await newcomer();
    let bytes = 0;
    const client = await p.page.createCDPSession();
    await client.send('Network.enable');
    const code = new Set<string>();
    client.on('Network.responseReceived', ({ requestId, type }) => {
      if (type === 'Script' || type === 'Stylesheet' || type === 'Document') code.add(requestId);
    });
    client.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
      if (code.has(requestId)) bytes += encodedDataLength;
    });
    // What the shelf needs to stand there; the page of a job comes after it.
    await p.loads();
    await p.sees('button[aria-label="Open a copy of Lock interlock"]');
    const needed = bytes;
    expect(needed).toBeGreaterThan(50_000);
    expect(needed).toBeLessThan(350_000);
  });
});
