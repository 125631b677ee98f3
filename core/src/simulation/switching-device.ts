import type { DeviceKind } from '../catalogue';
import { SUPPLY_V, type Threshold, thresholds } from '../electrical';
import { elementAt } from '../element-at';
import { type CircuitDevice, NONE } from './circuit';
import { FLOATING, type Wiring } from './wiring';

/** What a switching device does: it is open, it conducts, or nobody knows. */
export const OPEN = 0;
/** The device conducts. */
export const CONDUCTS = 1;
/** Nobody knows whether the device conducts. */
export const MAYBE = 2;

/** The least and the most that a voltage can be, as shares of the supply of 5 V; null where nothing gives one. */
type Shares = readonly [least: number, most: number] | null;

/**
 * What a switching device does, from the voltages around it while it is open itself. A diode conducts when its anode is high enough
 * over its cathode, and carries a level to where there is none; a transistor conducts while its base or gate is so far from its
 * emitter or source. A base that nothing reaches keeps it open; a gate keeps whatever charge it has. The volts that are
 * lost on the way are not counted.
 */
export function deviceDoes({ kind, a, b, control }: CircuitDevice, wiring: Wiring): number {
  const at = (net: number): Shares => {
    const group = net === NONE ? NONE : elementAt(wiring.groupOf, net);
    return group === NONE || wiring.strength[group] === FLOATING ? null : wiring.sharesOf(group);
  };
  if (kind === 'diode') return diodeDoes(at(a), at(b));
  const [base, emitter] = [at(control), at(b)];
  // A PNP is an NPN seen from the supply.
  return kind === 'pnp' ? transistorDoes(kind, inverted(base), inverted(emitter)) : transistorDoes(kind, base, emitter);
}

const inverted = (shares: Shares): Shares => shares && [1 - shares[1], 1 - shares[0]];

function diodeDoes(anode: Shares, cathode: Shares): number {
  if (!anode && !cathode) return OPEN;
  // What floats takes the level of the other end, if that is one that the diode lets through.
  const [from, to] = [anode ?? [0.5, 0.5], cathode ?? [0.5, 0.5]];
  return between(from[0] - to[1], from[1] - to[0], thresholds.diode);
}

function transistorDoes(kind: Exclude<DeviceKind, 'diode'>, base: Shares, emitter: Shares): number {
  if (!base) return kind === 'nmos' ? MAYBE : OPEN;
  // An emitter that floats goes where the collector or drain takes it.
  const from = emitter ?? [0, 0];
  return between(base[0] - from[1], base[1] - from[0], thresholds[kind]);
}

/** What is done at a voltage that is known between its least and its most. */
function between(least: number, most: number, { offV, onV }: Threshold): number {
  return least >= onV / SUPPLY_V ? CONDUCTS : most <= offV / SUPPLY_V ? OPEN : MAYBE;
}
