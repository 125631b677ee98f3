import type { LampColour } from '../catalogue';

/** The supply that boards are planned for, and that is assumed while a board has none, in volts. */
export const SUPPLY_V = 5;

/**
 * The most that a supply gives which was not set to another limit, in milliamperes: that of a USB port, five unit loads of 100 mA. Source:
 * Universal Serial Bus Specification 2.0, 7.2.1.
 */
const USUAL_LIMIT_MA = 500;

/** What supplies give at the most, in milliamperes: the least of their limits. */
export function supplyLimitMaOf(supplies: readonly { readonly limit?: number }[]): number {
  const limits = supplies.map(({ limit }) => limit ?? USUAL_LIMIT_MA);
  return limits.length > 0 ? Math.min(...limits) : USUAL_LIMIT_MA;
}

/** Between base and emitter of a silicon transistor that conducts, in volts. Source: 2N3904 data sheet, VBE(sat) at 1 to 50 mA. */
export const baseEmitter = { typicalV: 0.7, mostV: 0.75 } as const;

/** What an LED of 5 mm drops and bears: see `leds`. */
export interface LedFigures {
  readonly typicalV: number;
  readonly mostMa: number;
  readonly dimMa: number;
}

/**
 * LEDs of 5 mm by colour: forward volts, typical at 10 mA; the most current they bear, and the
 * current under which they are hard to see, in milliamperes. A buzzer likewise: silent under some 3 V, 25 mA at 5 V, at most 7 V. Sources: data sheets
 * of such LEDs (GaAsP and GaP; InGaN for blue and white) and of magnetic buzzers of 12 mm and 5 V.
 */
export const leds: Readonly<Record<LampColour, LedFigures>> = {
  red: { typicalV: 1.9, mostMa: 30, dimMa: 0.5 },
  yellow: { typicalV: 2, mostMa: 30, dimMa: 0.5 },
  green: { typicalV: 2.1, mostMa: 30, dimMa: 0.5 },
  blue: { typicalV: 3.1, mostMa: 30, dimMa: 0.2 },
  white: { typicalV: 3.1, mostMa: 30, dimMa: 0.2 },
  sound: { typicalV: 1.7, mostMa: 45, dimMa: 8 },
};

/** Collector current in milliamperes, and the least gain up to it: hFE at 1 V, 2N3904 data sheet; the 2N3906 has no less. */
const gains = [
  [0.1, 40],
  [1, 70],
  [10, 100],
  [50, 60],
  [100, 30],
] as const;

/**
 * How far parts are off their values, as a share: resistors of the series E24, ceramic capacitors (letter K) and electrolytic ones (letter M). Sources:
 * IEC 60063, IEC 60062.
 */
export const tolerances: Readonly<Record<string, number>> & { readonly resistor: number } = {
  resistor: 0.05,
  capacitor: 0.1,
  electrolytic: 0.2,
};

/** The most that a small transistor carries, in milliamperes. Source: 2N3904 data sheet, absolute maximum ratings. */
export const mostCollectorMa = 200;

/** The base current that surely carries a collector current, both in milliamperes. */
export function neededBaseMa(collectorMa: number): number {
  const gain = gains.find(([most]) => collectorMa <= most)?.[1] ?? 30;
  return collectorMa / gain;
}

/** kT/q at 25 °C, in volts. */
export const THERMAL_V = 0.02569;

/**
 * A junction by Shockley's law with a resistance in series: i = saturationA (exp((v - i ohms) / (emission kT/q)) - 1). Amperes, ohms.
 */
export interface JunctionModel {
  readonly saturationA: number;
  readonly emission: number;
  readonly ohms: number;
}

/** The junction that drops `volts` at `ma` milliamperes. */
function junctionThrough(volts: number, ma: number, emission: number, ohms: number): JunctionModel {
  const amps = ma / 1000;
  return { saturationA: amps * Math.exp(-(volts - amps * ohms) / (emission * THERMAL_V)), emission, ohms };
}

/**
 * Junctions by part. Source: 1N4148 data sheet (VF 0.62 V at 1 mA, 0.75 V at 10 mA).
 */
export const junctions = {
  diode: junctionThrough(0.72, 10, 1.85, 0.8),
} as const satisfies Readonly<Record<string, JunctionModel>>;

/** The junctions of LEDs; those of blue and white have more resistance in series. A buzzer takes current as a junction with much of it. */
export const ledJunctions: Readonly<Record<LampColour, JunctionModel>> = {
  red: junctionThrough(leds.red.typicalV, 10, 2, 6),
  yellow: junctionThrough(leds.yellow.typicalV, 10, 2, 8),
  green: junctionThrough(leds.green.typicalV, 10, 2, 10),
  blue: junctionThrough(leds.blue.typicalV, 10, 2.5, 15),
  white: junctionThrough(leds.white.typicalV, 10, 2.5, 15),
  sound: junctionThrough(leds.sound.typicalV + 1.3, 10, 2, 130),
};

/** Where a Zener diode breaks down, in volts, and the ohms behind that. Source: BZX79C5V1 data sheet, 5.1 V at 5 mA, 40 to 60 Ω. */
export const zener = { breakdownV: 4.9, ohms: 40 } as const;

/** A bipolar transistor by Ebers and Moll's equations: the saturation current and the gains forward and reverse. */
export interface BipolarModel {
  readonly saturationA: number;
  readonly forward: number;
  readonly reverse: number;
}

/** Sources: 2N3904 and 2N3906 data sheets (VBE(sat) 0.65 to 0.85 V at 10 mA; typical hFE at 1 to 10 mA and 5 V). */
export const bipolars = {
  npn: { saturationA: 6.7e-15, forward: 180, reverse: 4 },
  pnp: { saturationA: 1.4e-15, forward: 180, reverse: 4 },
} as const satisfies Readonly<Record<string, BipolarModel>>;

/** A MOSFET by its square law: i = gain ((vgs - thresholdV) vds - vds² / 2) until it saturates. Amperes by volt squared. */
export interface MosfetModel {
  readonly thresholdV: number;
  readonly gain: number;
}

/**
 * Sources: 2N7000 data sheet (VGS(th) typically 2.1 V, some 1.8 Ω at 4.5 V: transconductance 0.23 A/V²); BS250P data sheet (VGS(th) 1 to 3.5 V, at
 * most 14 Ω at 10 V, typically some 9).
 */
export const mosfets = {
  nmos: { thresholdV: 2.1, gain: 0.23 },
  pmos: { thresholdV: 2.3, gain: 0.015 },
} as const satisfies Readonly<Record<string, MosfetModel>>;

/**
 * Capacitances in picofarads from base or gate to emitter or source, and to collector or drain; that to the emitter with what a conducting base stores.
 * Sources: 2N3904 data sheet (Cibo 8 pF, Cobo 4 pF at most; fT 300 MHz at 10 mA), 2N7000 data sheet (Ciss 20 pF, Crss 4 pF).
 */
export const junctionPf = {
  bipolar: { toCommon: 20, toOut: 7 },
  mosfet: { toCommon: 20, toOut: 4 },
} as const;
