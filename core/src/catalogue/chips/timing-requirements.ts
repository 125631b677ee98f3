import type { FamilyId } from '../family';
import { nearestFamily, roundedNs, slower } from './nearest-family';

/** What a clock or trigger input needs, in nanoseconds and megahertz; null where the data sheet gives none. */
export interface ClockNeeds {
  readonly mostMhz: number | null;
  readonly highNs: number | null;
  readonly lowNs: number | null;
}

/**
 * What a chip that stores something needs of its inputs: its clocks by their pins' names without the number of the unit (`*` for those that
 * are not named), the least width of a clear, preset or load, and how long the others stand before and after the active edge. Nanoseconds.
 */
export interface TimingRequirements {
  readonly clocks: Readonly<Record<string, ClockNeeds>>;
  readonly clearNs: number | null;
  readonly setUpNs: number;
  readonly holdNs: number;
  /** The family whose data sheet they are worked out from; absent where they stand in the chip's own. */
  readonly workedOutFrom?: FamilyId;
}

type Edge = readonly [mostMhz: number | null, highNs: number | null, lowNs: number | null];
const needs = ([mostMhz, highNs, lowNs]: Edge): ClockNeeds => ({ mostMhz, highNs, lowNs });

/** Of a chip with one clock: the clock, the least clear, set-up and hold. */
function clocked(edge: Edge, clearNs: number | null, setUpNs: number, holdNs: number): TimingRequirements {
  return { clocks: { '*': needs(edge) }, clearNs, setUpNs, holdNs };
}

/** Of a ripple counter with two parts, each with a clock of its own. */
function rippling(a: Edge, b: Edge, clearNs: number): TimingRequirements {
  return { clocks: { CKA: needs(a), CKB: needs(b) }, clearNs, setUpNs: 0, holdNs: 0 };
}

/** Of a one-shot: the least width of its trigger pulses, and of its clear. */
const triggered = (ns: number, clearNs: number | null): TimingRequirements => clocked([null, ns, ns], clearNs, 0, 0);

type OfChips = Readonly<Record<string, TimingRequirements>>;

const pulseTriggered = clocked([15, 20, 47], 25, 0, 0);
const standardLoadable = clocked([25, 25, 25], 20, 20, 0);
const upAndDown = clocked([20, 25, 25], 35, 20, 0);
const standardRipple = rippling([32, 15, 15], [16, 30, 30], 15);

/** Standard TTL. Source: The TTL Data Book (Texas Instruments), recommended operating conditions. */
const standard: OfChips = {
  SN7473: pulseTriggered,
  '7474': clocked([15, 30, 37], 30, 20, 5),
  SN7476: pulseTriggered,
  SN74107: pulseTriggered,
  '74109': clocked([25, 20, 20], 20, 10, 6),
  '74121': triggered(50, null),
  '74123': triggered(40, 40),
  '74160': standardLoadable,
  '74161': standardLoadable,
  '74162': standardLoadable,
  '74163': standardLoadable,
  '74164': clocked([25, 20, 20], 20, 15, 5),
  '74165': clocked([20, 25, 25], 15, 20, 0),
  '74173': clocked([25, 20, 20], 20, 17, 10),
  '74174': clocked([25, 20, 20], 20, 20, 5),
  '74175': clocked([25, 20, 20], 20, 20, 5),
  '74192': clocked([25, 20, 20], 20, 0, 0),
  '74193': clocked([25, 20, 20], 20, 0, 0),
  '74194': clocked([25, 20, 20], 20, 20, 0),
  '74195': clocked([30, 16, 16], 12, 20, 0),
  '74221': triggered(50, 20),
  '74273': clocked([30, 16.5, 16.5], 16.5, 20, 5),
  '7490': standardRipple,
  '7492': standardRipple,
  '7493': standardRipple,
  '74290': standardRipple,
  '74293': standardRipple,
  '7495': clocked([25, 20, 20], null, 15, 0),
  '74166': clocked([25, 20, 20], 20, 20, 0),
  '74190': upAndDown,
  '74191': upAndDown,
  '7491': clocked([10, 25, 25], null, 25, 0),
  '7470': clocked([20, 20, 30], 25, 20, 5),
  '7472': pulseTriggered,
  '7494': clocked([10, 35, 35], 30, 35, 0),
  '74122': triggered(40, 40),
  '74199': clocked([25, 20, 20], 20, 30, 0),
  '74276': clocked([35, 13.5, 15], 12, 3, 10),
  '7496': clocked([10, 35, 35], 30, 30, 0),
  '74196': rippling([50, 10, 10], [25, 20, 20], 20),
  '74197': rippling([50, 10, 10], [25, 20, 20], 20),
  '74198': clocked([25, 20, 20], 20, 30, 0),
  '74298': clocked([null, 20, 20], null, 25, 5),
  '74490': clocked([25, 20, 20], 20, 0, 0),
};

