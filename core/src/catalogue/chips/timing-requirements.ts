import type { FamilyId } from '../family';

/** What a clock input needs, in nanoseconds and megahertz; null where the data sheet gives none. */
export interface ClockNeeds {
  readonly mostMhz: number;
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
}

type Edge = readonly [mostMhz: number, highNs: number | null, lowNs: number | null];
const needs = ([mostMhz, highNs, lowNs]: Edge): ClockNeeds => ({ mostMhz, highNs, lowNs });

/** Of a chip with one clock: the clock, the least clear, set-up and hold. */
function clocked(edge: Edge, clearNs: number | null, setUpNs: number, holdNs: number): TimingRequirements {
  return { clocks: { '*': needs(edge) }, clearNs, setUpNs, holdNs };
}

/** Of a ripple counter with two parts, each with a clock of its own. */
function rippling(a: Edge, b: Edge, clearNs: number): TimingRequirements {
  return { clocks: { CKA: needs(a), CKB: needs(b) }, clearNs, setUpNs: 0, holdNs: 0 };
}

type OfChips = Readonly<Record<string, TimingRequirements>>;

const pulseTriggered = clocked([15, 20, 47], 25, 0, 0);
const standardLoadable = clocked([25, 25, 25], 20, 20, 0);
const upAndDown = clocked([20, 25, 25], 35, 20, 0);
const standardRipple = rippling([32, 15, 15], [16, 30, 30], 15);

/** Standard TTL. Source: The TTL Data Book (Texas Instruments), recommended operating conditions. */
const standard: OfChips = {
  '7473': pulseTriggered,
  '7474': clocked([15, 30, 37], 30, 20, 5),
  '7476': pulseTriggered,
  '74107': pulseTriggered,
  '74109': clocked([25, 20, 20], 20, 10, 6),
  '74160': standardLoadable,
  '74161': standardLoadable,
  '74162': standardLoadable,
  '74163': standardLoadable,
  '74164': clocked([25, 20, 20], 20, 15, 5),
  '74174': clocked([25, 20, 20], 20, 20, 5),
  '74175': clocked([25, 20, 20], 20, 20, 5),
  '74192': clocked([25, 20, 20], 20, 0, 0),
  '74193': clocked([25, 20, 20], 20, 0, 0),
  '74194': clocked([25, 20, 20], 20, 20, 0),
  '74195': clocked([30, 16, 16], 12, 20, 0),
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
  '74160': lowPowerLoadable,
  '74161': lowPowerLoadable,
  '74162': lowPowerLoadable,
  '74163': lowPowerLoadable,
  '74164': clocked([25, 20, 20], 20, 15, 5),
  '74174': clocked([30, 20, 20], 20, 20, 5),
  '74175': clocked([30, 20, 20], 20, 20, 5),
  '74192': clocked([25, 20, 20], 20, 0, 0),
  '74193': clocked([25, 20, 20], 20, 0, 0),
  '74194': clocked([25, 20, 20], 20, 20, 0),
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

/** How long a clear or preset takes to reach the outputs, in nanoseconds; null where it takes as long as the clock. */
export function clearDelayOf(base: string, family: FamilyId): Readonly<Record<'typical' | 'most', number>> | null {
  const given = afterClear[family]?.[base];
  return given ? { typical: given[0], most: given[1] } : null;
}

const families: Readonly<Partial<Record<FamilyId, OfChips>>> = { '74': standard, LS: lowPower, HC: highSpeed };

/** What the data sheet of a chip asks of its inputs in a family; null where it stands here for none. */
export function timingRequirementsOf(base: string, family: FamilyId): TimingRequirements | null {
  return families[family]?.[base] ?? null;
}

/** The name of a pin without the number of its unit: `1CLRn` is `CLRn`. */
export const plainPinName = (name: string): string => name.replace(/^\d(?=[A-Z])/, '');

/** Whether an input clears or presets without the clock, by its name on data sheets. */
export const isClearOrPreset = (name: string): boolean => /^(CLR|PRE|R0\d|R9\d|MR)n?$/.test(plainPinName(name));
