import { type FamilyId, findChip, ownPartType, type PartType, partType } from '../catalogue';
import type { Gate, Netlist, PartCell } from '../design';
import { elementAt } from '../element-at';
import { type Finding, finding } from '../finding';
import type { IntegerSolution, SolveInteger, SolveLimits } from '../logic';
import { gateFamily, seatedNumber } from './chip-family';
import {
  againstChips,
  fill,
  freeRefs,
  type Item,
  type LockedGate,
  type Locks,
  lockedCounts,
  lockedNets,
  noLocks,
  stillMeant,
} from './locks';
import { lowered } from './lower';
import { fingerprint, type Package, type Packing, type UnitUse } from './packing';
import { allTasks, canServe, column, type GateClass, gateChips, packingProgram, unitGate } from './program';
import { follow, type Placed, type Recipe, recipesFor, taskKey, tasksOf } from './recipe';

/** The effort that the integer program has for each of its two stages. */
const EFFORT = 10;

type Class = GateClass & { readonly gates: readonly Gate[] };

/** What a packing must keep to: chips excluded, by base number, and what was decided by hand. */
export interface Rules {
  readonly excluded: readonly string[];
  readonly locks: Locks;
}

/** Every chip allowed, nothing decided by hand. */
export const noRules: Rules = { excluded: [], locks: noLocks };

/**
 * Packs a design one to one: each gate is built from real units by one of its recipes, wide gates are
 * split, spare units are put to use (with `own` none but of the gate's own kind), and the number of packages is the smallest that the integer
 * program finds; among those, the fewest units, then the fewest pins. Pinned gates end on their units. Gates are of the family wanted, or of one that goes
 * together with the parts used by number.
 */
export async function pack(
  design: Netlist,
  wanted: FamilyId,
  solve: SolveInteger,
  {
    rules: { excluded, locks: wished } = noRules,
    own = false,
    limits = { effort: EFFORT },
  }: { readonly rules?: Rules; readonly own?: boolean; readonly limits?: SolveLimits } = {},
): Promise<{ packing: Packing | null; findings: Finding[] }> {
  const { inputs, outputs } = design;
  const family = gateFamily(design, wanted);
  const frame = { inputs, outputs, design: fingerprint(design) };
  const netlist = lowered(design, { family, kept: lockedNets(wished), without: excluded });
  const { locks, findings: gone } = stillMeant(wished, netlist);
  const finished = (gates: readonly Package[], proved: boolean) => ({
    packing: { ...frame, packages: [...gates, ...packagesOfParts(netlist, family, gates)], proved },
    findings: gone,
  });
  if (netlist.gates.length === 0) return finished(fill([], locks, family), true);
  const chips = gateChips.filter((p) => !excluded.includes(p.id));
  const against = againstChips(
    locks,
    chips.map((p) => p.id),
    'as written',
  );
  if (against.length > 0) return { packing: null, findings: against };
  const classes = classesOf(netlist, locks, own);
  const unfit = classes.find((c) => c.recipes.length === 0)?.gates[0];
  if (unfit) return { packing: null, findings: [cannotEnd(unfit, locks)] };
  const least = lockedCounts(locks);
  const first = await solve(packingProgram(classes, chips, least, { own }), limits);
  if (first.status === 'none') return failed(first, netlist, excluded);
  const fewest = packagesOf(first, chips);
  const second = await solve(packingProgram(classes, chips, least, { packages: fewest, own }), limits);
  const best = second.status === 'none' ? first : second;
  const placed = served(placeAll(netlist, classes, best), classes, { chips, solution: best, own });
  return finished(fill(placed, locks, family), first.status === 'optimal');
}

function failed(solution: IntegerSolution, { gates }: Netlist, excluded: readonly string[]) {
  const why =
    excluded.length > 0
      ? finding('pack/no-way', [], { strategy: 'as written', gates: gates.length, excluded: excluded.join(', ') })
      : finding('pack/no-solution', [], { status: solution.detail });
  return { packing: null, findings: [why] };
}

function cannotEnd(gate: Gate, { pins }: Locks): Finding {
  const { net = gate.output, ref = '', part = '' } = pins.find((p) => p.net === gate.output) ?? {};
  return finding('pack/pin-cannot', [], { net, ref, part, title: (partType(part) ?? findChip(part))?.title ?? part });
}

