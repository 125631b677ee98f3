import { describe, expect, it } from 'vitest';
import { memoryFromFile, parseSheet, printSheet, readSheet, withPart } from '../design';
import { elementAt } from '../element-at';
import { says } from '../finding';
import { ChipBench } from '../testing/chip-bench';
import { drawing } from '../testing/mutate';
import { chipLibrary, ownPartType, readDesign } from './catalogue';
import { chips } from './chips';

const memories = chips.flatMap(({ base, memory }) => (memory ? [{ base, memory }] : []));
const wanted = { name: 'MAP', title: 'levels', number: '74288' };
const read = (text: string, what = wanted) => memoryFromFile(text, what, chipLibrary);
const told = (text: string, what = wanted): string[] => read(text, what).findings.map(says);
const heldIn = (part: string | null): string =>
  (part ?? expect.fail('no part'))
    .split('\n')
    .filter((line) => line.includes('holds'))
    .map((line) => line.trim().slice('holds '.length))
    .join(' ');

describe('a memory whose contents are put in', () => {
  it.each(memories)(
    '$base shows what it holds at every address, and nothing when it is not selected',
    ({ base, memory }) => {
      const random = drawing(7);
      const [lines, outputs] = [memory.address.split(' '), memory.data.split(' ')];
      const size = 2 ** lines.length;
      // Runs of one word as well as noise, and an end that is left blank.
      const words = Array.from({ length: size - 3 }, (_, n) => (n % 5 === 0 ? 0 : random(2 ** outputs.length)));
      const hex = words.map((word) => word.toString(16)).join(' ');
      const { part } = read(hex, { ...wanted, number: base });
      const type = ownPartType(part ?? '') ?? expect.fail('no type');
      expect([type.id, type.ownName]).toEqual([base, 'MAP']);
      const selected = { Gn: 0, G1n: 0, G2n: 0, CEn: 0, OEn: 0, WEn: 1 };
      const bench = new ChipBench(type);
      const has = (name: string): boolean => bench.inputNames.includes(name);
      bench.set(Object.fromEntries(Object.entries(selected).filter(([name]) => has(name))));
      const shows = (word: number): string =>
        outputs
          .map((_, i) =>
            (word >> (outputs.length - 1 - i)) & 1 ? (type.units[0]?.drives[0] === 'open-collector' ? 'Z' : 'H') : 'L',
          )
          .join('');
      for (let at = 0; at < size; at++) {
        bench.set(Object.fromEntries(lines.map((line, i) => [line, (at >> (lines.length - 1 - i)) & 1])));
        const word = words[at] ?? memory.blank * (2 ** outputs.length - 1);
        if (bench.word(outputs.join(' ')) !== shows(word)) expect.fail(`${at}: ${bench.word(outputs.join(' '))}`);
      }
      bench.set({ [has('CEn') ? 'CEn' : has('G1n') ? 'G1n' : 'Gn']: 1 });
      expect(bench.word(outputs.join(' '))).toBe('Z'.repeat(outputs.length));
    },
  );

  it('is read alike from Intel HEX, from words in hexadecimal and from CSV', () => {
    const same = '3F 06 5B 4F';
    const files = [
      ':040000003F065B4F0D\n:00000001FF\n',
      '3f 06\n5b 4F # segments',
      '0000: 3F 06\n0x02: 0x5B 0x4F // the rest',
      'address,word\n0,63\n1,0x06\n3,0b01001111\n2,91\n',
      '63;\n6;\n91;\n79;\n',
    ];
    for (const file of files) expect(heldIn(read(file).part), file).toBe(same);
    // What a file leaves out is blank.
    expect(heldIn(read('3: 1').part)).toBe('00 00 00 01');
    expect(heldIn(read('2: 5', { ...wanted, number: '28C16' }).part)).toBe('FF FF 05');
    expect(heldIn(read('1 2 F', { ...wanted, number: '74287' }).part)).toBe('1 2 F');
  });

  it('tells where a file is wrong, and takes nothing of it', () => {
    expect(told(':040000003F065B4F0E')).toEqual(['Line 1 is no whole record of Intel HEX, or its checksum is wrong.']);
    expect(told('3F\n06 XY')).toEqual(['Line 2 has XY, which is no word.']);
    expect(told('0,1\n1,two')).toEqual(['Line 2 has two, which is no word.']);
    expect(told('FFFFFF: 1')).toEqual(['Line 1 lies beyond the addresses of these memories.']);
    expect(told('1FF')).toEqual(['The word 1FF is wider than the 8 bits of this memory.']);
    expect(told(Array(33).fill('1').join(' '))).toEqual(['33 words are more than the 32 that this memory has.']);
    expect(told('')).toEqual(['The file holds no words.']);
    expect(told('1', { ...wanted, number: '7400' })).toEqual(['7400 is no memory whose contents are put in.']);
    expect(told('1', { ...wanted, name: 'a b' })).toEqual(['a b cannot name a part.']);
    expect(told('x'.repeat(1_000_001))).toEqual([expect.stringContaining('1000001 characters')]);
  });

  it('never fails on a file, whatever stands in it', () => {
    const random = drawing(3);
    const letters = ':0123456789ABCDEFx,;\n\t #/-zé';
    for (let n = 0; n < 400; n++) {
      const text = Array.from({ length: random(60) }, () => elementAt([...letters], random(letters.length))).join('');
      const { part, findings } = read(text);
      expect(part === null).toBe(findings.length > 0);
      if (part !== null) expect(readDesign(`in A\nout Y\nY = A\n${part}\n`).findings).toEqual([]);
    }
  });
});

