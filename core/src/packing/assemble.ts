import type { FamilyId, PartType, Unit } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { packageOf } from './blocks';
import type { Duty } from './candidate';
import { dutyKey } from './candidate';
import type { Choice } from './choice-program';
import { classOf, type FunctionNet, inverse, type Literal } from './functions';
import { fill, type Item, type LockedGate, type Locks, noLocks } from './locks';
import type { Package, UnitUse } from './packing';
import { pinsFor, type UnitKind } from './units';

/** A chosen unit: the literals it makes from others, and what kind of unit does it. */
interface Step {
  readonly makes: readonly Literal[];
  readonly inputs: readonly Literal[];
  /** What a plain unit does; null for a larger block. */
  readonly duty: Duty | null;
  readonly inverter: boolean;
  readonly block?: { readonly part: PartType; readonly unit: Unit; readonly outputs: readonly (Literal | null)[] };
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
export function assemble(
  netlist: Netlist,
  functions: FunctionNet,
  choice: Choice,
  { family, locks = noLocks }: { readonly family: FamilyId; readonly locks?: Locks },
): Assembled {
  const steps = inOrder(functions, choice);
  const names = new Names(netlist, functions, steps, new Set(locks.pins.map((p) => p.net)));
  const kinds = kindsFor(steps, choice, locks, (step) => names.of(made(step)));
  const placed = steps.map((step, i): Item => {
    const read = step.inputs.map((l) => names.of(l));
    const { block } = step;
    if (block) return { part: block.part, units: block.part.units.map((_, u) => u), use: names.blockUse(step, read) };
    const kind = kinds[i];
    if (!kind) throw new Error(`no unit for ${names.of(made(step))}`);
    const use = {
      ...names.purpose(step),
      inputs: pinsFor(kind, step.duty as Duty, read),
      output: names.of(made(step)),
    };
    return { part: kind.part, units: kind.units, use };
  });
  return { packages: fill(placed, locks, family), netOf: (net) => names.of(functions.ofNet(net)) };
}

/** What a step makes, the first of it when there is more. */
const made = (step: Step): Literal => elementAt(step.makes, 0);

/** The kind of unit that takes each step: its own for what is pinned, the rest as they come. */
function kindsFor(
  steps: readonly Step[],
  choice: Choice,
  { pins }: Locks,
  nameOf: (step: Step) => string,
): readonly (UnitKind | null)[] {
  const service = new Map([...choice.service].map(([key, kinds]) => [key, [...kinds]]));
  const take = (step: Step, fits: (kind: UnitKind) => boolean): UnitKind => {
    const duty = step.duty as Duty;
    const queue = service.get(dutyKey(duty)) ?? [];
    const [kind] = queue.splice(
      queue.findIndex((k) => fits(k)),
      1,
    );
    if (!kind || !fits(kind)) throw new Error(`no unit was chosen for ${dutyKey(duty)}`);
    return kind;
  };
  const pinOf = (step: Step): LockedGate | undefined =>
    step.block ? undefined : pins.find((p) => p.net === nameOf(step));
  const pinned = new Map<Step, UnitKind>();
  for (const step of steps) {
    const pin = pinOf(step);
    if (pin)
      pinned.set(
        step,
        take(step, (k) => k.part.id === pin.part && k.units.includes(pin.unit)),
      );
  }
  return steps.map((step) => (step.block ? null : (pinned.get(step) ?? take(step, () => true))));
}

/** One step for each unit of the larger blocks. */
function blockSteps({ blocks = [] }: Choice): Step[] {
  return blocks.flatMap(({ frame, uses }) =>
    packageOf(frame, uses).units.map(({ unit: u, reads, makes }): Step => {
      const unit = elementAt(frame.part.units, u);
      return {
        makes: [...makes.values()],
        inputs: unit.behaviour.inputs.map((name) => reads.get(name) ?? 0),
        duty: null,
        inverter: false,
        block: { part: frame.part, unit, outputs: unit.behaviour.outputs.map((o) => makes.get(o.name) ?? null) },
      };
    }),
  );
}

function inOrder(functions: FunctionNet, choice: Choice): Step[] {
  const { ways, inverters } = choice;
  const waiting: Step[] = [
    ...ways.map(({ makes, duty, inputs }) => ({ makes: [makes], duty, inputs, inverter: false })),
    ...blockSteps(choice),
    ...inverters.map((l) => ({
      makes: [l],
      duty: { kind: 'not', width: 1 } as const,
      inputs: [inverse(l)],
      inverter: true,
    })),
  ];
  const made = new Set<Literal>([0, 1, ...functions.sources.map((_, i) => 2 * (i + 1))]);
  const sorted: Step[] = [];
  for (let left = waiting; left.length > 0; ) {
    const ready = left.filter((item) => item.inputs.every((l) => made.has(l)));
    if (ready.length === 0) throw new Error('the chosen ways hold a loop');
    for (const item of ready) for (const l of item.makes) made.add(l);
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

  constructor(netlist: Netlist, functions: FunctionNet, items: readonly Step[], pinned: ReadonlySet<string>) {
    this.names.set(0, '0').set(1, '1');
    for (const [i, name] of functions.sources.entries()) this.names.set(2 * (i + 1), name);
    this.gates = new Map(netlist.gates.map((g) => [g.output, g.kind]));
    const outputs = new Set(netlist.outputs.map((o) => o.net));
    const weight = (net: string): number =>
      pinned.has(net) ? -1 : outputs.has(net) ? 0 : /^t\d+$|'/.test(net) ? 2 : 1;
    for (const { output } of [...netlist.gates].sort((a, b) => weight(a.output) - weight(b.output))) {
      const l = functions.ofNet(output);
      if (!this.names.has(l)) this.names.set(l, output);
    }
    this.own(items);
  }

  /** Every literal that the design has no name for is a step of the first gate that reads it. */
  private own(items: readonly Step[]): void {
    const count = new Map<string, number>();
    const steps = items.flatMap(({ makes, inputs }) => makes.map((l) => ({ makes: l, inputs })));
    for (const item of [...steps].reverse()) {
      const name = this.names.get(item.makes);
      const owner = name ?? this.names.get(inverse(item.makes)) ?? this.owners.get(item.makes) ?? item.makes.toString();
      const known = this.gates.has(owner) ? owner : (this.owners.get(item.makes) ?? owner);
      for (const l of item.inputs) if (!this.owners.has(l)) this.owners.set(l, known);
      this.owners.set(item.makes, known);
    }
    for (const { makes } of steps) {
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

  /** A larger block: outputs that nothing reads are named after its first gate and their pins. */
  blockUse(step: Step, inputs: readonly string[]): UnitUse {
    const { unit, outputs } = step.block as NonNullable<Step['block']>;
    const name = this.of(made(step));
    const gate = this.gates.has(name) ? name : (this.owners.get(made(step)) as string);
    const nets = outputs.map((l, k) => (l === null ? `${name}.${unit.behaviour.outputs[k]?.name}` : this.of(l)));
    const [output = '', ...others] = nets;
    return { gate, part: 'block', inputs, output, ...(others.length > 0 && { others }) };
  }

  /** What a unit is for: a gate of the design, what completes it, or one step of it. */
  purpose(step: Step): Pick<UnitUse, 'gate' | 'part'> {
    const name = this.of(made(step));
    const kind = this.gates.get(name);
    if (kind === undefined) return { gate: this.owners.get(made(step)) as string, part: 'piece' };
    const { inverter } = step;
    return { gate: name, part: inverter && kind !== 'not' ? 'inverter' : 'whole' };
  }
}
