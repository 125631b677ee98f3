import type { FamilyId } from '../family';
import type { OutputDelay } from './chip-data';

/** Typical and greatest, going high; typical and greatest, going low; in nanoseconds. */
type Figures = readonly [rise: number, mostRise: number, fall: number, mostFall: number];
/** Delays of a chip: of all its outputs, or by the names of some. */
type OfChip = Figures | Readonly<Record<string, Figures>>;

/**
 * Standard TTL. Source: The TTL Data Book (Texas Instruments), switching characteristics at 5 V and 25 °C, 400 Ω and 15 pF; of the XOR with its
 * other input high, of flip-flops from the clock.
 */
const standard: Readonly<Record<string, OfChip>> = {
  '7400': [11, 22, 7, 15],
  '7402': [12, 22, 8, 15],
  '7403': [35, 45, 8, 15],
  '7404': [12, 22, 8, 15],
  '7405': [40, 55, 8, 15],
  '7406': [10, 15, 15, 23],
  '7407': [6, 10, 20, 30],
  '7408': [17.5, 27, 12, 19],
  '7409': [21, 32, 16, 24],
  '7410': [11, 22, 7, 15],
  '7414': [15, 22, 15, 22],
  '7420': [12, 22, 8, 15],
  '7427': [10, 15, 7, 11],
  '7430': [13, 22, 8, 15],
  '7432': [10, 15, 14, 22],
  '7437': [13, 22, 8, 15],
  '7438': [14, 22, 11, 18],
  '7486': [18, 30, 13, 22],
  '74125': [8, 13, 12, 18],
  '74126': [8, 13, 12, 18],
  '74132': [15, 22, 15, 22],
  '7473': [16, 25, 25, 40],
  '7474': [14, 25, 20, 40],
  '7476': [16, 25, 25, 40],
  '74107': [16, 25, 25, 40],
  '74161': { '*': [13, 20, 15, 23], RCO: [23, 35, 23, 35] },
  '74163': { '*': [13, 20, 15, 23], RCO: [23, 35, 23, 35] },
  '74174': [20, 30, 24, 35],
  '74175': [20, 30, 24, 35],
  '74273': [17, 27, 18, 27],
  '7490': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [21, 32, 23, 35], QD: [21, 32, 23, 35] },
  '7492': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [10, 16, 14, 21], QD: [21, 32, 23, 35] },
  '7493': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [21, 32, 23, 35], QD: [34, 51, 34, 51] },
};

/** Low-power Schottky. Source: as above, 2 kΩ and 15 pF. The middle outputs of the 74LS393 are spaced evenly between the two that are given. */
const lowPower: Readonly<Record<string, OfChip>> = {
  '7400': [9, 15, 10, 15],
  '7402': [10, 15, 10, 15],
  '7403': [17, 32, 15, 28],
  '7404': [9, 15, 10, 15],
  '7405': [17, 32, 15, 28],
  '7408': [8, 15, 10, 20],
  '7409': [20, 35, 17, 35],
  '7410': [9, 15, 10, 15],
  '7411': [8, 15, 10, 20],
  '7414': [15, 22, 15, 22],
  '7420': [9, 15, 10, 15],
  '7421': [8, 15, 10, 20],
  '7427': [10, 15, 10, 15],
  '7430': [8, 15, 13, 20],
  '7432': [14, 22, 14, 22],
  '7437': [12, 24, 12, 24],
  '7438': [20, 32, 18, 28],
  '7451': [12, 20, 12.5, 20],
  '7454': [12, 20, 12.5, 20],
  '7486': [20, 30, 13, 22],
  '74125': [9, 15, 7, 18],
  '74126': [9, 15, 8, 18],
  '74132': [15, 22, 15, 22],
  '74133': [10, 15, 40, 59],
  '74136': [18, 30, 18, 30],
  '74266': [18, 30, 18, 30],
  '7473': [15, 20, 15, 20],
  '7474': [13, 25, 25, 40],
  '7476': [15, 20, 15, 20],
  '74107': [15, 20, 15, 20],
  '74109': [13, 25, 25, 40],
  '74112': [15, 20, 15, 20],
  '74138': [18, 27, 26, 39],
  '74139': [18, 29, 25, 38],
  '74161': { '*': [13, 24, 18, 27], RCO: [20, 35, 18, 35] },
  '74163': { '*': [13, 24, 18, 27], RCO: [20, 35, 18, 35] },
  '74174': [20, 30, 21, 30],
  '74273': [17, 27, 18, 27],
  '7490': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [21, 32, 23, 35], QD: [21, 32, 23, 35] },
  '7492': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [10, 16, 14, 21], QD: [21, 32, 23, 35] },
  '7493': { QA: [10, 16, 12, 18], QB: [10, 16, 14, 21], QC: [21, 32, 23, 35], QD: [34, 51, 34, 51] },
  '74390': {
    '1QA 2QA': [12, 20, 13, 20],
    '1QB 2QB': [13, 21, 14, 21],
    '1QC 2QC': [24, 39, 26, 39],
    '1QD 2QD': [13, 21, 14, 21],
  },
  '74393': {
    '1QA 2QA': [12, 20, 13, 20],
    '1QB 2QB': [21, 33, 22, 33],
    '1QC 2QC': [31, 47, 31, 47],
    '1QD 2QD': [40, 60, 40, 60],
  },
};

/** High-speed CMOS. Source: data sheets of Texas Instruments, 4.5 V, 25 °C, 50 pF; of flip-flops from the clock. */
const highSpeed: Readonly<Record<string, OfChip>> = {
  '7404': [9, 19, 9, 19],
  '7408': [10, 20, 10, 20],
  '7411': [10, 20, 10, 20],
  '7414': [12, 25, 12, 25],
  '7432': [10, 20, 10, 20],
  '7486': [12, 20, 12, 20],
  '7474': [20, 35, 20, 35],
};

const tables: readonly (readonly [FamilyId, Readonly<Record<string, OfChip>>])[] = [
  ['74', standard],
  ['LS', lowPower],
  ['HC', highSpeed],
];

const isFigures = (of: OfChip): of is Figures => Array.isArray(of);

/** The delays of single outputs of a chip, where its data sheet gives them apart from its family's gate; none for others. */
export function outputDelaysOf(base: string): readonly OutputDelay[] {
  return tables.flatMap(([family, chips]) => {
    const own = chips[base];
    if (!own) return [];
    const lines = isFigures(own) ? ([['*', own]] as const) : Object.entries(own);
    return lines.map(
      ([pins, [rise, mostRise, fall, mostFall]]): OutputDelay => ({
        family,
        pins,
        rise: [rise, mostRise],
        fall: [fall, mostFall],
      }),
    );
  });
}
