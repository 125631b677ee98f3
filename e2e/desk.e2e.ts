import { describe, expect, it } from 'vitest';
import { people } from './people';
import type { Person } from './person';

const { newcomer, regular } = people();

/** The text of the sheet as it stands in the editor. */
const sheet = (p: Person): Promise<string> =>
  p.page.$$eval('.cm-line', (lines) => lines.map((l) => l.textContent).join('\n'));

describe('the design desk', () => {
  it('sets a cell of the table by keys: sheet and gates follow, and undo brings it back', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.sees('[aria-label="truth table"]');
    await p.focuses('[aria-label="truth table"]');
    await p.keys('ArrowDown', 'ArrowDown', 'ArrowRight');
    await p.reads('Row 1: why P is 0');
    await p.keys('1');
    await p.page.waitForFunction(() =>
      document.querySelector('.cm-content')?.textContent?.includes('table P of K E U L : 0100'),
    );
    await p.keys('Control+z');
    await p.page.waitForFunction(() =>
      document.querySelector('.cm-content')?.textContent?.includes('P = K & ~E & U & L'),
    );
    expect(p.complaints).toEqual([]);
  });

  it('keeps what was typed a moment ago through Tidy and its undo', async () => {
    const p = await regular();
    await p.begins();
    await (await p.sees('.cm-content')).focus();
    const typed = 'in   A   B\nout Y\nY = A & B';
    await p.page.keyboard.type(typed);
    await p.presses('Tidy');
    await p.page.waitForFunction(() => document.querySelector('.cm-line')?.textContent === 'in  A  B');
    expect(await sheet(p)).toContain('Y = A & B');
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelector('.cm-line')?.textContent === 'in   A   B');
    expect(await sheet(p)).toBe(typed);
    expect(p.complaints).toEqual([]);
  });

  it('changes a gate in the diagram: the sheet keeps its comments, the table follows', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.presses('nor gate W');
    await p.chooses('kind of gate', 'and');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('W = U & L'));
    expect(await sheet(p)).toContain('# both gates open: the lock runs through');
    await p.named('and gate W');
    expect(p.complaints).toEqual([]);
  });

  it('draws lines in the diagram: one more input, another in the place of one, and none at all in a loop', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.draws('in K', 'gate W', 0.5);
    await p.page.waitForFunction(() =>
      document.querySelector('.cm-content')?.textContent?.includes('W = ~(U | L | K)'),
    );
    await p.quiet();
    await p.draws('in E', 'gate W', 1 / 6);
    await p.page.waitForFunction(() =>
      document.querySelector('.cm-content')?.textContent?.includes('W = ~(E | L | K)'),
    );
    await p.quiet();
    await p.draws('gate W', 'gate W', 0.5);
    expect(await sheet(p)).toContain('W = ~(E | L | K)');
    // Pressing without moving still chooses the gate.
    await p.presses('and gate P');
    await p.named('cut input K');
    await p.keys('Control+z', 'Control+z');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('W = ~(U | L)'));
    expect(p.complaints).toEqual([]);
  });

  it('completes what is written with Tab, as it says at its foot; with nothing to complete, Tab leads on', async () => {
    const p = await regular();
    await p.begins();
    await p.clicks('.cm-content');
    // A person looks at what is offered before they take it.
    const offered = async (): Promise<void> => {
      await p.sees('.cm-tooltip-autocomplete li[aria-selected]');
      await new Promise((done) => setTimeout(done, 200));
    };
    await p.types('in Sluice from bu');
    await offered();
    await p.keys('Tab');
    await p.reads('in Sluice from button');
    // What runs by itself wants a rate: one is there, to be written over.
    await p.types('\nin Tick from cl');
    await offered();
    await p.keys('Tab');
    await p.reads('in Tick from clock 10 Hz');
    await p.types('2 Hz\nout Y on di');
    await offered();
    await p.keys('Tab');
    await p.reads('out Y on display');
    await p.keys('Tab');
    expect(await p.page.evaluate(() => document.activeElement?.closest('.cm-content'))).toBeNull();
    expect(await sheet(p)).toBe('in Sluice from button\nin Tick from clock 2 Hz\nout Y on display');
    expect(p.complaints).toEqual([]);
  });

  it('finds and replaces, by keys alone; one undo brings all of it back', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.clicks('.cm-content');
    const before = await sheet(p);
    await p.keys('Control+f');
    await p.types('paddle');
    await p.keys('Enter');
    expect(await p.page.$eval('.cm-searchMatch-selected', (e) => e.textContent)).toBe('paddle');
    expect([await p.axe({ isStrict: true }), await p.scrolls()]).toEqual([[], false]);
    await (await p.named('Replace')).focus();
    await p.types('sluice');
    await p.presses('Replace all');
    expect(await sheet(p)).toBe(before.replaceAll('paddle', 'sluice'));
    await p.keys('Escape');
    await p.page.waitForSelector('.cm-search', { hidden: true });
    await p.keys('Control+z');
    await p.reads('"paddle permit"');
    expect(await sheet(p)).toBe(before);
    expect(p.complaints).toEqual([]);
  });

  it('renames a signal everywhere and jumps to where it is made, by keys', async () => {
    const p = await regular();
    await p.takes('Boat tally');
    await p.sees('.cm-content');
    // The last line reads T.
    await p.clicks('.cm-content');
    await p.keys('Control+End', 'ArrowUp', 'End');
    for (let i = 0; i < 6; i++) await p.keys('ArrowLeft');
    await p.keys('F2');
    await p.reads('Rename T everywhere');
    await p.types('TWO');
    await p.keys('Enter');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('TWO = A·B + h·M'));
    expect(await sheet(p)).toContain('X = (S ⊕ C0) + (TWO ⊕ C1)');
    expect(await sheet(p)).toContain('TWO "two or more waiting"');
    await p.clicks('.cm-content');
    await p.keys('Control+End', 'ArrowUp', 'End');
    for (let i = 0; i < 6; i++) await p.keys('ArrowLeft');
    await p.keys('F12');
    const atTwo = (): boolean => document.querySelector('.cm-activeLine')?.textContent?.startsWith('TWO =') === true;
    await p.page.waitForFunction(atTwo);
    // The cursor is found where it was.
    await p.turnsTo('pack');
    await p.turnsTo('design');
    await p.page.waitForFunction(atTwo);
    expect(p.complaints).toEqual([]);
  });

  it('restates, maps and compares, by day and dim, with nothing for axe and no page to scroll', async () => {
    const p = await regular();
    await p.takes('Level dial');
    for (const ofColours of [false, true]) {
      await p.presses('Restate');
      await p.reads('smallest sum of products');
      await p.quiet();
      expect([await p.axe({ ofColours }), await p.scrolls()]).toEqual([[], false]);
      await p.presses('Map');
      await p.reads('Groups of zeros');
      await p.quiet();
      expect([await p.axe({ ofColours }), await p.scrolls()]).toEqual([[], false]);
      await p.presses('Compare');
      await p.chooses('first to compare', 'LOW');
      await p.chooses('second to compare', 'signal TOP');
      await p.reads('They differ, first in row 0.');
      expect([await p.axe({ ofColours }), await p.scrolls()]).toEqual([[], false]);
      await p.presses('Dim');
    }
    expect(p.complaints).toEqual([]);
  });

  it('steps a clocked sheet through its states', async () => {
    const p = await regular();
    await p.takes('Boat counter');
    await p.reads('B falls: one step');
    await p.presses('Step');
    await p.presses('Step');
    await p.reads('00000 → 00011 → 00101');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('answers thousands of lines of nonsense with findings, and stays at hand', async () => {
    const p = await regular();
    await p.goes();
    await p.presses('New job');
    await p.sees('.cm-content');
    const nonsense = Array.from({ length: 5000 }, (_, i) => `Y${i} = (A & | table 01- use ${i} [`).join('\n');
    await p.clicks('.cm-content');
    await p.page.evaluate((text) => {
      const data = new DataTransfer();
      data.setData('text/plain', text);
      document
        .querySelector('.cm-content')
        ?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
    }, nonsense);
    await p.reads('5001 to see to');
    await p.keys('Control+z');
    await p.reads('an empty sheet');
    expect(p.complaints).toEqual([]);
  });
});

