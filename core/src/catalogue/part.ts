import type { Behaviour, Connective, GateKind, Machine } from '../logic';
import type { ChipData, PulseTimer } from './chips';
import type { Inner } from './inner';

/**
 * What a pin is for. `both`: input and output at once. `analogue`: a timer's resistor or capacitor, or an end of an analogue switch.
 * `lead`: an end of a part that is no chip. `none` leads nowhere.
 */
export type PinRole = 'input' | 'output' | 'both' | 'supply' | 'ground' | 'analogue' | 'lead' | 'none';

/**
 * A pin: its number from 1 on chips, or a name such as `A` and `K` on an LED. `dx`, `dy` is its place
 * in tenths of an inch from the anchor (the first pin), rightwards and downwards, part not turned.
 */
export interface Pin {
  readonly id: string;
  readonly name: string;
  readonly role: PinRole;
  readonly dx: number;
  readonly dy: number;
}

/** How an output drives its net. An analogue switch does not: it joins its pin to another one while its unit says 1. */
export type Drive = 'push-pull' | 'open-collector' | 'three-state' | 'analogue-switch';

/** Whether outputs may be joined in one net: all of them are open-collector, or all three-state. Null is an output of no known kind. */
export const sharesWire = (drives: readonly (Drive | null)[]): boolean =>
  drives[0] !== 'push-pull' && drives.every((drive) => drive === drives[0]);

/**
 * Pins that work together. `inputs` and `outputs` are pin ids, and `machine` computes the outputs from
 * the inputs, in the order listed; after the pins' inputs come those of `timers`, which are no pins.
 * `gate` is its kind and number of inputs when the unit is a single push-pull gate, whose inputs are
 * then interchangeable. Units of one `like` in a package are interchangeable too.
 */
export interface Unit {
  readonly name: string;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly drives: readonly Drive[];
  readonly gate: { readonly kind: GateKind; readonly width: number } | null;
  /** The gate to draw for it, whatever its output; null when it is more than one. */
  readonly symbol: GateKind | 'buffer' | null;
  readonly behaviour: Behaviour;
  readonly machine: Machine;
  /** For each of its timers: which of the machine's inputs ends the pulse, which output it is, and how long it lasts. */
  readonly timers: readonly { readonly input: number; readonly output: number; readonly law: PulseTimer }[];
  readonly like: string;
}

/** What a part is, whatever its value: the drawing, the rules and the simulation choose by it. */
export type PartKind =
  | 'chip'
  | 'switch'
  | 'led'
  | 'resistor'
  | 'capacitor'
  | 'supply'
  | 'dip-switch'
  | 'change-over'
  | 'push-button'
  | 'led-bar'
  | 'buzzer'
  | 'display'
  | 'resistor-network'
  | 'diode'
  | 'transistor'
  | 'potentiometer'
  | 'clock';

/**
 * A kind of part. `id` is the base number of a chip (`7400`) or a word (`led`); `prefix` begins its
 * references. `body` is the outline in tenths of an inch, relative to the anchor, part not turned.
 */
export interface PartType {
  readonly id: string;
  readonly kind: PartKind;
  readonly title: string;
  readonly prefix: string;
  readonly pins: readonly Pin[];
  readonly units: readonly Unit[];
  readonly body: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  /** The behaviour as a whole sheet; empty for parts that compute nothing. */
  readonly behaviour: string;
  readonly caveat: string;
  /** What its data sheet says beyond that; null for parts that are no chips. */
  readonly chip: ChipData | null;
  /** What it does between its pins; absent for chips without analogue switches and for parts whose doing is not worked out. */
  readonly inner?: Inner;
  /** From the first lead to the second, the least and the most tenths of an inch that they may be bent apart; absent where they are stiff. */
  readonly spans?: readonly [least: number, most: number];
  /** The definition of a part of one's own, as the sheet has it; absent for parts of the catalogue. */
  readonly own?: string;
  /** The name under which a sheet defines it; of a memory with contents another than its `id`. */
  readonly ownName?: string;
}

/** Whether `kind` has an output that is the complement of its plain form. */
export function isInverting(kind: GateKind): boolean {
  return kind === 'not' || kind === 'nand' || kind === 'nor' || kind === 'xnor';
}

/** A unit's gate in words: `2-input NAND`, `inverter`. */
export function gateTitle(gate: { kind: Connective | 'not'; width: number }): string {
  return gate.kind === 'not' ? 'inverter' : `${gate.width}-input ${gate.kind.toUpperCase()}`;
}