const lowPowerJk = clocked([30, 20, null], 25, 20, 0);
const lowPowerLoadable = clocked([25, 25, 25], 20, 20, 3);
const lowPowerRipple = rippling([32, 15, 15], [16, 30, 30], 30);

/** Low-power Schottky. Source: as above. */
const lowPower: OfChips = {
  '7473': lowPowerJk,
  '7474': clocked([25, 25, null], 25, 20, 5),
  '7476': lowPowerJk,
  '74107': lowPowerJk,
  '74109': clocked([25, 25, null], 25, 35, 5),
  '74112': lowPowerJk,
  '74122': triggered(40, 40),
  '74123': triggered(40, 40),
  '74160': lowPowerLoadable,
  '74161': lowPowerLoadable,
  '74162': lowPowerLoadable,
  '74163': lowPowerLoadable,
  '74164': clocked([25, 20, 20], 20, 15, 5),
  '74165': clocked([25, 25, 25], 15, 20, 0),
  '74173': clocked([30, 25, 25], 25, 35, 3),
  '74174': clocked([30, 20, 20], 20, 20, 5),
  '74175': clocked([30, 20, 20], 20, 20, 5),
  '74192': clocked([25, 20, 20], 20, 0, 0),
  '74193': clocked([25, 20, 20], 20, 0, 0),
  '74194': clocked([25, 20, 20], 20, 20, 0),
  '74221': triggered(40, 40),
  '74273': clocked([30, 20, 20], 20, 20, 5),
  '74374': clocked([35, 15, 15], null, 20, 0),
  '74377': clocked([30, 20, 20], null, 20, 5),
  '7490': lowPowerRipple,
  '7492': lowPowerRipple,
  '7493': lowPowerRipple,
  '74290': lowPowerRipple,
  '74293': lowPowerRipple,
  '74390': rippling([25, 20, 20], [20, 25, 25], 20),
  '74393': clocked([25, 20, 20], 20, 0, 0),
  '7495': clocked([25, 20, 20], null, 20, 10),
  '74190': { ...upAndDown, holdNs: 5 },
  '74191': { ...upAndDown, holdNs: 5 },
  '74195': clocked([30, 16, 16], 12, 25, 0),
  '7491': clocked([10, 25, 25], null, 25, 0),
  '7496': clocked([10, 35, 35], 30, 30, 0),
  '74113': lowPowerJk,
  '74168': clocked([25, 20, 20], null, 35, 0),
  '74169': clocked([25, 20, 20], null, 35, 0),
  '74196': rippling([30, 15, 15], [15, 30, 30], 20),
  '74197': rippling([30, 15, 15], [15, 30, 30], 20),
  '74298': clocked([null, 20, 20], null, 25, 5),
  '74299': clocked([25, 30, 10], 20, 35, 0),
  '74646': clocked([null, 15, 15], null, 15, 0),
  '74378': clocked([30, 20, 20], null, 20, 5),
  '74379': clocked([30, 20, 20], null, 20, 5),
  '74490': clocked([25, 20, 20], 20, 0, 0),
  '74590': { clocks: { CCLK: needs([20, 25, 25]), RCLK: needs([null, 20, 20]) }, clearNs: 20, setUpNs: 20, holdNs: 0 },
  '74597': { clocks: { SCLK: needs([20, 25, 25]), RCLK: needs([null, 20, 20]) }, clearNs: 20, setUpNs: 20, holdNs: 0 },
};

