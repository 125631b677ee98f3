import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { elementAt } from './element-at';

const root = join(__dirname, '../..');
const text = (name: string): string => readFileSync(join(root, name), 'utf8');
const { scripts } = JSON.parse(text('package.json')) as { scripts: Readonly<Record<string, string>> };

describe('what those who come are told', () => {
  const pages = ['CONTRIBUTING.md', 'README.md', 'docs/architecture.md'];

  it.each(pages)('%s: links lead somewhere, and the commands are there', (page) => {
    const dir = join(root, page, '..');
    for (const [, target = ''] of text(page).matchAll(/\]\(([^)#]+)[^)]*\)/g))
      if (!/^https?:/.test(target)) expect(existsSync(join(dir, target)), target).toBe(true);
    for (const [, script = ''] of text(page).matchAll(/`npm run ([\w:]+)/g))
      expect(scripts, script).toHaveProperty(script);
  });

  it('the recipes name files and folders that there are, for each thing to add', () => {
    const recipes = text('CONTRIBUTING.md');
    for (const what of ['A chip', 'A family', 'A rule', 'An edit', 'A command', 'A screen'])
      expect(recipes).toContain(`**${what}.**`);
    const paths = [...recipes.matchAll(/`((?:core|web|cli|e2e|scripts|docs)\/[\w./-]*)`/g)].map((m) => elementAt(m, 1));
    expect(paths.length).toBeGreaterThan(15);
    for (const path of paths) expect(existsSync(join(root, path)), path).toBe(true);
  });

  it('decisions say since when, and whether they hold', () => {
    const decisions = readdirSync(join(root, 'docs/decisions'));
    expect(decisions.length).toBeGreaterThan(17);
    for (const file of decisions)
      expect(text(`docs/decisions/${file}`), file).toMatch(
        /^# \d+\. .+\n\nDate: \d{4}-\d\d-\d\d\. Status: (in force|replaced by \d+)\.\n/,
      );
  });
});
