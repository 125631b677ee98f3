import { type ChipData, forEach } from './chip-data';

/** Bus buffers and transceivers. Source: data sheets SN74LS/HC240, 241, 244, 245, 365, 367 and 541. */
const group = 'buffers';
const known = 'tri-state bus driver';
const octalPins = (second: string): string =>
  `1OEn 1A1 2Y4 1A2 2Y3 1A3 2Y2 1A4 2Y1 GND 2A1 1Y4 2A2 1Y3 2A3 1Y2 2A4 1Y1 ${second} VCC`;
const drive = {
  LS: [24, 15],
  ALS: [24, 15],
  AS: [64, 15],
  F: [64, 15],
  S: [64, 15],
  HC: [6, 6],
  HCT: [6, 6],
  AC: [24, 24],
  ACT: [24, 24],
} as const;
const families = ['LS', 'ALS', 'F', 'S', 'HC', 'HCT', 'AC', 'ACT'] as const;
const both = (line: string): string => `${forEach('1 2 3 4', line)}\n${forEach('1 2 3 4', line.replaceAll('1', '2'))}`;

/** Buffers and bus drivers; sources stand at the head of this file. */
export const buffers: readonly ChipData[] = [
  {
    base: '74240',
    title: 'eight inverting buffers, three-state',
    group,
    aliases: known,
    pins: octalPins('2OEn'),
    behaviour: both('1Y@ = ~1A@ when ~1OEn'),
    families,
    drive,
    caveat: 'The two halves run against each other: inputs of one stand between outputs of the other.',
  },
  {
    base: '74241',
    title: 'eight buffers, three-state, one enable of each sense',
    group,
    aliases: known,
    pins: octalPins('2OE'),
    behaviour: `${forEach('1 2 3 4', '1Y@ = 1A@ when ~1OEn')}\n${forEach('1 2 3 4', '2Y@ = 2A@ when 2OE')}`,
    families,
    drive,
    caveat: 'Pin 1 enables low, pin 19 enables high: joined, they make the halves take turns.',
  },
  {
    base: '74244',
    title: 'eight buffers, three-state',
    group,
    aliases: known,
    pins: octalPins('2OEn'),
    behaviour: both('1Y@ = 1A@ when ~1OEn'),
    families,
    drive,
    caveat: 'The two halves run against each other: inputs of one stand between outputs of the other.',
  },
  {
    base: '74245',
    title: 'eight bus transceivers, three-state',
    group,
    aliases: `${known} bidirectional`,
    pins: 'DIR A1 A2 A3 A4 A5 A6 A7 A8 GND B8 B7 B6 B5 B4 B3 B2 B1 OEn VCC',
    behaviour: forEach('1 2 3 4 5 6 7 8', 'B@ = A@ when DIR & ~OEn\nA@ = B@ when ~DIR & ~OEn'),
    families,
    drive,
    caveat: 'Whichever side is output drives at once: turn the enable off before turning the direction.',
  },
  {
    base: '74365',
    title: 'six buffers, three-state, one enable',
    group,
    aliases: `hex ${known}`,
    pins: 'OE1n A1 Y1 A2 Y2 A3 Y3 GND Y4 A4 Y5 A5 Y6 A6 OE2n VCC',
    behaviour: forEach('1 2 3 4 5 6', 'Y@ = A@ when ~OE1n & ~OE2n'),
    families: ['74', 'LS', 'F', 'HC', 'HCT'],
    drive: { '74': [32, 5.2], ...drive },
    caveat: 'Both enables must be low; either one high lets all six float.',
  },
  {
    base: '74367',
    title: 'six buffers, three-state, in groups of four and two',
    group,
    aliases: `hex ${known}`,
    pins: '1OEn 1A1 1Y1 1A2 1Y2 1A3 1Y3 GND 1Y4 1A4 2Y1 2A1 2Y2 2A2 2OEn VCC',
    behaviour: `${forEach('1 2 3 4', '1Y@ = 1A@ when ~1OEn')}\n${forEach('1 2', '2Y@ = 2A@ when ~2OEn')}`,
    families: ['74', 'LS', 'F', 'HC', 'HCT'],
    drive: { '74': [32, 5.2], ...drive },
    caveat: 'Pin 1 enables four of them, pin 15 the other two, although the pins go round as if all were alike.',
  },
  {
    base: '74541',
    title: 'eight buffers, three-state, inputs opposite outputs',
    group,
    aliases: known,
    pins: 'OE1n A1 A2 A3 A4 A5 A6 A7 A8 GND Y8 Y7 Y6 Y5 Y4 Y3 Y2 Y1 OE2n VCC',
    behaviour: forEach('1 2 3 4 5 6 7 8', 'Y@ = A@ when ~OE1n & ~OE2n'),
    families: ['LS', 'ALS', 'F', 'HC', 'HCT', 'AC', 'ACT'],
    drive,
    caveat: 'Each output faces its input across the chip, so the outputs count down from pin 18.',
  },
];