const highSpeedFlipFlop = clocked([31, 16, 16], 20, 20, 0);
const highSpeedEdge = needs([31, 16, 16]);
const longRipple = clocked([28, 18, 18], 14, 0, 0);
const highSpeedLoadable = clocked([31, 16, 16], 16, 30, 0);

/** High-speed CMOS, HC. Source: data sheets of Texas Instruments, timing requirements at 4.5 V and 25 °C. */
const highSpeed: OfChips = {
  '7474': highSpeedFlipFlop,
  '74109': highSpeedFlipFlop,
  '74112': highSpeedFlipFlop,
  '74123': triggered(20, 20),
  '74160': highSpeedLoadable,
  '74161': highSpeedLoadable,
  '74162': highSpeedLoadable,
  '74163': highSpeedLoadable,
  '74164': clocked([31, 16, 16], 20, 20, 5),
  '74174': clocked([31, 16, 16], 16, 20, 5),
  '74175': clocked([31, 16, 16], 16, 20, 5),
  '74273': clocked([27, 16, 16], 16, 20, 0),
  '74374': clocked([30, 16, 16], null, 20, 5),
  '74377': clocked([30, 16, 16], null, 20, 5),
  '74393': clocked([31, 16, 16], 16, 0, 0),
  '74574': clocked([30, 16, 16], null, 20, 5),
  '74193': clocked([21, 24, 24], 24, 22, 5),
  '74595': { clocks: { SRCLK: highSpeedEdge, RCLK: highSpeedEdge }, clearNs: 16, setUpNs: 20, holdNs: 0 },
  '4020': longRipple,
  '4040': longRipple,
  '4060': longRipple,
  '4017': clocked([30, 16, 16], 16, 10, 10),
  '4015': clocked([30, 16, 16], 16, 12, 5),
  '4538': triggered(16, 16),
  '74299': clocked([27, 19, 19], 19, 25, 0),
  '74646': clocked([27, 19, 19], null, 20, 5),
  '4024': longRipple,
  '4094': clocked([30, 16, 16], null, 10, 3),
  '4518': clocked([30, 16, 16], 16, 16, 0),
  '4520': clocked([30, 16, 16], 16, 16, 0),
  '74564': clocked([30, 16, 16], null, 20, 5),
};

/** High-speed CMOS with TTL levels. Source: High-speed CMOS data handbook (Philips), 4.5 V and 25 °C. */
const highSpeedTtlLevels: OfChips = {
  '7474': clocked([27, 18, 18], 16, 12, 3),
  '74164': clocked([27, 18, 18], 18, 12, 4),
  '74174': clocked([30, 20, 20], 20, 16, 5),
  '74175': clocked([25, 20, 20], 20, 16, 5),
  '74273': clocked([30, 16, 16], 16, 12, 3),
  '74374': clocked([26, 19, 19], null, 12, 5),
  '74595': { clocks: { SRCLK: needs([30, 16, 16]), RCLK: needs([30, 16, 16]) }, clearNs: 20, setUpNs: 16, holdNs: 3 },
};

const advancedLowPowerLoadable = clocked([40, 12.5, 12.5], 15, 15, 0);
const advancedLowPowerRegister = clocked([50, 10, 10], 10, 10, 0);
const advancedLowPowerUpDown = clocked([30, 16.5, 16.5], 20, 20, 5);

