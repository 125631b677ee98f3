import { type FamilyId, findChip, type PartType, typeOf, type Unit } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import { compile, sweep } from '../logic';
import { remembered } from '../memo';
import type { Duty } from './candidate';
import { seatedNumber } from './chip-family';
import { freeRefs, type Locks, lockedPackages } from './locks';
import type { Package, Packing, UnitUse } from './packing';
import { gatesOfUnit, isPlain } from './unit-gates';
import { choosable, pinsFor, serves, type UnitKind, unitKindsOf } from './units';

/** A unit of a packing: its package, and its number there, from 0. */
export interface UnitPlace {
  readonly ref: string;
  readonly unit: number;
}

/** What came of a wish: the packing and what is held then, or why it cannot be. */
export type ByHand =
  | { readonly ok: true; readonly packing: Packing; readonly locks: Locks }
  | { readonly ok: false; readonly finding: Finding };

const no = (f: Finding): ByHand => ({ ok: false, finding: f });

/** A unit's place as people write it: `U2.3`, counted from 1. */
export const printPlace = ({ ref, unit }: UnitPlace): string => `${ref}.${unit + 1}`;

/** Reads `U2.3`; null when it is none. */
export function parsePlace(text: string): UnitPlace | null {
  const [, ref, n] = /^(U[1-9]\d{0,3})\.([1-9]\d?)$/i.exec(text.trim()) ?? [];
  return ref === undefined ? null : { ref: ref.toUpperCase(), unit: Number(n) - 1 };
}

/** Where a net is made in a packing; null when no unit drives it. */
export function placeOf(packing: Packing, net: string): UnitPlace | null {
  for (const { ref, units } of packing.packages) {
    const unit = units.findIndex((u) => u !== null && (u.output === net || u.others?.includes(net) === true));
    if (unit >= 0) return { ref, unit };
  }
  return null;
}

interface Found {
  readonly pack: Package;
  readonly type: PartType;
  readonly unit: Unit;
  readonly use: UnitUse | null;
}

function at(packing: Packing, { ref, unit }: UnitPlace): Found | null {
  const pack = packing.packages.find((p) => p.ref === ref);
  const type = pack && typeOf(pack);
  const found = type?.units[unit];
  return pack && type && found ? { pack, type, unit: found, use: pack.units[unit] ?? null } : null;
}

/**
 * Moves what one unit does to another; what that one does comes back in exchange. The gates of the sheet that
 * were moved are pinned where they come to lie.
 */
export function moveGate(
  packing: Packing,
  locks: Locks,
  netlist: Netlist,
  { from, to }: { readonly from: UnitPlace; readonly to: UnitPlace },
): ByHand {
  const [source, target] = [at(packing, from), at(packing, to)];
  if (!source || !target) return no(finding('hand/no-unit', [], { place: printPlace(source ? to : from) }));
  if (!source.use) return no(finding('hand/spare-unit', [], { place: printPlace(from) }));
  const there = moved(source, target, to.unit);
  if ('code' in there) return no(there);
  const back = target.use && moved(target, source, from.unit);
  if (back && 'code' in back) return no(back);
  const units = new Map<string, UnitUse | null>([
    [printPlace(from), back],
    [printPlace(to), there],
  ]);
  const packages = packing.packages.map((p) => ({
    ...p,
    units: p.units.map((use, u) => {
      const now = units.get(printPlace({ ref: p.ref, unit: u }));
      return now === undefined ? use : now;
    }),
  }));
  const next = rearranged({ ...packing, packages });
  const nets = [there.output, ...(back ? [back.output] : [])].filter((n) => isGate(netlist, n));
  return { ok: true, packing: next, locks: nets.reduce((h, net) => pinned(next, h, net), locks) };
}

/** A use as another unit does it, or why it cannot. */
function moved(source: Found, target: Found, unit: number): UnitUse | Finding {
  const { use, type } = source;
  if (!use) throw new Error('nothing to move');
  const own = unitKindsOf([type.id]).find((k) => k.units.includes(type.units.indexOf(source.unit)));
  const kind = unitKindsOf([target.type.id]).find((k) => k.units.includes(unit));
  if (!own || use.others) return finding('hand/by-number', [], { net: use.output, ref: source.pack.ref });
  const { duty, nets } = dutyOf(own, use.inputs);
  if (kind && serves(kind, duty))
    return { ...use, inputs: own.duty === kind.duty || alike(own, kind) ? use.inputs : pinsFor(kind, duty, nets) };
  return finding('hand/unit-cannot', [], {
    part: target.type.id,
    title: target.type.title,
    net: use.output,
    duty: saysDuty(duty),
  });
}

const alike = (a: UnitKind, b: UnitKind): boolean => a.duty.kind === b.duty.kind && a.duty.width === b.duty.width;

