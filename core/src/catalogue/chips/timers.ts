import { type ChipData, type PulseTimer, type TimerDivider, ttl, units } from './chip-data';

/**
 * One-shots and timers. Source: data sheets SN74121, SN74LS122, 123, CD74HC4538, SN74LS221, NE555, NE556. The logic is
 * stated here; how long a pulse lasts follows from a resistor and a capacitor. Of the 555, TRIG reads
 * low below a third of the supply and THRES high above two thirds.
 */
const group = 'timers';
const twinPins = '1A 1B 1CLRn 1Qn 2Q 2CX 2RCX GND 2A 2B 2CLRn 2Qn 1Q 1CX 1RCX VCC';
const twinAnalogue = '1CX 1RCX 2CX 2RCX';
const timers555 = (u: string): string =>
  `${u}s = 0 while ${u}THRES clear ~${u}RESETn preset ~${u}TRIG\n${u}OUT = ${u}s\n${u}DISCH = ${u}s open`;

/** The two one-shots of a 74123 or 74221. */
const twins = (rest: Pick<PulseTimer, 'lengths' | 'retriggers'>): PulseTimer[] =>
  ['1', '2'].map((n) => ({ input: `${n}T`, output: `${n}Q`, resistor: `${n}RCX`, capacitor: `${n}CX`, ...rest }));

/** The one-shot of a 74121 or 74122, with the resistor that the chip brings along. */
const single = (ohms: number, rest: Pick<PulseTimer, 'lengths' | 'retriggers'>): PulseTimer[] => [
  { input: 'T', output: 'Q', resistor: 'RCX', capacitor: 'CX', own: { pin: 'RINT', ohms }, ...rest },
];

/** Three equal resistors from supply to ground, of 5 kΩ, as in the NE555's schematic; the tap is two of them up. */
const divider = (u: string): TimerDivider => ({
  tap: `${u}CONT`,
  aboveOhms: 5000,
  belowOhms: 10_000,
  compares: { [`${u}THRES`]: 1, [`${u}TRIG`]: 0.5 },
  pulse: {
    begins: `${u}TRIG`,
    ends: `${u}THRES`,
    clears: `${u}RESETn`,
    output: `${u}OUT`,
    empties: `${u}DISCH`,
  },
});

/** Reset acts under 0.3 V and lets go over 1 V, typically at 0.7 V (NE555). */
const resetV = [0.3, 1] as const;
/** From trigger to output. Source: NE555 data sheet, rise and fall of 100 ns typically, 300 ns at most. */
const timerNs = [100, 300] as const;

/** The natural logarithm of 2, to the two digits of the data sheets. */
const half = { factor: 0.7 };

/** The retriggerable ones of TTL. */
const retriggered: PulseTimer['lengths'] = { '74': { factor: 0.28, plusOhms: 700 }, LS: { factor: 0.45 } };

