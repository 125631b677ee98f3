import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { printSheet, readSheet } from '../design';
import { solve } from '../testing/interlock';
import { arbitrarySheet } from '../testing/random';
import { pack } from './pack';
import { canServe, gateChips } from './program';
import { recipesFor, type Task, tasksOf } from './recipe';

/**
 * The fewest packages for a list of tasks, by trying every part for every task: written without the
 * integer program, to hold it to. `open` counts the units still free in packages opened so far.
 */
function fewestFor(tasks: readonly Task[], bound: number): number {
  const open = new Map<string, number>();
  let best = bound;
  const place = (i: number, packages: number): void => {
    if (packages >= best) return;
    const task = tasks[i];
    if (!task) {
      best = packages;
      return;
    }
    for (const part of gateChips.filter((p) => canServe(p, task))) {
      const free = open.get(part.id) ?? 0;
      open.set(part.id, free > 0 ? free - 1 : part.units.length - 1);
      place(i + 1, free > 0 ? packages : packages + 1);
      open.set(part.id, free);
    }
  };
  place(0, 0);
  return best;
}

/** Every choice of one recipe for each gate, as the tasks it asks for. */
function* choices(gates: readonly (readonly Task[])[][]): Generator<Task[]> {
  const [first, ...rest] = gates;
  if (!first) {
    yield [];
    return;
  }
  for (const recipe of first) for (const others of choices(rest)) yield [...recipe, ...others];
}

describe('the number of packages', () => {
  it('is the smallest there is, by trying everything, for small designs', async () => {
    let tried = 0;
    await fc.assert(
      fc.asyncProperty(arbitrarySheet, async (sheet) => {
        const { netlist } = readSheet(printSheet(sheet)).design;
        if (!netlist || netlist.gates.length === 0) return;
        const gates = netlist.gates.map((g) => recipesFor(g.kind, g.inputs.length).map(tasksOf));
        const count = gates.reduce((product, recipes) => product * recipes.length, 1);
        if (netlist.gates.length > 4 || count > 60) return;
        tried++;
        let fewest = Number.POSITIVE_INFINITY;
        for (const tasks of choices(gates)) fewest = Math.min(fewest, fewestFor(tasks, fewest));
        const { packing } = await pack(netlist, 'HC', solve);
        expect(packing?.proved).toBe(true);
        expect(packing?.packages.length).toBe(fewest);
      }),
      { numRuns: 150 },
    );
    expect(tried).toBeGreaterThan(10);
  });

  it('never grows when a gate that is there already is asked for again', async () => {
    const base = 'in A B C\nout X Y\nX = A & B\nY = X | C';
    const more = `${base}\nout Z\nZ = B & A`;
    const count = async (text: string) =>
      (await pack(readSheet(text).design.netlist ?? expect.fail(), 'HC', solve)).packing?.packages.length;
    expect(await count(more)).toBe(await count(base));
  });
});
