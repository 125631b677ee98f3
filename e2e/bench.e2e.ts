import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { people } from './people';
import { root } from './server';

const folder = mkdtempSync(join(tmpdir(), 'saddlebag-bench-'));
const { newcomer, regular } = people();

const size = (path: string): number => {
  try {
    return statSync(path).size;
  } catch {
    return 0;
  }
};

describe('a board found on a bench', () => {
  it('is understood: the sheet is read back from its wiring, and undo brings the own one back', async () => {
    const file = JSON.parse(readFileSync(join(root, 'samples/lock-interlock.saddlebag.json'), 'utf8'));
    const path = join(folder, 'found.saddlebag.json');
    const { packing: _, ...bare } = file;
    writeFileSync(path, JSON.stringify({ ...bare, name: 'Found', sheet: '# what is this?\n' }));
    const p = await regular();
    await p.goes();
    await p.brings(path);
    await p.presses('From the board');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('in K E U L'));
    await p.page.waitForFunction(() => document.querySelector('nav')?.textContent?.includes('4 inputs · 3 outputs'));
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    await p.turnsTo('design');
    await p.presses('Undo');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('what is this?'));
    expect(p.complaints).toEqual([]);
  });

  it('is measured under power: by pointing at a lamp and a strip, and by typing a pin', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('power');
    await p.keys('Space', 'k', 'e');
    await p.reads('mA · at rest after');
    const meter = '[role=status][aria-label=meter]';
    const shows = (text: string) =>
      p.page.waitForFunction((at, t) => document.querySelector(at)?.textContent?.includes(t), {}, meter, text);
    await (await p.sees('[data-ref=D1]')).hover();
    await shows('mA, lit');
    await (await p.sees('[data-ref=D2]')).hover();
    await shows('0.00 mA, dark');
    await p.page.mouse.move(600, 300);
    await p.keys('/');
    await p.types('U1.14');
    await p.page.mouse.move(5, 5);
    await shows('5.00 V, high');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('runs in time: a timer flashes lamps, a meter tells how often, and time can be stopped', async () => {
    const p = await regular();
    await p.takes('Fog beacon');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('Space');
    await p.reads('mA · running');
    const lamps = (): Promise<string> =>
      p.page.$$eval('[role=img][aria-label^=Q]:not([data-away] *)', (all) =>
        all.map((e) => e.getAttribute('aria-label')).join(),
      );
    const seen = new Set<string>();
    await expect.poll(async () => seen.add(await lamps()).size, { timeout: 15_000, interval: 100 }).toBeGreaterThan(3);
    expect([...seen].join()).toContain('Q1 lit');
    // What was seen is drawn: the first lamp's waveform has gone up and down.
    await p.page.waitForFunction(() =>
      /V4.*V24/.test(document.querySelector('[aria-label="trace of Q0"] path:last-child')?.getAttribute('d') ?? ''),
    );
    await p.keys('/');
    await p.types('U1.3');
    await p.page.waitForFunction(() =>
      /2\.09\d Hz/.test(document.querySelector('[aria-label=meter]')?.textContent ?? ''),
    );
    await p.focuses('nav a[aria-current=step]');
    await p.keys(';');
    await p.sees('[aria-label="trace of U1.3"]');
    // Some periods of the timer that are whole: its first is longer.
    await p.page.waitForFunction(
      () => Number.parseFloat(document.querySelector('[aria-label="time since power up"]')?.textContent ?? '') > 4,
      { timeout: 60_000 },
    );
    await p.keys(',');
    await p.named('Run ,');
    const stopped = await p.text('[aria-label="time since power up"]');
    // Two marks on edges of the first lamp: a whole period apart.
    await p.focuses('[aria-label^="Q0: arrows"]');
    await p.keys('ArrowLeft', 'Shift+ArrowLeft', 'Shift+ArrowLeft', 'Shift+ArrowLeft');
    await p.page.waitForFunction(
      () => document.querySelectorAll('[aria-label="trace of Q0"] [data-mark]').length === 2,
    );
    await p.reads('= 1.04');
    await p.reads('A to B: 2 edges');
    await p.presses('No marks');
    // The wheel with Ctrl shows a shorter span about the pointer; an expression is found as time runs on to it.
    const span = (): Promise<string> =>
      p
        .text('[aria-label="trace of Q0"]')
        .then(() => p.page.evaluate(() => document.body.innerText.match(/(\S+ \S+) across/)?.[1] ?? ''));
    const wide = await span();
    const wave = await p.page.$('[aria-label="trace of Q0"]');
    const box = await wave?.boundingBox();
    await p.page.mouse.move((box?.x ?? 0) + 150, (box?.y ?? 0) + 8);
    await p.page.keyboard.down('Control');
    await p.page.mouse.wheel({ deltaY: -900 });
    await p.page.keyboard.up('Control');
    await expect.poll(span).not.toBe(wide);
    await p.focuses('[aria-label="true when"]');
    await p.types('Q1 & ~Q0');
    await p.keys('Enter');
    await p.page.waitForFunction(() => document.querySelector('[data-mark="a"]') !== null);
    await p.presses('No marks');
    // The whole trace goes out as a dump and as a table, what is in sight as a picture.
    await p.keepsDownloadsIn(folder);
    for (const [kind, holds] of [
      ['vcd', /\$timescale[\s\S]*\$var[\s\S]* Q0 /],
      ['csv', /Q0/],
      ['svg', /<svg [\s\S]*>Q0<[\s\S]*<\/svg>/],
      ['png', /^.PNG/],
    ] as const) {
      await p.chooses('save the trace as', kind);
      const file = join(folder, `Fog-beacon-trace.${kind}`);
      await expect.poll(() => size(file), { timeout: 10_000 }).toBeGreaterThan(100);
      expect(readFileSync(file, 'utf8')).toMatch(holds);
    }
    await p.keys('.');
    await p.page.waitForFunction(
      (t) => document.querySelector('[aria-label="time since power up"]')?.textContent !== t,
      {},
      stopped,
    );
    // And back again: change by change, each output of the counters by itself, the one before them is less than two seconds old.
    const seconds = async (): Promise<number> => Number.parseFloat(await p.text('[aria-label="time since power up"]'));
    const now = await seconds();
    await expect
      .poll(
        async () => {
          await p.keys('Backspace');
          await p.page.waitForFunction(() => !document.body.innerText.includes('On the way there'));
          return now - (await seconds());
        },
        { timeout: 20_000 },
      )
      .toBeGreaterThan(0.2);
    // And on, by a minute in a moment.
    const at = await p.text('[aria-label="time since power up"]');
    await p.chooses('time to run on', 'a minute');
    await p.presses('Run on');
    await p.page.waitForFunction(
      (t) =>
        document.querySelector('[aria-label="time since power up"]')?.textContent !== t &&
        !document.body.innerText.includes('On the way there'),
      {},
      at,
    );
    await p.named('Run ,');
    // The timer that makes it run is worked out, and its charts are drawn.
    await p.presses('Timers');
    await p.reads('with the tolerances of its parts');
    await p.page.waitForFunction(() => document.querySelectorAll('[aria-label=timers] canvas').length === 2);
    expect(await p.axe()).toEqual([]);
    await p.keys('Escape');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('of transistors and diodes is walked against its sheet, inspected, and read back as tables', async () => {
    const p = await regular();
    await p.takes('Transistor bell');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.reads('built of transistors, diodes or analogue switches');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.turnsTo('power');
    await p.keys(' ', 'w');
    await p.reads('4 of 4 rows seen, all agree');
    await p.turnsTo('board');
    await p.tellsBoard('pull D1');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('differ');
    await p.turnsTo('board');
    await p.tellsBoard('seat diode b1.f13');
    await p.turnsTo('design');
    await p.presses('From the board');
    await p.reads('table B of K T : 1110');
    await p.reads('table W of K T : 0111');
    expect(p.complaints).toEqual([]);
  });

  it('can be taken out as a picture: SVG true to scale, and PNG', async () => {
    const p = await newcomer();
    await p.takes('Lock interlock');
    await p.turnsTo('board');
    await p.keepsDownloadsIn(folder);
    await p.presses('SVG');
    const svg = join(folder, 'Lock-interlock-board.svg');
    await expect.poll(() => size(svg), { timeout: 10_000 }).toBeGreaterThan(10_000);
    const text = readFileSync(svg, 'utf8');
    expect(text).toMatch(/^<svg[^>]* width="16\d\.\d\dmm"/);
    expect(text).not.toContain('var(');
    // The command line draws the very same.
    const job = join(root, 'samples/lock-interlock.saddlebag.json');
    const drawn = spawnSync(process.execPath, [join(root, 'cli/bin/saddlebag.mjs'), 'picture', job], {
      encoding: 'utf8',
    });
    expect(drawn.stdout.trim()).toBe(text);
    await p.presses('PNG');
    const png = join(folder, 'Lock-interlock-board.png');
    await expect.poll(() => size(png), { timeout: 10_000 }).toBeGreaterThan(10_000);
    const bytes = readFileSync(png);
    expect(bytes.subarray(1, 4).toString()).toBe('PNG');
    expect(bytes.readUInt32BE(16)).toBeGreaterThan(1900);
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('is toured through every state: all agree, and after a wrong jumper the presses that show it are told and done', async () => {
    const p = await regular();
    await p.takes('Boat counter');
    await p.turnsTo('power');
    await p.keys('Space');
    await p.reads('every state, with every input');
    await p.keys('w');
    await p.reads('72 of 72 transitions seen');
    await p.reads('all agree');
    expect(await p.axe()).toEqual([]);
    await p.turnsTo('board');
    await p.tellsBoard('pull w18');
    await p.tellsBoard('U3.8 > U3.9');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('1 differing');
    await p.reads('should be');
    const pressed = await p.page.$$eval(
      '[aria-label="presses that lead there"] button, [aria-label="presses that lead there"] [data-signal]',
      (all) => all.length,
    );
    expect(pressed).toBeGreaterThan(3);
    await p.presses('Do it on the board');
    // The lamps stand as the tour saw them: Q2 and Q1 are joined.
    await p.sees('[role=img][aria-label="Q1 dark"]');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('may keep what a rule says, with a reason: it is left unsaid there and can be told again', async () => {
    const p = await regular();
    await p.takes('Lamp relay');
    await p.turnsTo('board');
    await p.tellsBoard('pull C1');
    await p.turnsTo('inspect');
    await p.reads('U2 has no 100 nF capacitor');
    expect(await p.axe()).toEqual([]);
    await p.presses('Silence …');
    await p.named('Why it is all right here');
    await p.types('a larger one is beside it');
    await p.keys('Enter');
    await p.reads('No problems found');
    await p.reads('a larger one is beside it');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.presses('Show again: no-capacitor at U2');
    await p.reads('U2 has no 100 nF capacitor');
    expect(p.complaints).toEqual([]);
  });
});