/** Timers and one-shots; sources stand at the head of this file. */
export const timers: readonly ChipData[] = [
  {
    base: '74121',
    title: 'one-shot',
    group,
    aliases: 'monostable multivibrator pulse',
    pins: 'Qn NC A1 A2 B Q GND NC RINT CX RCX NC NC VCC',
    behaviour: 't = (~A1 | ~A2) & B\ns = 1 at rise t clear T\nQ = s\nQn = ~s',
    analogue: 'RINT CX RCX',
    timers: single(2000, { lengths: { '74': half } }),
    families: ['74'],
    caveat: 'Not retriggerable: edges during the pulse are lost. The complement is pin 1, the output pin 6.',
  },
  {
    base: '74122',
    title: 'retriggerable one-shot with clear',
    group,
    aliases: 'monostable multivibrator pulse',
    pins: 'A1 A2 B1 B2 CLRn Qn GND Q RINT NC CX NC RCX VCC',
    behaviour: 't = (~A1 | ~A2) & B1 & B2 & CLRn\ns = 1 at rise t clear ~CLRn clear T\nQ = s\nQn = ~s',
    analogue: 'RINT CX RCX',
    timers: single(10_000, { retriggers: true, lengths: retriggered }),
    families: ['74', 'LS'],
    caveat: 'A new trigger lengthens the pulse, and clear going high triggers too if the inputs ask for it.',
  },
  {
    base: '74123',
    title: 'two retriggerable one-shots with clear',
    group,
    aliases: 'monostable multivibrator pulse',
    pins: twinPins,
    behaviour: units(2, '1t = ~1A & 1B & 1CLRn\n1s = 1 at rise 1t clear ~1CLRn clear 1T\n1Q = 1s\n1Qn = ~1s'),
    analogue: twinAnalogue,
    timers: twins({
      retriggers: true,
      lengths: { ...retriggered, HC: { factor: 0.45 }, HCT: { factor: 0.45 } },
    }),
    families: ['74', 'LS', 'HC', 'HCT'],
    caveat: 'A new trigger lengthens the pulse, and clear going high triggers too if A is low and B high.',
  },
  {
    base: '74221',
    title: 'two one-shots with clear',
    group,
    aliases: 'monostable multivibrator pulse schmitt',
    pins: twinPins,
    behaviour: units(2, '1t = ~1A & 1B & 1CLRn\n1s = 1 at rise 1t clear ~1CLRn clear 1T\n1Q = 1s\n1Qn = ~1s'),
    analogue: twinAnalogue,
    timers: twins({ lengths: { '74': half, LS: half, HC: half, HCT: half } }),
    families: [...ttl, 'HC', 'HCT'],
    caveat: 'Pins as on the 74123, but it cannot be retriggered: the pulse always has its own length.',
  },
  {
    base: '4538',
    title: 'two precise retriggerable one-shots with clear',
    group,
    aliases: 'monostable multivibrator pulse',
    pins: '1CX 1RCX 1CLRn 1A 1Bn 1Q 1Qn GND 2Qn 2Q 2Bn 2A 2CLRn 2RCX 2CX VCC',
    behaviour: units(2, '1t = 1A | ~1Bn\n1s = 1 at rise 1t clear ~1CLRn clear 1T\n1Q = 1s\n1Qn = ~1s'),
    analogue: twinAnalogue,
    timers: twins({ retriggers: true, lengths: { HC: half, HCT: half } }),
    families: ['HC', 'HCT'],
    caveat:
      'A rising on A or a falling one on B̄ triggers; tie A low or B̄ high where it is not used. Clear does not trigger.',
  },
  {
    base: '555',
    title: 'timer',
    group,
    aliases: 'oscillator astable monostable clock pulse ne555 lm555',
    pins: 'GND TRIG OUT RESETn CONT THRES DISCH VCC',
    behaviour: timers555(''),
    analogue: 'CONT',
    dividers: [divider('')],
    levelsV: { RESETn: resetV },
    startsHigh: true,
    families: [],
    own: { supplyV: [4.5, 16], outputMa: [200, 200], absoluteMa: 225, delayNs: timerNs },
    openV: 16,
    caveat: 'Trigger acts low and wins over threshold; reset left open works until it does not: tie it to supply.',
  },
  {
    base: '556',
    title: 'two timers',
    group,
    aliases: 'oscillator astable monostable clock pulse ne556',
    pins: '1DISCH 1THRES 1CONT 1RESETn 1OUT 1TRIG GND 2TRIG 2OUT 2RESETn 2CONT 2THRES 2DISCH VCC',
    behaviour: `${timers555('1')}\n${timers555('2')}`,
    analogue: '1CONT 2CONT',
    dividers: [divider('1'), divider('2')],
    levelsV: { '1RESETn': resetV, '2RESETn': resetV },
    startsHigh: true,
    families: [],
    own: { supplyV: [4.5, 16], outputMa: [200, 200], absoluteMa: 225, delayNs: timerNs },
    openV: 16,
    caveat: 'Two 555s on one supply; the second runs the other way round the chip.',
  },
];