describe('a memory on a sheet', () => {
  const { part } = read('3F 06 5B 4F');
  const used = 'in A B\nout Y\nuse MAP as M (A0 = A, A1 = B, A2 = 0, A3 = 0, A4 = 0, Gn = 0, Q0 = Y)\n';
  const codes = (text: string): string[] => readDesign(text).findings.map((f) => f.code);

  it('is printed as it was read, and put in place of the one of its name', () => {
    const sheet = `${used}# before\n${part}\n# after\n`;
    expect(printSheet(parseSheet(sheet).sheet)).toBe(printSheet(parseSheet(printSheet(parseSheet(sheet).sheet)).sheet));
    const { part: other } = read('01');
    const changed = withPart(sheet, 'MAP', other ?? '');
    expect(changed).toBe(sheet.replace(part ?? '', other ?? ''));
    expect(withPart(used, 'MAP', part ?? '')).toBe(`${used}${part}\n`);
    expect(codes(changed)).toEqual([]);
  });

  it('makes what it holds', () => {
    const { design } = readSheet(`${used}${part}\n`, chipLibrary);
    // Bit 0 of 3F, 06, 5B, 4F; A is the least significant line of the address.
    const rows = ['00', '10', '01', '11'].map((row) => {
      const bench = new ChipBench(ownPartType(part ?? '') ?? expect.fail('no type'));
      return bench.set({ A0: Number(row[0]), A1: Number(row[1]), A2: 0, A3: 0, A4: 0, Gn: 0 }).read('Q0');
    });
    expect(rows).toEqual(['H', 'L', 'H', 'H']);
    expect(design.behaviour?.inputs).toEqual(['A', 'B']);
  });

  it.each([
    ['part MAP of 7400\nholds 1\nend', 'sheet/no-memory'],
    ['part MAP of 74288\npins A B\nholds 1\nend', 'sheet/memory-only-holds'],
    ['part MAP of 74288\nend', 'sheet/memory-empty'],
    ['part MAP of 74288\nholds 1 G\nend', 'sheet/bad-word'],
    ['part MAP of 74288\nholds 100\nend', 'sheet/wide-word'],
    [`part MAP of 74288\nholds ${Array(33).fill('0').join(' ')}\nend`, 'sheet/too-many-words'],
    ['holds 1', 'sheet/stray-holds'],
    ['part OWN\npins A B GND Y NC VCC\nY = A & B\nholds 1\nend', 'sheet/stray-holds'],
  ])('%j is told as %s', (text, code) => {
    expect(codes(`in A\nout Y\nY = A\n${text}\n`)).toContain(code);
  });
});
