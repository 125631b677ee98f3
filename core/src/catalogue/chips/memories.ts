import { type ChipData, forEach, type MemoryData } from './chip-data';
import { behaviourHolding } from './contents';
import { lines, numbered, pick, product } from './selectors';

/** Small memories. Source: data sheets SN7489, SN74170, SN74S188, 189, 287, 288, 387, 471, SN74LS670, AT28C16. */
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

/** A memory whose contents are put in, blank as it comes. */
const programmable = (data: Omit<ChipData, 'group' | 'behaviour' | 'memory'>, memory: MemoryData): ChipData => ({
  ...data,
  group,
  memory,
  behaviour: behaviourHolding(memory, []),
});
const perBit = (n: number): string => Array.from({ length: n }, (_, i) => `Q${n - 1 - i}`).join(' ');
const lineUp = (n: number): string => Array.from({ length: n }, (_, i) => `A${n - 1 - i}`).join(' ');
const smallPins = 'Q0 Q1 Q2 Q3 Q4 Q5 Q6 GND Q7 A0 A1 A2 A3 A4 Gn VCC';
const nibblePins = 'A6 A5 A4 A3 A0 A1 A2 GND Q3 Q2 Q1 Q0 G1n G2n A7 VCC';
const small: Pick<MemoryData, 'address' | 'data' | 'blank'> = { address: lineUp(5), data: perBit(8), blank: 0 };
const nibbles: Pick<MemoryData, 'address' | 'data' | 'blank'> = { address: lineUp(8), data: perBit(4), blank: 0 };
const fused = 'Programmed once, by a programmer for such parts: a sheet says what it holds.';

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
  programmable(
    {
      base: '74188',
      title: 'memory programmed once, 32 words of 8 bits, open-collector',
      aliases: 'prom rom',
      pins: smallPins,
      families: ['S'],
      drive: { S: [20, 0] },
      caveat: `${fused} Its outputs need pull-ups.`,
    },
    { ...small, shows: 'Q@ = ~(~Gn & ~@) open' },
  ),
  programmable(
    {
      base: '74288',
      title: 'memory programmed once, 32 words of 8 bits, three-state',
      aliases: 'prom rom',
      pins: smallPins,
      families: ['S'],
      drive: { S: [20, 6.5] },
      caveat: fused,
    },
    { ...small, shows: 'Q@ = @ when ~Gn' },
  ),
  programmable(
    {
      base: '74287',
      title: 'memory programmed once, 256 words of 4 bits, three-state',
      aliases: 'prom rom',
      pins: nibblePins,
      families: ['S'],
      drive: { S: [16, 6.5] },
      caveat: `${fused} The address pins stand in no order.`,
    },
    { ...nibbles, shows: 'Q@ = @ when ~G1n & ~G2n' },
  ),
  programmable(
    {
      base: '74387',
      title: 'memory programmed once, 256 words of 4 bits, open-collector',
      aliases: 'prom rom',
      pins: nibblePins,
      families: ['S'],
      drive: { S: [16, 0] },
      caveat: `${fused} Its outputs need pull-ups.`,
    },
    { ...nibbles, shows: 'Q@ = ~(~G1n & ~G2n & ~@) open' },
  ),
  programmable(
    {
      base: '74471',
      title: 'memory programmed once, 256 words of 8 bits, three-state',
      aliases: 'prom rom',
      pins: 'A0 A1 A2 A3 A4 Q0 Q1 Q2 Q3 GND Q4 Q5 Q6 Q7 G1n G2n A5 A6 A7 VCC',
      families: ['S'],
      drive: { S: [16, 6.5] },
      caveat: fused,
    },
    { address: lineUp(8), data: perBit(8), blank: 0, shows: 'Q@ = @ when ~G1n & ~G2n' },
  ),
  programmable(
    {
      base: '28C16',
      title: 'memory that is electrically erased, 2048 words of 8 bits, read only here',
      aliases: 'eeprom eprom 2716 27c16 rom',
      pins: 'A7 A6 A5 A4 A3 A2 A1 A0 Q0 Q1 Q2 GND Q3 Q4 Q5 Q6 Q7 CEn A10 OEn WEn A9 A8 VCC',
      rows: 6,
      families: ['HCT'],
      drive: { HCT: [2.1, 0.4] },
      outputHighV: 2.4,
      caveat: 'Pin 21 writes when low: tie it to supply. The 2716 has the same pins, and its programming supply there.',
    },
    { address: lineUp(11), data: perBit(8), blank: 1, shows: 'Q@ = @ when ~CEn & ~OEn & WEn' },
  ),
];
