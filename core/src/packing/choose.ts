import type { FamilyId } from '../catalogue';
import type { Netlist } from '../design';
import type { SolveInteger } from '../logic';
import { type Assembled, assemble } from './assemble';
import { type Frame, framesOf } from './blocks';
import { type Candidate, candidateKey, candidatesOf, earliest, ranksOf } from './candidate';
import { ChoiceProgram, type Goal, type PinnedLiteral, pruned } from './choice-program';
import { type FunctionNet, functionsOf, inverse, type Literal } from './functions';
import { type Held, heldCounts, nothingHeld, type PinnedGate } from './held';
import { serves, type UnitKind, unitKindsOf } from './units';
import { addVariants } from './variants';

/** What a packing by functions may use, what it makes least, in this order, and how long it may look. */
export interface Wish {
  /** Base numbers of the chips whose units may be used. */
  readonly chips: readonly string[];
  /** Packages of each that there are; absent means any number. */
  readonly stock?: ReadonlyMap<string, number>;
  /** More than the stock may be used, and chips that are not in it; what is lacking can then be made least. */
  readonly soft?: boolean;
  readonly held?: Held;
  /** What is known has so much of the first goal: only what has less is of use, or as much with less of the others. */
  readonly below?: number;
  readonly goals: readonly Goal[];
  readonly seconds: number;
  /** Only ways that make their function as early as any. */
  readonly early?: boolean;
}

/**
 * What came of it: the packages, null when none were found, and the least that the first goal can have over the
 * ways offered; `proved` when nothing offered has less than what was found, or than what was to be bettered.
 */
export interface Chosen {
  readonly chosen: Assembled | null;
  readonly proved: boolean;
  readonly bound: number;
}

/** How far a choice is: the bound, the best of the first goal, and what it comes to when it is new. */
export interface SoFar {
  readonly bound: number;
  readonly best: number | null;
  readonly made: Assembled | null;
}

/** Beyond so many gates other structures are not offered beside the design's own. */
const MAX_VARIED = 60;

/** Designs of more gates are first solved with their own structure alone, so that there is an answer to better. */
const PLAIN_FIRST = 45;
/** Seconds that any solve has at least, and that goals after the first have at most. */
const MIN_SECONDS = 0.3;
const MAX_REFINED = 2;
/** Beyond so many gates the pins are not counted: packages and units take the time there is. */
const MAX_COUNTED = 40;

/**
 * Packs a design's functions instead of its gates: whatever set of units computes the same, over the
 * ways that `candidatesOf` finds. Nothing is chosen when no choice of them fits the wish, or none is found in time.
 * Source: functional matching and covering as in technology mapping; docs/packing.md.
 */
