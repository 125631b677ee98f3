import { elementAt } from '../../element-at';
import { type ChipData, units } from './chip-data';

/** Shift registers. Source: data sheets SN74LS91, 95B, 96, SN7494, SN74198, 199, SN74LS299, SN74LS597, CD74HC4015, 4094, SN74LS164, 165A, 166A, 194A, 195A, SN74HC595. */
const group = 'shift registers';
const letters = 'ABCDEFGH';

/** For each stage from A, its own name and the one before it, `first` before A. */
const stages = (count: number, first: string, line: (own: string, before: string, letter: string) => string): string =>
  Array.from({ length: count }, (_, i) =>
    line(`Q${letters[i]}`, i === 0 ? first : `Q${letters[i - 1]}`, elementAt(letters, i)),
  ).join('\n');

/** Shift registers; sources stand at the head of this file. */
export const shiftRegisters: readonly ChipData[] = [
  {
    base: '7495',
    title: '4-bit shift register, serial and parallel in',
    group,
    aliases: 'right left load',
    pins: 'SER A B C D MODE GND CLK2 CLK1 QD QC QB QA VCC',
    behaviour: `ck = MODE & CLK2 | ~MODE & CLK1\n${stages(4, 'SER', (q, before, d) => `${q} = MODE & ${d} | ~MODE & ${before} at fall ck`)}`,
    families: ['74', 'LS'],
    caveat:
      'Two clocks, both of falling edge: pin 9 shifts with mode low, pin 8 loads with mode high. There is no clear.',
  },
  {
    base: '74164',
    title: '8-bit shift register, serial in, parallel out',
    group,
    aliases: 'sipo',
    pins: 'A B QA QB QC QD GND CLK CLRn QE QF QG QH VCC',
    behaviour: stages(8, 'A & B', (q, before) => `${q} = ${before} at rise CLK clear ~CLRn`),
    families: ['74', 'LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'The two serial inputs are ANDed: with one left low only zeros go in. Tie them together.',
  },
  {
    base: '74165',
    title: '8-bit shift register, parallel in, serial out',
    group,
    aliases: 'piso load',
    pins: 'LDn CLK E F G H QHn GND QH SER A B C D INH VCC',
    behaviour: [
      'ck = CLK | INH',
      stages(
        8,
        'SER',
        (q, before, d) =>
          `${q.toLowerCase()} = ${before === 'SER' ? before : before.toLowerCase()} at rise ck preset ~LDn & ${d} clear ~LDn & ~${d}`,
      ),
      'QH = qh',
      'QHn = ~qh',
    ].join('\n'),
    families: ['74', 'LS', 'ALS', 'F', 'HC', 'HCT'],
    caveat:
      'Loads as long as pin 1 is low, without a clock. Only the last stage comes out. Inhibit must be low to shift.',
  },
  {
    base: '74166',
    title: '8-bit shift register, parallel in, serial out, clocked load',
    group,
    aliases: 'piso synchronous',
    pins: 'SER A B C D INH CLK GND CLRn E F G QH H LDn VCC',
    behaviour: [
      'ck = CLK | INH',
      stages(8, 'SER', (q, before, d) => {
        const [own, from] = [q, before].map((n) => (n === 'SER' || n === 'QH' ? n : n.toLowerCase()));
        return `${own} = LDn & ${from} | ~LDn & ${d} at rise ck clear ~CLRn`;
      }),
    ].join('\n'),
    families: ['74', 'LS', 'F', 'HC', 'HCT'],
    caveat:
      'Loads at the clock edge, unlike the 74165, and its pins are others; input H is on pin 14, beyond the output.',
  },
  {
    base: '74194',
    title: '4-bit shift register, both directions',
    group,
    aliases: 'universal bidirectional left right load',
    pins: 'CLRn SR A B C D SL GND S0 S1 CLK QD QC QB QA VCC',
    behaviour: ['A SR QB', 'B QA QC', 'C QB QD', 'D QC SL']
      .map((t) => t.split(' '))
      .map(
        ([d, right, left]) =>
          `Q${d} = S1 & S0 & ${d} | ~S1 & S0 & ${right} | S1 & ~S0 & ${left} | ~S1 & ~S0 & Q${d} at rise CLK clear ~CLRn`,
      )
      .join('\n'),
    families: ['74', 'LS', 'F', 'S', 'HC', 'HCT'],
    caveat: 'Right means from QA to QD. Modes: both high load, S0 alone right, S1 alone left, both low keep.',
  },
  {
    base: '74195',
    title: '4-bit shift register with J-K̄ input',
    group,
    aliases: 'parallel load',
    pins: 'CLRn J Kn A B C D GND LDn CLK QDn QD QC QB QA VCC',
    behaviour: [
      'a = LDn & (J & ~a | Kn & a) | ~LDn & A at rise CLK clear ~CLRn',
      'b = LDn & a | ~LDn & B at rise CLK clear ~CLRn',
      'c = LDn & b | ~LDn & C at rise CLK clear ~CLRn',
      'd = LDn & c | ~LDn & D at rise CLK clear ~CLRn',
      'QA = a\nQB = b\nQC = c\nQD = d\nQDn = ~d',
    ].join('\n'),
    families: ['74', 'LS', 'F', 'S', 'HC', 'HCT'],
    caveat: 'J and K̄ joined make a plain serial input; parallel load needs the clock and pin 9 low.',
  },
  {
    base: '74595',
    title: '8-bit shift register with output latches, three-state',
    group,
    aliases: 'sipo serial storage',
    pins: 'QB QC QD QE QF QG QH GND QHS SRCLRn SRCLK RCLK OEn SER QA VCC',
    behaviour: [
      stages(
        8,
        'SER',
        (q, before) =>
          `${q.toLowerCase()} = ${before === 'SER' ? before : before.toLowerCase()} at rise SRCLK clear ~SRCLRn`,
      ),
      stages(8, 'SER', (q) => `${q.toLowerCase()}s = ${q.toLowerCase()} at rise RCLK`),
      stages(8, 'SER', (q) => `${q} = ${q.toLowerCase()}s when ~OEn`),
      'QHS = qh',
    ].join('\n'),
    families: ['LS', 'HC', 'HCT'],
    drive: { LS: [24, 2.6], HC: [6, 6], HCT: [6, 6] },
    caveat:
      'QA is pin 15, away from the rest. Shifting shows nothing until the storage clock; clear does not reach the latches.',
  },
  {
    base: '7491',
    title: '8-bit shift register, serial in, serial out',
    group,
    aliases: 'siso delay',
    pins: 'NC NC NC NC VCC NC NC NC CLK GND B A QH QHn',
    behaviour: [
      stages(8, 'A & B', (q, before) => {
        const [own, from] = [q, before].map((n) => n.replace(/^Q./, (name) => name.toLowerCase()));
        return `${own} = ${from} at rise CLK`;
      }),
      'QH = qh',
      'QHn = ~qh',
    ].join('\n'),
    families: ['74', 'LS'],
    caveat: 'Supply on pin 5, ground on pin 10. Only the last stage comes out, and there is no clear.',
  },
  {
    base: '7496',
    title: '5-bit shift register, parallel preset',
    group,
    aliases: 'serial parallel in out',
    pins: 'CLK A B C VCC D E PE SER QE QD GND QC QB QA CLRn',
    behaviour: stages(5, 'SER', (q, before, d) => `${q} = ${before} at rise CLK preset PE & ${d} clear ~CLRn`),
    families: ['74', 'LS'],
    caveat: 'Supply on pin 5, ground on pin 12. Preset only sets ones: clear first, then preset.',
  },
  {
    base: '74198',
    title: '8-bit shift register, both directions',
    group,
    aliases: 'universal bidirectional left right load',
    pins: 'S0 SR A QA B QB C QC D QD CLK GND CLRn QE E QF F QG G QH H SL S1 VCC',
    behaviour: [...letters]
      .map((d, i) => {
        const [right, left] = [i === 0 ? 'SR' : `Q${letters[i - 1]}`, i === 7 ? 'SL' : `Q${letters[i + 1]}`];
        return `Q${d} = S1 & S0 & ${d} | ~S1 & S0 & ${right} | S1 & ~S0 & ${left} | ~S1 & ~S0 & Q${d} at rise CLK clear ~CLRn`;
      })
      .join('\n'),
    rows: 6,
    families: ['74'],
    caveat:
      'Wide package of 24 pins. Modes as on the 74194: both high load, S0 alone right, S1 alone left, both low keep.',
  },
  {
    base: '7494',
    title: '4-bit shift register with two sets of presets',
    group,
    aliases: 'piso parallel serial',
    pins: 'P1A P1B P1C P1D VCC PE1 SER CLK QD CLR P2D GND P2C P2B PE2 P2A',
    behaviour: [
      stages(4, 'SER', (q, before, d) => {
        const [own, from] = [q, before].map((n) => n.replace(/^Q./, (name) => name.toLowerCase()));
        return `${own} = ${from} at rise CLK preset PE1 & P1${d} | PE2 & P2${d} clear CLR`;
      }),
      'QD = qd',
    ].join('\n'),
    families: ['74'],
    caveat: 'Supply on pin 5, ground on pin 12. Clear is active high; presets only set ones: clear first.',
  },
  {
    base: '74199',
    title: '8-bit shift register with J-K̄ input, parallel load',
    group,
    aliases: 'parallel in out load',
    pins: 'Kn J A QA B QB C QC D QD INH GND CLK CLRn QE E QF F QG G QH H LDn VCC',
    behaviour: [
      'ck = CLK | INH',
      stages(8, 'J & ~QA | Kn & QA', (q, before, d) => `${q} = LDn & (${before}) | ~LDn & ${d} at rise ck clear ~CLRn`),
    ].join('\n'),
    rows: 6,
    families: ['74'],
    caveat: 'Wide package of 24 pins. J and K̄ joined make a plain serial input; the load needs the clock.',
  },
  {
    base: '74299',
    title: '8-bit shift register, both directions, on three-state bus pins',
    group,
    aliases: 'universal bidirectional left right load storage bus',
    pins: 'S0 OE1n OE2n QG QE QC QA QAS CLRn GND SR CLK QB QD QF QH QHS SL S1 VCC',
    behaviour: [
      'on = ~OE1n & ~OE2n & ~(S1 & S0)',
      [...letters]
        .map((d, i) => {
          const [own, right, left] = [
            `q${d}`,
            i === 0 ? 'SR' : `q${letters[i - 1]}`,
            i === 7 ? 'SL' : `q${letters[i + 1]}`,
          ];
          const next = `S1 & S0 & Q${d} | ~S1 & S0 & ${right} | S1 & ~S0 & ${left} | ~S1 & ~S0 & ${own}`;
          return `${own} = ${next} at rise CLK clear ~CLRn\nQ${d} = ${own} when on`;
        })
        .join('\n'),
      'QAS = qA\nQHS = qH',
    ].join('\n'),
    families: ['LS', 'F', 'S', 'HC', 'HCT'],
    drive: { LS: [24, 2.6], F: [24, 3], S: [20, 6.5], HC: [6, 6], HCT: [6, 6] },
    caveat: 'The same eight pins load and show: with both modes high they float and are loaded at the clock.',
  },
  {
    base: '74597',
    title: '8-bit shift register with input latches',
    group,
    aliases: 'piso parallel in serial out storage',
    pins: 'B C D E F G H GND QH SCLRn SCLK RCLK LDn SER A VCC',
    behaviour: [
      stages(8, 'SER', (_, __, d) => `r${d} = ${d} at rise RCLK`),
      stages(8, 'SER', (q, before, d) => {
        const [own, from] = [q, before].map((n) => (n === 'QH' || n === 'SER' ? n : n.toLowerCase()));
        return `${own} = ${from} at rise SCLK preset ~LDn & r${d} clear ~LDn & ~r${d} clear ~SCLRn & LDn`;
      }),
    ].join('\n'),
    families: ['LS', 'HC', 'HCT'],
    caveat:
      'Two steps in: RCLK takes the inputs into latches, LDn low takes these into the shift register, without a clock.',
  },
  {
    base: '4015',
    title: 'two 4-bit shift registers, serial in, parallel out',
    group,
    aliases: 'sipo dual',
    pins: '2CLK 2QD 1QC 1QB 1QA 1CLR 1D GND 1CLK 1QD 2QC 2QB 2QA 2CLR 2D VCC',
    behaviour: units(
      2,
      ['A D', 'B QA', 'C QB', 'D QC']
        .map((pair) => pair.split(' '))
        .map(([own, from]) => `1Q${own} = 1${from} at rise 1CLK clear 1CLR`)
        .join('\n'),
    ),
    families: ['HC', 'HCT'],
    caveat: 'Clear is active high. Outputs of both halves stand among each other.',
  },
  {
    base: '4094',
    title: '8-bit shift register with output latches, three-state, cascading outputs',
    group,
    aliases: 'sipo serial storage',
    pins: 'STR SER CLK QA QB QC QD GND QS QSn QH QG QF QE OE VCC',
    behaviour: [
      stages(
        8,
        'SER',
        (q, before) => `${q.toLowerCase()} = ${before === 'SER' ? before : before.toLowerCase()} at rise CLK`,
      ),
      stages(8, 'SER', (q) => `${q.toLowerCase()}s = ${q.toLowerCase()} while STR`),
      stages(8, 'SER', (q) => `${q} = ${q.toLowerCase()}s when OE`),
      'QS = qh',
      'late = qh at fall CLK',
      'QSn = late',
    ].join('\n'),
    families: ['HC', 'HCT'],
    drive: { HC: [4, 4], HCT: [4, 4] },
    caveat: 'Latches are open while the strobe is high. QSn is the serial output half a clock later, not a complement.',
  },
];
