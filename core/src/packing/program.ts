import { findChip, type PartType } from '../catalogue';
import type { Recipe, Task } from './recipe';
import { taskKey, tasksOf } from './recipe';

/** Gates of one kind and width: how many there are and how each may be built. */
export interface GateClass {
  readonly count: number;
  readonly recipes: readonly Recipe[];
}

const gateNumbers = '7400 7402 7404 7408 7410 7411 7420 7421 7427 7430 7432 7486'.split(' ');

/** The chips whose units are all equal single gates: those that this packing uses. */
export const gateChips: readonly PartType[] = gateNumbers.map((n) => findChip(n) as PartType);

/** The gate of a chip's units. */
export function unitGate(part: PartType): Task {
  const gate = part.units[0]?.gate;
  if (!gate) throw new Error(`${part.id} has no plain gates`);
  return gate;
}

/**
 * Whether a chip's unit can do a task: the same kind with as many inputs or more (spare inputs
 * joined), or any NAND, NOR or XOR unit as an inverter; with `own`, only the very kind and number of inputs.
 */
export function canServe(part: PartType, task: Task, own = false): boolean {
  if (task.on && task.on.part !== part.id) return false;
  const unit = unitGate(part);
  if (own) return unit.kind === task.kind && unit.width === task.width;
  if (task.kind === 'not') return unit.kind === 'not' || ['nand', 'nor', 'xor'].includes(unit.kind);
  return unit.kind === task.kind && unit.width >= task.width;
}

/** Names of the program's columns: recipe r of class c, task t on part p, packages of part p. */
export const column = {
  recipe: (c: number, r: number): string => `x_${c}_${r}`,
  service: (task: Task, part: PartType): string => `z_${taskKey(task)}_${part.id}`,
  packages: (part: PartType): string => `p_${part.id}`,
};

/**
 * The integer program of the one-to-one packing, in LP text: each gate takes one recipe, each task
 * that the recipes ask for is served by a unit that can, and units fit into packages. Minimises the
 * number of packages; with `packages` given it holds to that number and minimises units, then pins.
 * Only `chips` are used, and of each at least as many packages as `least` says.
 */
export function packingProgram(
  classes: readonly GateClass[],
  chips: readonly PartType[],
  least: ReadonlyMap<string, number>,
  { packages, own = false }: { readonly packages?: number | undefined; readonly own?: boolean } = {},
): string {
  const tasks = allTasks(classes);
  const services = tasks.flatMap((task) =>
    chips.filter((part) => canServe(part, task, own)).map((part) => ({ task, part, name: column.service(task, part) })),
  );
  const total = chips.map(column.packages);
  const unitCost = (part: PartType): number => 100 + unitGate(part).width;
  const objective =
    packages === undefined ? total.join(' + ') : services.map((s) => `${unitCost(s.part)} ${s.name}`).join(' + ');
  const rows: string[] = [];
  classes.forEach(({ count, recipes }, c) => {
    rows.push(`${recipes.map((_, r) => column.recipe(c, r)).join(' + ')} = ${count}`);
  });
  for (const task of tasks) rows.push(demandRow(task, classes, services));
  for (const part of chips) {
    if (least.has(part.id)) rows.push(`${column.packages(part)} >= ${least.get(part.id)}`);
    const used = services.filter((s) => s.part === part).map((s) => s.name);
    if (used.length > 0) rows.push(`${used.join(' + ')} - ${part.units.length} ${column.packages(part)} <= 0`);
  }
  if (packages !== undefined) rows.push(`${total.join(' + ')} <= ${packages}`);
  const integers = [
    ...classes.flatMap(({ recipes }, c) => recipes.map((_, r) => column.recipe(c, r))),
    ...services.map((s) => s.name),
    ...total,
  ];
  return ['Minimize', ` cost: ${objective}`, 'Subject To', ...rows.map((r, i) => ` r${i}: ${r}`), 'General']
    .concat(
      integers.map((name) => ` ${name}`),
      'End',
    )
    .join('\n');
}

function demandRow(
  task: Task,
  classes: readonly GateClass[],
  services: readonly { task: Task; name: string }[],
): string {
  const served = services.filter((s) => s.task === task).map((s) => s.name);
  if (served.length === 0) served.push('0 none');
  const asked = classes.flatMap(({ recipes }, c) =>
    recipes.flatMap((recipe, r) => {
      const count = tasksOf(recipe).filter((t) => taskKey(t) === taskKey(task)).length;
      return count > 0 ? [` - ${count} ${column.recipe(c, r)}`] : [];
    }),
  );
  return `${served.join(' + ')}${asked.join('')} = 0`;
}

/** The tasks that any recipe asks for, each once. */
export function allTasks(classes: readonly GateClass[]): Task[] {
  const tasks = new Map<string, Task>();
  for (const { recipes } of classes)
    for (const recipe of recipes) for (const task of tasksOf(recipe)) tasks.set(taskKey(task), task);
  return [...tasks.values()];
}