describe('the list of keys', () => {
  it('lists the keys of each screen on ?, and what it lists works', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    for (const step of ['design', 'pack', 'board', 'inspect', 'power', 'card']) {
      await p.turnsTo(step);
      await p.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
      await p.keys('Shift+?');
      const list = await p.text('[role=dialog]');
      expect(list).toMatch(/Keys of this screen[\s\S]*Everywhere[\s\S]*undo/);
      expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
      await p.keys('Escape');
      await p.page.waitForSelector('[role=dialog]', { hidden: true });
    }
    await p.keys('Alt+5');
    await p.sees('main[data-step=power]');
    await p.keys('Space');
    await p.reads('Power off');
    expect(p.complaints).toEqual([]);
  });
});

describe('the shelf of parts', () => {
  it('by keyboard alone: from a few words to a chip powered up on a board', async () => {
    const p = await regular();
    await p.goes('/parts');
    await (await p.sees('[aria-label="number or function"]')).focus();
    await p.types('74HC02');
    await p.keys('Enter');
    await p.reads('The outputs come first');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    for (let i = 0; i < 60; i++) {
      await p.keys('Tab');
      if ((await p.page.evaluate(() => document.activeElement?.textContent)) === 'Try this chip') break;
    }
    await p.keys('Enter');
    await p.reads('Walk the table');
    await p.quiet();
    await p.keys('w');
    await p.reads('4 of 4 rows seen');
    // Its table is for the person to fill in: each mark goes on to the next row.
    await p.focuses('[data-cell="0 0"]');
    for (const mark of '1001') await p.keys(mark);
    await p.presses('Compare with the sheet');
    await p.reads('first 1Y at');
    expect(await p.axe()).toEqual([]);
    await p.presses('Show the sheet’s');
    await p.reads('all agree');
    await p.presses('Saddlebag, to the shelf');
    await p.named('Open Try 7402, unit 1');
    expect(await p.axe()).toEqual([]);
    expect([p.complaints, await p.scrolls()]).toEqual([[], false]);
  });

  it('shows the gap that lets a flip-flop be clocked falsely, and closes it by one press', async () => {
    const p = await regular();
    await p.takes('False alarm');
    await p.reads('may get a pulse');
    await p.presses('Map');
    await p.page.waitForFunction(() => document.querySelector('[data-gap="S"]') !== null);
    await p.named('From a flip-flop');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.presses('Add A·B');
    await p.page.waitForFunction(() => document.querySelector('.cm-content')?.textContent?.includes('| A & B'));
    await p.page.waitForFunction(() => !document.querySelector('[data-gap]'));
    await p.readsNot('may get a pulse');
    expect(p.complaints).toEqual([]);
  });

  it('lays two datasheets side by side, dim too', async () => {
    const p = await regular();
    await p.goes('/parts/7474');
    await p.chooses('part beside it', '74112');
    await p.named('datasheet of 74112');
    await p.presses('Dim');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });

  it('is dim where the system is dark, goes with it, and stays as a person chose', async () => {
    const p = await newcomer();
    const isDim = () => p.page.evaluate(() => document.documentElement.classList.contains('dark'));
    const system = (value: 'dark' | 'light') => p.page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value }]);
    await system('dark');
    await p.loads();
    await p.named('Dim');
    expect(await isDim()).toBe(true);
    await system('light');
    await p.page.waitForFunction(() => !document.documentElement.classList.contains('dark'));
    await p.presses('Dim');
    expect(await isDim()).toBe(true);
    await system('dark');
    await system('light');
    await p.loads();
    await p.named('Dim');
    expect(await isDim()).toBe(true);
    expect(p.complaints).toEqual([]);
  });
});
