import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { elementAt } from './element-at';

const root = join(__dirname, '../..');
const rows = readFileSync(join(root, 'docs/glossary.md'), 'utf8')
  .split('\n')
  .filter((line) => line.startsWith('| ') && !line.startsWith('| word') && !line.startsWith('| ---'))
  .map((line) => line.split('|').map((cell) => cell.trim()))
  .map(([, word = '', means = '', not = '']) => ({ word, means, not: not.split(', ').filter(Boolean) }));

function filesIn(dir: string): string[] {
  return readdirSync(dir, { withFileTypes: true }).flatMap((e) => {
    if (e.name === 'node_modules' || e.name === 'dist') return [];
    return e.isDirectory() ? filesIn(join(dir, e.name)) : /\.tsx?$/.test(e.name) ? [join(dir, e.name)] : [];
  });
}
const files = ['core/src', 'web/src', 'cli/src', 'server/src'].flatMap((dir) => filesIn(join(root, dir)));

/** The words of a name: `useLeadPanel` and `use-lead-panel` are the same three. */
const wordsOf = (name: string): string =>
  ` ${name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/[-_.]/g, ' ')
    .toLowerCase()} `;

describe('the glossary', () => {
  it('holds each word once, with what it means', () => {
    expect(rows.length).toBeGreaterThan(50);
    const words = rows.map((r) => r.word);
    expect(new Set(words).size).toBe(words.length);
    for (const { word, means } of rows) expect(means, word).not.toBe('');
  });

  it('has no word that another line has given up', () => {
    const given = new Set(rows.flatMap((r) => r.not.map((n) => n.toLowerCase())));
    for (const { word } of rows) expect(given.has(word), word).toBe(false);
  });

  it('has given up words that no file and no export is named by', () => {
    const old = rows.flatMap((r) => r.not);
    expect(old.length).toBeGreaterThan(12);
    const names = files.flatMap((file) => {
      const text = readFileSync(file, 'utf8');
      const exported = [...text.matchAll(/^export (?:const|function\*?|class|type|interface|async function) (\w+)/gm)];
      return [basename(file).replace(/(\.test)?\.tsx?$/, ''), ...exported.map((m) => elementAt(m, 1))].map((name) => ({
        name,
        file,
      }));
    });
    expect(names.length).toBeGreaterThan(1000);
    const found = names.filter(({ name }) => old.some((word) => wordsOf(name).includes(wordsOf(word))));
    expect(found.map(({ name, file }) => `${name} in ${file.slice(root.length + 1)}`)).toEqual([]);
  });
});
