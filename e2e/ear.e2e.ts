import type { SerializedAXNode } from 'puppeteer-core';
import { describe, expect, it } from 'vitest';
import { people } from './people';
import type { Person } from './person';

const { regular } = people();

/** Everything on the accessibility tree. */
async function tree(p: Person): Promise<readonly SerializedAXNode[]> {
  await p.quiet();
  const all: SerializedAXNode[] = [];
  const walk = (node: SerializedAXNode): void => {
    all.push(node);
    node.children?.forEach(walk);
  };
  walk((await p.page.accessibility.snapshot({ interestingOnly: false })) as SerializedAXNode);
  return all;
}

/** What a live region says. */
async function said(p: Person, region: string): Promise<string> {
  const node = (await tree(p)).find((n) => n.role === 'log' && n.name === region);
  const words = (n: SerializedAXNode): string =>
    [n.role === 'StaticText' ? n.name : '', ...(n.children ?? []).map(words)].join('');
  return node ? words(node) : expect.fail(`nothing is called ${region}`);
}

describe('by ear alone', () => {
  it('the board tells where the cursor is, what is there and what it carries; a jumper is laid and pulled, each told once', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.keys('Alt+3');
    await p.sees('main[data-step=board]');
    await p.focuses('[aria-roledescription=breadboard]');
    await p.keys('ArrowRight', 'ArrowLeft');
    expect(await said(p, 'at the cursor')).toMatch(/^b1, row e, column 1; nothing in it; free: a, b, c, d, e$/);
    expect(await said(p, 'what was done')).toBe('');
    await p.keys('Enter');
    expect(await said(p, 'at the cursor')).toMatch(/^jumper from b1\.e1; b1, row e, column 1/);
    await p.keys('ArrowRight', 'ArrowRight', 'Enter');
    expect(await said(p, 'what was done')).toMatch(/^done: .*w\d+/);
    expect(await said(p, 'at the cursor')).toMatch(/w\d+/);
    await p.keys('Control+z');
    expect(await said(p, 'what was done')).toMatch(/^undone: /);
    await p.keys('n');
    expect(await said(p, 'at the cursor')).toMatch(/^chosen: (C1|U1|P1|D1), /);
    await p.keys('Delete');
    expect(await said(p, 'what was done')).toMatch(/^done: .*(C1|U1|P1|D1)/);
    expect(p.complaints).toEqual([]);
  });

  it('the level of a strip is told while the power is on', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.turnsTo('power');
    await p.keys('Space', 'k');
    await p.page.waitForSelector('[role=switch][aria-label^="K"][aria-checked=true]');
    await p.turnsTo('board');
    await p.focuses('[aria-roledescription=breadboard]');
    await p.keys('Shift+ArrowRight');
    for (let n = 0; n < 40 && !(await said(p, 'at the cursor')).includes('carries K'); n++)
      await p.keys('Shift+ArrowRight');
    expect(await said(p, 'at the cursor')).toMatch(/carries K; high, [45]\.\d\d volts/);
    expect(p.complaints).toEqual([]);
  });

  it('tables are tables: rows, heads and cells', async () => {
    const p = await regular();
    await p.takes('Lock interlock');
    await p.sees('[aria-label="truth table"]');
    const isTable = async (name: string, rows: number, heads: readonly string[]): Promise<void> => {
      const nodes = await tree(p);
      const table = nodes.find((n) => n.role === 'table' && n.name === name) ?? expect.fail(name);
      const inside: SerializedAXNode[] = [];
      const walk = (n: SerializedAXNode): void => {
        inside.push(n);
        n.children?.forEach(walk);
      };
      walk(table);
      const of = (role: string) => inside.filter((n) => n.role === role);
      expect(of('row').length).toBeGreaterThanOrEqual(rows);
      expect(of('columnheader').map((n) => n.name)).toEqual(heads);
      expect(of('cell').length).toBeGreaterThanOrEqual(rows);
    };
    await isTable('truth table, row by row', 4, ['K', 'E', 'U', 'L', 'G', 'P', 'W']);
    await p.turnsTo('power');
    await isTable('walked table', 4, ['K', 'E', 'U', 'L', 'G', 'P', 'W']);
  });
});
