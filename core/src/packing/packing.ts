import { partType } from '../catalogue';
import type { Gate, Netlist } from '../design';
import type { GateKind, Network } from '../logic';

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
}

/** `whole`: the gate itself. `piece`: one step of a gate split up. `inverter`: it completes a gate. */
export type UnitPart = 'whole' | 'piece' | 'inverter';

/** A package: its reference, part number, and for each unit of the part its use or null (spare). */
export interface Package {
  readonly ref: string;
  readonly part: string;
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
}

/** Counts that the screens and the command line show. */
export interface PackingCount {
  readonly packages: number;
  readonly unitsUsed: number;
  readonly unitsSpare: number;
}

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
 * A short text that is equal for equal netlists (names, kinds and connections; not places in the
 * text): 53 bits of a multiplicative hash, in hexadecimal.
 */
export function fingerprint(netlist: Netlist): string {
  const gates = netlist.gates.map((g) => `${g.output}=${g.kind}(${g.inputs.join()})`);
  const outputs = netlist.outputs.map((o) => `${o.name}:${o.net}`);
  const text = [netlist.inputs.join(), outputs.join(), ...gates].join(';');
  let a = 0x9e3779b9;
  let b = 0x85ebca6b;
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x9e3779b1);
    b = Math.imul(b ^ text.charCodeAt(i), 0x5f356495);
  }
  const high = ((a ^ (b >>> 15)) >>> 0) & 0x1fffff;
  return high.toString(16).padStart(6, '0') + (b >>> 0).toString(16).padStart(8, '0');
}

/** What a use does, as a gate: the unit's own kind over the nets on its pins. */
function gateOf(use: UnitUse, kind: GateKind): Pick<Gate, 'output' | 'kind' | 'inputs'> {
  return { output: use.output, kind, inputs: use.inputs };
}

/**
 * The packing as a network of its units, for checking it against the sheet: units in an order in
 * which each reads only nets already made. Throws if the units form a loop or a part is unknown.
 */
export function networkOfPacking(packing: Packing): Network {
  const waiting = packing.packages.flatMap((p) => {
    const units = partType(p.part)?.units;
    if (!units) throw new Error(`unknown part ${p.part}`);
    return p.units.flatMap((use, i) => (use ? [gateOf(use, units[i]?.gate?.kind ?? 'and')] : []));
  });
  return {
    inputs: packing.inputs,
    gates: inOrder(waiting, new Set(['0', '1', ...packing.inputs])),
    outputs: packing.outputs.map((o) => o.net),
  };
}

type Wired = { readonly output: string; readonly inputs: readonly string[] };

/** Sorts gates so that each comes after those it reads; `made` holds the nets there at the start. */
function inOrder<G extends Wired>(gates: readonly G[], made: Set<string>): G[] {
  const sorted: G[] = [];
  let waiting = gates;
  while (waiting.length > 0) {
    const ready = waiting.filter((g) => g.inputs.every((net) => made.has(net)));
    if (ready.length === 0) throw new Error('the packing has a loop');
    for (const gate of ready) made.add(gate.output);
    sorted.push(...ready);
    waiting = waiting.filter((g) => !ready.includes(g));
  }
  return sorted;
}
