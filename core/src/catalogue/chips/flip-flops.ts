import { type ChipData, forEach, ttl, units } from './chip-data';

/**
 * Flip-flops, latches and registers. Source: data sheets SN74LS73A, 74A, 75, 76A, 107A, 109A, 112A,
 * 113A, SN7470, 7472, SN74276, SN74LS173A, 174, 175, 273, 279A, 298, 373, 374, 375, 377, 378, 379, SN74ALS533, 534, SN74HC573, 574. Stored values stand under small letters.
 */
const group = 'flip-flops and latches';
const wide = ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'] as const;
const octal = ['LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'] as const;
const octalPins = (first: string, clock: string): string =>
  `${first} 1Q 1D 2D 2Q 3Q 3D 4D 4Q GND ${clock} 5Q 5D 6D 6Q 7Q 7D 8D 8Q VCC`;
const facingPins = (clock: string): string => `OEn 1D 2D 3D 4D 5D 6D 7D 8D GND ${clock} 8Q 7Q 6Q 5Q 4Q 3Q 2Q 1Q VCC`;
const busDrive = {
  LS: [24, 2.6],
  ALS: [24, 2.6],
  AS: [48, 15],
  F: [24, 3],
  S: [20, 6.5],
  HC: [6, 6],
  HCT: [6, 6],
} as const;

/** A JK flip-flop of falling clock; with both preset and clear low, both outputs are high. */
const jk = (forces: string, both: string): string =>
  `1s = 1J & ~1s | ~1K & 1s at fall 1CLK ${forces}\n1Q = 1s\n1Qn = ${both}`;
const cleared = jk('clear ~1CLRn', '~1s');
const presetCleared = jk('preset ~1PREn clear ~1CLRn', '~1s | ~1PREn & ~1CLRn');

/**
 * A pulse-triggered JK flip-flop: while the clock is high its master follows what J and K ask for, and keeps what they asked for once; when the clock
 * falls, the output takes it over.
 */
const pulseTriggered = (j: string, k: string): string =>
  [
    `m = 1 while CLK & ${j} & ~s preset ~PREn clear ~CLRn clear CLK & ${k} & s`,
    's = m at fall CLK preset ~PREn clear ~CLRn',
    'Q = s',
    'Qn = ~s | ~PREn & ~CLRn',
  ].join('\n');

/** Two of them, each with J and K alone; `isPreset` where they have a preset beside the clear. */
function twoPulseTriggered(isPreset: boolean): string {
  const one = pulseTriggered('J', 'K').replace(/\b(m|s|CLK|J|K|PREn|CLRn|Q|Qn)\b/g, '1$1');
  return units(2, isPreset ? one : one.replaceAll(' preset ~1PREn', '').replace(' | ~1PREn & ~1CLRn', ''));
}
const pulseCaveat = 'Pulse-triggered: what J and K ask for at any time while the clock is high shows when it falls.';
const asOlder = (one: ChipData, behaviour: string): ChipData => ({
  ...one,
  base: `SN${one.base}`,
  title: one.title.replace('flip-flops', 'flip-flops, pulse-triggered,').replace(',, ', ', '),
  aliases: 'j-k toggle master slave',
  behaviour,
  families: ['74'],
  caveat: `${pulseCaveat} The 74LS${one.base.slice(2)} has the same pins and is triggered by edges.`,
});

