import { type FamilyId, partNumber } from '../catalogue';
import type { Netlist } from '../design';
import type { Duty } from './candidate';
import { dutyKey } from './candidate';
import type { Choice } from './choice-program';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';
import type { Package, UnitUse } from './packing';
import { pinsFor, type UnitKind } from './units';

/** A chosen unit: the literal it makes from others, and what kind of unit does it. */
interface Item {
  readonly makes: Literal;
  readonly duty: Duty;
  readonly inputs: readonly Literal[];
  readonly inverter: boolean;
}

/** Packages for a design's gates, and the net on which each of the design's nets is found in them. */
export interface Assembled {
  readonly packages: readonly Package[];
  readonly netOf: (net: string) => string;
}

/**
 * Makes packages of a choice: units in the order in which their inputs come, nets under the design's own
 * names where they have its functions, and every added unit named after the gate it serves.
 */
export function assemble(netlist: Netlist, functions: FunctionNet, choice: Choice, family: FamilyId): Assembled {
  const items = inOrder(functions, choice);
  const names = new Names(netlist, functions, items);
  const service = new Map([...choice.service].map(([key, kinds]) => [key, [...kinds]]));
  const placed = items.map((item) => {
    const kind = service.get(dutyKey(item.duty))?.shift();
    if (!kind) throw new Error(`no unit was chosen for ${dutyKey(item.duty)}`);
    const inputs = pinsFor(
      kind,
      item.duty,
      item.inputs.map((l) => names.of(l)),
    );
    return { kind, use: { ...names.purpose(item), inputs, output: names.of(item.makes) } };
  });
  return { packages: fill(placed, family), netOf: (net) => names.of(functions.ofNet(net)) };
}

function inOrder(functions: FunctionNet, { ways, inverters }: Choice): Item[] {
  const waiting: Item[] = [
    ...ways.map(({ makes, duty, inputs }) => ({ makes, duty, inputs, inverter: false })),
    ...inverters.map((l) => ({
      makes: l,
      duty: { kind: 'not', width: 1 } as const,
      inputs: [inverse(l)],
      inverter: true,
    })),
  ];
  const made = new Set<Literal>([0, 1, ...functions.sources.map((_, i) => 2 * (i + 1))]);
  const sorted: Item[] = [];
  for (let left = waiting; left.length > 0; ) {
    const ready = left.filter((item) => item.inputs.every((l) => made.has(l)));
    if (ready.length === 0) throw new Error('the chosen ways hold a loop');
    for (const item of ready) made.add(item.makes);
    sorted.push(...ready);
    left = left.filter((item) => !ready.includes(item));
  }
  return sorted;
}

/** Names for the literals of a packing. */
class Names {
  private readonly names = new Map<Literal, string>();
  private readonly owners = new Map<Literal, string>();
  private readonly gates: ReadonlyMap<string, string>;

  constructor(netlist: Netlist, functions: FunctionNet, items: readonly Item[]) {
    this.names.set(0, '0').set(1, '1');
    for (const [i, name] of functions.sources.entries()) this.names.set(2 * (i + 1), name);
    this.gates = new Map(netlist.gates.map((g) => [g.output, g.kind]));
    const outputs = new Set(netlist.outputs.map((o) => o.net));
    const weight = (net: string): number => (outputs.has(net) ? 0 : /^t\d+$|'/.test(net) ? 2 : 1);
    for (const { output } of [...netlist.gates].sort((a, b) => weight(a.output) - weight(b.output))) {
      const l = functions.ofNet(output);
      if (!this.names.has(l)) this.names.set(l, output);
    }
    this.own(items);
  }

  /** Every literal that the design has no name for is a step of the first gate that reads it. */
  private own(items: readonly Item[]): void {
    const count = new Map<string, number>();
    for (const item of [...items].reverse()) {
      const name = this.names.get(item.makes);
      const owner = name ?? this.names.get(inverse(item.makes)) ?? this.owners.get(item.makes) ?? item.makes.toString();
      const known = this.gates.has(owner) ? owner : (this.owners.get(item.makes) ?? owner);
      for (const l of item.inputs) if (!this.owners.has(l)) this.owners.set(l, known);
      this.owners.set(item.makes, known);
    }
    for (const { makes } of items) {
      if (this.names.has(makes)) continue;
      const owner = this.owners.get(makes) as string;
      const n = (count.get(owner) ?? 0) + 1;
      count.set(owner, n);
      this.names.set(makes, `${owner}.${n}`);
    }
  }

  of(l: Literal): string {
    const name = this.names.get(l);
    if (name === undefined) throw new Error(`nothing makes the function ${classOf(l)}`);
    return name;
  }

  /** What a unit is for: a gate of the design, what completes it, or one step of it. */
  purpose({ makes, inverter }: Item): Pick<UnitUse, 'gate' | 'part'> {
    const name = this.of(makes);
    const kind = this.gates.get(name);
    if (kind === undefined) return { gate: this.owners.get(makes) as string, part: 'piece' };
    return { gate: name, part: inverter && kind !== 'not' ? 'inverter' : 'whole' };
  }
}

/** Puts uses into packages in their order, each into the first package with a free unit of its kind. */
function fill(placed: readonly { kind: UnitKind; use: UnitUse }[], family: FamilyId): Package[] {
  const open: { part: UnitKind['part']; units: (UnitUse | null)[] }[] = [];
  for (const { kind, use } of placed) {
    const free = (p: (typeof open)[number]): number | undefined =>
      p.part === kind.part ? kind.units.find((u) => p.units[u] === null) : undefined;
    let at = open.find((p) => free(p) !== undefined);
    if (!at) {
      at = { part: kind.part, units: kind.part.units.map(() => null) };
      open.push(at);
    }
    at.units[free(at) as number] = use;
  }
  return open.map(({ part, units }, i) => ({ ref: `U${i + 1}`, part: partNumber(part.id, family), units }));
}
