import { type ChipData, units } from './chip-data';

/**
 * Counters. Source: data sheets SN74LS90, 92, 93, 160A to 163A, 168, 169, 190 to 193, 196, 197, 490, 590, 290, 293, 390, 393,
 * CD74HC4017, 4024, 4518, 4520, 4020, 4040, 4060.
 */
const group = 'counters';
const old = ['74', 'LS'] as const;
const all = ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'] as const;
const letters = ['A', 'B', 'C', 'D'] as const;

/** The ripple counters of falling edge; `u` before each name, `reset` high clears. */
const five = (u: string, forces: string): string =>
  [
    `${u}QB = ~${u}QB & ~${u}QD at fall ${u}CKB ${forces}`,
    `${u}QC = ${u}QC ^ ${u}QB at fall ${u}CKB ${forces}`,
    `${u}QD = ${u}QB & ${u}QC & ~${u}QD at fall ${u}CKB ${forces}`,
  ].join('\n');
const decade = [
  'r9 = R91 & R92',
  'r0 = R01 & R02 & ~r9',
  'QA = ~QA at fall CKA preset r9 clear r0',
  'QB = ~QB & ~QD at fall CKB clear r9 | r0',
  'QC = QC ^ QB at fall CKB clear r9 | r0',
  'QD = QB & QC & ~QD at fall CKB preset r9 clear r0',
].join('\n');
const sixteen = [
  'r0 = R01 & R02',
  'QA = ~QA at fall CKA clear r0',
  'QB = ~QB at fall CKB clear r0',
  'QC = ~QC at fall QB clear r0',
  'QD = ~QD at fall QC clear r0',
].join('\n');

/** When each bit of a decade turns, counting up and down. */
const decadeUp = ['1', 'QA & ~QD', 'QA & QB', 'QA & QD | QA & QB & QC'];
const decadeDown = ['1', '~QA & (QB | QC | QD)', '~QA & ~QB & (QC | QD)', '~QA & ~QB & ~QC'];
const binaryUp = ['1', 'QA', 'QA & QB', 'QA & QB & QC'];
const binaryDown = ['1', '~QA', '~QA & ~QB', '~QA & ~QB & ~QC'];

const loadablePins = 'CLRn CLK A B C D ENP GND LDn ENT QD QC QB QA RCO VCC';
/** The 160 family: bits turn when those below are full; load and, in some, clear at the clock. */
const loadable = (up: readonly string[], full: string, clocked: boolean): string =>
  [
    'on = ENP & ENT',
    ...letters.map((d, i) => {
      const next = `LDn & (Q${d} ^ (on & (${up[i]}))) | ~LDn & ${d}`;
      return clocked ? `Q${d} = CLRn & (${next}) at rise CLK` : `Q${d} = ${next} at rise CLK clear ~CLRn`;
    }),
    `RCO = ENT & ${full}`,
  ].join('\n');

const upDownPins = 'B QB QA ENn DU QC QD GND D C LDn MAX RCOn CLK A VCC';
/** The 190 pair: one clock, a direction pin, load without the clock. */
const upDown = (up: readonly string[], down: readonly string[], full: string): string =>
  [
    ...letters.map(
      (d, i) =>
        `Q${d} = Q${d} ^ (~ENn & (~DU & (${up[i]}) | DU & (${down[i]}))) at rise CLK preset ~LDn & ${d} clear ~LDn & ~${d}`,
    ),
    `MAX = ~DU & ${full} | DU & nor(QA, QB, QC, QD)`,
    'RCOn = ~(MAX & ~ENn & ~CLK)',
  ].join('\n');

const twoClockPins = 'B QB QA DOWN UP QC QD GND D C LDn COn BOn CLR A VCC';
/** The 192 pair: each bit turns when the clock that may turn it rises again. */
const twoClocks = (up: readonly string[], down: readonly string[], full: string): string =>
  [
    ...letters.flatMap((d, i) => [
      `t${d} = nor(~UP & (${up[i]}), ~DOWN & (${down[i]}))`,
      `Q${d} = ~Q${d} at rise t${d} clear CLR preset ~LDn & ${d} clear ~LDn & ~${d}`,
    ]),
    `COn = ~(~UP & ${full})`,
    'BOn = ~(~DOWN & nor(QA, QB, QC, QD))',
  ].join('\n');