export async function choose(
  netlist: Netlist,
  family: FamilyId,
  wish: Wish,
  solve: SolveInteger,
  tell: (soFar: SoFar) => void = () => {},
): Promise<Chosen> {
  const functions = functionsOf(netlist);
  if (netlist.gates.length <= MAX_VARIED) await addVariants(functions, netlist);
  const read = netlist.cells.flatMap((c) => (c.kind === 'part' ? c.inputs.map((i) => i.net) : []));
  const roots = [...netlist.outputs.map((o) => o.net), ...read].map((net) => functions.ofNet(net));
  const kinds = unitKindsOf(wish.chips);
  const { stock = new Map(), held = nothingHeld } = wish;
  const pins = held.pins.map((p): PinnedLiteral => ({ literal: functions.ofNet(p.net), kind: kindOf(p, kinds) }));
  const frames = wish.early ? [] : framesOf(functions, netlist, wish.chips, ranksOf(functions));
  const programOf = (candidates: readonly Candidate[], blocks: readonly Frame[] = []): ChoiceProgram =>
    new ChoiceProgram({
      functions,
      roots,
      candidates,
      kinds,
      stock,
      pins,
      least: heldCounts(held),
      frames: blocks,
      soft: wish.soft ?? false,
    });
  const own = candidatesOf(functions, netlist, 0).filter((c) => kinds.some((k) => serves(k, c.duty)));
  const more = candidatesOf(functions, netlist).filter((c) => kinds.some((k) => serves(k, c.duty)));
  const all = [...new Map([...own, ...more].map((c) => [candidateKey(c), c])).values()];
  // What is early is early among all ways, so that no smaller offer passes for the earliest.
  const early = earliest(all, functions.sources.length);
  const offered = wish.early ? early : all;
  const ownKeys = new Set(own.map(candidateKey));
  const rich = programOf(offered, frames);
  const [first, ...rest] = wish.goals as readonly [Goal, ...Goal[]];
  const deadline = Date.now() + 1000 * wish.seconds;
  const left = (): number => Math.max(MIN_SECONDS, (deadline - Date.now()) / 1000);
  const relaxed = await solve(rich.text(first, {}, true), wish.seconds);
  if (relaxed.status === 'none') return { chosen: null, proved: false, bound: 0 };
  let bound = Math.ceil(rich.valueOf(first, relaxed.values) - 1e-6);
  let best: Found | null = null;
  let proved = false;
  // Beside an answer of the design's own structure only what is better is looked for.
  const large = netlist.gates.length > PLAIN_FIRST;
  const most = (): number => Math.min(best?.least ?? 1e6, wish.below ?? 1e6) - 1;
  const wanted = [...roots, ...pins.map((p) => p.literal)];
  const madeOf = (program: ChoiceProgram, values: Values): Assembled =>
    assemble(netlist, functions, pruned(program.choice(values), wanted), family, held);
  const attempt = async (program: ChoiceProgram, seconds: number, atMost = 1e6): Promise<void> => {
    const cut = Math.min(most(), atMost);
    if (cut < bound) proved = true;
    if (proved) return;
    const raise = (to: number | null | undefined): void => {
      // A bound above the cut is one of what was cut off alone.
      if (program === rich && typeof to === 'number') bound = Math.max(bound, Math.min(cut + 1, Math.ceil(to - 1e-6)));
    };
    const limits = cut < 1e5 ? { [first]: cut } : {};
    const answer = await solve(program.text(first, limits), Math.min(seconds, left()), (p) => {
      raise(p.bound);
      tell({ bound, best: best?.least ?? null, made: null });
    });
    raise(answer.bound);
    const settled = answer.detail === 'Infeasible' || answer.status === 'optimal';
    if (program === rich && settled && (cut < atMost || answer.status === 'optimal')) proved = true;
    else if (program === rich && settled) bound = Math.max(bound, atMost + 1);
    if (answer.status === 'none' || !isWhole(program, functions, roots, answer.values)) return;
    const made = madeOf(program, answer.values);
    const value = Math.round(program.valueOf(first, answer.values));
    // What was of no use is left out, which may save a package that the solver still counted.
    best = {
      program,
      values: answer.values,
      least: first === 'packages' ? Math.min(value, made.packages.length) : value,
    };
    if (best.least <= bound) proved = true;
    tell({ bound, best: best.least, made });
  };
  const ownWays = (): ChoiceProgram => programOf(offered.filter((c) => ownKeys.has(candidateKey(c))));
  if (large) {
    await attempt(ownWays(), wish.seconds / 5);
    if (!wish.early) await attempt(programOf(early), wish.seconds / 4);
  }
  if (frames.length > 0) {
    // A block that is all there is to it is found at once; beyond, gates alone are sooner settled, and blocks better them.
    if (first === 'packages' && bound <= 1) await attempt(rich, wish.seconds / 4, 1);
    await attempt(programOf(offered), wish.seconds / 2);
  }
  await attempt(rich, 0.9 * wish.seconds);
  if (!best && !proved && !large && wish.below === undefined) await attempt(ownWays(), wish.seconds / 2);
  const found = best as Found | null;
  const least = found?.least ?? wish.below;
  if (least === undefined) return { chosen: null, proved, bound };
  if (proved) bound = least;
  const program = found?.program ?? rich;
  let values = found?.values ?? null;
  const limits: Partial<Record<Goal, number>> = { [first]: least };
  for (const goal of netlist.gates.length > MAX_COUNTED ? rest.slice(0, 1) : rest) {
    const next = await solve(program.text(goal, limits), Math.min(left(), MAX_REFINED));
    if (next.status === 'none' || !isWhole(program, functions, roots, next.values)) break;
    values = next.values;
    limits[goal] = Math.round(program.valueOf(goal, values));
  }
  if (!values) return { chosen: null, proved, bound };
  const made = madeOf(program, values);
  return { chosen: made, proved, bound: Math.min(bound, least) };
}

/** A solution of the first goal. */
interface Found {
  readonly program: ChoiceProgram;
  readonly values: Values;
  readonly least: number;
}

/** The kind of the unit that a gate is pinned to; -1 when no chip at hand has such units. */
function kindOf({ part, unit }: PinnedGate, kinds: readonly UnitKind[]): number {
  return kinds.findIndex((k) => k.part.id === part && k.units.includes(unit));
}

type Values = Readonly<Record<string, number>>;

/** Whether a solution makes all that is wanted: one broken off by the clock may not. */
function isWhole(program: ChoiceProgram, functions: FunctionNet, roots: readonly Literal[], values: Values): boolean {
  const { ways, inverters, blocks = [] } = program.choice(values);
  const made = new Set<Literal>([0, 1, ...functions.sources.map((_, i) => 2 * (i + 1))]);
  const makers = [
    ...ways,
    ...inverters.map((l) => ({ makes: l, inputs: [inverse(l)] })),
    ...blocks.flatMap(({ frame, uses }) =>
      uses.flatMap((use) =>
        [...use.makes.values()].map((makes) => ({ makes, inputs: [...frame.shared.values(), ...use.reads.values()] })),
      ),
    ),
  ];
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
