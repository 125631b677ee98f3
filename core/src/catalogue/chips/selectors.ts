import { type ChipData, forEach, ttl } from './chip-data';

/**
 * Selectors, decoders and encoders. Source: data sheets SN7442A, 45, SN74LS47, 48, 247, SN74HC138,
 * 139, 147, 148, 151, 153, 154, 157, 158, 238, 251, 253, 257 to 259, SN74LS155, 352, 353, SN7446A, 74141, 145, 150, SN74LS137, CD74HC4511, 4514, 4515, 4543.
 */
const group = 'selectors and decoders';
const families = ['74', 'LS', 'HC', 'HCT'] as const;
const wide = ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'] as const;

/** Three-state outputs sink and give more than others. Sources: SN74251, SN74LS251, 253, SN74S251, SN74ALS253, SN74HC251, 253, 257, 74F251. */
const busDrive = {
  '74': [16, 5.2],
  LS: [8, 2.6],
  ALS: [24, 2.6],
  F: [24, 3],
  S: [20, 6.5],
  HC: [6, 6],
  HCT: [6, 6],
} as const;
/** Those of the 257 and 258. */
const strongBusDrive = { ...busDrive, LS: [24, 2.6] } as const;

/** `~D & C & ~B & A` for 5: the product of address lines, the first the most significant. */
export const product = (lines: string, code: number): string => {
  const names = lines.split(' ');
  return names.map((n, i) => ((code >>> (names.length - 1 - i)) & 1 ? n : `~${n}`)).join(' & ');
};
/** A line for each number from 0. */
export const lines = (count: number, of: (k: number) => string): string =>
  Array.from({ length: count }, (_, k) => of(k)).join('\n');
/** The data line that an address picks: `~B & ~A & D0 | …`. */
export const pick = (address: string, data: readonly string[]): string =>
  data.map((d, k) => `${product(address, k)} & ${d}`).join(' | ');
/** `D0` to `D7`: a letter with the numbers from 0. */
export const numbered = (letter: string, count: number): string[] =>
  Array.from({ length: count }, (_, k) => `${letter}${k}`);

/** Lit segments of the digits, a to g; the plain ones leave 6 and 9 without tails. */
const plainDigits = 'abcdef bc abdeg abcdg bcfg acdfg cdefg abc abcdefg abcfg'.split(' ');
const tailedDigits = plainDigits.with(6, 'acdefg').with(9, 'abcdfg');
const signs = ['deg', 'cdg', 'bfg', 'adfg', 'defg', ''];

/** For each segment a row string over the codes D C B A. */
const segmentTables = (codes: readonly string[], name: (segment: string) => string): string =>
  [...'abcdefg']
    .map((segment) => {
      const cells = codes.map((lit) => (lit.includes(segment) ? '1' : '0')).join('');
      return `table ${name(segment)} of D C B A : ${cells}`;
    })
    .join('\n');

/** The decoders with ripple blanking: 47 and 247 pull segments low, 48 drives them high. */
const blanking = (codes: readonly string[], output: (segment: string) => string): string =>
  [
    segmentTables(codes, (s) => `d${s}`),
    'zero = ~RBIn & LTn & nor(A, B, C, D)',
    'BIn = ~zero open',
    'off = ~BIn | zero',
    ...[...'abcdefg'].map((s) => output(s)),
  ].join('\n');

const segmentPins = (blank: string, latch: string): string => `B C LTn ${blank} ${latch} D A GND e d c b a g f VCC`;
const decimalPins = 'Y0n Y1n Y2n Y3n Y4n Y5n Y6n GND Y7n Y8n Y9n D C B A VCC';
const quadTwoPins = (enable: string): string => `S 1A 1B 1Y 2A 2B 2Y GND 3Y 3B 3A 4Y 4B 4A ${enable} VCC`;
const eightPins = 'D3 D2 D1 D0 Y W Gn GND C B A D7 D6 D5 D4 VCC';
const twoFourPins = '1Gn B 1C3 1C2 1C1 1C0 1Y GND 2Y 2C0 2C1 2C2 2C3 A 2Gn VCC';