/** Advanced low-power Schottky. Source: ALS/AS Logic Data Book (Texas Instruments), recommended operating conditions. */
const advancedLowPower: OfChips = {
  '7474': clocked([34, 14.5, 14.5], 15, 15, 0),
  '74109': clocked([34, 14.5, 14.5], 15, 15, 0),
  '74112': clocked([30, 16.5, 16.5], 10, 22, 0),
  '74160': advancedLowPowerLoadable,
  '74161': advancedLowPowerLoadable,
  '74162': advancedLowPowerLoadable,
  '74163': advancedLowPowerLoadable,
  '74174': advancedLowPowerRegister,
  '74175': advancedLowPowerRegister,
  '74190': advancedLowPowerUpDown,
  '74191': advancedLowPowerUpDown,
  '74192': advancedLowPowerUpDown,
  '74193': advancedLowPowerUpDown,
  '74273': clocked([35, 14, 14], 10, 10, 0),
  '74374': clocked([35, 14, 14], null, 10, 0),
  '74534': clocked([35, 14, 14], null, 10, 0),
  '74564': clocked([35, 14, 14], null, 15, 0),
};

/** Advanced Schottky. Source: as above. */
const advancedSchottky: OfChips = {
  '7474': clocked([105, 4, 5.5], 4, 4.5, 0),
  '74109': clocked([105, 4, 5.5], 4, 5.5, 0),
  '74161': clocked([75, 6.7, 6.7], 8, 8, 0),
  '74163': clocked([75, 6.7, 6.7], 8, 8, 0),
  '74174': clocked([100, 4, 6], 5, 4, 1),
  '74175': clocked([100, 4, 5], 5, 3, 1),
  '74374': clocked([125, 4, 3], null, 2, 2),
  '74574': clocked([125, 4, 3], null, 2, 2),
};

const schottkyRegister = clocked([75, 7, 7], 10, 5, 3);
const schottkyLoadable = clocked([40, 10, 10], 10, 14, 3);

/** Schottky. Source: The TTL Data Book (Texas Instruments), recommended operating conditions. */
const schottky: OfChips = {
  '7474': clocked([75, 6, 7.3], 7, 3, 2),
  '74112': clocked([80, 6, 6.5], 8, 3, 0),
  '74162': schottkyLoadable,
  '74163': schottkyLoadable,
  '74174': schottkyRegister,
  '74175': schottkyRegister,
  '74194': clocked([70, 7, 7], 12, 11, 3),
  '74374': clocked([75, 6, 7.3], null, 5, 2),
  '74113': clocked([80, 6, 6.5], 8, 3, 0),
};

/** Fast. Source: FAST data book (Fairchild), 25 °C. */
const fast: OfChips = {
  '7474': clocked([100, 4, 5], 4, 3, 1),
  '74109': clocked([90, 4, 5], 4, 3, 1),
  '74112': clocked([85, 4.5, 4.5], 4.5, 4, 0),
  '74161': clocked([100, 5, 6], 5, 5, 2),
  '74163': clocked([100, 5, 6], 5, 5, 2),
  '74175': clocked([100, 4, 5], 5, 3, 1),
  '74374': clocked([100, 7, 6], null, 2, 2),
};

/** Advanced CMOS. Source: FACT data book (Fairchild), 5 V and 25 °C. */
const advanced: OfChips = {
  '7474': clocked([140, 4.5, 4.5], 4.5, 3, 0.5),
  '74174': clocked([100, 5, 5], 5, 5, 3),
  '74273': clocked([140, 4, 4], 4, 4, 1),
  '74374': clocked([100, 4, 4], null, 4, 1.5),
};

/** Advanced CMOS with TTL levels. Source: as above. */
const advancedTtlLevels: OfChips = {
  '7474': clocked([145, 5, 5], 5, 3, 1),
  '74273': clocked([125, 4, 4], 4, 3.5, 1.5),
  '74374': clocked([100, 5, 5], null, 5, 1.5),
};

/** From a clear, preset or load to the output, typical and greatest, where it is another time than from the clock. Sources: as above. */
const afterClear: Readonly<
  Partial<Record<FamilyId, Readonly<Record<string, readonly [typical: number, most: number]>>>>