const bothWaysPins = 'UD CLK A B C D ENPn GND LDn ENTn QD QC QB QA RCOn VCC';
/** The 168 pair: one clock, a direction pin, load at the clock, enables and carry low. */
const bothWays = (up: readonly string[], down: readonly string[], full: string): string =>
  [
    'on = ~ENPn & ~ENTn',
    ...letters.map(
      (d, i) => `Q${d} = LDn & (Q${d} ^ (on & (UD & (${up[i]}) | ~UD & (${down[i]})))) | ~LDn & ${d} at rise CLK`,
    ),
    `RCOn = ~(~ENTn & (UD & ${full} | ~UD & nor(QA, QB, QC, QD)))`,
  ].join('\n');

const presettablePins = 'LDn QC C A QA CKB GND CKA QB B D QD CLRn VCC';
/** The 196 pair: ripple counters that a load without clock sets, and a clear over it. */
const presettable = (lines: readonly string[]): string =>
  lines.map((line, i) => `${line} clear ~CLRn preset ~LDn & ${letters[i]} clear ~LDn & ~${letters[i]}`).join('\n');

/** A chain of falling-edge stages 1 to n; those of `shown` come out. */
const ripple = (n: number, clock: string, shown: readonly number[]): string =>
  [
    ...Array.from({ length: n }, (_, i) => `q${i + 1} = ~q${i + 1} at fall ${i === 0 ? clock : `q${i}`} clear CLR`),
    ...shown.map((k) => `Q${k} = q${k}`),
  ].join('\n');

