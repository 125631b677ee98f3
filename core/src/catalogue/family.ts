import { elementAt } from '../element-at';

/** A logic family's letters, as they stand in a part number; `74` is the first family, with none. */
export type FamilyId = '74' | 'LS' | 'ALS' | 'AS' | 'F' | 'S' | 'HC' | 'HCT' | 'AC' | 'ACT';

/**
 * What all parts of a family share: volts, milliamperes, microamperes, nanoseconds and degrees Celsius. Levels and currents hold at `levelsAtV`: of
 * TTL over its whole range of temperature, of CMOS at 25 °C, a bench's, with `overRange` for the rest. Delays are those of the 2-input NAND at
 * `delaysAtV` and 25 °C into `delayPf`.
 */
export interface Family {
  readonly id: FamilyId;
  readonly title: string;
  readonly technology: 'TTL' | 'CMOS';
  readonly nominalV: number;
  readonly supplyV: readonly [least: number, most: number];
  readonly absoluteMaxV: number;
  /** The supply at which the levels are given. */
  readonly levelsAtV: number;
  /** Highest input read as low and lowest input read as high. */
  readonly inputLowV: number;
  readonly inputHighV: number;
  /** Output levels still guaranteed at `outputMa`. */
  readonly outputLowV: number;
  readonly outputHighV: number;
  /** Output current at which the levels are still guaranteed: sunk low, given high. */
  readonly outputMa: { readonly low: number; readonly high: number };
  /** The most an output may ever carry, where the data sheet gives it. */
  readonly absoluteOutputMa: number | null;
  /** Current of one input: out of it when low, into it when high. */
  readonly inputUa: { readonly low: number; readonly high: number };
  readonly delayNs: { readonly typical: number; readonly most: number };
  readonly delaysAtV: number;
  readonly delayPf: number;
  /** The air in which it works. */
  readonly celsius: readonly [least: number, most: number];
  /** What is guaranteed from `celsius` to `celsius`, where the levels and currents above are those of 25 °C. */
  readonly overRange: { readonly outputLowV: number; readonly outputHighV: number; readonly inputUa: number } | null;
  /** How an input left open reads. */
  readonly openInput: 'unknown' | 'high';
}

const ttl = {
  technology: 'TTL',
  nominalV: 5,
  absoluteMaxV: 7,
  absoluteOutputMa: null,
  openInput: 'high',
  delaysAtV: 5,
  delayPf: 15,
  celsius: [0, 70],
  overRange: null,
} as const;
const ttlLevels = { inputLowV: 0.8, inputHighV: 2 } as const;
const cmos = {
  technology: 'CMOS',
  nominalV: 5,
  levelsAtV: 4.5,
  openInput: 'unknown',
  delaysAtV: 4.5,
  delayPf: 50,
  celsius: [-40, 85],
} as const;
const overRange = { outputLowV: 0.33, outputHighV: 3.84, inputUa: 1 } as const;
const advancedOverRange = { outputLowV: 0.44, outputHighV: 3.76, inputUa: 1 } as const;
const cmosLevels = { inputLowV: 1.35, inputHighV: 3.15 } as const;
const wide = [2, 6] as const;
const narrow = [4.5, 5.5] as const;
const narrowest = [4.75, 5.25] as const;

/**
 * Source: the data sheets of the 2-input NAND of each family: SN7400, SN74LS00, SN74ALS00A, SN74AS00, SN74F00,
 * SN74S00, SN74HC00, SN74HCT00, SN74AC00, SN74ACT00; commercial range.
 */
