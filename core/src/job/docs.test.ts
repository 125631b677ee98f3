import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { breadboardKinds, jumperColours } from '../board';
import { benchParts, families } from '../catalogue';
import { strategies } from '../packing';

const doc = (name: string): string => readFileSync(`${import.meta.dirname}/../../../docs/${name}`, 'utf8');
const schema = JSON.parse(doc('job-file.schema.json')) as object;

/** All lists of words that the schema allows, by the property they are of. */
function enumsOf(value: unknown, name = ''): [string, readonly unknown[]][] {
  if (typeof value !== 'object' || value === null) return [];
  const own = (value as { enum?: readonly unknown[] }).enum;
  return [
    ...(own ? [[name, own] as [string, readonly unknown[]]] : []),
    ...Object.entries(value).flatMap(([key, inner]) => enumsOf(inner, key)),
  ];
}

describe('docs/job-file.md', () => {
  const text = doc('job-file.md');

  it('names every word that a file may hold, as the schema has it', () => {
    // The strategies are told one by one in packing.md.
    for (const [property, words] of enumsOf(schema))
      for (const word of words.filter((w) => typeof w === 'string'))
        expect(property === 'strategy' ? doc('packing.md') : text, `${property}: ${word}`).toMatch(
          new RegExp(`\\b${word}\\b`),
        );
    for (const word of [...breadboardKinds, ...jumperColours]) expect(text).toContain(word);
  });

  it('has every part that is no chip in its table, with its pins, and names contacts and lamps as the parts do', () => {
    for (const { id, inner, prefix } of benchParts) {
      expect(text, id).toContain(`\`${id}\``);
      if (prefix === 'H')
        expect(
          inner?.lamps
            .map((l) => l.name)
            .sort()
            .join(' '),
        ).toBe('DP a b c d e f g');
    }
    expect(text).toContain('`a` to `g`, `DP`');
  });
});

describe('docs/parts.md', () => {
  const text = doc('parts.md');

  it('names everything on a bench and every family, and says of nothing that it cannot be seated', () => {
    for (const { id } of benchParts) expect(text, id).toContain(`\`${id}\``);
    for (const id of Object.keys(families)) expect(text).toMatch(new RegExp(`\\b${id}\\b`));
    expect(text).not.toMatch(/cannot be seated|not yet/);
  });
});

describe('docs/packing.md', () => {
  it('has a row for every way to build', () => {
    for (const { strategy } of strategies)
      expect(doc('packing.md'), strategy).toMatch(new RegExp(`^\\|[^|]*\`${strategy}\`[^|]*\\|`, 'm'));
  });
});