/** Counters; sources stand at the head of this file. */
export const counters: readonly ChipData[] = [
  {
    base: '7490',
    title: 'decade counter, by 2 and by 5',
    group,
    aliases: 'bcd ripple asynchronous',
    pins: 'CKB R01 R02 NC VCC R91 R92 QC QB GND QD QA NC CKA',
    behaviour: decade,
    families: old,
    caveat: 'Supply on pin 5, ground on pin 10. Join QA to CKB to count to ten; both resets left open hold it still.',
  },
  {
    base: '7492',
    title: 'counter by 2 and by 6',
    group,
    aliases: 'divide by twelve ripple asynchronous',
    pins: 'CKB NC NC NC VCC R01 R02 QD QC GND QB QA NC CKA',
    behaviour: [
      'r0 = R01 & R02',
      'QA = ~QA at fall CKA clear r0',
      'QB = ~QB & ~QC at fall CKB clear r0',
      'QC = QB & ~QC at fall CKB clear r0',
      'QD = QD ^ QC at fall CKB clear r0',
    ].join('\n'),
    families: old,
    caveat: 'It does not count in binary: after 5 comes 8. Supply on pin 5, ground on pin 10.',
  },
  {
    base: '7493',
    title: '4-bit binary counter, by 2 and by 8',
    group,
    aliases: 'ripple asynchronous divide by sixteen',
    pins: 'CKB R01 R02 NC VCC NC NC QC QB GND QD QA NC CKA',
    behaviour: sixteen,
    families: ['74', 'LS', 'HC', 'HCT'],
    caveat:
      'Supply on pin 5, ground on pin 10. Join QA to CKB to count to sixteen; one reset input must be low to count.',
  },
  {
    base: '74160',
    title: 'decade counter, clocked load, clear at once',
    group,
    aliases: 'bcd synchronous',
    pins: loadablePins,
    behaviour: loadable(decadeUp, 'QA & QD', false),
    families: all,
    caveat: 'Clear acts without the clock: a count cut short by a decoded clear shows its last state for a moment.',
  },
  {
    base: '74161',
    title: '4-bit binary counter, clocked load, clear at once',
    group,
    aliases: 'synchronous',
    pins: loadablePins,
    behaviour: loadable(binaryUp, 'QA & QB & QC & QD', false),
    families: all,
    caveat: 'Clear acts without the clock (the 74163 waits for it). Both enables and load must be high to count.',
  },
  {
    base: '74162',
    title: 'decade counter, load and clear at the clock',
    group,
    aliases: 'bcd synchronous',
    pins: loadablePins,
    behaviour: loadable(decadeUp, 'QA & QD', true),
    families: ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT'],
    caveat: 'Clear waits for the clock: decode the last wanted count, not the one after.',
  },
  {
    base: '74163',
    title: '4-bit binary counter, load and clear at the clock',
    group,
    aliases: 'synchronous',
    pins: loadablePins,
    behaviour: loadable(binaryUp, 'QA & QB & QC & QD', true),
    families: all,
    caveat: 'Clear waits for the clock: decode the last wanted count, not the one after.',
  },
  {
    base: '74190',
    title: 'decade counter, up and down by a direction pin',
    group,
    aliases: 'bcd synchronous reversible',
    pins: upDownPins,
    behaviour: upDown(decadeUp, decadeDown, 'QA & QD'),
    families: ['74', 'LS', 'ALS', 'HC', 'HCT'],
    caveat: 'No clear: load zero instead, which acts at once. Change the direction only while the clock is high.',
  },
  {
    base: '74191',
    title: '4-bit binary counter, up and down by a direction pin',
    group,
    aliases: 'synchronous reversible',
    pins: upDownPins,
    behaviour: upDown(binaryUp, binaryDown, 'QA & QB & QC & QD'),
    families: ['74', 'LS', 'ALS', 'F', 'HC', 'HCT'],
    caveat: 'No clear: load zero instead, which acts at once. Direction high counts down.',
  },
  {
    base: '74192',
    title: 'decade counter, up and down by two clocks',
    group,
    aliases: 'bcd synchronous reversible',
    pins: twoClockPins,
    behaviour: twoClocks(decadeUp, decadeDown, 'QA & QD'),
    families: ['74', 'LS', 'ALS', 'HC', 'HCT'],
    caveat:
      'The clock not in use must be high. Clear is active high, load active low, both at once and without a clock.',
  },
  {
    base: '74193',
    title: '4-bit binary counter, up and down by two clocks',
    group,
    aliases: 'synchronous reversible',
    pins: twoClockPins,
    behaviour: twoClocks(binaryUp, binaryDown, 'QA & QB & QC & QD'),
    families: ['74', 'LS', 'ALS', 'HC', 'HCT'],
    caveat: 'The clock not in use must be high. Clear is active high and left open (TTL) holds it at zero.',
  },
  {
    base: '74290',
    title: 'decade counter, by 2 and by 5, corner supply',
    group,
    aliases: 'bcd ripple asynchronous',
    pins: 'R91 NC R92 QC QB NC GND QD QA CKA CKB R01 R02 VCC',
    behaviour: decade,
    families: old,
    caveat: 'A 7490 with supply in the corners; the resets by nine sit on pins 1 and 3.',
  },
  {
    base: '74293',
    title: '4-bit binary counter, by 2 and by 8, corner supply',
    group,
    aliases: 'ripple asynchronous divide by sixteen',
    pins: 'NC NC NC QC QB NC GND QD QA CKA CKB R01 R02 VCC',
    behaviour: sixteen,
    families: old,
    caveat: 'A 7493 with supply in the corners; join QA to CKB to count to sixteen.',
  },
  {
    base: '74390',
    title: 'two decade counters, by 2 and by 5',
    group,
    aliases: 'bcd ripple asynchronous dual',
    pins: '1CKA 1CLR 1QA 1CKB 1QB 1QC 1QD GND 2QD 2QC 2QB 2CKB 2QA 2CLR 2CKA VCC',
    behaviour: units(2, `1QA = ~1QA at fall 1CKA clear 1CLR\n${five('1', 'clear 1CLR')}`),
    families: ['LS', 'HC', 'HCT'],
    caveat: 'Clear is active high. QA into CKB counts to ten in BCD; QD into CKA gives a square wave at a tenth.',
  },
  {
    base: '74393',
    title: 'two 4-bit binary counters',
    group,
    aliases: 'ripple asynchronous dual',
    pins: '1CLK 1CLR 1QA 1QB 1QC 1QD GND 2QD 2QC 2QB 2QA 2CLR 2CLK VCC',
    behaviour: units(
      2,
      [
        '1QA = ~1QA at fall 1CLK clear 1CLR',
        '1QB = ~1QB at fall 1QA clear 1CLR',
        '1QC = ~1QC at fall 1QB clear 1CLR',
        '1QD = ~1QD at fall 1QC clear 1CLR',
      ].join('\n'),
    ),
    families: ['LS', 'HC', 'HCT'],
    caveat: 'Clear is active high, the clock’s falling edge counts.',
  },
  {
    base: '4017',
    title: 'decade counter with ten decoded outputs',
    group,
    aliases: 'johnson ring sequencer',
    pins: 'Q5 Q1 Q0 Q2 Q6 Q7 Q3 GND Q8 Q4 Q9 CO CEn CLK CLR VCC',
    behaviour: [
      'ck = CLK & ~CEn',
      'a = ~e at rise ck clear CLR',
      'b = a at rise ck clear CLR',
      'c = b & (a | c) at rise ck clear CLR',
      'd = c at rise ck clear CLR',
      'e = d at rise ck clear CLR',
      'Q0 = ~a & ~e',
      'Q1 = a & ~b',
      'Q2 = b & ~c',
      'Q3 = c & ~d',
      'Q4 = d & ~e',
      'Q5 = a & e',
      'Q6 = ~a & b',
      'Q7 = ~b & c',
      'Q8 = ~c & d',
      'Q9 = ~d & e',
      'CO = ~e',
    ].join('\n'),
    families: ['HC', 'HCT'],
    caveat: 'The outputs are in no order: Q0 is pin 3, Q5 pin 1. Reset is active high, the clock enable active low.',
  },
  {
    base: '4020',
    title: '14-stage binary counter',
    group,
    aliases: 'ripple divider asynchronous',
    pins: 'Q12 Q13 Q14 Q6 Q5 Q7 Q4 GND Q1 CLK CLR Q9 Q8 Q10 Q11 VCC',
    behaviour: ripple(14, 'CLK', [1, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14]),
    families: ['HC', 'HCT'],
    caveat: 'Stages 2 and 3 do not come out. Some data sheets count the stages from 0.',
  },
  {
    base: '4040',
    title: '12-stage binary counter',
    group,
    aliases: 'ripple divider asynchronous',
    pins: 'Q12 Q6 Q5 Q7 Q4 Q3 Q2 GND Q1 CLK CLR Q9 Q8 Q10 Q11 VCC',
    behaviour: ripple(12, 'CLK', [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12]),
    families: ['HC', 'HCT'],
    caveat: 'All stages come out, in no order: pin 1 is the last. Some data sheets count them from 0.',
  },
  {
    base: '4060',
    title: '14-stage binary counter with oscillator',
    group,
    aliases: 'ripple divider asynchronous clock crystal',
    pins: 'Q12 Q13 Q14 Q6 Q5 Q7 Q4 GND CTC RTC RS CLR Q9 Q8 Q10 VCC',
    behaviour: `ck = RS & ~CLR\nRTC = ~ck\nCTC = ck\n${ripple(14, 'ck', [4, 5, 6, 7, 8, 9, 10, 12, 13, 14])}`,
    // An inverter in its linear range: the oscillator's input turns over at half the supply (74HC4060 data sheet, RC oscillator).
    dividers: [{ tap: null, aboveOhms: 1, belowOhms: 1, compares: { RS: 1 } }],
    families: ['HC', 'HCT'],
    caveat: 'Stages 1 to 3 and 11 do not come out. Reset high stops the oscillator too.',
  },
  {
    base: '74168',
    title: 'decade counter up and down, clocked load',
    group,
    aliases: 'bcd synchronous',
    pins: bothWaysPins,
    behaviour: bothWays(decadeUp, decadeDown, 'QA & QD'),
    families: ['LS', 'ALS', 'F', 'S'],
    caveat: 'Pin 1 high counts up. Enables and the carry are active low; there is no clear: load zeros.',
  },
  {
    base: '74169',
    title: '4-bit binary counter up and down, clocked load',
    group,
    aliases: 'synchronous',
    pins: bothWaysPins,
    behaviour: bothWays(binaryUp, binaryDown, 'QA & QB & QC & QD'),
    families: ['LS', 'ALS', 'F', 'S'],
    caveat: 'Pin 1 high counts up. Enables and the carry are active low; there is no clear: load zeros.',
  },
  {
    base: '74196',
    title: 'decade counter, by 2 and by 5, presettable',
    group,
    aliases: 'bcd ripple asynchronous load',
    pins: presettablePins,
    behaviour: presettable([
      'QA = ~QA at fall CKA',
      'QB = ~QB & ~QD at fall CKB',
      'QC = QC ^ QB at fall CKB',
      'QD = QB & QC & ~QD at fall CKB',
    ]),
    families: ['74', 'LS', 'S'],
    caveat: 'Load acts without a clock, as long as pin 1 is low. Join QA to CKB to count to ten.',
  },
  {
    base: '74197',
    title: '4-bit binary counter, by 2 and by 8, presettable',
    group,
    aliases: 'ripple asynchronous load',
    pins: presettablePins,
    behaviour: presettable([
      'QA = ~QA at fall CKA',
      'QB = ~QB at fall CKB',
      'QC = ~QC at fall QB',
      'QD = ~QD at fall QC',
    ]),
    families: ['74', 'LS', 'S'],
    caveat: 'Load acts without a clock, as long as pin 1 is low. Join QA to CKB to count to sixteen.',
  },
  {
    base: '74490',
    title: 'two decade counters, with set to nine',
    group,
    aliases: 'bcd ripple asynchronous dual',
    pins: '1CLK 1CLR 1QA 1S9 1QB 1QC 1QD GND 2QD 2QC 2QB 2S9 2QA 2CLR 2CLK VCC',
    behaviour: units(
      2,
      [
        '1c0 = 1CLR & ~1S9',
        '1QA = ~1QA at fall 1CLK preset 1S9 clear 1c0',
        '1QB = ~1QB & ~1QD at fall 1QA clear 1S9 | 1c0',
        '1QC = 1QC ^ 1QB at fall 1QA clear 1S9 | 1c0',
        '1QD = 1QB & 1QC & ~1QD at fall 1QA preset 1S9 clear 1c0',
      ].join('\n'),
    ),
    families: ['74', 'LS'],
    caveat: 'Clear and set to nine are active high; the stages are joined inside.',
  },
  {
    base: '74590',
    title: '8-bit binary counter with output register, three-state',
    group,
    aliases: 'synchronous storage',
    pins: 'QB QC QD QE QF QG QH GND RCOn CCLRn CCLK CCKENn RCLK OEn QA VCC',
    behaviour: [
      ...[...'abcdefgh'].map((d, i) => {
        const below = [...'abcdefgh'].slice(0, i);
        return `c${d} = c${d} ^ (${['~CCKENn', ...below.map((b) => `c${b}`)].join(' & ')}) at rise CCLK clear ~CCLRn`;
      }),
      ...[...'abcdefgh'].map((d) => `r${d} = c${d} at rise RCLK\nQ${d.toUpperCase()} = r${d} when ~OEn`),
      'RCOn = nand(ca, cb, cc, cd, ce, cf, cg, ch)',
    ].join('\n'),
    families: ['LS', 'HC'],
    drive: { LS: [24, 2.6], HC: [6, 6] },
    caveat: 'Counting shows nothing until the register clock; clear does not reach the register.',
  },
  {
    base: '4024',
    title: '7-stage binary counter',
    group,
    aliases: 'ripple divider asynchronous',
    pins: 'CLK CLR Q7 Q6 Q5 Q4 GND NC Q3 NC Q2 Q1 NC VCC',
    behaviour: ripple(7, 'CLK', [1, 2, 3, 4, 5, 6, 7]),
    families: ['HC', 'HCT'],
    caveat: 'Clear is active high, the clock’s falling edge counts. Some data sheets count the stages from 0.',
  },
  ...[
    { base: '4518', title: 'two decade counters, synchronous', up: decadeUp },
    { base: '4520', title: 'two 4-bit binary counters, synchronous', up: binaryUp },
  ].map(
    ({ base, title, up }): ChipData => ({
      base,
      title,
      group,
      aliases: 'dual',
      pins: '1CLK 1EN 1QA 1QB 1QC 1QD 1CLR GND 2CLK 2EN 2QA 2QB 2QC 2QD 2CLR VCC',
      behaviour: units(
        2,
        [
          '1ck = 1CLK | ~1EN',
          ...letters.map((d, i) => `1Q${d} = 1Q${d} ^ (${(up[i] ?? '').replaceAll('Q', '1Q')}) at rise 1ck clear 1CLR`),
        ].join('\n'),
      ),
      families: ['HC', 'HCT'],
      caveat:
        'Counts on the rising clock while enabled, or on the falling enable while the clock is low. Clear is high.',
    }),
  ),
];