const twoCleared: ChipData = {
  base: '7473',
  title: 'two JK flip-flops with clear',
  group,
  aliases: 'j-k toggle negative edge',
  pins: '1CLK 1CLRn 1K VCC 2CLK 2CLRn 2J 2Qn 2Q 2K GND 1Q 1Qn 1J',
  behaviour: units(2, cleared),
  families: ['LS', 'HC', 'HCT'],
  caveat:
    'Supply on pin 4 and ground on pin 11. The LS73A clocks on the falling edge; the plain 7473 is pulse-triggered.',
};
const twoPresetCleared: ChipData = {
  base: '7476',
  title: 'two JK flip-flops with preset and clear, old pins',
  group,
  aliases: 'j-k toggle negative edge',
  pins: '1CLK 1PREn 1CLRn 1J VCC 2CLK 2PREn 2CLRn 2J 2Qn 2Q 2K GND 1Qn 1Q 1K',
  behaviour: units(2, presetCleared),
  families: ['LS', 'HC', 'HCT'],
  caveat: 'Supply on pin 5, ground on pin 13. The LS76A clocks on the falling edge; the plain 7476 is pulse-triggered.',
};
const twoCornered: ChipData = {
  base: '74107',
  title: 'two JK flip-flops with clear, corner supply',
  group,
  aliases: 'j-k toggle negative edge',
  pins: '1J 1Qn 1Q 1K 2Q 2Qn GND 2J 2CLK 2CLRn 2K 1CLK 1CLRn VCC',
  behaviour: units(2, cleared),
  families: ['LS', 'HC', 'HCT'],
  caveat: 'A 7473 with supply in the corners; the order of its pins is another one throughout.',
};

