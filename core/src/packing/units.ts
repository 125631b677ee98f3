import { findChip, type PartType } from '../catalogue';
import { elementAt } from '../element-at';
import type { Duty } from './candidate';

/** A kind of unit of a chip: what it is, and which of the chip's units are of it (from 0). */
export interface UnitKind {
  readonly part: PartType;
  readonly duty: Duty;
  readonly units: readonly number[];
}

/** Chips whose units a packing may choose by itself, by base number. */
export const choosable: readonly string[] =
  '7400 7402 7404 7408 7410 7411 7414 7420 7421 7427 7430 7432 7451 7486 4002 4072 4075 747266 74260 74133'.split(' ');

/** The kinds of units of some chips; chips without units of a known kind give none. */
export function unitKindsOf(numbers: readonly string[]): UnitKind[] {
  return numbers.flatMap((number) => {
    const part = findChip(number);
    const kinds = new Map<string, { duty: Duty; units: number[] }>();
    part?.units.forEach((_, u) => {
      const duty = dutyOf(part, u);
      if (!duty) return;
      const key = `${duty.kind}${duty.width}`;
      kinds.set(key, { duty, units: [...(kinds.get(key)?.units ?? []), u] });
    });
    return [...kinds.values()].map((k) => ({ part: part as PartType, ...k }));
  });
}

function dutyOf(part: PartType, u: number): Duty | null {
  const unit = part.units[u];
  if (unit?.gate) return { kind: unit.gate.kind, width: unit.gate.width } as Duty;
  if (part.id !== '7451') return null;
  return { kind: 'aoi', width: unit?.inputs.length === 6 ? 3 : 2 };
}

const inverting = new Set(['not', 'nand', 'nor', 'xor', 'xnor', 'aoi']);

/** Whether a unit can do a duty: its own kind with as many inputs or more, or any that inverts as an inverter. */
export function serves({ duty: unit }: UnitKind, duty: Duty): boolean {
  if (duty.kind === 'not') return inverting.has(unit.kind);
  if (unit.kind === 'aoi' && duty.kind === 'nand') return unit.width >= duty.width;
  if (unit.kind === 'aoi' && duty.kind === 'nor') return duty.width === 2;
  return unit.kind === duty.kind && unit.width >= duty.width;
}

/**
 * The nets on a unit's pins when it does a duty: spare inputs are joined to one in use, an exclusive or
 * that inverts has its other input high, an exclusive nor that does has it low.
 */
export function pinsFor({ duty: unit }: UnitKind, duty: Duty, nets: readonly string[]): string[] {
  const last = elementAt(nets, nets.length - 1);
  const filled = (of: readonly string[], width: number): string[] =>
    Array.from({ length: width }, (_, i) => of[i] ?? elementAt(of, of.length - 1));
  if (unit.kind === 'aoi') {
    if (duty.kind === 'aoi')
      return [filled(nets.slice(0, duty.width), unit.width), filled(nets.slice(duty.width), unit.width)].flat();
    if (duty.kind === 'nor') return nets.flatMap((net) => filled([net], unit.width));
    return [filled(nets, unit.width), filled(nets, unit.width)].flat();
  }
  if (duty.kind === 'not' && unit.kind === 'xor') return [last, '1'];
  if (duty.kind === 'not' && unit.kind === 'xnor') return [last, '0'];
  return filled(nets, unit.width);
}
