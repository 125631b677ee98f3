import { typeOf, type Unit } from '../catalogue';
import { type Netlist, printFitting } from '../design';
import { elementAt } from '../element-at';
import type { Network } from '../logic';
import { gatesOfUnit, isPlain } from './unit-gates';

/**
 * A unit put to use. `gate` is the design's net whose gate it serves, wholly or in `part`; `inputs`
 * are nets in the order of the unit's input pins (`0` is ground, `1` supply); `output` is the net it
 * drives: the design's own name, or `P.1`, `P.2` … for nets that only the packing has.
 */
export interface UnitUse {
  readonly gate: string;
  readonly part: UnitPart;
  readonly inputs: readonly string[];
  readonly output: string;
  /** Nets of the unit's further outputs; for parts used by number `gate` is the part's name on the sheet. */
  readonly others?: readonly string[];
}

/** The nets that a unit in use drives, in the order of the unit's output pins. */
export function drivenBy(use: UnitUse): readonly string[] {
  return use.others ? [use.output, ...use.others] : [use.output];
}

/**
 * `whole`: the gate itself. `piece`: one step of a gate split up. `inverter`: it completes a gate. `block`: a larger
 * block chosen for several gates, `gate` the first of them.
 */
export type UnitPart = 'whole' | 'piece' | 'inverter' | 'block';

/** Whether a unit in use is logic of the design's gates: a plain unit, or a larger block that the packing chose. */
export function isLogic(unit: Unit, use: UnitUse): boolean {
  return isPlain(unit) || use.part === 'block';
}

/** A package: its reference, part number, and for each unit of the part its use or null (spare). */
export interface Package {
  readonly ref: string;
  readonly part: string;
  /** The definition of a part of one's own. */
  readonly own?: string;
  readonly units: readonly (UnitUse | null)[];
}

/**
 * Gates assigned to units. `proved` says that no smaller number of packages builds the design's gates
 * one to one from the recipes tried; `design` is the fingerprint of the netlist it was made for.
 */
export interface Packing {
  readonly packages: readonly Package[];
  readonly inputs: readonly string[];
  readonly outputs: readonly { readonly name: string; readonly net: string }[];
  readonly proved: boolean;
  readonly design: string;
  /** The strategy it was packed by; absent in packings from before there were several, which are as written. */
  readonly strategy?: Strategy;
  readonly proof?: Proof;
  /** No packing has fewer packages, as far as is known. */
  readonly bound?: number;
}

/** A strategy for building a design: what is kept, or what is made least. */
export type Strategy =
  | 'own'
  | 'written'
  | 'fewest'
  | 'blocks'
  | 'kinds'
  | 'jumpers'
  | 'shortest'
  | 'nand'
  | 'nor'
  | 'drawer';

/**
 * How sure it is that nothing is better: `all`: by trying everything; `gates`: by trying every set of gate chips,
 * larger blocks as far as they were matched; `tried`: of the ways offered to the
 * integer program; `best`: the best found with the effort there was.
 */
export type Proof = 'all' | 'gates' | 'tried' | 'best';

/** Nets that a packing drives and nothing reads: outputs of larger parts that lead nowhere. */
export function looseNets({ packages, outputs }: Packing): ReadonlySet<string> {
  const uses = packages.flatMap((p) => p.units.flatMap((use) => use ?? []));
  const read = new Set([...uses.flatMap((use) => use.inputs), ...outputs.map((o) => o.net)]);
  return new Set(uses.flatMap(drivenBy).filter((net) => !read.has(net)));
}

/** Counts that the screens and the command line show. */
export interface PackingCount {
  readonly packages: number;
  readonly unitsUsed: number;
  readonly unitsSpare: number;
}

/** Packages and units of a packing, as screens and command line count them; a package of one's own counts like any other. */
export function countPacking(packing: Packing): PackingCount {
  const units = packing.packages.flatMap((p) => p.units);
  const unitsUsed = units.filter((u) => u !== null).length;
  return { packages: packing.packages.length, unitsUsed, unitsSpare: units.length - unitsUsed };
}

