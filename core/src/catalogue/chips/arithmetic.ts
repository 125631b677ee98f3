import { type ChipData, forEach } from './chip-data';

/** Arithmetic. Source: data sheets SN7483A, SN74LS85, SN74180, SN74LS181, SN74S182, SN74LS280, SN74LS283. */
const group = 'arithmetic';

/** Four full adders in a row; carries c1 to c3 between. */
const adder = [1, 2, 3, 4]
  .map((k) => {
    const [from, to] = [k === 1 ? 'C0' : `c${k - 1}`, k === 4 ? 'C4' : `c${k}`];
    return `S${k} = xor(A${k}, B${k}, ${from})\n${to} = A${k} & B${k} | ${from} & (A${k} | B${k})`;
  })
  .join('\n');

/** Adders, comparators, parity and arithmetic units; sources stand at the head of this file. */
export const arithmetic: readonly ChipData[] = [
  {
    base: '7483',
    title: '4-bit full adder, old pins',
    group,
    aliases: 'binary sum carry',
    pins: 'A4 S3 A3 B3 VCC S2 B2 A2 S1 A1 B1 GND C0 C4 S4 B4',
    behaviour: adder,
    families: ['74', 'LS'],
    caveat: 'Supply on pin 5 and ground on pin 12, not in the corners. The 74283 is the same adder with other pins.',
  },
  {
    base: '7485',
    title: '4-bit magnitude comparator',
    group,
    aliases: 'greater less equal compare',
    pins: 'B3 ILT IEQ IGT GT EQ LT GND B0 A0 B1 A1 A2 B2 A3 VCC',
    behaviour: [
      forEach('0 1 2 3', 'e@ = xnor(A@, B@)'),
      'same = and(e0, e1, e2, e3)',
      'more = A3 & ~B3 | e3 & A2 & ~B2 | e3 & e2 & A1 & ~B1 | e3 & e2 & e1 & A0 & ~B0',
      'GT = more | same & ~ILT & ~IEQ',
      'LT = ~more & ~same | same & ~IGT & ~IEQ',
      'EQ = same & IEQ',
    ].join('\n'),
    families: ['74', 'LS', 'F', 'S', 'HC', 'HCT'],
    caveat: 'The cascade inputs count: alone, tie A=B (pin 3) high and the other two low, or equal words never show.',
  },
  {
    base: '74180',
    title: '9-bit parity generator and checker',
    group,
    aliases: 'odd even',
    pins: 'G H EVEN ODD SEVEN SODD GND A B C D E F VCC',
    behaviour: [
      'odd = xor(A, B, C, D, E, F, G, H)',
      'SEVEN = ~(EVEN & odd | ODD & ~odd)',
      'SODD = ~(ODD & odd | EVEN & ~odd)',
    ].join('\n'),
    families: ['74'],
    caveat: 'Inputs EVEN and ODD must be opposite: both high or both low give outputs that say nothing.',
  },
  {
    base: '74181',
    title: '4-bit arithmetic and logic unit',
    group,
    aliases: 'alu adder',
    pins: 'B0 A0 S3 S2 S1 S0 CN M F0 F1 F2 GND F3 AEQB P CN4 G B3 A3 B2 A2 B1 A1 VCC',
    behaviour: [
      forEach('0 1 2 3', 'x@ = nor(A@, B@ & S0, ~B@ & S1)\ny@ = nor(A@ & B@ & S3, A@ & ~B@ & S2)'),
      'm = ~M',
      'F0 = xor(x0 ^ y0, nand(m, CN))',
      'F1 = xor(x1 ^ y1, nor(m & x0, m & y0 & CN))',
      'F2 = xor(x2 ^ y2, nor(m & x1, m & x0 & y1, m & y0 & y1 & CN))',
      'F3 = xor(x3 ^ y3, nor(m & x2, m & x1 & y2, m & x0 & y1 & y2, m & y0 & y1 & y2 & CN))',
      'AEQB = and(F0, F1, F2, F3) open',
      'P = nand(y0, y1, y2, y3)',
      'G = nor(x3, x2 & y3, x1 & y2 & y3, x0 & y1 & y2 & y3)',
      'CN4 = ~G | CN & y0 & y1 & y2 & y3',
    ].join('\n'),
    rows: 6,
    families: ['74', 'LS', 'F', 'S', 'HC', 'HCT'],
    caveat: 'Carry in and out are low-active for high-active data: no carry is a high. A=B needs a pull-up resistor.',
  },
  {
    base: '74182',
    title: 'look-ahead carry generator',
    group,
    aliases: 'alu adder',
    pins: 'G1n P1n G0n P0n G3n P3n Pn GND CNZ Gn CNY CNX CN G2n P2n VCC',
    behaviour: [
      forEach('0 1 2 3', 'g@ = ~G@n\np@ = ~P@n'),
      'CNX = g0 | p0 & CN',
      'CNY = g1 | p1 & g0 | p1 & p0 & CN',
      'CNZ = g2 | p2 & g1 | p2 & p1 & g0 | p2 & p1 & p0 & CN',
      'Gn = nor(g3, p3 & g2, p3 & p2 & g1, p3 & p2 & p1 & g0)',
      'Pn = nand(p0, p1, p2, p3)',
    ].join('\n'),
    families: ['74', 'S', 'F', 'HC', 'HCT'],
    caveat: 'Generate and propagate are low-active, the carries high-active; stage 0 sits on pins 3 and 4, not first.',
  },
  {
    base: '74280',
    title: '9-bit parity generator',
    group,
    aliases: 'odd even checker',
    pins: 'G H NC I EVEN ODD GND A B C D E F VCC',
    behaviour: 'ODD = xor(A, B, C, D, E, F, G, H, I)\nEVEN = xnor(A, B, C, D, E, F, G, H, I)',
    families: ['LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'],
    caveat: 'EVEN is high when an even number of inputs is high: an input left open counts.',
  },
  {
    base: '74283',
    title: '4-bit full adder',
    group,
    aliases: 'binary sum carry',
    pins: 'S2 B2 A2 S1 A1 B1 C0 GND C4 S4 B4 A4 S3 A3 B3 VCC',
    behaviour: adder,
    families: ['74', 'LS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'],
    caveat:
      'Bits count from 1 and lie scattered: S1 is pin 4, S2 pin 1. Carry in (pin 7) must be tied low when unused.',
  },
  {
    base: '74682',
    title: '8-bit magnitude comparator, outputs low',
    group,
    aliases: 'compare words greater equal',
    pins: 'PGn P0 Q0 P1 Q1 P2 Q2 P3 Q3 GND P4 Q4 P5 Q5 P6 Q6 P7 Q7 PEn VCC',
    behaviour: [
      ...[0, 1, 2, 3, 4, 5, 6, 7].map((k) => `e${k} = xnor(P${k}, Q${k})`),
      'PEn = nand(e0, e1, e2, e3, e4, e5, e6, e7)',
      'g0 = P0 & ~Q0',
      ...[1, 2, 3, 4, 5, 6, 7].map((k) => `g${k} = P${k} & ~Q${k} | e${k} & g${k - 1}`),
      'PGn = ~g7',
    ].join('\n'),
    pulledUp: 'Q0 Q1 Q2 Q3 Q4 Q5 Q6 Q7',
    families: ['LS'],
    drive: { LS: [24, 0.4] },
    caveat:
      'Its Q inputs have pull-ups of their own, for switches. Pin 1 says P above Q, pin 19 P equal to Q; both low.',
  },
  {
    base: '74688',
    title: '8-bit identity comparator, output low',
    group,
    aliases: 'compare words equal address',
    pins: 'Gn P0 Q0 P1 Q1 P2 Q2 P3 Q3 GND P4 Q4 P5 Q5 P6 Q6 P7 Q7 PEn VCC',
    behaviour: [
      ...[0, 1, 2, 3, 4, 5, 6, 7].map((k) => `e${k} = xnor(P${k}, Q${k})`),
      'PEn = nand(~Gn, e0, e1, e2, e3, e4, e5, e6, e7)',
    ].join('\n'),
    families: ['LS', 'ALS', 'HC', 'HCT'],
    drive: { LS: [24, 0.4], ALS: [24, 2.6] },
    caveat: 'The output is low where both words are equal and the enable is low.',
  },
];
