import { typeOf } from '../catalogue';
import type { Package, Packing } from './packing';

/** A unit by its package's index and its own, both from 0. */
export interface Slot {
  readonly pack: number;
  readonly unit: number;
}

/**
 * Units that may be exchanged, in lists: those of one function whose pins nobody shares are equal in all packages of a
 * part; others (with a clock for all, say) only within their own package.
 */
export function equalUnits(packages: readonly Package[]): Slot[][] {
  const lists = new Map<string, Slot[]>();
  for (const [pack, named] of packages.entries()) {
    const units = typeOf(named)?.units ?? [];
    for (const [unit, own] of units.entries()) {
      const pins = new Set([...own.inputs, ...own.outputs]);
      const shares = units.some((u) => u !== own && [...u.inputs, ...u.outputs].some((pin) => pins.has(pin)));
      const key = `${named.part} ${own.like}${shares ? ` ${pack}` : ''}`;
      lists.set(key, [...(lists.get(key) ?? []), { pack, unit }]);
    }
  }
  return [...lists.values()];
}

/** The packing with what two units do exchanged. */
export function withUnitsExchanged(packing: Packing, a: Slot, b: Slot): Packing {
  const inSlot = ({ pack, unit }: Slot) => packing.packages[pack]?.units[unit] ?? null;
  const packages = packing.packages.map((p, pack) => {
    if (pack !== a.pack && pack !== b.pack) return p;
    const units = p.units.map((use, unit) => {
      if (pack === a.pack && unit === a.unit) return inSlot(b);
      return pack === b.pack && unit === b.unit ? inSlot(a) : use;
    });
    return { ...p, units };
  });
  return { ...packing, packages };
}

/** The packing with all that two packages of one part do exchanged; they keep their names. */
export function withPackagesExchanged(packing: Packing, a: number, b: number): Packing {
  const unitsOf = (i: number) => packing.packages[i]?.units ?? [];
  const packages = packing.packages.map((p, i) =>
    i === a ? { ...p, units: unitsOf(b) } : i === b ? { ...p, units: unitsOf(a) } : p,
  );
  return { ...packing, packages };
}
