import { type ChipData, cmos, units } from './chip-data';
import { lines, product } from './selectors';

/**
 * Analogue switches: contacts between two pins that a level moves and that carry volts both ways. In the behaviour the name of a pin says when it is
 * joined to its other end. Source: data sheets CD74HC4051, 4052, 4053, 4066 and HCT (Texas Instruments).
 */
const group = 'analogue switches';

/** Each contact by the pin that has it alone, and the pin at its other end. */
const ends = (pairs: string): Readonly<Record<string, string>> =>
  Object.fromEntries(pairs.split(' ').map((pair) => pair.split('-') as [string, string]));

/** A contact of the 4051 to 4053 can close: it is enabled, and the negative supply is at ground. */
const READY = '~ENn & ~VEE';

const negative = 'VEE belongs at ground unless there is a negative supply; volts between VEE and VCC pass both ways.';

/** The analogue switches of the 4000 series in HC and HCT. */
export const analogueSwitches: readonly ChipData[] = [
  {
    base: '4051',
    title: 'analogue selector, one of 8',
    group,
    aliases: 'multiplexer demultiplexer mux switch bilateral channel',
    pins: 'Y4 Y6 Z Y7 Y5 ENn VEE GND S2 S1 S0 Y3 Y0 Y1 Y2 VCC',
    behaviour: lines(8, (k) => `Y${k} = ${READY} & ${product('S2 S1 S0', k)}`),
    contacts: { joins: ends('Y0-Z Y1-Z Y2-Z Y3-Z Y4-Z Y5-Z Y6-Z Y7-Z'), ohms: 70 },
    families: cmos,
    caveat: `The chosen pin is joined to Z, not driven. ${negative}`,
  },
  {
    base: '4052',
    title: 'two analogue selectors, one of 4',
    group,
    aliases: 'multiplexer demultiplexer mux switch bilateral channel differential',
    pins: '2Y0 2Y2 2Z 2Y3 2Y1 ENn VEE GND S1 S0 1Y3 1Y0 1Z 1Y1 1Y2 VCC',
    behaviour: units(
      2,
      lines(4, (k) => `1Y${k} = ${READY} & ${product('S1 S0', k)}`),
    ),
    contacts: { joins: ends('1Y0-1Z 1Y1-1Z 1Y2-1Z 1Y3-1Z 2Y0-2Z 2Y1-2Z 2Y2-2Z 2Y3-2Z'), ohms: 70 },
    families: cmos,
    caveat: `Both halves go by the same two select pins. ${negative}`,
  },
  {
    base: '4053',
    title: 'three analogue change-over switches',
    group,
    aliases: 'multiplexer demultiplexer mux bilateral channel selector',
    pins: '2Y1 2Y0 3Y1 3Z 3Y0 ENn VEE GND S3 S2 S1 1Y0 1Y1 1Z 2Z VCC',
    behaviour: [1, 2, 3].map((n) => `${n}Y0 = ${READY} & ~S${n}\n${n}Y1 = ${READY} & S${n}`).join('\n'),
    contacts: { joins: ends('1Y0-1Z 1Y1-1Z 2Y0-2Z 2Y1-2Z 3Y0-3Z 3Y1-3Z'), ohms: 70 },
    families: cmos,
    caveat: `Each switch has a select pin of its own; one enable opens all three. ${negative}`,
  },
  {
    base: '4066',
    title: 'four analogue switches',
    group,
    aliases: 'bilateral transmission gate contact',
    pins: '1Y 1Z 2Z 2Y 2E 3E GND 3Y 3Z 4Z 4Y 4E 1E VCC',
    behaviour: units(4, '1Y = 1E'),
    contacts: { joins: ends('1Y-1Z 2Y-2Z 3Y-3Z 4Y-4Z'), ohms: 45 },
    families: cmos,
    caveat: 'A switch that is open leaves what hangs on it floating: give it a resistor to a rail.',
  },
];
