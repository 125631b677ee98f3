import { type ChipData, forEach } from './chip-data';
import { lines, numbered, pick, product } from './selectors';

/** Small memories. Source: data sheets SN7489, SN74170, SN74S189, SN74LS670. */
const group = 'memories';
const wordPins = 'A0 CSn WEn D1 Q1n D2 Q2n GND Q3n D3 Q4n D4 A3 A2 A1 VCC';
const filePins = 'D2 D3 D4 RB RA Q4 Q3 GND Q2 Q1 REn WEn WB WA D1 VCC';
const bits = '1 2 3 4';

/** Words of four bits, each a latch that follows the data while it is written: `m5b3` is bit 3 of word 5. */
const stored = (words: number, address: string, write: string): string =>
  lines(words, (k) => `w${k} = ${write} & ${product(address, k)}\n${forEach(bits, `m${k}b@ = D@ while w${k}`)}`);
/** Bit `@` of the word at an address. */
const read = (words: number, address: string): string =>
  pick(
    address,
    numbered('m', words).map((word) => `${word}b@`),
  );

/** Small memories; sources stand at the head of this file. */
export const memories: readonly ChipData[] = [
  {
    base: '7489',
    title: 'memory of 16 words of 4 bits, open-collector',
    group,
    aliases: 'ram',
    pins: wordPins,
    behaviour: [
      stored(16, 'A3 A2 A1 A0', '~CSn & ~WEn'),
      forEach(bits, `Q@n = ~(~WEn & D@ | ~CSn & WEn & (${read(16, 'A3 A2 A1 A0')})) open`),
    ].join('\n'),
    families: ['74'],
    drive: { '74': [12, 0] },
    caveat:
      'What comes out is the complement of what went in. While it is written, the complement of the data is seen.',
  },
  {
    base: '74170',
    title: 'register file of 4 words of 4 bits, open-collector',
    group,
    aliases: 'ram registers',
    pins: filePins,
    behaviour: [stored(4, 'WB WA', '~WEn'), forEach(bits, `Q@ = ~(~REn & ~(${read(4, 'RB RA')})) open`)].join('\n'),
    families: ['74', 'LS'],
    caveat: 'Writing and reading have addresses of their own, and go on at once.',
  },
  {
    base: '74189',
    title: 'memory of 16 words of 4 bits, three-state',
    group,
    aliases: 'ram',
    pins: wordPins,
    behaviour: [
      stored(16, 'A3 A2 A1 A0', '~CSn & ~WEn'),
      forEach(bits, `Q@n = ~(${read(16, 'A3 A2 A1 A0')}) when ~CSn & WEn`),
    ].join('\n'),
    families: ['LS', 'ALS', 'S', 'F'],
    drive: { LS: [24, 2.6], ALS: [24, 2.6], S: [16, 6.5], F: [24, 3] },
    caveat: 'What comes out is the complement of what went in. Outputs float while it is written.',
  },
  {
    base: '74670',
    title: 'register file of 4 words of 4 bits, three-state',
    group,
    aliases: 'ram registers',
    pins: filePins,
    behaviour: [stored(4, 'WB WA', '~WEn'), forEach(bits, `Q@ = ${read(4, 'RB RA')} when ~REn`)].join('\n'),
    families: ['LS', 'HC', 'HCT'],
    drive: { LS: [24, 2.6], HC: [6, 6], HCT: [6, 6] },
    caveat: 'Writing and reading have addresses of their own, and go on at once.',
  },
];
