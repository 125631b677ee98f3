import { describe, expect, it } from 'vitest';
import { people } from './people';

const { newcomer, regular } = people();

describe('packing', () => {
  it('in another way: found, looked at, taken, laid out, inspected and walked; undo brings the old one back', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('pack');
    await p.presses('Find NANDs alone');
    await p.named('Look at NANDs alone');
    await p.presses('Look at NANDs alone');
    await p.reads('3 chips, 8 units');
    expect([await p.axe(), await p.scrolls()]).toEqual([[], false]);
    await p.presses('Use NANDs alone');
    await p.reads('laid out afresh');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    await p.turnsTo('power');
    await p.keys('w');
    await p.reads('all agree');
    await p.turnsTo('pack');
    await p.keys('Control+z');
    await p.page.waitForFunction(() => document.querySelector('nav')?.textContent?.includes('2 chips'));
    expect(p.complaints).toEqual([]);
  });

  it('by keyboard alone: the drawer is filled, kept for other jobs, and packed from', async () => {
    const p = await newcomer();
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
    const p = await regular();
    await p.takes('Lamp relay');
    await p.turnsTo('pack');
    await p.named('U3 74HC74');
    await p.turnsTo('inspect');
    await p.reads('No problems found');
    expect(p.complaints).toEqual([]);
  });

  it('by hand: a gate dragged to another unit is pinned there, an impossible place says why, its line is found and back', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('pack');
    await p.sees('[role=button][data-unit]');
    const label = async (start: string): Promise<string> =>
      p.page.$$eval(
        '[role=button][data-unit]',
        (all, text) => all.map((e) => e.getAttribute('aria-label') ?? '').find((n) => n.includes(text)) ?? '',
        start,
      );
    const middle = async (place: string) => {
      const box = await (await p.sees(`[role=button][data-unit="${place}"] rect`)).boundingBox();
      if (!box) throw new Error(`no unit ${place}`);
      return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    };
    const drags = async (from: string, to: string): Promise<string> => {
      const [a, b] = [await middle(from), await middle(to)];
      await p.page.mouse.move(a.x, a.y);
      await p.page.mouse.down();
      await p.page.mouse.move(b.x, b.y, { steps: 5 });
      const all = await p.page.$$eval('[role=status]', (found) => found.map((e) => e.textContent ?? ''));
      const says = all.find((text) => text.includes('W')) ?? '';
      await p.page.mouse.up();
      return says;
    };
    const [w, spare] = [(await label(' W')).split(' ')[0] ?? '', (await label('spare')).split(' ')[0] ?? ''];
    const g = (await label(' G')).split(' ')[0] ?? '';
    expect(await drags(w, g)).toMatch(/cannot do what W needs: NOR of 2/);
    expect(await drags(w, spare)).toBe(`W to ${spare}`);
    await p.named(`${spare} W, pinned`);
    await p.presses('On the sheet');
    await p.page.waitForFunction(() => /^W = /.test(document.querySelector('.cm-activeLine')?.textContent ?? ''));
    await p.presses(`Its unit, ${spare}`);
    expect(await (await p.named(`${spare} W, pinned`)).evaluate((e) => e.getAttribute('aria-pressed'))).toBe('true');
    expect([await p.axe(), await p.scrolls(), p.complaints]).toEqual([[], false, []]);
  });
});