/** What a unit is used for: joined inputs and inputs tied to where they do nothing count once. */
export function dutyOf({ duty }: UnitKind, inputs: readonly string[]): { duty: Duty; nets: readonly string[] } {
  if (duty.kind === 'aoi') {
    const sides = [inputs.slice(0, duty.width), inputs.slice(duty.width)].map((s) => [...new Set(s)].sort());
    const [a = [], b = []] = sides;
    if (a.join() === b.join()) return plainDuty('nand', a);
    if (a.length === 1 && b.length === 1) return { duty: { kind: 'nor', width: 2 }, nets: [...a, ...b] };
    const width = Math.max(a.length, b.length) > 2 ? 3 : 2;
    const padded = (s: readonly string[]): string[] => Array.from({ length: width }, (_, i) => s[i] ?? elementAt(s, 0));
    return { duty: { kind: 'aoi', width }, nets: [...padded(a), ...padded(b)] };
  }
  const idle = duty.kind === 'and' || duty.kind === 'nand' ? '1' : duty.kind === 'or' || duty.kind === 'nor' ? '0' : '';
  if (idle !== '')
    return plainDuty(
      duty.kind,
      [...new Set(inputs)].filter((n, _, all) => n !== idle || all.length === 1),
    );
  const inverts = duty.kind === 'xor' ? '1' : '0';
  if ((duty.kind === 'xor' || duty.kind === 'xnor') && inputs.includes(inverts))
    return plainDuty('not', [inputs.find((n) => n !== inverts) ?? inverts]);
  return plainDuty(duty.kind, inputs);
}

const kindsOfType: (id: string) => readonly UnitKind[] = remembered((id) => unitKindsOf([id]));

/** What a unit of a chip does with the nets at its inputs; null for units that are no plain gates. */
export function dutyOfUnit(type: PartType, unit: number, nets: readonly string[]): ReturnType<typeof dutyOf> | null {
  const kind = kindOfUnit(type, unit);
  return kind ? dutyOf(kind, nets) : null;
}

/** Whether a unit of a chip is a plain gate, which a packing may choose by itself. */
export function isGateUnit(type: PartType, unit: number): boolean {
  return kindOfUnit(type, unit) !== undefined;
}

/** Whether a unit of a chip can do a duty. */
export function unitServes(type: PartType, unit: number, duty: Duty): boolean {
  const kind = kindOfUnit(type, unit);
  return kind !== undefined && serves(kind, duty);
}

function kindOfUnit(type: PartType, unit: number): UnitKind | undefined {
  const kinds = kindsOfType(type.id);
  return kinds.find((k) => k.units.includes(unit));
}

/**
 * What a unit does with the nets at its inputs, as a text that is equal for units that do the same: joined and tied
 * inputs count as they work, equal inputs in any order. Null for units that are no plain gates.
 */
export function dutyText(type: PartType, unit: number, nets: readonly string[]): string | null {
  const does = dutyOfUnit(type, unit, nets);
  if (!does) return null;
  const { duty, nets: read } = does;
  if (duty.kind !== 'aoi') return `${duty.kind} ${[...read].sort().join(' ')}`;
  const sides = [read.slice(0, duty.width), read.slice(duty.width)].map((s) => [...new Set(s)].sort().join(' '));
  return `aoi ${sides.sort().join(' | ')}`;
}

function plainDuty(
  kind: Exclude<Duty['kind'], 'aoi'>,
  nets: readonly string[],
): { duty: Duty; nets: readonly string[] } {
  const single = nets.length === 1 && (kind === 'nand' || kind === 'nor');
  return { duty: { kind: single ? 'not' : kind, width: nets.length }, nets };
}

function saysDuty({ kind, width }: Duty): string {
  if (kind === 'not') return 'an inverter';
  if (kind === 'aoi') return `AND-OR-invert with products of ${width}`;
  return `${kind.toUpperCase()} of ${width}`;
}

/** The units to which what one unit does can be moved, itself left out, spare ones first. */
export function placesFor(packing: Packing, locks: Locks, netlist: Netlist, from: UnitPlace): UnitPlace[] {
  const all = packing.packages.flatMap(({ ref, units }) =>
    units.map((use, unit) => ({ ref, unit, spare: use === null })),
  );
  return all
    .filter(
      (p) => (p.ref !== from.ref || p.unit !== from.unit) && moveGate(packing, locks, netlist, { from, to: p }).ok,
    )
    .sort((a, b) => Number(b.spare) - Number(a.spare))
    .map(({ ref, unit }) => ({ ref, unit }));
}

