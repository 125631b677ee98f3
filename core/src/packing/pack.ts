import { type FamilyId, findChip, ownPartType, type PartType, partNumber } from '../catalogue';
import type { Gate, Netlist, PartCell } from '../design';
import { type Finding, finding } from '../finding';
import type { IntegerSolution, SolveInteger } from '../logic';
import { lowered } from './lower';
import { fingerprint, type Package, type Packing, type UnitUse } from './packing';
import { allTasks, canServe, column, type GateClass, gateChips, packingProgram, unitGate } from './program';
import { follow, type Placed, type Recipe, recipesFor, taskKey } from './recipe';

/** Seconds that the integer program may take for each of its two stages. */
const SECONDS = 10;

type Class = GateClass & { readonly gates: readonly Gate[] };

/**
 * Packs a design one to one: each gate is built from real units by one of its recipes, wide gates are
 * split, spare units are put to use, and the number of packages is the smallest that the integer
 * program finds; among those, the fewest units, then the fewest pins.
 */
export async function pack(
  design: Netlist,
  family: FamilyId,
  solve: SolveInteger,
): Promise<{ packing: Packing | null; findings: Finding[] }> {
  const { inputs, outputs } = design;
  const frame = { inputs, outputs, design: fingerprint(design) };
  const netlist = lowered(design);
  const parts = (first: number): Package[] => packagesOfParts(netlist, family, first);
  if (netlist.gates.length === 0) return { packing: { ...frame, packages: parts(1), proved: true }, findings: [] };
  const classes = classesOf(netlist);
  const first = await solve(packingProgram(classes), SECONDS);
  if (first.status === 'none') return failed(first);
  const second = await solve(packingProgram(classes, packagesOf(first)), SECONDS);
  const best = second.status === 'none' ? first : second;
  const placed = served(placeAll(netlist, classes, best), classes, best);
  const gates = fill(placed, family);
  const packages = [...gates, ...parts(gates.length + 1)];
  return { packing: { ...frame, packages, proved: first.status === 'optimal' }, findings: [] };
}

function failed(solution: IntegerSolution): { packing: null; findings: Finding[] } {
  return { packing: null, findings: [finding('pack/no-solution', [], { status: solution.detail })] };
}

const count = (solution: IntegerSolution, name: string): number => solution.values[name] ?? 0;
const packagesOf = (s: IntegerSolution): number =>
  gateChips.reduce((sum, part) => sum + count(s, column.packages(part)), 0);

function classesOf(netlist: Netlist): Class[] {
  const classes = new Map<string, Gate[]>();
  for (const gate of netlist.gates) {
    const key = `${gate.kind} ${gate.inputs.length}`;
    classes.set(key, [...(classes.get(key) ?? []), gate]);
  }
  return [...classes.values()].map((gates) => {
    const [first] = gates as [Gate];
    return { gates, count: gates.length, recipes: recipesFor(first.kind, first.inputs.length) };
  });
}

/** Gives each gate a recipe, as many of each as the solution says, and carries them out in order. */
function placeAll(netlist: Netlist, classes: readonly Class[], solution: IntegerSolution): Placed[] {
  const recipeOf = new Map<Gate, Recipe>();
  classes.forEach(({ gates, recipes }, c) => {
    const chosen = recipes.flatMap((recipe, r) =>
      Array.from({ length: count(solution, column.recipe(c, r)) }, () => recipe),
    );
    gates.forEach((gate, i) => {
      recipeOf.set(gate, chosen[i] as Recipe);
    });
  });
  return netlist.gates.flatMap((gate) => follow(recipeOf.get(gate) as Recipe, gate));
}

type Served = { readonly placed: Placed; readonly part: PartType };

/** Gives each task a part whose unit serves it, as many of each as the solution says. */
function served(placed: readonly Placed[], classes: readonly GateClass[], solution: IntegerSolution): Served[] {
  const queues = new Map<string, PartType[]>();
  for (const task of allTasks(classes)) {
    const parts = gateChips.filter((part) => canServe(part, task));
    const queue = parts.flatMap((part) =>
      Array.from({ length: count(solution, column.service(task, part)) }, () => part),
    );
    queues.set(taskKey(task), queue);
  }
  return placed.map((p) => ({ placed: p, part: queues.get(taskKey(p.task))?.shift() as PartType }));
}

/** Fills packages in the order in which the units are needed, and numbers them by their first unit. */
function fill(items: readonly Served[], family: FamilyId): Package[] {
  const open = new Map<string, { part: PartType; uses: UnitUse[] }>();
  const packages: { part: PartType; uses: UnitUse[] }[] = [];
  for (const { placed, part } of items) {
    let current = open.get(part.id);
    if (!current || current.uses.length === part.units.length) {
      current = { part, uses: [] };
      open.set(part.id, current);
      packages.push(current);
    }
    current.uses.push(unitUse(placed, part));
  }
  return packages.map(({ part, uses }, i) => ({
    ref: `U${i + 1}`,
    part: partNumber(part.id, family),
    units: part.units.map((_, u) => uses[u] ?? null),
  }));
}

/** A package for each part the sheet uses by number, in the family asked for if it is made in it. */
export function packagesOfParts(
  netlist: Netlist,
  family: FamilyId,
  first: number,
  netOf: (net: string) => string = (net) => net,
): Package[] {
  const cells = netlist.cells.filter((c): c is PartCell => c.kind === 'part');
  return cells.map((cell, i) => {
    const type = cell.own === undefined ? findChip(cell.part) : ownPartType(cell.own);
    if (!type) throw new Error(`no part ${cell.part}`);
    const nets = new Map([
      ...cell.inputs.map(({ pin, net }): [string, string] => [pin, netOf(net)]),
      ...cell.outputs.map(({ pin, net }): [string, string] => [pin, net]),
    ]);
    const isJoined = (id: string): boolean => nets.has(type.pins.find((p) => p.id === id)?.name ?? '');
    const netAt = (id: string): string => {
      const name = type.pins.find((p) => p.id === id)?.name ?? '';
      return nets.get(name) ?? `${cell.ref}.${name}`;
    };
    const units = type.units.map((unit): UnitUse | null => {
      // A unit of which nothing is joined is spare.
      if (![...unit.inputs, ...unit.outputs].some((id) => isJoined(id))) return null;
      const [output = '', ...others] = unit.outputs.map(netAt);
      const use = { gate: cell.ref, part: 'whole' as const, inputs: unit.inputs.map(netAt), output };
      return others.length > 0 ? { ...use, others } : use;
    });
    const own = cell.own === undefined ? {} : { own: cell.own };
    return { ref: `U${first + i}`, part: partNumber(type.id, familyOf(type, family)), ...own, units };
  });
}

/** The family wanted if the part is made in it, otherwise low-power Schottky or the first it is made in. */
function familyOf({ chip }: PartType, wanted: FamilyId): FamilyId {
  const made = chip?.families ?? [];
  if (made.includes(wanted)) return wanted;
  return made.includes('LS') ? 'LS' : (made[0] ?? wanted);
}

/** The nets on a unit's input pins: spare inputs are joined to the last one used; an XOR that inverts has one input high. */
function unitUse(placed: Placed, part: PartType): UnitUse {
  const { kind, width } = unitGate(part);
  const last = placed.inputs[placed.inputs.length - 1] as string;
  const spare = placed.task.kind === 'not' && kind === 'xor' ? '1' : last;
  const inputs = Array.from({ length: width }, (_, i) => placed.inputs[i] ?? spare);
  return { gate: placed.gate, part: placed.part, inputs, output: placed.output };
}
