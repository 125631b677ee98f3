import { type FamilyId, families, type PartType, schmittLevels } from '../catalogue';
import { type BipolarInputModel, bipolarInput, bipolarStage, type Element, resistor, saturatedStage } from './elements';

/** Nodes that a chip's pin hangs between: the pin's own, and those of its chip's supply and ground pins. */
export interface PinNodes {
  readonly pin: number;
  readonly supply: number;
  readonly ground: number;
}

/** How a stage of an output conducts: the volts it loses whatever the current, and the ohms behind them. */
interface StageModel {
  readonly dropV: number;
  readonly ohms: number;
}

/**
 * Outputs and inputs of each family, typical at 25 °C. CMOS stages are resistive to their rail. TTL stages lose volts before they conduct: about
 * 1.6 V under supply when high, a saturated transistor when low. Sources: typical VOH and VOL of the data sheets named in
 * `families` at their rated currents; schematics of the TTL Data Book (Texas Instruments) for input resistors and thresholds.
 */
interface FamilyModel {
  readonly high: StageModel;
  readonly low: StageModel;
  /** Null for CMOS, whose inputs take no current. */
  readonly input: BipolarInputModel | null;
}

/**
 * What a totem pole loses under supply when it is high: so much that without load it stands some 3.4 to 3.5 V, under what an HC input reads as high for sure.
 */
const TTL_DROP_V = 1.63;

const hc: FamilyModel = { high: { dropV: 0, ohms: 50 }, low: { dropV: 0, ohms: 42 }, input: null };
const ac: FamilyModel = { high: { dropV: 0, ohms: 14 }, low: { dropV: 0, ohms: 11 }, input: null };
const ttlInput = (ohms: number, junctionV: number, thresholdV: number): BipolarInputModel => ({
  ohms,
  junctionV,
  thresholdV,
});

const models: Readonly<Record<FamilyId, FamilyModel>> = {
  HC: hc,
  HCT: hc,
  AC: ac,
  ACT: ac,
  '74': { high: { dropV: TTL_DROP_V, ohms: 130 }, low: { dropV: 0.05, ohms: 9 }, input: ttlInput(4000, 0.7, 1.4) },
  LS: { high: { dropV: TTL_DROP_V, ohms: 120 }, low: { dropV: 0.15, ohms: 25 }, input: ttlInput(20_000, 0.4, 1.1) },
  ALS: { high: { dropV: TTL_DROP_V, ohms: 100 }, low: { dropV: 0.15, ohms: 25 }, input: ttlInput(45_000, 0.5, 1.4) },
  AS: { high: { dropV: TTL_DROP_V, ohms: 26 }, low: { dropV: 0.15, ohms: 8 }, input: ttlInput(10_000, 0.5, 1.5) },
  F: { high: { dropV: TTL_DROP_V, ohms: 45 }, low: { dropV: 0.15, ohms: 8 }, input: ttlInput(10_000, 0.5, 1.5) },
  S: { high: { dropV: TTL_DROP_V, ohms: 55 }, low: { dropV: 0.2, ohms: 8 }, input: ttlInput(2800, 0.4, 1.3) },
};

/** The rated currents of a chip's outputs, low and high, against those of its family: stronger stages have fewer ohms. */
function strengthOf(type: PartType, family: FamilyId): readonly [low: number, high: number] {
  const [low, high] = type.chip?.drive?.[family] ?? [null, null];
  const { outputMa } = families[family];
  return [low === null ? 1 : low / outputMa.low, high === null ? 1 : high / outputMa.high];
}

/** A timer's output: bipolar, some 1.5 V under supply when high. Source: NE555 data sheet, 13.3 V at 100 mA and 15 V; 0.1 V at 10 mA. */
const timerOutput = { high: { dropV: 1.4, ohms: 3 }, low: { dropV: 0.05, ohms: 8 } } as const;

/**
 * The stage of an output that drives high or low, as an element from supply to the pin or from the pin to ground; the rest of
 * the totem pole is off.
 */
export function outputStage(
  type: PartType,
  family: FamilyId,
  isHigh: boolean,
  { pin, supply, ground }: PinNodes,
): Element {
  const isTimer = type.chip?.own !== undefined;
  const { high, low } = isTimer ? timerOutput : models[family];
  const [strongLow, strongHigh] = strengthOf(type, family);
  const { dropV, ohms } = isHigh ? high : low;
  const own = ohms / (isHigh ? strongHigh : strongLow);
  const [from, to] = isHigh ? [supply, pin] : [pin, ground];
  if (dropV === 0) return resistor(from, to, own);
  return isHigh ? bipolarStage(from, to, { dropV, ohms: own }) : saturatedStage(from, to, { dropV, ohms: own });
}

/** The element of a bipolar input of so many unit loads; null for CMOS, which takes no current. */
export function inputElement(family: FamilyId, loads: number, { pin, supply, ground }: PinNodes): Element | null {
  const { input } = models[family];
  return input && bipolarInput(pin, { supply, ground }, { ...input, ohms: input.ohms / loads });
}

/** Up to `low` volts a pin reads low, from `high` on it reads high; between them it keeps what it read last if it has `hysteresis`, and is unknown otherwise. */
export interface Thresholds {
  readonly low: number;
  readonly high: number;
  readonly hasHysteresis: boolean;
}

/** The volts at `levelsAtV` as they are at another supply: CMOS levels go with it, TTL levels stay. */
function scaleOf(family: FamilyId, supplyV: number): number {
  const { technology, inputHighV, levelsAtV } = families[family];
  const isTtl = technology === 'TTL' || inputHighV === families['74'].inputHighV;
  return isTtl ? 1 : supplyV / levelsAtV;
}

/** Thresholds of a family's inputs at the supply that its chip has. Of Schmitt inputs those at which they switch, typically. */
export function thresholdsAt(family: FamilyId, supplyV: number, hasHysteresis = false): Thresholds {
  const scale = scaleOf(family, supplyV);
  const switching = hasHysteresis ? schmittLevels[family] : undefined;
  if (switching) return { low: switching.fallsV * scale, high: switching.risesV * scale, hasHysteresis: true };
  const { inputLowV, inputHighV } = families[family];
  return { low: inputLowV * scale, high: inputHighV * scale, hasHysteresis: false };
}

/** What an input makes of its volts: a level (the first three are those of `logic`), or how what it reads depends on what it read before. */
export const READS = { low: 0, high: 1, unknown: 2, keeps: 3, keepsHigh: 4, keepsLow: 5 } as const;

/**
 * What an input with these thresholds makes of volts between `least` and `most`, against its chip's ground. Between the thresholds one
 * with hysteresis keeps what it read, or keeps it only if that was high, or low.
 */
export function readingOf({ low, high, hasHysteresis }: Thresholds, least: number, most: number): number {
  if (most <= low) return READS.low;
  if (least >= high) return READS.high;
  if (!hasHysteresis) return READS.unknown;
  const [staysHigh, staysLow] = [least > low, most < high];
  return staysHigh && staysLow ? READS.keeps : staysHigh ? READS.keepsHigh : staysLow ? READS.keepsLow : READS.unknown;
}