export const families: Readonly<Record<FamilyId, Family>> = {
  '74': {
    ...ttl,
    ...ttlLevels,
    id: '74',
    title: 'standard TTL',
    supplyV: narrowest,
    levelsAtV: 4.75,
    outputLowV: 0.4,
    outputHighV: 2.4,
    outputMa: { low: 16, high: 0.4 },
    inputUa: { low: 1600, high: 40 },
    delayNs: { typical: 10, most: 22 },
  },
  LS: {
    ...ttl,
    ...ttlLevels,
    id: 'LS',
    title: 'low-power Schottky TTL',
    supplyV: narrowest,
    levelsAtV: 4.75,
    outputLowV: 0.5,
    outputHighV: 2.7,
    outputMa: { low: 8, high: 0.4 },
    inputUa: { low: 400, high: 20 },
    delayNs: { typical: 9, most: 15 },
  },
  ALS: {
    ...ttl,
    ...ttlLevels,
    id: 'ALS',
    title: 'advanced low-power Schottky TTL',
    supplyV: narrow,
    levelsAtV: 4.5,
    outputLowV: 0.5,
    outputHighV: 2.5,
    outputMa: { low: 8, high: 0.4 },
    inputUa: { low: 100, high: 20 },
    delayPf: 50,
    delayNs: { typical: 5, most: 11 },
  },
  AS: {
    ...ttl,
    ...ttlLevels,
    id: 'AS',
    title: 'advanced Schottky TTL',
    supplyV: narrow,
    levelsAtV: 4.5,
    outputLowV: 0.5,
    outputHighV: 2.5,
    outputMa: { low: 20, high: 2 },
    inputUa: { low: 500, high: 20 },
    delayPf: 50,
    delayNs: { typical: 2.7, most: 4.5 },
  },
  F: {
    ...ttl,
    ...ttlLevels,
    id: 'F',
    title: 'fast TTL',
    supplyV: narrow,
    levelsAtV: 4.5,
    outputLowV: 0.5,
    outputHighV: 2.5,
    outputMa: { low: 20, high: 1 },
    inputUa: { low: 600, high: 20 },
    delayPf: 50,
    delayNs: { typical: 3.7, most: 6 },
  },
  S: {
    ...ttl,
    ...ttlLevels,
    id: 'S',
    title: 'Schottky TTL',
    supplyV: narrowest,
    levelsAtV: 4.75,
    outputLowV: 0.5,
    outputHighV: 2.7,
    outputMa: { low: 20, high: 1 },
    inputUa: { low: 2000, high: 50 },
    delayNs: { typical: 3, most: 5 },
  },
  HC: {
    ...cmos,
    ...cmosLevels,
    id: 'HC',
    title: 'high-speed CMOS',
    supplyV: wide,
    absoluteMaxV: 7,
    outputLowV: 0.26,
    outputHighV: 3.98,
    outputMa: { low: 4, high: 4 },
    absoluteOutputMa: 25,
    overRange,
    inputUa: { low: 0.1, high: 0.1 },
    delayNs: { typical: 9, most: 18 },
  },
  HCT: {
    ...cmos,
    ...ttlLevels,
    id: 'HCT',
    title: 'high-speed CMOS, TTL levels',
    supplyV: narrow,
    absoluteMaxV: 7,
    outputLowV: 0.26,
    outputHighV: 3.98,
    outputMa: { low: 4, high: 4 },
    absoluteOutputMa: 25,
    overRange,
    inputUa: { low: 0.1, high: 0.1 },
    delayNs: { typical: 11, most: 20 },
  },
  AC: {
    ...cmos,
    ...cmosLevels,
    id: 'AC',
    title: 'advanced CMOS',
    supplyV: wide,
    absoluteMaxV: 7,
    outputLowV: 0.36,
    outputHighV: 3.86,
    outputMa: { low: 24, high: 24 },
    absoluteOutputMa: 50,
    overRange: advancedOverRange,
    inputUa: { low: 0.1, high: 0.1 },
    delaysAtV: 5,
    delayNs: { typical: 6, most: 8 },
  },
  ACT: {
    ...cmos,
    ...ttlLevels,
    id: 'ACT',
    title: 'advanced CMOS, TTL levels',
    supplyV: narrow,
    absoluteMaxV: 7,
    outputLowV: 0.36,
    outputHighV: 3.86,
    outputMa: { low: 24, high: 24 },
    absoluteOutputMa: 50,
    overRange: advancedOverRange,
    inputUa: { low: 0.1, high: 0.1 },
    delaysAtV: 5,
    delayNs: { typical: 5.5, most: 9 },
  },
};