> = {
  '74': {
    '74160': [26, 38],
    '74161': [26, 38],
    '74164': [24, 36],
    '74174': [23, 35],
    '74175': [23, 35],
    '74192': [22, 35],
    '74193': [22, 35],
    '74194': [19, 30],
    '74173': [18, 27],
    '74195': [19, 30],
    '7490': [26, 40],
    '7492': [26, 40],
    '7493': [26, 40],
    '74290': [26, 40],
    '74293': [26, 40],
  },
  LS: {
    '74160': [20, 28],
    '74161': [20, 28],
    '74164': [24, 36],
    '74174': [23, 35],
    '74173': [26, 35],
    '74175': [20, 30],
    '74192': [23, 35],
    '74193': [23, 35],
    '74194': [19, 30],
    '7490': [26, 40],
    '7492': [26, 40],
    '7493': [26, 40],
    '74290': [26, 40],
    '74293': [26, 40],
    '74390': [24, 39],
    '74393': [24, 39],
  },
  HC: {
    '7474': [20, 46],
    '74112': [16, 33],
    '74161': [21, 42],
    '74164': [28, 41],
    '74174': [17, 32],
    '74273': [15, 32],
    '74393': [17, 33],
    '74595': [18, 35],
  },
};

/**
 * How long a clear or preset takes to reach the outputs, in nanoseconds: by the data sheet, or worked out from that of the nearest family; null
 * where it takes as long as the clock.
 */
export function clearDelayOf(base: string, family: FamilyId): Readonly<Record<'typical' | 'most', number>> | null {
  const from = nearestFamily(family, (id) => afterClear[id]?.[base] !== undefined);
  const given = from && afterClear[from]?.[base];
  if (!given) return null;
  const by = slower(from, family);
  return { typical: roundedNs(given[0] * by), most: roundedNs(given[1] * by) };
}

const tables: Readonly<Record<FamilyId, OfChips>> = {
  '74': standard,
  LS: lowPower,
  ALS: advancedLowPower,
  AS: advancedSchottky,
  S: schottky,
  F: fast,
  HC: highSpeed,
  HCT: highSpeedTtlLevels,
  AC: advanced,
  ACT: advancedTtlLevels,
};

/** What is asked in another family: its times as much longer as its gates are slower, its clock as much slower. */
function scaled(given: TimingRequirements, from: FamilyId, to: FamilyId): TimingRequirements {
  const by = slower(from, to);
  const longer = (ns: number): number => roundedNs(ns * by);
  const maybe = (ns: number | null): number | null => (ns === null ? null : longer(ns));
  const clocks = Object.entries(given.clocks).map(([pin, { mostMhz, highNs, lowNs }]) => [
    pin,
    { mostMhz: mostMhz === null ? null : Math.round(mostMhz / by), highNs: maybe(highNs), lowNs: maybe(lowNs) },
  ]);
  return {
    clocks: Object.fromEntries(clocks),
    clearNs: maybe(given.clearNs),
    setUpNs: longer(given.setUpNs),
    holdNs: longer(given.holdNs),
    workedOutFrom: from,
  };
}

/**
 * What the data sheet of a chip asks of its inputs in a family; where that is not at hand, what the nearest family's asks, as much longer or
 * shorter as its gates are slower or faster. Null where none is at hand.
 */
export function timingRequirementsOf(base: string, family: FamilyId): TimingRequirements | null {
  const from = nearestFamily(family, (id) => tables[id][base] !== undefined);
  const given = from && tables[from][base];
  if (!given || from === family) return given ?? null;
  return scaled(given, from, family);
}

/** The name of a pin without the number of its unit: `1CLRn` is `CLRn`. */
export const plainPinName = (name: string): string => name.replace(/^\d(?=[A-Z])/, '');

/** Whether an input clears or presets without the clock, by its name on data sheets. */
export const isClearOrPreset = (name: string): boolean => /^(CLR|PRE|R0\d|R9\d|MR)n?$/.test(plainPinName(name));
