/** A logic family's letters, as they stand in a part number. */
export type FamilyId = 'HC';

/**
 * What all parts of a family share. Volts, milliamperes and nanoseconds; levels and delays at the
 * supply `nominalV` and 25 °C, 50 pF.
 */
export interface Family {
  readonly id: FamilyId;
  readonly title: string;
  readonly nominalV: number;
  readonly supplyV: readonly [least: number, most: number];
  readonly absoluteMaxV: number;
  /** Highest input read as low and lowest input read as high. */
  readonly inputLowV: number;
  readonly inputHighV: number;
  /** Output current at which the levels are still guaranteed, and the most an output may ever carry. */
  readonly outputMa: number;
  readonly absoluteOutputMa: number;
  readonly delayNs: { readonly typical: number; readonly most: number };
  /** How an input left open reads. */
  readonly openInput: 'unknown' | 'high';
}

/**
 * Source: the SN74HC00 data sheet and the common HCMOS family specification: supply 2 to 6 V, absolute
 * maximum 7 V; at 4.5 V: V_IL 1.35 V, V_IH 3.15 V, I_O 4 mA, t_pd 9 ns typical and 18 ns at most;
 * ±25 mA absolute maximum for each output.
 */
export const families: Readonly<Record<FamilyId, Family>> = {
  HC: {
    id: 'HC',
    title: 'high-speed CMOS',
    nominalV: 5,
    supplyV: [2, 6],
    absoluteMaxV: 7,
    inputLowV: 1.35,
    inputHighV: 3.15,
    outputMa: 4,
    absoluteOutputMa: 25,
    delayNs: { typical: 9, most: 18 },
    openInput: 'unknown',
  },
};

/** Writes a part number as printed on the chip: `7400` of family HC is `74HC00`. */
export function partNumber(base: string, family: FamilyId): string {
  return `74${family}${base.slice(2)}`;
}

/** Reads `74HC00` into its base number and family; null when it is no 74-series number known here. */
export function readPartNumber(text: string): { base: string; family: FamilyId } | null {
  const m = /^74(HC)(\d{2,4})$/.exec(text);
  return m ? { base: `74${m[2]}`, family: m[1] as FamilyId } : null;
}
