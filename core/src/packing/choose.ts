import type { FamilyId } from '../catalogue';
import type { Netlist } from '../design';
import type { SolveInteger } from '../logic';
import { type Assembled, assemble } from './assemble';
import { type Candidate, candidateKey, candidatesOf, earliest } from './candidate';
import { ChoiceProgram, type Goal } from './choice-program';
import { type FunctionNet, functionsOf, inverse, type Literal } from './functions';
import { serves, unitKindsOf } from './units';
import { addVariants } from './variants';

/** What a packing by functions may use, what it makes least, in this order, and how long it may look. */
export interface Wish {
  /** Base numbers of the chips whose units may be used. */
  readonly chips: readonly string[];
  /** Packages of each that there are; absent means any number. */
  readonly stock?: ReadonlyMap<string, number>;
  readonly goals: readonly Goal[];
  readonly seconds: number;
  /** Only ways that make their function as early as any. */
  readonly early?: boolean;
}

/** What came of it: the packages, the least value that the first goal can have over the ways offered, and how many were offered. */
export interface Chosen extends Assembled {
  /** No choice of the ways offered has less of the first goal. */
  readonly proved: boolean;
  readonly bound: number;
  readonly ways: number;
}

/** Beyond so many gates other structures are not offered beside the design's own. */
const MAX_VARIED = 60;

/** Designs of more gates are first solved with their own structure alone, so that there is an answer to better. */
const PLAIN_FIRST = 12;
/** Beyond so many gates the pins are not counted: packages and units take the time there is. */
const MAX_COUNTED = 40;

/**
 * Packs a design's functions instead of its gates: whatever set of units computes the same, over the
 * ways that `candidatesOf` finds. Null when no choice of them fits the wish, or none is found in time.
 * Source: functional matching and covering as in technology mapping; docs/packing.md.
 */
export async function choose(
  netlist: Netlist,
  family: FamilyId,
  wish: Wish,
  solve: SolveInteger,
): Promise<Chosen | null> {
  const functions = functionsOf(netlist);
  if (netlist.gates.length <= MAX_VARIED) await addVariants(functions, netlist);
  const read = netlist.cells.flatMap((c) => (c.kind === 'part' ? c.inputs.map((i) => i.net) : []));
  const roots = [...netlist.outputs.map((o) => o.net), ...read].map((net) => functions.ofNet(net));
  const kinds = unitKindsOf(wish.chips);
  const programOf = (candidates: readonly Candidate[]): ChoiceProgram =>
    new ChoiceProgram({ functions, roots, candidates, kinds, stock: wish.stock ?? new Map() });
  const own = candidatesOf(functions, netlist, 0).filter((c) => kinds.some((k) => serves(k, c.duty)));
  const more = candidatesOf(functions, netlist).filter((c) => kinds.some((k) => serves(k, c.duty)));
  const all = [...new Map([...own, ...more].map((c) => [candidateKey(c), c])).values()];
  // What is early is early among all ways, so that no smaller offer passes for the earliest.
  const early = earliest(all, functions.sources.length);
  const offered = wish.early ? early : all;
  const ownKeys = new Set(own.map(candidateKey));
  const rich = programOf(offered);
  const [first, ...rest] = wish.goals as readonly [Goal, ...Goal[]];
  const relaxed = await solve(rich.text(first, {}, true), wish.seconds);
  if (relaxed.status === 'none') return null;
  const floor = Math.ceil(rich.valueOf(first, relaxed.values) - 1e-6);
  let best: { program: ChoiceProgram; values: Values; least: number } | null = null;
  let proved = false;
  const attempt = async (program: ChoiceProgram, seconds: number): Promise<void> => {
    const answer = await solve(program.text(first, {}), seconds);
    if (answer.status === 'none' || !isWhole(program, functions, roots, answer.values)) return;
    const least = Math.round(program.valueOf(first, answer.values));
    if (!best || least < best.least) best = { program, values: answer.values, least };
    proved = least <= floor || (program === rich && answer.status === 'optimal');
  };
  if (netlist.gates.length > PLAIN_FIRST) {
    await attempt(programOf(offered.filter((c) => ownKeys.has(candidateKey(c)))), wish.seconds / 3);
    if (!proved && !wish.early) await attempt(programOf(early), wish.seconds / 2);
  }
  if (!proved) await attempt(rich, wish.seconds);
  const found = best as { program: ChoiceProgram; values: Values; least: number } | null;
  if (!found) return null;
  const { program, least } = found;
  let { values } = found;
  const limits: Partial<Record<Goal, number>> = { [first]: least };
  for (const goal of netlist.gates.length > MAX_COUNTED ? rest.slice(0, 1) : rest) {
    const next = await solve(program.text(goal, limits), Math.min(wish.seconds, 3));
    if (next.status === 'none' || !isWhole(program, functions, roots, next.values)) break;
    values = next.values;
    limits[goal] = Math.round(program.valueOf(goal, values));
  }
  const made = assemble(netlist, functions, program.choice(values), family);
  return { ...made, proved, bound: proved ? least : floor, ways: rich.size };
}

type Values = Readonly<Record<string, number>>;

/** Whether a solution makes all that is wanted: one broken off by the clock may not. */
function isWhole(program: ChoiceProgram, functions: FunctionNet, roots: readonly Literal[], values: Values): boolean {
  const { ways, inverters } = program.choice(values);
  const made = new Set<Literal>([0, 1, ...functions.sources.map((_, i) => 2 * (i + 1))]);
  const makers = [...ways, ...inverters.map((l) => ({ makes: l, inputs: [inverse(l)] }))];
  for (let grown = true; grown; ) {
    grown = false;
    for (const { makes, inputs } of makers) {
      if (made.has(makes) || !inputs.every((l) => made.has(l))) continue;
      made.add(makes);
      grown = true;
    }
  }
  return roots.every((l) => made.has(l)) && makers.every((m) => made.has(m.makes));
}