/** Decoders, selectors and encoders; sources stand at the head of this file. */
export const selectors: readonly ChipData[] = [
  {
    base: '7442',
    title: 'BCD-to-decimal decoder, outputs low',
    group,
    aliases: '4-to-10 one of ten',
    pins: decimalPins,
    behaviour: lines(10, (k) => `Y${k}n = ~(${product('D C B A', k)})`),
    families,
    caveat: 'The chosen output goes low, all others are high; codes 10 to 15 choose none. A is the low bit, on pin 15.',
  },
  {
    base: '7445',
    title: 'BCD-to-decimal driver, open-collector, 30 V',
    group,
    aliases: '4-to-10 one of ten lamp relay',
    pins: decimalPins,
    behaviour: lines(10, (k) => `Y${k}n = ~(${product('D C B A', k)}) open`),
    families: ['74'],
    drive: { '74': [80, 0] },
    openV: 30,
    caveat: 'Pins as on the 7442; outputs sink 80 mA and need a load or pull-up.',
  },
  {
    base: '7447',
    title: 'BCD-to-seven-segment decoder, open-collector, outputs low',
    group,
    aliases: 'display driver common anode',
    pins: segmentPins('BIn', 'RBIn'),
    behaviour: blanking([...plainDigits, ...signs], (s) => `${s} = ~(~LTn & BIn | d${s} & ~off) open`),
    pulledUp: 'BIn',
    families: ttl,
    drive: { '74': [40, 0], LS: [24, 0] },
    openV: 15,
    caveat:
      'For common-anode displays, a resistor in each segment. 6 and 9 have no tails; pin 4 is input and output at once.',
  },
  {
    base: '7448',
    title: 'BCD-to-seven-segment decoder, outputs high',
    group,
    aliases: 'display driver common cathode',
    pins: segmentPins('BIn', 'RBIn'),
    behaviour: blanking([...plainDigits, ...signs], (s) => `${s} = ~LTn & BIn | d${s} & ~off`),
    pulledUp: 'BIn',
    families: ttl,
    drive: { '74': [6.4, 2], LS: [6, 1.3] },
    caveat: 'Drives only some 2 mA into a segment, through its own 2 kΩ: bright displays want transistors.',
  },
  {
    base: '74138',
    title: '3-to-8 decoder, outputs low',
    group,
    aliases: 'demultiplexer one of eight address',
    pins: 'A B C G2An G2Bn G1 Y7n GND Y6n Y5n Y4n Y3n Y2n Y1n Y0n VCC',
    behaviour: `on = G1 & ~G2An & ~G2Bn\n${lines(8, (k) => `Y${k}n = ~(on & ${product('C B A', k)})`)}`,
    families: wide,
    caveat: 'Three enables, two of them active low: with any of them wrong all outputs stay high. A is the low bit.',
  },
  {
    base: '74139',
    title: 'two 2-to-4 decoders, outputs low',
    group,
    aliases: 'demultiplexer one of four address',
    pins: '1Gn 1A 1B 1Y0n 1Y1n 1Y2n 1Y3n GND 2Y3n 2Y2n 2Y1n 2Y0n 2B 2A 2Gn VCC',
    behaviour: [1, 2].map((u) => lines(4, (k) => `${u}Y${k}n = ~(~${u}Gn & ${product(`${u}B ${u}A`, k)})`)).join('\n'),
    families: wide,
    caveat: 'The second half mirrors the first: its enable is pin 15 and its outputs count down from pin 12 to 9.',
  },
  {
    base: '74147',
    title: '10-to-4 priority encoder, all low-active',
    group,
    aliases: 'decimal bcd keyboard',
    pins: 'I4n I5n I6n I7n I8n Cn Bn GND An I9n I1n I2n I3n Dn NC VCC',
    behaviour: [
      'h9 = ~I9n',
      'h8 = ~I8n & I9n',
      ...[7, 6, 5, 4, 3, 2, 1].map((k) => `h${k} = ~I${k}n & I8n & I9n${above(k)}`),
      'Dn = nor(h8, h9)',
      'Cn = nor(h4, h5, h6, h7)',
      'Bn = nor(h2, h3, h6, h7)',
      'An = nor(h1, h3, h5, h7, h9)',
    ].join('\n'),
    families,
    caveat: 'The code comes out inverted, and there is no input 0: nothing pressed and zero look the same.',
  },
  {
    base: '74148',
    title: '8-to-3 priority encoder, all low-active',
    group,
    aliases: 'interrupt keyboard',
    pins: 'I4n I5n I6n I7n EIn A2n A1n GND A0n I0n I1n I2n I3n GSn EOn VCC',
    behaviour: [
      ...[7, 6, 5, 4, 3, 2, 1].map((k) => `h${k} = ~EIn & ~I${k}n${above(k)}`),
      'A2n = nor(h4, h5, h6, h7)',
      'A1n = nor(h2, h3, h6, h7)',
      'A0n = nor(h1, h3, h5, h7)',
      'none = and(I0n, I1n, I2n, I3n, I4n, I5n, I6n, I7n)',
      'EOn = ~(~EIn & none)',
      'GSn = ~(~EIn & ~none)',
    ].join('\n'),
    families,
    caveat: 'Input 0 and no input give the same code: only GS (pin 14) tells them apart.',
  },
  {
    base: '74151',
    title: '8-to-1 selector with both outputs',
    group,
    aliases: 'multiplexer data',
    pins: eightPins,
    behaviour: `y = ${pick('C B A', numbered('D', 8))}\nY = ~Gn & y\nW = nand(~Gn, y)`,
    families: wide,
    caveat: 'D0 is pin 4 and D3 pin 1; the strobe on pin 7 must be low. A is the low address bit.',
  },
  {
    base: '74153',
    title: 'two 4-to-1 selectors',
    group,
    aliases: 'multiplexer data dual',
    pins: twoFourPins,
    behaviour: [1, 2].map((u) => `${u}Y = ~${u}Gn & (${pick('B A', numbered(`${u}C`, 4))})`).join('\n'),
    families: wide,
    caveat: 'Both halves share the address; B (the high bit) is pin 2 and A pin 14.',
  },
  {
    base: '74154',
    title: '4-to-16 decoder, outputs low',
    group,
    aliases: 'demultiplexer one of sixteen address',
    pins: 'Y0n Y1n Y2n Y3n Y4n Y5n Y6n Y7n Y8n Y9n Y10n GND Y11n Y12n Y13n Y14n Y15n G1n G2n D C B A VCC',
    behaviour: `on = nor(G1n, G2n)\n${lines(16, (k) => `Y${k}n = ~(on & ${product('D C B A', k)})`)}`,
    rows: 6,
    families,
    caveat: 'Comes in the wide package of 24 pins: it covers the holes beside the channel.',
  },
  {
    base: '74155',
    title: 'two 2-to-4 decoders with one address',
    group,
    aliases: 'demultiplexer',
    pins: '1C 1Gn B 1Y3n 1Y2n 1Y1n 1Y0n GND 2Y0n 2Y1n 2Y2n 2Y3n A 2Gn 2Cn VCC',
    behaviour: [
      lines(4, (k) => `1Y${k}n = ~(1C & ~1Gn & ${product('B A', k)})`),
      lines(4, (k) => `2Y${k}n = ~(~2Cn & ~2Gn & ${product('B A', k)})`),
    ].join('\n'),
    families: ['74', 'LS', 'HC'],
    caveat: 'The two data inputs have opposite senses (1C high, 2C low), so that joined they make a third address bit.',
  },
  {
    base: '74157',
    title: 'four 2-to-1 selectors',
    group,
    aliases: 'multiplexer data quad',
    pins: quadTwoPins('Gn'),
    behaviour: forEach('1 2 3 4', '@Y = ~Gn & (~S & @A | S & @B)'),
    families: wide,
    caveat: 'Select low takes A. With the strobe (pin 15) high all outputs are low, they do not float.',
  },
  {
    base: '74158',
    title: 'four 2-to-1 selectors, inverting',
    group,
    aliases: 'multiplexer data quad',
    pins: quadTwoPins('Gn'),
    behaviour: forEach('1 2 3 4', '@Y = ~(~Gn & (~S & @A | S & @B))'),
    families: wide,
    caveat: 'Pins as on the 74157; with the strobe high all outputs are high.',
  },
  {
    base: '74238',
    title: '3-to-8 decoder, outputs high',
    group,
    aliases: 'demultiplexer one of eight address',
    pins: 'A B C G2An G2Bn G1 Y7 GND Y6 Y5 Y4 Y3 Y2 Y1 Y0 VCC',
    behaviour: `on = G1 & ~G2An & ~G2Bn\n${lines(8, (k) => `Y${k} = on & ${product('C B A', k)}`)}`,
    families: ['HC', 'HCT', 'AC', 'ACT'],
    caveat: 'A 74138 with the outputs the other way; the enables are the same, two of them active low.',
  },
  {
    base: '74247',
    title: 'BCD-to-seven-segment decoder with tails, open-collector, outputs low',
    group,
    aliases: 'display driver common anode',
    pins: segmentPins('BIn', 'RBIn'),
    behaviour: blanking([...tailedDigits, ...signs], (s) => `${s} = ~(~LTn & BIn | d${s} & ~off) open`),
    pulledUp: 'BIn',
    families: ttl,
    drive: { '74': [40, 0], LS: [24, 0] },
    openV: 15,
    caveat: 'A 7447 whose 6 and 9 have tails; pins are the same.',
  },
  {
    base: '74251',
    title: '8-to-1 selector, three-state, with both outputs',
    group,
    aliases: 'multiplexer data',
    pins: eightPins,
    behaviour: `y = ${pick('C B A', numbered('D', 8))}\nY = y when ~Gn\nW = ~y when ~Gn`,
    families: wide,
    drive: busDrive,
    caveat: 'A 74151 whose outputs float while the strobe is high, both of them.',
  },
  {
    base: '74253',
    title: 'two 4-to-1 selectors, three-state',
    group,
    aliases: 'multiplexer data dual',
    pins: twoFourPins,
    behaviour: [1, 2].map((u) => `${u}Y = ${pick('B A', numbered(`${u}C`, 4))} when ~${u}Gn`).join('\n'),
    families: wide,
    drive: busDrive,
    caveat: 'A 74153 whose outputs float while their strobe is high.',
  },
  {
    base: '74257',
    title: 'four 2-to-1 selectors, three-state',
    group,
    aliases: 'multiplexer data quad',
    pins: quadTwoPins('OEn'),
    behaviour: forEach('1 2 3 4', '@Y = ~S & @A | S & @B when ~OEn'),
    families: wide,
    drive: strongBusDrive,
    caveat: 'A 74157 whose outputs float while pin 15 is high.',
  },
  {
    base: '74259',
    title: 'eight-bit addressable latch',
    group,
    aliases: 'demultiplexer memory',
    pins: 'S0 S1 S2 Q0 Q1 Q2 Q3 GND Q4 Q5 Q6 Q7 D Gn CLRn VCC',
    behaviour: lines(8, (k) => `a${k} = ~Gn & ${product('S2 S1 S0', k)}\nQ${k} = D while a${k} clear ~CLRn & ~a${k}`),
    families: ['LS', 'ALS', 'F', 'HC', 'HCT'],
    caveat: 'Changing the address while the enable is low writes into every latch on the way.',
  },
  {
    base: '4511',
    title: 'BCD-to-seven-segment latch and driver, outputs high',
    group,
    aliases: 'display decoder common cathode',
    pins: segmentPins('BIn', 'LE'),
    behaviour: [
      forEach('A B C D', 'q@ = @ while ~LE'),
      segmentTables([...plainDigits, '', '', '', '', '', ''], (s) => `d${s}`).replaceAll('D C B A', 'qD qC qB qA'),
      ...[...'abcdefg'].map((s) => `${s} = ~LTn | d${s} & BIn`),
    ].join('\n'),
    families: ['HC', 'HCT'],
    drive: { HC: [4, 7.5], HCT: [4, 7.5] },
    caveat: 'For common-cathode displays. Lamp test and blanking are active low, latch enable stores when high.',
  },
  {
    base: '4543',
    title: 'BCD-to-seven-segment latch and driver, outputs of either level',
    group,
    aliases: 'display decoder liquid crystal lcd',
    pins: 'LE C B D A PH BI GND a b c d e g f VCC',
    behaviour: [
      forEach('A B C D', 'q@ = @ while LE'),
      segmentTables([...tailedDigits, '', '', '', '', '', ''], (s) => `d${s}`).replaceAll('D C B A', 'qD qC qB qA'),
      ...[...'abcdefg'].map((s) => `${s} = PH ^ (d${s} & ~BI)`),
    ].join('\n'),
    families: ['HC'],
    caveat: 'Phase low lights segments high, phase high lights them low. The latch is open while pin 1 is high.',
  },
  {
    base: '7446',
    title: 'BCD-to-seven-segment decoder, open-collector, 30 V, outputs low',
    group,
    aliases: 'display driver common anode',
    pins: segmentPins('BIn', 'RBIn'),
    behaviour: blanking([...plainDigits, ...signs], (s) => `${s} = ~(~LTn & BIn | d${s} & ~off) open`),
    pulledUp: 'BIn',
    families: ['74'],
    drive: { '74': [40, 0] },
    openV: 30,
    caveat: 'A 7447 for displays of up to 30 V.',
  },
  {
    base: '74137',
    title: '3-to-8 decoder with address latches, outputs low',
    group,
    aliases: 'demultiplexer one of eight memory',
    pins: 'A B C GLn G2n G1 Y7n GND Y6n Y5n Y4n Y3n Y2n Y1n Y0n VCC',
    behaviour: [
      forEach('A B C', 'q@ = @ while ~GLn'),
      'on = G1 & ~G2n',
      lines(8, (k) => `Y${k}n = ~(on & ${product('qC qB qA', k)})`),
    ].join('\n'),
    families: ['LS', 'ALS', 'HC', 'HCT'],
    caveat: 'Pin 4 holds the address while it is high; on the 74138 it is an enable.',
  },
  {
    base: '74141',
    title: 'BCD-to-decimal driver for cold-cathode tubes, open-collector, 60 V',
    group,
    aliases: '4-to-10 one of ten',
    pins: 'Y8n Y9n A D VCC B C Y2n Y3n Y7n Y6n GND Y4n Y5n Y1n Y0n',
    behaviour: lines(10, (k) => `Y${k}n = ~(${product('D C B A', k)}) open`),
    families: ['74'],
    drive: { '74': [7, 0] },
    openV: 60,
    caveat: 'Supply on pin 5, ground on pin 12; outputs sink 7 mA of a tube. Codes 10 to 15 choose none.',
  },
  {
    base: '74145',
    title: 'BCD-to-decimal driver, open-collector, 15 V',
    group,
    aliases: '4-to-10 one of ten lamp relay',
    pins: decimalPins,
    behaviour: lines(10, (k) => `Y${k}n = ~(${product('D C B A', k)}) open`),
    families: ttl,
    drive: { '74': [80, 0], LS: [24, 0] },
    openV: 15,
    caveat: 'A 7445 for loads of up to 15 V; outputs need a load or pull-up.',
  },
  {
    base: '74150',
    title: '16-to-1 selector, output inverted',
    group,
    aliases: 'multiplexer data',
    pins: 'E7 E6 E5 E4 E3 E2 E1 E0 Gn W D GND C B A E15 E14 E13 E12 E11 E10 E9 E8 VCC',
    behaviour: `W = ~(~Gn & (${pick('D C B A', numbered('E', 16))}))`,
    rows: 6,
    families: ['74'],
    caveat: 'Wide package of 24 pins. Pin 11 is address bit D, not a data input; only the complement comes out.',
  },
  {
    base: '74258',
    title: 'four 2-to-1 selectors, three-state, inverting',
    group,
    aliases: 'multiplexer data quad',
    pins: quadTwoPins('OEn'),
    behaviour: forEach('1 2 3 4', '@Y = ~(~S & @A | S & @B) when ~OEn'),
    families: ['LS', 'ALS', 'F', 'S', 'HC', 'HCT'],
    drive: strongBusDrive,
    caveat: 'A 74257 that inverts; its pins are the same.',
  },
  {
    base: '74352',
    title: 'two 4-to-1 selectors, inverting',
    group,
    aliases: 'multiplexer data dual',
    pins: twoFourPins,
    behaviour: [1, 2].map((u) => `${u}Y = ~(~${u}Gn & (${pick('B A', numbered(`${u}C`, 4))}))`).join('\n'),
    families: ['LS', 'ALS', 'F'],
    caveat: 'A 74153 that inverts: with the strobe high the output is high.',
  },
  {
    base: '74353',
    title: 'two 4-to-1 selectors, three-state, inverting',
    group,
    aliases: 'multiplexer data dual',
    pins: twoFourPins,
    behaviour: [1, 2].map((u) => `${u}Y = ~(${pick('B A', numbered(`${u}C`, 4))}) when ~${u}Gn`).join('\n'),
    families: ['LS', 'ALS', 'F'],
    drive: busDrive,
    caveat: 'A 74253 that inverts; its pins are the same.',
  },
  ...[
    { base: '4514', sense: 'high', mark: '', not: '' },
    { base: '4515', sense: 'low', mark: 'n', not: '~' },
  ].map(
    ({ base, sense, mark, not }): ChipData => ({
      base,
      title: `4-to-16 decoder with address latches, outputs ${sense}`,
      group,
      aliases: 'demultiplexer one of sixteen memory',
      pins: 'LE A0 A1 7 6 5 4 3 1 2 0 GND 13 12 15 14 9 8 11 10 A2 A3 En VCC'.replace(/\b\d+/g, (k) => `Y${k}${mark}`),
      behaviour: [
        forEach('0 1 2 3', 'q@ = A@ while LE'),
        lines(16, (k) => `Y${k}${mark} = ${not}(~En & ${product('q3 q2 q1 q0', k)})`),
      ].join('\n'),
      rows: 6,
      families: ['HC', 'HCT'],
      caveat: 'Wide package of 24 pins, its outputs in no order. Latches are open while pin 1 is high.',
    }),
  ),
  {
    base: '74248',
    title: 'BCD-to-seven-segment decoder with tails, outputs high',
    group,
    aliases: 'display driver common cathode',
    pins: segmentPins('BIn', 'RBIn'),
    behaviour: blanking([...tailedDigits, ...signs], (s) => `${s} = ~LTn & BIn | d${s} & ~off`),
    pulledUp: 'BIn',
    families: ttl,
    drive: { '74': [6.4, 2], LS: [6, 1.3] },
    caveat: 'A 7448 whose 6 and 9 have tails; pins are the same.',
  },
];

/** ` & I5n & I6n & I7n`: no input above k, up to 7, is active. */
function above(k: number): string {
  return Array.from({ length: 7 - k }, (_, i) => ` & I${k + 1 + i}n`).join('');
}
