import type { Gate } from '../design';
import type { GateKind } from '../logic';

/** Something a unit is asked to do: a gate kind with a number of inputs, such as `and` of 3; `on` is the one place it must be done at. */
export interface Task {
  readonly kind: GateKind;
  readonly width: number;
  readonly on?: { readonly ref: string; readonly unit: number; readonly part: string };
}

/** A key for a task: `and3`, or `and3_U2_0` at its place. */
export const taskKey = ({ kind, width, on }: Task): string => `${kind}${width}${on ? `_${on.ref}_${on.unit}` : ''}`;

/**
 * A way to build one gate: `steps` in order, each but the last merging some of the inputs into one
 * net and the last taking all that remain; then an inverter if `inverted`.
 */
export interface Recipe {
  readonly steps: readonly Task[];
  readonly inverted: boolean;
  /** The place of the last step, when it is decided. */
  readonly on?: Task['on'];
}

const inverter: Task = { kind: 'not', width: 1 };

/** What a recipe asks for, inverter included. */
export function tasksOf({ steps, inverted, on }: Recipe): readonly Task[] {
  const tasks = inverted ? [...steps, inverter] : steps;
  return on ? tasks.map((t, i) => (i === tasks.length - 1 ? { ...t, on } : t)) : tasks;
}

/** Widths in which each kind exists among the chips. */
const widths: Readonly<Record<GateKind, readonly number[]>> = {
  not: [1],
  and: [2, 3, 4],
  or: [2],
  xor: [2],
  nand: [2, 3, 4, 8],
  nor: [2, 3],
  xnor: [],
};

/** The kind that merges inputs below the last step, and how each gate can end. */
const shapes: Readonly<Record<Exclude<GateKind, 'not'>, { merge: GateKind; direct: GateKind; other: GateKind }>> = {
  and: { merge: 'and', direct: 'and', other: 'nand' },
  nand: { merge: 'and', direct: 'nand', other: 'and' },
  or: { merge: 'or', direct: 'or', other: 'nor' },
  nor: { merge: 'or', direct: 'nor', other: 'or' },
  xor: { merge: 'xor', direct: 'xor', other: 'xnor' },
  xnor: { merge: 'xor', direct: 'xnor', other: 'xor' },
};

/** Above this many inputs the first merges are fixed, so that the recipes stay a few dozen. */
const FREE_WIDTH = 20;

/**
 * Every recipe for a gate of the given kind and number of inputs: ended by its own kind, or by the
 * complementary kind and an inverter. The first recipe is the plainest.
 */
export function recipesFor(kind: GateKind, width: number): readonly Recipe[] {
  if (kind === 'not') return [{ steps: [inverter], inverted: false }];
  const { merge, direct, other } = shapes[kind];
  const widest = Math.max(...widths[merge]);
  const fixed: Task[] = [];
  let left = width;
  for (; left > FREE_WIDTH; left -= widest - 1) fixed.push({ kind: merge, width: widest });
  return [...endings(direct, merge, left, false), ...endings(other, merge, left, true)].map(({ steps, inverted }) => ({
    steps: [...fixed, ...steps],
    inverted,
  }));
}

function endings(last: GateKind, merge: GateKind, width: number, inverted: boolean): Recipe[] {
  return widths[last]
    .filter((w) => w <= width)
    .reverse()
    .flatMap((w) =>
      merges(width - w, [...widths[merge]].reverse())
        .filter((list) => last !== merge || list.every((m) => m >= w))
        .map((list) => ({
          steps: [...list.map((m) => ({ kind: merge, width: m })), { kind: last, width: w }],
          inverted,
        })),
    );
}

/** Every multiset of widths, each width w taking w - 1 inputs away, that takes away `count` in all. */
function merges(count: number, among: readonly number[]): number[][] {
  if (count === 0) return [[]];
  const [first, ...rest] = among;
  if (first === undefined) return [];
  const without = merges(count, rest);
  if (first - 1 > count) return without;
  return [...merges(count - (first - 1), among).map((list) => [first, ...list]), ...without];
}

/** A task with the nets it works on; `gate` and `part` say what it is for. */
export interface Placed {
  readonly task: Task;
  readonly gate: string;
  readonly part: 'whole' | 'piece' | 'inverter';
  readonly inputs: readonly string[];
  readonly output: string;
}

/** Carries a recipe out on a gate: nets between its steps are named after the gate, `P.1`, `P.2` …. */
export function follow(recipe: Recipe, gate: Gate): Placed[] {
  let nets = [...gate.inputs];
  const placed: Placed[] = [];
  const tasks = tasksOf(recipe);
  tasks.forEach((task, i) => {
    const last = i === tasks.length - 1;
    const output = last ? gate.output : `${gate.output}.${i + 1}`;
    const inputs = nets.slice(0, task.width);
    nets = [...nets.slice(task.width), output];
    const part = tasks.length === 1 ? 'whole' : recipe.inverted && last ? 'inverter' : 'piece';
    placed.push({ task, gate: gate.output, part, inputs, output });
  });
  return placed;
}