/**
 * Where Schmitt inputs of a family switch, typically: going down and going up, in volts; CMOS at `levelsAtV`, and in proportion to the supply. Sources: data
 * sheets of the 7414, 74LS14, 74F14, 74HC14, 74HCT14, of the 74S132, and for AC and ACT the middle of the limits of the 74AC14 and 74ACT14.
 */
export const schmittLevels: Readonly<Partial<Record<FamilyId, { readonly fallsV: number; readonly risesV: number }>>> =
  {
    '74': { fallsV: 0.9, risesV: 1.7 },
    LS: { fallsV: 0.8, risesV: 1.6 },
    F: { fallsV: 0.9, risesV: 1.7 },
    S: { fallsV: 1.22, risesV: 1.77 },
    HC: { fallsV: 1.4, risesV: 2.38 },
    HCT: { fallsV: 0.85, risesV: 1.41 },
    AC: { fallsV: 1.6, risesV: 2.6 },
    ACT: { fallsV: 1, risesV: 1.6 },
  };

/** The families in the order they came. */
export const familyIds = Object.keys(families) as readonly FamilyId[];

/** Part numbers that are not of the 74 series. */
const timers = /^(?:NE|SA|SE|LM|MC|TLC|ICM|CA|UA|KA|XR)?(555|556)(?:[A-Z][A-Z0-9/.-]*)?$/;
const memories = /^(?:AT|X|CAT|M)?(28C16)[A-Z]?(?:-\d+[A-Z]*)?$/;
const numbers = /^[A-Z]{0,4}(?:54|74)(ALS|AS|LS|S|F|HCT|HC|ACT|AC|)(\d{2,4})(?:[A-Z][A-Z0-9/.-]*)?$/;

/** Whether a base number is of the 4000 series, which in HC and HCT keeps its four digits: 74HC4017. */
const isFourThousand = (digits: string): boolean => digits.length === 4 && digits.startsWith('4');

/**
 * Numbers that in some families name another part: the plain 7473 is triggered by pulses, the 74LS73 by edges; the plain 7451 and the 74S51 have other pins than
 * the 74LS51. The base number of the older part is `SN7473`, as it is printed.
 */
const olderParts: Readonly<Record<string, readonly FamilyId[]>> = {
  '7451': ['74', 'S'],
  '7454': ['74'],
  '7473': ['74'],
  '7476': ['74'],
  '74107': ['74'],
};

/** The other base number under which the same number is printed in other families: `7473` of `SN7473` and the reverse; null when there is none. */
export function otherPartOf(base: string): string | null {
  if (base.startsWith('SN')) return base.slice(2);
  return olderParts[base] ? `SN${base}` : null;
}

/** Writes a part number as printed on the chip: `7400` of family HC is `74HC00`, `4017` is `74HC4017`. */
export function partNumber(base: string, family: FamilyId): string {
  const letters = family === '74' ? '' : family;
  if (isFourThousand(base)) return `74${letters}${base}`;
  const [, digits] = /^(?:SN)?74(\d+)$/.exec(base) ?? [];
  return digits === undefined ? base : `74${letters}${digits}`;
}

/**
 * Reads a part number however it is printed on a chip: maker's prefix, family letters, package suffix
 * (`SN74LS00N`, `MM74HC4017`, `DM7493AN`, `NE555P`). Gives its base number and family, null for the
 * family of a timer; null when it is no such number. Whether the part exists is the catalogue's say.
 */
export function readPartNumber(text: string): { base: string; family: FamilyId | null } | null {
  const plain = text.toUpperCase().replace(/[\s_]/g, '');
  const timer = timers.exec(plain);
  if (timer) return { base: elementAt(timer, 1), family: null };
  // A CMOS memory with the levels of TTL has no family letters, and counts as one that has such levels.
  const memory = memories.exec(plain);
  if (memory) return { base: elementAt(memory, 1), family: 'HCT' };
  const m = numbers.exec(plain);
  if (!m) return null;
  const digits = elementAt(m, 2);
  const family = (m[1] || '74') as FamilyId;
  if (isFourThousand(digits)) return { base: digits, family };
  return { base: olderParts[`74${digits}`]?.includes(family) ? `SN74${digits}` : `74${digits}`, family };
}
