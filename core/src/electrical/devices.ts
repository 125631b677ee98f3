/** The supply that boards are planned for, and that is assumed while a board has none, in volts. */
export const SUPPLY_V = 5;

/** Up to `offV` over its junction or threshold a device does not conduct; from `onV` it surely does. Volts. */
export interface Threshold {
  readonly offV: number;
  readonly onV: number;
}

const silicon: Threshold = { offV: 0.5, onV: 0.65 };

/**
 * When transistors and diodes conduct. Sources: 2N3904 and 2N3906 data sheets (VBE(sat) 0.65 V least at 10 mA); 2N7000 data
 * sheet (VGS(th) 0.8 V least; on-resistance specified at 4.5 V, 3.5 V taken for small loads); 1N4148 data sheet (VF 0.75 V at 10 mA).
 */
export const thresholds = {
  npn: silicon,
  pnp: silicon,
  nmos: { offV: 0.8, onV: 3.5 },
  diode: { offV: 0.5, onV: 0.75 },
} as const satisfies Readonly<Record<string, Threshold>>;

/** Between base and emitter of a silicon transistor that conducts, in volts. Source: 2N3904 data sheet, VBE(sat) at 1 to 50 mA. */
export const baseEmitter = { typicalV: 0.7, mostV: 0.75 } as const;

/**
 * A red LED of 5 mm: forward volts, least at rated current and typical at a few milliamperes; the most current it bears, and the
 * current under which it is hard to see, in milliamperes. Source: data sheets of such LEDs.
 */
export const redLed = { leastV: 1.8, typicalV: 1.9, mostMa: 30, dimMa: 0.5 } as const;

/** A TTL output that is high: volts without load, and the ohms behind it. Source: SN7400 data book, schematic. */
export const ttlHigh = { volts: 3.4, ohms: 130 } as const;

/** Collector current in milliamperes, and the least gain up to it: hFE at 1 V, 2N3904 data sheet; the 2N3906 has no less. */
const gains = [
  [0.1, 40],
  [1, 70],
  [10, 100],
  [50, 60],
  [100, 30],
] as const;

/** The base current that surely carries a collector current, both in milliamperes. */
export function neededBaseMa(collectorMa: number): number {
  const gain = gains.find(([most]) => collectorMa <= most)?.[1] ?? 30;
  return collectorMa / gain;
}
