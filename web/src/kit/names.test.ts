import { describe, expect, it } from 'vitest';
import { switchKeys } from '../power/switch-keys';
import { bandsOf } from './board/SmallParts';
import { fileName } from './download';
import { shortName } from './short-name';

describe('short names', () => {
  it.each([
    ['G', 4, 'G'],
    ['permit', 4, 'perm'],
    ['DRY.12', 5, 'DR.12'],
    ['DRY.1', 5, 'DRY.1'],
  ])('%s in %i is %s', (name, length, short) => {
    expect(shortName(name, length)).toBe(short);
  });
});

describe('file names', () => {
  it.each([
    ['Lock interlock', 'Lock-interlock.json'],
    ['../etc/passwd', 'etc-passwd.json'],
    ['Écluse n° 3', 'E-cluse-n-3.json'],
    ['???', 'job.json'],
  ])('%s becomes %s', (name, file) => {
    expect(fileName(name, '.json')).toBe(file);
  });
});

describe('keys of switches', () => {
  it('are first letters where these differ, otherwise what tells the signals apart', () => {
    expect([...switchKeys(['K', 'E', 'U', 'L']).values()]).toEqual(['K', 'E', 'U', 'L']);
    expect([...switchKeys(['F0', 'F1', 'F9']).values()]).toEqual(['0', '1', '9']);
    // W walks the table.
    expect(switchKeys(['W']).get('W')).toBe('1');
  });

  it('are there for every switch as long as there are keys', () => {
    const many = Array.from({ length: 30 }, (_, i) => `A${'B'.repeat(i)}`);
    expect(new Set(switchKeys(many).values()).size).toBe(30);
  });

  it('are never given twice', () => {
    const keys = [...switchKeys(['A', 'a', 'aa', 'B', 'ab', 'w']).values()];
    expect(new Set(keys).size).toBe(keys.length);
  });
});

describe('bands of a resistor', () => {
  it('are those of IEC 60062: 1 kΩ brown black red, 10 kΩ brown black orange, 470 Ω yellow violet brown', () => {
    const [brown, black, red] = bandsOf(1000);
    expect(bandsOf(10_000).slice(0, 2)).toEqual([brown, black]);
    expect(bandsOf(10_000)[2]).not.toBe(red);
    expect(bandsOf(470)[2]).toBe(brown);
    expect(bandsOf(0)).toEqual([]);
  });
});
