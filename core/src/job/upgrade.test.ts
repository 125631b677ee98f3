import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readJobFile } from '../job-reader';
import { upgraded } from './upgrade';
import { FILE_VERSION, writeJobFile } from './write';

const folder = `${import.meta.dirname}/../../../samples`;
const samples = readdirSync(folder)
  .filter((name) => name.endsWith('.json'))
  .map((name) => [name, readFileSync(`${folder}/${name}`, 'utf8')] as const);

type Plain = Record<string, unknown>;
const first = { excluded: 'struck', locks: 'held', strategy: 'way', proof: 'sure', rotation: 'turn', route: 'way' };

/** A file of the current version as version 1 had it. */
const asFirst = (text: string): string =>
  JSON.stringify(
    JSON.parse(text, (_, value: unknown) =>
      typeof value === 'object' && value !== null && !Array.isArray(value)
        ? Object.fromEntries(
            Object.entries(value).map(([key, inner]) => [first[key as keyof typeof first] ?? key, inner]),
          )
        : value,
    ),
  ).replace(`"version":${FILE_VERSION}`, '"version":1');

describe('a file of version 1', () => {
  it.each(samples)('%s reads as the same job', (_, text) => {
    const now = readJobFile(text);
    expect(now.ok).toBe(true);
    expect(asFirst(text)).not.toMatch(/"(rotation|locks|strategy)"/);
    expect(readJobFile(asFirst(text))).toEqual(now);
    if (now.ok) expect(readJobFile(asFirst(writeJobFile(now.job)))).toEqual(now);
  });

  it('with what was decided by hand: excluded chips, locks, a straight wire', () => {
    const [, text] = samples.find(([name]) => name.startsWith('lock-interlock')) ?? expect.fail();
    const file = JSON.parse(text) as Plain & { board: { jumpers: Plain[] } };
    file.excluded = ['7486'];
    file.locks = { pins: [], added: [{ ref: 'U9', part: '7400' }] };
    (file.board.jumpers[0] ?? expect.fail()).route = 'straight';
    const now = readJobFile(JSON.stringify(file));
    expect(now).toMatchObject({ ok: true, job: { excluded: ['7486'], locks: { added: [{ ref: 'U9' }] } } });
    expect(readJobFile(asFirst(JSON.stringify(file)))).toEqual(now);
  });

  it('that is no object inside, or has both names, is told by the check and never throws', () => {
    for (const odd of [
      { board: null },
      { board: [], packing: 3 },
      { board: { parts: 'none', jumpers: [null, 1] } },
      { struck: ['7400'], excluded: ['7402'] },
    ]) {
      const text = JSON.stringify({ format: 'saddlebag-job', version: 1, name: 'x', family: 'HC', sheet: '', ...odd });
      expect(readJobFile(text).ok, text).toBe(false);
    }
  });

  it('is left alone when it is of an unknown version', () => {
    for (const version of [0, 1.5, '1', FILE_VERSION, 99]) {
      const file = { version, struck: 1 };
      expect(upgraded(file)).toBe(file);
    }
  });
});