/** Flip-flops, latches and registers; sources stand at the head of this file. */
export const flipFlops: readonly ChipData[] = [
  twoCleared,
  asOlder(twoCleared, twoPulseTriggered(false)),
  {
    base: '7474',
    title: 'two D flip-flops with preset and clear',
    group,
    aliases: 'd-type positive edge toggle',
    pins: '1CLRn 1D 1CLK 1PREn 1Q 1Qn GND 2Qn 2Q 2PREn 2CLK 2D 2CLRn VCC',
    behaviour: units(2, '1s = 1D at rise 1CLK preset ~1PREn clear ~1CLRn\n1Q = 1s\n1Qn = ~1s | ~1PREn & ~1CLRn'),
    families: wide,
    caveat:
      'Preset and clear left open make it forget at random: tie both high. Both low at once set both outputs high.',
  },
  {
    base: '7475',
    title: 'four D latches in two pairs',
    group,
    aliases: 'bistable transparent',
    pins: '1Qn 1D 2D C34 VCC 3D 4D 4Qn 4Q 3Q 3Qn GND C12 2Qn 2Q 1Q',
    behaviour: ['1 C12', '2 C12', '3 C34', '4 C34']
      .map((p) => p.split(' '))
      .map(([k, c]) => `${k}s = ${k}D while ${c}\n${k}Q = ${k}s\n${k}Qn = ~${k}s`)
      .join('\n'),
    families: ['74', 'LS', 'HC', 'HCT'],
    caveat: 'Supply on pin 5, ground on pin 12. Transparent while the enable is high: no edge, so no counter from it.',
  },
  twoPresetCleared,
  asOlder(twoPresetCleared, twoPulseTriggered(true)),
  twoCornered,
  asOlder(twoCornered, twoPulseTriggered(false)),
  {
    base: '74109',
    title: 'two J-K̄ flip-flops with preset and clear',
    group,
    aliases: 'jk j-k positive edge toggle',
    pins: '1CLRn 1J 1Kn 1CLK 1PREn 1Q 1Qn GND 2Qn 2Q 2PREn 2CLK 2Kn 2J 2CLRn VCC',
    behaviour: units(
      2,
      '1s = 1J & ~1s | 1Kn & 1s at rise 1CLK preset ~1PREn clear ~1CLRn\n1Q = 1s\n1Qn = ~1s | ~1PREn & ~1CLRn',
    ),
    families: ['74', 'LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'K is inverted: J and K joined make a D flip-flop, J high and K low make it toggle. Rising edge.',
  },
  {
    base: '74112',
    title: 'two JK flip-flops with preset and clear, falling edge',
    group,
    aliases: 'j-k toggle negative edge',
    pins: '1CLK 1K 1J 1PREn 1Q 1Qn 2Qn GND 2Q 2PREn 2J 2K 2CLK 2CLRn 1CLRn VCC',
    behaviour: units(2, presetCleared),
    families: ['LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'Both clears sit side by side on pins 14 and 15, and pin 15 is the first flip-flop’s.',
  },
  {
    base: '74173',
    title: '4-bit D register, three-state',
    group,
    aliases: 'bus quad',
    pins: 'OE1n OE2n 1Q 2Q 3Q 4Q CLK GND G1n G2n 4D 3D 2D 1D CLR VCC',
    behaviour: [
      'load = nor(G1n, G2n)',
      forEach('1 2 3 4', '@s = load & @D | ~load & @s at rise CLK clear CLR\n@Q = @s when ~OE1n & ~OE2n'),
    ].join('\n'),
    families: ['74', 'LS', 'HC', 'HCT'],
    drive: { '74': [16, 5.2], LS: [24, 2.6], HC: [6, 6], HCT: [6, 6] },
    caveat: 'Clear is active high here, unlike on its neighbours, and works while the outputs float.',
  },
  {
    base: '74174',
    title: 'six D flip-flops with common clock and clear',
    group,
    aliases: 'hex register d-type',
    pins: 'CLRn 1Q 1D 2D 2Q 3D 3Q GND CLK 4Q 4D 5Q 5D 6D 6Q VCC',
    behaviour: units(6, '1Q = 1D at rise CLK clear ~CLRn'),
    families: wide,
    caveat: 'Order of Q and D changes from bit to bit: 2, 3 then 5, 4. No complements come out.',
  },
  {
    base: '74175',
    title: 'four D flip-flops with common clock and clear',
    group,
    aliases: 'quad register d-type',
    pins: 'CLRn 1Q 1Qn 1D 2D 2Qn 2Q GND CLK 3Q 3Qn 3D 4D 4Qn 4Q VCC',
    behaviour: units(4, '1s = 1D at rise CLK clear ~CLRn\n1Q = 1s\n1Qn = ~1s'),
    families: wide,
    caveat: 'Bits 2 and 4 run the other way round: D, Q̄, Q.',
  },
  {
    base: '74273',
    title: 'eight D flip-flops with common clock and clear',
    group,
    aliases: 'octal register d-type',
    pins: octalPins('CLRn', 'CLK'),
    behaviour: units(8, '1Q = 1D at rise CLK clear ~CLRn'),
    families: ['74', 'LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'Pins as on the 74374, but pin 1 clears instead of enabling the outputs.',
  },
  {
    base: '74279',
    title: 'four S̄-R̄ latches',
    group,
    aliases: 'set reset debounce rs',
    pins: '1Rn 1S1n 1S2n 1Q 2Rn 2Sn 2Q GND 3Q 3Rn 3S1n 3S2n 4Q 4Rn 4Sn VCC',
    behaviour: [
      forEach('1 3', '@Q = 1 while ~@S1n | ~@S2n clear ~@Rn & @S1n & @S2n'),
      forEach('2 4', '@Q = 1 while ~@Sn clear ~@Rn & @Sn'),
    ].join('\n'),
    families: ['74', 'LS', 'HC'],
    caveat: 'Active low: both inputs rest high. Latches 1 and 3 have two set inputs, 2 and 4 one. Set wins over reset.',
  },
  {
    base: '74373',
    title: 'eight D latches, three-state',
    group,
    aliases: 'octal transparent bus',
    pins: octalPins('OEn', 'LE'),
    behaviour: units(8, '1s = 1D while LE\n1Q = 1s when ~OEn'),
    families: octal,
    drive: busDrive,
    caveat: 'Latches, not flip-flops: outputs follow the inputs as long as LE is high. The 74374 has the same pins.',
  },
  {
    base: '74374',
    title: 'eight D flip-flops, three-state',
    group,
    aliases: 'octal register bus d-type',
    pins: octalPins('OEn', 'CLK'),
    behaviour: units(8, '1s = 1D at rise CLK\n1Q = 1s when ~OEn'),
    families: octal,
    drive: busDrive,
    caveat: 'No clear: after power-up it holds anything. Outputs float with pin 1 high, and it stores all the same.',
  },
  {
    base: '74377',
    title: 'eight D flip-flops with clock enable',
    group,
    aliases: 'octal register d-type',
    pins: octalPins('ENn', 'CLK'),
    behaviour: units(8, '1Q = ENn & 1Q | ~ENn & 1D at rise CLK'),
    families: ['LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'Pins as on the 74273, but pin 1 lets the clock through (low) and there is no clear.',
  },
  {
    base: '74573',
    title: 'eight D latches, three-state, inputs opposite outputs',
    group,
    aliases: 'octal transparent bus',
    pins: facingPins('LE'),
    behaviour: units(8, '1s = 1D while LE\n1Q = 1s when ~OEn'),
    families: ['LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    drive: busDrive,
    caveat: 'A 74373 with each output facing its input: outputs count down from pin 19.',
  },
  {
    base: '74574',
    title: 'eight D flip-flops, three-state, inputs opposite outputs',
    group,
    aliases: 'octal register bus d-type',
    pins: facingPins('CLK'),
    behaviour: units(8, '1s = 1D at rise CLK\n1Q = 1s when ~OEn'),
    families: ['LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    drive: busDrive,
    caveat: 'A 74374 with each output facing its input: outputs count down from pin 19.',
  },
  {
    base: '74113',
    title: 'two JK flip-flops with preset, falling edge',
    group,
    aliases: 'j-k toggle negative edge',
    pins: '1CLK 1K 1J 1PREn 1Q 1Qn GND 2Qn 2Q 2PREn 2J 2K 2CLK VCC',
    behaviour: units(2, jk('preset ~1PREn', '~1s')),
    families: ['LS', 'ALS', 'F', 'S', 'HC'],
    caveat: 'A 74112 without clear, in 14 pins.',
  },
  {
    base: '7470',
    title: 'JK flip-flop with gated inputs, preset and clear',
    group,
    aliases: 'j-k and positive edge toggle',
    pins: 'NC CLRn J1 J2 Jn Qn GND Q Kn K1 K2 CLK PREn VCC',
    behaviour: [
      'j = J1 & J2 & ~Jn\nk = K1 & K2 & ~Kn',
      's = j & ~s | ~k & s at rise CLK preset ~PREn & ~CLK clear ~CLRn & ~CLK',
      'Q = s\nQn = ~s | ~PREn & ~CLRn & ~CLK',
    ].join('\n'),
    families: ['74'],
    caveat: 'Preset and clear work only while the clock is low. Pins 5 and 9 are inverted: tie them low when not used.',
  },
  {
    base: '7472',
    title: 'JK flip-flop with gated inputs, preset and clear, pulse-triggered',
    group,
    aliases: 'j-k and master slave toggle',
    pins: 'NC CLRn J1 J2 J3 Qn GND Q K1 K2 K3 CLK PREn VCC',
    behaviour: pulseTriggered('J1 & J2 & J3', 'K1 & K2 & K3'),
    families: ['74'],
    caveat: pulseCaveat,
  },
  {
    base: '74276',
    title: 'four J-K̄ flip-flops with common preset and clear',
    group,
    aliases: 'jk j-k negative edge toggle quad',
    pins: 'CLRn 1J 1CLK 1Kn 1Q 2Q 2Kn 2CLK 2J GND PREn 3J 3CLK 3Kn 3Q 4Q 4Kn 4CLK 4J VCC',
    behaviour: units(4, '1s = 1J & ~1s | 1Kn & 1s at fall 1CLK preset ~PREn clear ~CLRn\n1Q = 1s'),
    families: ['74'],
    caveat: 'K is inverted: J and K joined make a D flip-flop. Falling edge, and no complements come out.',
  },
  {
    base: '74298',
    title: 'four 2-to-1 selectors with storage',
    group,
    aliases: 'multiplexer quad register',
    pins: 'B2 A2 A1 B1 C2 D2 D1 GND C1 WS CLK QD QC QB QA VCC',
    behaviour: forEach('A B C D', 'Q@ = ~WS & @1 | WS & @2 at fall CLK'),
    families: ttl,
    caveat: 'It stores on the falling edge. Word select low takes A1 to D1, high A2 to D2.',
  },
  {
    base: '74375',
    title: 'four D latches in two pairs, corner supply',
    group,
    aliases: 'transparent quad',
    pins: '1D 1Qn 1Q C12 2Q 2Qn 2D GND 3D 3Qn 3Q C34 4Q 4Qn 4D VCC',
    behaviour: [
      forEach('1 2', '@s = @D while C12\n@Q = @s\n@Qn = ~@s'),
      forEach('3 4', '@s = @D while C34\n@Q = @s\n@Qn = ~@s'),
    ].join('\n'),
    families: ['LS', 'HC'],
    caveat: 'A 7475 with supply in the corners; the order of its pins is another one throughout.',
  },
  {
    base: '74378',
    title: 'six D flip-flops with clock enable',
    group,
    aliases: 'hex register d-type',
    pins: 'ENn 1Q 1D 2D 2Q 3D 3Q GND CLK 4Q 4D 5Q 5D 6D 6Q VCC',
    behaviour: units(6, '1Q = ENn & 1Q | ~ENn & 1D at rise CLK'),
    families: ['LS', 'F', 'HC'],
    caveat: 'Pins as on the 74174, but pin 1 lets the clock through (low) and there is no clear.',
  },
  {
    base: '74379',
    title: 'four D flip-flops with clock enable',
    group,
    aliases: 'quad register d-type',
    pins: 'ENn 1Q 1Qn 1D 2D 2Qn 2Q GND CLK 3Q 3Qn 3D 4D 4Qn 4Q VCC',
    behaviour: units(4, '1s = ENn & 1s | ~ENn & 1D at rise CLK\n1Q = 1s\n1Qn = ~1s'),
    families: ['LS', 'F'],
    caveat: 'Pins as on the 74175, but pin 1 lets the clock through (low) and there is no clear.',
  },
  {
    base: '74533',
    title: 'eight D latches, three-state, inverting',
    group,
    aliases: 'octal transparent bus',
    pins: octalPins('OEn', 'LE'),
    behaviour: units(8, '1s = 1D while LE\n1Q = ~1s when ~OEn'),
    families: ['ALS', 'F', 'HC', 'HCT'],
    drive: busDrive,
    caveat: 'A 74373 whose outputs are inverted; its pins are the same.',
  },
  {
    base: '74534',
    title: 'eight D flip-flops, three-state, inverting',
    group,
    aliases: 'octal register bus d-type',
    pins: octalPins('OEn', 'CLK'),
    behaviour: units(8, '1s = 1D at rise CLK\n1Q = ~1s when ~OEn'),
    families: ['ALS', 'F', 'HC', 'HCT'],
    drive: busDrive,
    caveat: 'A 74374 whose outputs are inverted; its pins are the same.',
  },
  {
    base: '74563',
    title: 'eight D latches, three-state, inverting, inputs opposite outputs',
    group,
    aliases: 'octal transparent bus',
    pins: facingPins('LE'),
    behaviour: units(8, '1s = 1D while LE\n1Q = ~1s when ~OEn'),
    families: ['ALS', 'HC', 'HCT'],
    drive: busDrive,
    caveat: 'A 74573 whose outputs are inverted; its pins are the same.',
  },
  {
    base: '74564',
    title: 'eight D flip-flops, three-state, inverting, inputs opposite outputs',
    group,
    aliases: 'octal register bus d-type',
    pins: facingPins('CLK'),
    behaviour: units(8, '1s = 1D at rise CLK\n1Q = ~1s when ~OEn'),
    families: ['ALS', 'HC', 'HCT'],
    drive: busDrive,
    caveat: 'A 74574 whose outputs are inverted; its pins are the same.',
  },
];
