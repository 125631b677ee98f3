/** A chip as a data sheet gives it: pins counted from 1, behaviour in the sheet language. */
export interface ChipData {
  readonly base: string;
  readonly title: string;
  /** Pin names from pin 1 up, counter-clockwise from the notch; VCC and GND are the supply pins. */
  readonly pins: string;
  readonly behaviour: string;
  /** What catches people out. */
  readonly catch: string;
}

const quad = 'in 1A 1B 2A 2B 3A 3B 4A 4B\nout 1Y 2Y 3Y 4Y\n';
const triple = 'in 1A 1B 1C 2A 2B 2C 3A 3B 3C\nout 1Y 2Y 3Y\n';
const dual = 'in 1A 1B 1C 1D 2A 2B 2C 2D\nout 1Y 2Y\n';

const quadPins = '1A 1B 1Y 2A 2B 2Y GND 3Y 3A 3B 4Y 4A 4B VCC';
const triplePins = '1A 1B 2A 2B 2C 2Y GND 3Y 3A 3B 3C 1Y 1C VCC';
const dualPins = '1A 1B NC 1C 1D 1Y GND 2Y 2A 2B NC 2C 2D VCC';

/**
 * The chips of the catalogue. Source: the SN74HC00, 02, 04, 08, 10, 11, 20, 21, 27, 30, 32 and 86 data
 * sheets, dual-in-line package, 14 pins.
 */
export const chips: readonly ChipData[] = [
  {
    base: '7400',
    title: 'four 2-input NANDs',
    pins: quadPins,
    behaviour: `${quad}1Y = nand(1A, 1B)\n2Y = nand(2A, 2B)\n3Y = nand(3A, 3B)\n4Y = nand(4A, 4B)`,
    catch: 'Upper row: outputs are pins 8 and 11, not the middle of each three counted from the notch.',
  },
  {
    base: '7402',
    title: 'four 2-input NORs',
    pins: '1Y 1A 1B 2Y 2A 2B GND 3A 3B 3Y 4A 4B 4Y VCC',
    behaviour: `${quad}1Y = nor(1A, 1B)\n2Y = nor(2A, 2B)\n3Y = nor(3A, 3B)\n4Y = nor(4A, 4B)`,
    catch: 'The outputs come first: pin 1 is an output here, an input on its neighbours.',
  },
  {
    base: '7404',
    title: 'six inverters',
    pins: '1A 1Y 2A 2Y 3A 3Y GND 4Y 4A 5Y 5A 6Y 6A VCC',
    behaviour:
      'in 1A 2A 3A 4A 5A 6A\nout 1Y 2Y 3Y 4Y 5Y 6Y\n1Y = ~1A\n2Y = ~2A\n3Y = ~3A\n4Y = ~4A\n5Y = ~5A\n6Y = ~6A',
    catch: 'In and out alternate; on the upper row the output comes before its input (8 from 9).',
  },
  {
    base: '7408',
    title: 'four 2-input ANDs',
    pins: quadPins,
    behaviour: `${quad}1Y = and(1A, 1B)\n2Y = and(2A, 2B)\n3Y = and(3A, 3B)\n4Y = and(4A, 4B)`,
    catch: 'Same pins as the NANDs of the 7400: easily confused, and each row of the table is the other way.',
  },
  {
    base: '7410',
    title: 'three 3-input NANDs',
    pins: triplePins,
    behaviour: `${triple}1Y = nand(1A, 1B, 1C)\n2Y = nand(2A, 2B, 2C)\n3Y = nand(3A, 3B, 3C)`,
    catch: 'The first gate straddles the chip: inputs 1, 2 and 13, output 12.',
  },
  {
    base: '7411',
    title: 'three 3-input ANDs',
    pins: triplePins,
    behaviour: `${triple}1Y = and(1A, 1B, 1C)\n2Y = and(2A, 2B, 2C)\n3Y = and(3A, 3B, 3C)`,
    catch: 'The first gate straddles the chip: inputs 1, 2 and 13, output 12.',
  },
  {
    base: '7420',
    title: 'two 4-input NANDs',
    pins: dualPins,
    behaviour: `${dual}1Y = nand(1A, 1B, 1C, 1D)\n2Y = nand(2A, 2B, 2C, 2D)`,
    catch: 'Pins 3 and 11 lead nowhere, in the middle of the inputs.',
  },
  {
    base: '7421',
    title: 'two 4-input ANDs',
    pins: dualPins,
    behaviour: `${dual}1Y = and(1A, 1B, 1C, 1D)\n2Y = and(2A, 2B, 2C, 2D)`,
    catch: 'Pins 3 and 11 lead nowhere, in the middle of the inputs.',
  },
  {
    base: '7427',
    title: 'three 3-input NORs',
    pins: triplePins,
    behaviour: `${triple}1Y = nor(1A, 1B, 1C)\n2Y = nor(2A, 2B, 2C)\n3Y = nor(3A, 3B, 3C)`,
    catch: 'The first gate straddles the chip: inputs 1, 2 and 13, output 12.',
  },
  {
    base: '7430',
    title: 'one 8-input NAND',
    pins: 'A B C D E F GND Y NC NC G H NC VCC',
    behaviour: 'in A B C D E F G H\nout Y\nY = nand(A, B, C, D, E, F, G, H)',
    catch: 'Inputs G and H sit on pins 11 and 12; pins 9, 10 and 13 lead nowhere.',
  },
  {
    base: '7432',
    title: 'four 2-input ORs',
    pins: quadPins,
    behaviour: `${quad}1Y = or(1A, 1B)\n2Y = or(2A, 2B)\n3Y = or(3A, 3B)\n4Y = or(4A, 4B)`,
    catch: 'Same pins as the 7400 and 7408: read the number before seating it.',
  },
  {
    base: '7486',
    title: 'four 2-input XORs',
    pins: quadPins,
    behaviour: `${quad}1Y = xor(1A, 1B)\n2Y = xor(2A, 2B)\n3Y = xor(3A, 3B)\n4Y = xor(4A, 4B)`,
    catch: 'Pins as on the 7400; the old low-power 74L86 has others.',
  },
];
