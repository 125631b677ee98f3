import { type FamilyId, findChip, type PartType, typeOf } from '../catalogue';
import type { Netlist } from '../design';
import { type Finding, finding } from '../finding';
import { seatedNumber } from './chip-family';
import type { Package, Packing, UnitUse } from './packing';

/**
 * A gate that the person put on a unit and that stays there: the net it drives, the package, its part by
 * base number, and the unit (from 0). `inputs` are the nets in the order of the pins as they were then.
 */
export interface LockedGate {
  readonly net: string;
  readonly ref: string;
  readonly part: string;
  readonly unit: number;
  readonly inputs: readonly string[];
}

/** A package that the person asked for, by its part's base number; it stays even while all of it is spare. */
export interface Added {
  readonly ref: string;
  readonly part: string;
}

/** What a person decided of a packing by hand, kept through every packing made afterwards. */
export interface Locks {
  readonly pins: readonly LockedGate[];
  readonly added: readonly Added[];
}

/** Nothing decided by hand. */
export const noLocks: Locks = { pins: [], added: [] };

/** Whether nothing was decided by hand. */
export const holdsNothing = ({ pins, added }: Locks): boolean => pins.length === 0 && added.length === 0;

/** A text that is equal for equal decisions, whatever their order. */
export const locksKey = ({ pins, added }: Locks): string =>
  [
    ...pins.map((p) => `${p.net} ${p.ref} ${p.part} ${p.unit} ${p.inputs.join()}`),
    ...added.map((a) => `${a.ref} ${a.part}`),
  ]
    .sort()
    .join(';');

/** The nets whose gates the person put on units. */
export const lockedNets = ({ pins }: Locks): ReadonlySet<string> => new Set(pins.map((pin) => pin.net));

/** The packages that must be there, by reference, with their parts' base numbers. */
export function lockedPackages({ pins, added }: Locks): Map<string, string> {
  return new Map([...added, ...pins].map(({ ref, part }) => [ref, part]));
}

/** How many packages of each base number must be there. */
export function lockedCounts(locks: Locks): Map<string, number> {
  const counts = new Map<string, number>();
  for (const part of lockedPackages(locks).values()) counts.set(part, (counts.get(part) ?? 0) + 1);
  return counts;
}

/** The pins whose gates the design still has; each other one is told. */
export function stillMeant(locks: Locks, netlist: Netlist): { locks: Locks; findings: Finding[] } {
  const gates = new Set(netlist.gates.map((g) => g.output));
  const gone = locks.pins.filter((p) => !gates.has(p.net));
  const findings = gone.map(({ net, ref }) => finding('pack/pin-gone', [], { net, ref }));
  return { locks: { ...locks, pins: locks.pins.filter((p) => gates.has(p.net)) }, findings };
}

/** Why pins cannot be kept when only these chips may be used; empty when nothing speaks against it. */
export function againstChips({ pins }: Locks, chips: readonly string[], strategy: string): Finding[] {
  return pins
    .filter((p) => !chips.includes(p.part))
    .map(({ net, ref, part }) => finding('pack/pin-chip', [], { net, ref, part, strategy }));
}

/** The first thing decided by hand that a packing does not keep to, in words for a programmer; null when it keeps to all. */
export function locksBroken(packing: Packing, { pins, added }: Locks): string | null {
  const isThere = (ref: string, part: string): Package | undefined =>
    packing.packages.find((p) => p.ref === ref && typeOf(p)?.id === part);
  const lost = pins.find((p) => isThere(p.ref, p.part)?.units[p.unit]?.output !== p.net);
  if (lost) return `${lost.net} is not on ${lost.ref}`;
  const missing = added.find((a) => !isThere(a.ref, a.part));
  return missing ? `${missing.ref} is not there` : null;
}

/** What of a packing goes against what was decided since it was made; null when nothing does. */
export function againstRules(
  packing: Packing,
  { excluded, locks }: { excluded: readonly string[]; locks: Locks },
): Finding | null {
  const used = new Set(packing.packages.map((p) => typeOf(p)?.id ?? '').filter((id) => excluded.includes(id)));
  if (used.size > 0) return finding('pack/uses-excluded', [], { parts: [...used].join(', ') });
  return locksBroken(packing, locks) === null ? null : finding('pack/not-as-held', [], {});
}

/** A unit in use before it has its place: its part, the units of the part that can do it (from 0), and the use. */
export interface Item {
  readonly part: PartType;
  readonly units: readonly number[];
  readonly use: UnitUse;
}

/**
 * Puts units in use into packages: what is pinned to its place, the rest in order, each into the first package
 * with a free unit that can do it, a new one when there is none. Packages decided by hand keep their references,
 * the others take the lowest numbers that are free.
 */
export function fill(items: readonly Item[], locks: Locks, family: FamilyId): Package[] {
  const open: { ref: string | null; part: PartType; units: (UnitUse | null)[] }[] = [];
  const empty = (part: PartType): null[] => part.units.map(() => null);
  for (const [ref, number] of lockedPackages(locks)) {
    const part = findChip(number);
    if (part) open.push({ ref, part, units: empty(part) });
  }
  const waiting: Item[] = [];
  for (const item of items) {
    const pin = locks.pins.find((p) => p.net === item.use.output);
    const place = pin && open.find((p) => p.ref === pin.ref && p.part === item.part);
    if (place && pin) place.units[pin.unit] = { ...item.use, inputs: asPinned(item.use.inputs, pin.inputs) };
    else waiting.push(item);
  }
  for (const { part, units, use } of waiting) {
    const free = (p: (typeof open)[number]): number | undefined =>
      p.part === part ? units.find((u) => p.units[u] === null) : undefined;
    let at = open.find((p) => free(p) !== undefined);
    if (!at) {
      at = { ref: null, part, units: empty(part) };
      open.push(at);
    }
    at.units[free(at) as number] = use;
  }
  const next = freeRefs(lockedPackages(locks).keys());
  return open
    .map(({ ref, part, units }) => ({ ref: ref ?? next(), part: seatedNumber(part, family), units }))
    .sort((a, b) => numberOf(a.ref) - numberOf(b.ref));
}

/** Nets in the order they were pinned in, as long as they are the same nets. */
function asPinned(inputs: readonly string[], pinned: readonly string[]): readonly string[] {
  const key = (nets: readonly string[]): string => [...nets].sort().join(' ');
  return key(inputs) === key(pinned) ? pinned : inputs;
}

const numberOf = (ref: string): number => Number(ref.slice(1));

/** Gives the lowest references `U1`, `U2` … that are not taken, one after the other. */
export function freeRefs(taken: Iterable<string>): () => string {
  const used = new Set(taken);
  let n = 0;
  return () => {
    do n++;
    while (used.has(`U${n}`));
    return `U${n}`;
  };
}