/** Swaps what two inputs of a unit read, if that changes nothing; a pinned gate keeps the new order. */
export function swapInputs(
  packing: Packing,
  locks: Locks,
  place: UnitPlace,
  { i, j }: { readonly i: number; readonly j: number },
): ByHand {
  const found = at(packing, place);
  const use = found?.use;
  if (!found || !use) return no(finding('hand/no-unit', [], { place: printPlace(place) }));
  const [a = '?', b = '?'] = [found.unit.inputs[i], found.unit.inputs[j]];
  if (!areEqual(found.unit, i, j))
    return no(finding('hand/unequal-inputs', [], { a, b, ref: place.ref, net: use.output }));
  const inputs = use.inputs.map((net, k) => use.inputs[k === i ? j : k === j ? i : k] ?? net);
  const next = withUse(packing, place, { ...use, inputs });
  const pins = locks.pins.map((p) => (p.net === use.output ? { ...p, inputs } : p));
  return { ok: true, packing: next, locks: { ...locks, pins } };
}

/** Whether two inputs of a unit may be swapped: its function is the same then. */
export function areEqual(unit: Unit, i: number, j: number): boolean {
  const names = unit.inputs.map((_, k) => `i${k}`);
  if (!isPlain(unit) || names[i] === undefined || names[j] === undefined || names.length > 16) return false;
  const swapped = names.map((_, k) => elementAt(names, k === i ? j : k === j ? i : k));
  const [a, b] = [names, swapped].map(
    (order) =>
      sweep(compile({ inputs: names, gates: gatesOfUnit(unit, order, ['o'], 'u/'), outputs: ['o'] })).columns[0],
  );
  return a !== undefined && b !== undefined && a.every((w, k) => w === b[k]);
}

/** Pins a gate of the sheet to the unit that makes it, or lets it go. */
export function lockGate(
  packing: Packing,
  locks: Locks,
  netlist: Netlist,
  { net, on }: { readonly net: string; readonly on: boolean },
): ByHand {
  if (!on) return { ok: true, packing, locks: { ...locks, pins: locks.pins.filter((p) => p.net !== net) } };
  const place = placeOf(packing, net);
  const found = place && at(packing, place);
  if (!place || !found) return no(finding('hand/no-unit', [], { place: net }));
  if (!isGate(netlist, net)) return no(finding('hand/not-the-sheets', [], { net }));
  if (!choosable.includes(found.type.id)) return no(finding('hand/by-number', [], { net, ref: place.ref }));
  return { ok: true, packing, locks: pinned(packing, locks, net) };
}

const isGate = ({ gates }: Netlist, net: string): boolean => gates.some((g) => g.output === net);

function pinned(packing: Packing, locks: Locks, net: string): Locks {
  const place = placeOf(packing, net);
  const found = place && at(packing, place);
  if (!place || !found?.use) return locks;
  const pin = { net, ...place, part: found.type.id, inputs: found.use.inputs };
  return { ...locks, pins: [...locks.pins.filter((p) => p.net !== net), pin] };
}

/** Adds a package, all of it spare, under the lowest free reference. */
export function addPackage(packing: Packing, locks: Locks, family: FamilyId, what: string): ByHand {
  const type = findChip(what);
  if (!type || !choosable.includes(type.id))
    return no(finding('hand/not-choosable', [], { part: what.slice(0, 40) || '?', chips: choosable.join(', ') }));
  const ref = freeRefs([...packing.packages.map((p) => p.ref), ...lockedPackages(locks).keys()])();
  const pack: Package = { ref, part: seatedNumber(type, family), units: type.units.map(() => null) };
  const number = (p: Package): number => Number(p.ref.slice(1));
  const packages = [...packing.packages, pack].sort((a, b) => number(a) - number(b));
  return {
    ok: true,
    packing: lessSure({ ...packing, packages }),
    locks: { ...locks, added: [...locks.added, { ref, part: type.id }] },
  };
}

/** Takes away a package of which nothing is used. */
export function dropPackage(packing: Packing, locks: Locks, ref: string): ByHand {
  const pack = packing.packages.find((p) => p.ref === ref);
  if (!pack) return no(finding('hand/no-unit', [], { place: ref }));
  const nets = pack.units.flatMap((u) => (u ? [u.output] : []));
  if (nets.length > 0) return no(finding('hand/still-used', [], { ref, nets: nets.join(', ') }));
  const packages = packing.packages.filter((p) => p !== pack);
  return {
    ok: true,
    packing: lessSure({ ...packing, packages }),
    locks: { ...locks, added: locks.added.filter((a) => a.ref !== ref) },
  };
}

function withUse(packing: Packing, { ref, unit }: UnitPlace, use: UnitUse): Packing {
  return {
    ...packing,
    packages: packing.packages.map((p) =>
      p.ref === ref ? { ...p, units: p.units.map((u, k) => (k === unit ? use : u)) } : p,
    ),
  };
}

/** As many packages as before: what was known of their number still is; pins and paths may be others now. */
function rearranged(packing: Packing): Packing {
  return packing.strategy === 'jumpers' || packing.strategy === 'shortest' ? lessSure(packing) : packing;
}

/** Of another number of packages nothing is claimed but a bound that it still has. */
function lessSure(packing: Packing): Packing {
  return { ...packing, proved: false, proof: 'best' };
}