/** How many packages of each part number a packing takes, sorted by number. */
export function partsOfPacking(packing: Packing): readonly { part: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { part } of packing.packages) counts.set(part, (counts.get(part) ?? 0) + 1);
  return [...counts].map(([part, count]) => ({ part, count })).sort((a, b) => a.part.localeCompare(b.part));
}

/**
 * A short text that is equal for equal netlists (names, kinds, connections, and what signals come from and are shown on; not places in the
 * text): 53 bits of a multiplicative hash, in hexadecimal.
 */
export function fingerprint(netlist: Netlist): string {
  const gates = netlist.gates.map((g) => `${g.output}=${g.kind}(${g.inputs.join()})`);
  const outputs = netlist.outputs.map((o) => `${o.name}:${o.net}`);
  const cells = netlist.cells.map(({ at, ...cell }) => JSON.stringify(cell));
  const unused = netlist.unused ? [`unused ${netlist.unused.rows.join()}`] : [];
  const shown = netlist.fittings.map(({ fitting, signals }) => `${printFitting(fitting)} ${signals.join()}`);
  const pulses = netlist.pulses.map(({ ref, seconds }) => `${ref} for ${seconds.join()}`);
  const text = [netlist.inputs.join(), outputs.join(), ...gates, ...cells, ...unused, ...shown, ...pulses].join(';');
  let a = 0x9e3779b9;
  let b = 0x85ebca6b;
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x9e3779b1);
    b = Math.imul(b ^ text.charCodeAt(i), 0x5f356495);
  }
  const high = ((a ^ (b >>> 15)) >>> 0) & 0x1fffff;
  return high.toString(16).padStart(6, '0') + (b >>> 0).toString(16).padStart(8, '0');
}

/** A unit in use with its place: the package's reference and what the catalogue says of the unit. */
export interface PlacedUse {
  readonly ref: string;
  readonly unit: Unit;
  readonly use: UnitUse;
}

/**
 * The units in use in the order in which a careful person wires them: each after those it reads, and
 * otherwise as they stand in their packages. Throws if the units form a loop or a part is unknown.
 */
export function buildOrder(packing: Packing): PlacedUse[] {
  let waiting = packing.packages.flatMap(({ units, ...named }) => {
    const type = typeOf(named);
    const { ref, part } = named;
    if (!type) throw new Error(`unknown part ${part}`);
    return units.flatMap((use, i) => (use ? [{ ref, unit: elementAt(type.units, i), use }] : []));
  });
  // What parts used by number drive is there from the start: they may feed what they read themselves.
  const parts = waiting.filter(({ unit, use }) => !isLogic(unit, use));
  const made = new Set(['0', '1', ...packing.inputs, ...parts.flatMap(({ use }) => drivenBy(use))]);
  const sorted: PlacedUse[] = [];
  while (waiting.length > 0) {
    const ready = waiting.filter(({ use }) => use.inputs.every((net) => made.has(net)));
    if (ready.length === 0) throw new Error('the packing has a loop');
    for (const { use } of ready) for (const net of drivenBy(use)) made.add(net);
    sorted.push(...ready);
    waiting = waiting.filter((u) => !ready.includes(u));
  }
  return sorted;
}

/**
 * The gates of a packing as a network, for checking them against the sheet; what parts used by number
 * drive counts as inputs, after the packing's own. Throws as `buildOrder` does.
 */
export function networkOfPacking(packing: Packing): Network {
  const units = buildOrder(packing);
  const gates = units.flatMap(({ ref, unit, use }) =>
    isLogic(unit, use) ? gatesOfUnit(unit, use.inputs, drivenBy(use), `${ref}.${unit.name}/`) : [],
  );
  const parts = units.flatMap(({ unit, use }) => (isLogic(unit, use) ? [] : drivenBy(use)));
  return { inputs: [...packing.inputs, ...parts], gates, outputs: packing.outputs.map((o) => o.net) };
}
