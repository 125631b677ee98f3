import type { Connective, GateKind, Program } from '../logic';

/** What a pin is for. `lead` is an end of a part that is no chip; `none` leads nowhere. */
export type PinRole = 'input' | 'output' | 'supply' | 'ground' | 'lead' | 'none';

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

/**
 * Pins that work together: one gate of a package. `gate` is its kind and number of inputs when the
 * unit is a single gate, whose inputs are then interchangeable; units of equal `gate` in a package
 * are interchangeable too. `program` computes the outputs from the inputs, in the order listed.
 */
export interface Unit {
  readonly name: string;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly gate: { readonly kind: GateKind; readonly width: number } | null;
  readonly program: Program;
}

export type PartKind = 'chip' | 'switch' | 'led' | 'resistor' | 'capacitor' | 'supply';

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
  /** The behaviour in the sheet language; empty for parts that compute nothing. */
  readonly behaviour: string;
  readonly catch: string;
}

/** Whether `kind` has an output that is the complement of its plain form. */
export function isInverting(kind: GateKind): boolean {
  return kind === 'not' || kind === 'nand' || kind === 'nor' || kind === 'xnor';
}

/** A unit's gate in words: `2-input NAND`, `inverter`. */
export function gateTitle(gate: { kind: Connective | 'not'; width: number }): string {
  return gate.kind === 'not' ? 'inverter' : `${gate.width}-input ${gate.kind.toUpperCase()}`;
}
