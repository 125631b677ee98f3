import type { ValveKind } from '../catalogue';
import { type CircuitValve, NONE } from './circuit';
import { FLOATING, type Wiring } from './wiring';

/** What a valve does: it is open, it conducts, or nobody knows. */
export const OPEN = 0;
export const CONDUCTS = 1;
export const MAYBE = 2;

/** The least and the most that a voltage can be, as shares of the supply of 5 V; null where nothing gives one. */
type Shares = readonly [least: number, most: number] | null;

/**
 * Shares of the supply, from ground (for a PNP from supply), up to which a base or gate keeps its transistor open, and from
 * which it surely conducts: 0.5 and 0.65 V for a silicon base, 0.8 V (least threshold) and 3.5 V for a 2N7000, which
 * is specified at 4.5 V.
 */
const steering: Readonly<Record<Exclude<ValveKind, 'diode'>, readonly [off: number, on: number]>> = {
  npn: [0.1, 0.13],
  pnp: [0.1, 0.13],
  nmos: [0.16, 0.7],
};
/** Shares of the supply over a diode up to which it is open, and from which it surely conducts: 0.5 and 0.75 V. */
const DIODE = [0.1, 0.15] as const;

/**
 * What a valve does, from the voltages around it while it is open itself. A diode conducts when its anode is high enough
 * over its cathode, and carries a level to where there is none; a transistor conducts while its base or gate is so far from its
 * emitter or source. A base that nothing reaches keeps it open; a gate keeps whatever charge it has. The volts that are
 * lost on the way are not counted.
 */
export function valveDoes({ kind, a, b, control }: CircuitValve, wiring: Wiring): number {
  const at = (net: number): Shares => {
    const group = net === NONE ? NONE : (wiring.groupOf[net] as number);
    return group === NONE || wiring.strength[group] === FLOATING ? null : wiring.sharesOf(group);
  };
  if (kind === 'diode') return diodeDoes(at(a), at(b));
  const [base, emitter] = [at(control), at(b)];
  // A PNP is an NPN seen from the supply.
  return kind === 'pnp' ? transistorDoes(kind, turned(base), turned(emitter)) : transistorDoes(kind, base, emitter);
}

const turned = (shares: Shares): Shares => shares && [1 - shares[1], 1 - shares[0]];

function diodeDoes(anode: Shares, cathode: Shares): number {
  if (!anode && !cathode) return OPEN;
  // What floats takes the level of the other end, if that is one that the diode lets through.
  const [from, to] = [anode ?? [0.5, 0.5], cathode ?? [0.5, 0.5]];
  return between(from[0] - to[1], from[1] - to[0], DIODE);
}

function transistorDoes(kind: Exclude<ValveKind, 'diode'>, base: Shares, emitter: Shares): number {
  if (!base) return kind === 'nmos' ? MAYBE : OPEN;
  // An emitter that floats goes where the collector or drain takes it.
  const from = emitter ?? [0, 0];
  return between(base[0] - from[1], base[1] - from[0], steering[kind]);
}

/** What is done at a voltage that is known between its least and its most. */
function between(least: number, most: number, [off, on]: readonly [number, number]): number {
  return least >= on ? CONDUCTS : most <= off ? OPEN : MAYBE;
}