const count = (solution: IntegerSolution, name: string): number => solution.values[name] ?? 0;
const packagesOf = (s: IntegerSolution, chips: readonly PartType[]): number =>
  chips.reduce((sum, part) => sum + count(s, column.packages(part)), 0);

/** Gates alike are one class; a pinned gate is one by itself, with the recipes that its unit can end. */
function classesOf(netlist: Netlist, { pins }: Locks, own: boolean): Class[] {
  const classes = new Map<string, Gate[]>();
  for (const gate of netlist.gates) {
    const own = pins.some((p) => p.net === gate.output) ? ` ${gate.output}` : '';
    const key = `${gate.kind} ${gate.inputs.length}${own}`;
    classes.set(key, [...(classes.get(key) ?? []), gate]);
  }
  return [...classes.values()].map((gates) => {
    const [first] = gates as [Gate];
    const all = recipesFor(first.kind, first.inputs.length);
    const plain = all.filter((r) => !r.inverted);
    // Of its own kind as long as there is one: a gate that no chip has is completed by an inverter.
    const recipes = own && plain.length > 0 ? plain : all;
    const pin = pins.find((p) => p.net === first.output);
    return { gates, count: gates.length, recipes: pin ? recipes.flatMap((r) => endedOn(r, pin)) : recipes };
  });
}

/** A recipe whose last step is done by a pinned unit, if that can do it. */
function endedOn(recipe: Recipe, { ref, unit, part }: LockedGate): Recipe[] {
  const pinned = { ...recipe, on: { ref, unit, part } };
  const chip = gateChips.find((p) => p.id === part);
  const last = tasksOf(pinned).at(-1);
  return chip && last && canServe(chip, last) ? [pinned] : [];
}

/** Gives each gate a recipe, as many of each as the solution says, and carries them out in order. */
function placeAll(netlist: Netlist, classes: readonly Class[], solution: IntegerSolution): Placed[] {
  const recipeOf = new Map<Gate, Recipe>();
  classes.forEach(({ gates, recipes }, c) => {
    const chosen = recipes.flatMap((recipe, r) =>
      Array.from({ length: count(solution, column.recipe(c, r)) }, () => recipe),
    );
    gates.forEach((gate, i) => {
      recipeOf.set(gate, elementAt(chosen, i));
    });
  });
  return netlist.gates.flatMap((gate) => follow(recipeOf.get(gate) as Recipe, gate));
}

/** Gives each task a part whose unit serves it, as many of each as the solution says. */
function served(
  placed: readonly Placed[],
  classes: readonly GateClass[],
  {
    chips,
    solution,
    own,
  }: { readonly chips: readonly PartType[]; readonly solution: IntegerSolution; readonly own: boolean },
): Item[] {
  const queues = new Map<string, PartType[]>();
  for (const task of allTasks(classes)) {
    const parts = chips.filter((part) => canServe(part, task, own));
    const queue = parts.flatMap((part) =>
      Array.from({ length: count(solution, column.service(task, part)) }, () => part),
    );
    queues.set(taskKey(task), queue);
  }
  return placed.map((p) => {
    const part = queues.get(taskKey(p.task))?.shift() as PartType;
    return { part, units: part.units.map((_, u) => u), use: unitUse(p, part) };
  });
}

/** A package for each part the sheet uses by number, beside those of the gates, in the family asked for if it is made in it. */
export function packagesOfParts(
  netlist: Netlist,
  family: FamilyId,
  gates: readonly Package[],
  netOf: (net: string) => string = (net) => net,
): Package[] {
  const cells = netlist.cells.filter((c): c is PartCell => c.kind === 'part');
  const next = freeRefs(gates.map((p) => p.ref));
  return cells.map((cell) => {
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
    return { ref: next(), part: seatedNumber(type, family), ...own, units };
  });
}

/** The nets on a unit's input pins: spare inputs are joined to the last one used; an XOR that inverts has one input high. */
function unitUse(placed: Placed, part: PartType): UnitUse {
  const { kind, width } = unitGate(part);
  const last = elementAt(placed.inputs, placed.inputs.length - 1);
  const spare = placed.task.kind === 'not' && kind === 'xor' ? '1' : last;
  const inputs = Array.from({ length: width }, (_, i) => placed.inputs[i] ?? spare);
  return { gate: placed.gate, part: placed.part, inputs, output: placed.output };
}
