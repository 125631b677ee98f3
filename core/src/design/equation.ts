import { type Expr, eachName } from '../logic';
import type { Equation } from './sheet';

/** Every expression of an equation: its value, clock, forces, enable; with `care`, its don't-cares too. */
export function expressionsOf(e: Equation, care = true): Expr[] {
  const { storage, forces = [], when, dontCare } = e;
  return [
    e.expr,
    ...(storage ? [storage.kind === 'while' ? storage.enable : storage.clock] : []),
    ...forces.map((f) => f.when),
    ...(when ? [when] : []),
    ...(care && dontCare ? [dontCare] : []),
  ];
}

/** The signals that some expressions read, each once, in the order first met. */
export function namesIn(...exprs: readonly Expr[]): string[] {
  const names = new Set<string>();
  const add = (name: string): void => {
    names.add(name);
  };
  for (const e of exprs) eachName(e, add);
  return [...names];
}

/** What an equation reads: for its value and storage, and in `cares` what its don't-cares read besides. */
export interface Reads {
  readonly sure: readonly string[];
  readonly cares: readonly string[];
}

/** The names that an equation reads, each once. Clock, enable, clear and preset count as sure. */
export function readsOf(e: Equation): Reads {
  return { sure: namesIn(...expressionsOf(e, false)), cares: e.dontCare ? namesIn(e.dontCare) : [] };
}
