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

/** Names each signal that an expression reads. */
export function namesIn(expr: Expr): string[] {
  const names: string[] = [];
  eachName(expr, (name) => names.push(name));
  return names;
}
