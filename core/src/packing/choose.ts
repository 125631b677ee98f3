import type { FamilyId } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import type { IntegerSolution, SolveInteger, SolveLimits, SolverProgress } from '../logic';
import { type Assembled, assemble } from './assemble';
import { type Frame, framesOf } from './blocks';
import { chainsOf } from './boolean-chain';
import { type Candidate, candidateKey, candidatesOf, earliest, ranksOf } from './candidate';
import { ChoiceProgram, type Goal, type PinnedLiteral, pruned } from './choice-program';
import { type FunctionNet, functionsOf, inverse, type Literal } from './functions';
import { type LockedGate, type Locks, lockedCounts, noLocks } from './locks';
import type { NetState } from './unit-net';
import { candidatesOfNet } from './unit-network';
import { serves, type UnitKind, unitKindsOf } from './units';
import { addVariants } from './variants';

/** What a packing by functions may use, what it makes least, in this order, and how long it may look, all solves together. */
export interface PackRequest {
  /** Base numbers of the chips whose units may be used. */
  readonly chips: readonly string[];
  /** Packages of each that there are; absent means any number. */
  readonly stock?: ReadonlyMap<string, number>;
  /** More than the stock may be used, and chips that are not in it; what is lacking can then be made least. */
  readonly soft?: boolean;
  readonly locks?: Locks;
  /** What is known has so much of the first goal: only what has less is of use, or as much with less of the others. */
  readonly below?: number;
  /** No packing of gate chips alone has fewer packages than this. */
  readonly gatesAtLeast?: number;
  readonly goals: readonly Goal[];
  readonly limits: SolveLimits;
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
/** The effort that any solve has at least, and that goals after the first have at most. */
const MIN_EFFORT = 0.3;
const MAX_REFINED = 2;
/** Beyond so many gates the pins are not counted: packages and units take the effort there is. */
const MAX_COUNTED = 40;
/** Chains drawn for a design of few inputs, the effort that the program of one has, and their share of the whole. */
const CHAIN_RUNS = 300;
const CHAIN_EFFORT = 1;
const CHAIN_SHARE = 0.5;

/**
 * Packs a design's functions instead of its gates: whatever set of units computes the same, over the
 * ways that `candidatesOf` finds. Nothing is chosen when no choice of them fits the wish, or none is found within limits.
 * Source: functional matching and covering as in technology mapping; docs/packing.md.
 */
export async function choose(
  netlist: Netlist,
  { family, request }: { readonly family: FamilyId; readonly request: PackRequest },
  solve: SolveInteger,
  tell: (soFar: SoFar) => void = () => {},
): Promise<Chosen> {
  const functions = functionsOf(netlist);
  if (netlist.gates.length <= MAX_VARIED) await addVariants(functions, netlist);
  return new Chooser({ netlist, family, request, functions }, solve, tell).run();
}

/** Packs a net of units as it is: which of the chips holds each of them is chosen, by the goals in their turn. Null where the stock does not suffice. */
export async function chooseNet(
  netlist: Netlist,
  net: NetState,
  { family, request }: { readonly family: FamilyId; readonly request: PackRequest },
  solve: SolveInteger,
): Promise<Assembled | null> {
  const functions = functionsOf(netlist);
  const { candidates, frames } = candidatesOfNet(net, functions);
  return new Chooser({ netlist, family, request, functions }, solve, () => {}).among(candidates, frames);
}

/** The nets that outputs and parts read: what a packing must make. */
export function rootsOf(netlist: Netlist): readonly string[] {
  const read = netlist.cells.flatMap((c) => (c.kind === 'part' ? c.inputs.map((i) => i.net) : []));
  return [...netlist.outputs.map((o) => o.net), ...read];
}

/** Functions with what is wanted of them, and a program over ways to make them. */
interface Offer {
  readonly functions: FunctionNet;
  readonly roots: readonly Literal[];
  readonly wanted: readonly Literal[];
  readonly program: ChoiceProgram;
}

/** A solution of the first goal. */
interface Found {
  readonly offer: Offer;
  readonly values: Values;
  readonly least: number;
}

class Chooser {
  private readonly kinds: readonly UnitKind[];
  private readonly locks: Locks;
  private readonly first: Goal;
  private readonly until: number;
  /** Beside an answer of the design's own structure only what is better is looked for. */
  private readonly large: boolean;
  private readonly wantedNets: readonly string[];
  private readonly gatesAtLeast: number;
  /** Effort that is left of the wish's; solves after it are short. */
  private left: number;
  private bound = 0;
  private best: Found | null = null;
  private proved = false;

  private readonly netlist: Netlist;
  private readonly family: FamilyId;
  private readonly request: PackRequest;
  private readonly functions: FunctionNet;

  constructor(
    {
      netlist,
      family,
      request,
      functions,
    }: {
      readonly netlist: Netlist;
      readonly family: FamilyId;
      readonly request: PackRequest;
      readonly functions: FunctionNet;
    },
    private readonly solver: SolveInteger,
    private readonly tell: (soFar: SoFar) => void,
  ) {
    this.netlist = netlist;
    this.family = family;
    this.request = request;
    this.functions = functions;
    this.kinds = unitKindsOf(request.chips);
    this.locks = request.locks ?? noLocks;
    this.first = request.goals[0] ?? 'packages';
    this.left = request.limits.effort;
    this.until = request.limits.until ?? Number.POSITIVE_INFINITY;
    this.gatesAtLeast = this.first === 'packages' ? (request.gatesAtLeast ?? 0) : 0;
    this.large = netlist.gates.length > PLAIN_FIRST;
    this.wantedNets = rootsOf(netlist);
  }

  async run(): Promise<Chosen> {
    const { functions, netlist, request } = this;
    const frames = request.early ? [] : framesOf(functions, netlist, request.chips, ranksOf(functions));
    const own = this.waysOver(functions, 0);
    const all = [...new Map([...own, ...this.waysOver(functions)].map((c) => [candidateKey(c), c])).values()];
    // What is early is early among all ways, so that no smaller offer passes for the earliest.
    const early = earliest(all, functions.sources.length);
    const offered = request.early ? early : all;
    const ownKeys = new Set(own.map(candidateKey));
    const rich = this.offer(functions, offered, frames);
    const { effort } = request.limits;
    const relaxed = await this.solve(rich.program.text(this.first, {}, true), effort);
    if (relaxed.status === 'none') return { chosen: null, proved: false, bound: 0 };
    this.bound = Math.ceil(rich.program.valueOf(this.first, relaxed.values) - 1e-6);
    if (frames.length === 0) this.bound = Math.max(this.bound, this.gatesAtLeast);
    const ownWays = (): Offer =>
      this.offer(
        functions,
        offered.filter((c) => ownKeys.has(candidateKey(c))),
      );
    if (this.large) {
      await this.attempt(ownWays(), effort / 5);
      if (!request.early) await this.attempt(this.offer(functions, early), effort / 4);
    }
    if (frames.length > 0) {
      // A block that is all there is to it is found at once; beyond, gates alone are sooner settled, and blocks better them.
      if (this.first === 'packages' && this.bound <= 1) await this.attempt(rich, effort / 4, { atMost: 1, rich: true });
      await this.attempt(this.offer(functions, offered), effort / 2);
    }
    await this.tryChains();
    await this.attempt(rich, 0.9 * effort, { rich: true });
    if (!this.best && !this.proved && !this.large && request.below === undefined)
      await this.attempt(ownWays(), effort / 2);
    return this.refined(rich);
  }

  /** The best choice among some ways alone. */
  async among(candidates: readonly Candidate[], frames: readonly Frame[]): Promise<Assembled | null> {
    const offer = this.offer(this.functions, candidates, frames);
    const { values, status } = await this.solve(offer.program.text(this.first, {}), this.left);
    if (status === 'none' || !isWhole(offer, values)) return null;
    const least = Math.round(offer.program.valueOf(this.first, values));
    const refined = await this.refinedOver(offer, least, values);
    return this.madeOf(offer, refined?.values ?? values);
  }

  private waysOver(functions: FunctionNet, sets?: number): Candidate[] {
    return candidatesOf(functions, this.netlist, sets).filter((c) => this.kinds.some((k) => serves(k, c.duty)));
  }

  private offer(functions: FunctionNet, candidates: readonly Candidate[], frames: readonly Frame[] = []): Offer {
    const { request, locks, kinds } = this;
    const roots = this.wantedNets.map((net) => functions.ofNet(net));
    const pins = locks.pins.map((p): PinnedLiteral => ({ literal: functions.ofNet(p.net), kind: kindOf(p, kinds) }));
    const program = new ChoiceProgram({
      functions,
      roots,
      candidates,
      kinds,
      stock: request.stock ?? new Map(),
      pins,
      least: lockedCounts(locks),
      frames,
      soft: request.soft ?? false,
    });
    return { functions, roots, wanted: [...roots, ...pins.map((p) => p.literal)], program };
  }

  /** Solves with so much effort at most, of what is left. */
  private async solve(lp: string, effort: number, tell?: (p: SolverProgress) => void): Promise<IntegerSolution> {
    const limits = { effort: Math.min(effort, Math.max(MIN_EFFORT, this.left)), until: this.until };
    const answer = await this.solver(lp, limits, tell);
    this.left -= answer.effort;
    return answer;
  }

  private madeOf({ functions, program, wanted }: Offer, values: Values): Assembled {
    return assemble(this.netlist, functions, pruned(program.choice(values), wanted), {
      family: this.family,
      locks: this.locks,
    });
  }

  /** Looks for something better than there is; what is settled of the rich offer is settled of all that is offered. */
  private async attempt(
    offer: Offer,
    effort: number,
    { atMost = 1e6, rich = false }: { atMost?: number; rich?: boolean } = {},
  ): Promise<void> {
    const { first } = this;
    const { program } = offer;
    const cut = Math.min(this.best?.least ?? 1e6, this.request.below ?? 1e6, atMost + 1) - 1;
    if (cut < this.bound) this.proved = true;
    if (this.proved || (!rich && cut < this.gatesAtLeast)) return;
    const raise = (to: number | null | undefined): void => {
      // A bound above the cut is one of what was cut off alone.
      if (rich && typeof to === 'number') this.bound = Math.max(this.bound, Math.min(cut + 1, Math.ceil(to - 1e-6)));
    };
    const limits = cut < 1e5 ? { [first]: cut } : {};
    const answer = await this.solve(program.text(first, limits), effort, (p) => {
      raise(p.bound);
      this.tell({ bound: this.bound, best: this.best?.least ?? null, made: null });
    });
    raise(answer.bound);
    const settled = answer.detail === 'Infeasible' || answer.status === 'optimal';
    if (rich && settled && (cut < atMost || answer.status === 'optimal')) this.proved = true;
    else if (rich && settled) this.bound = Math.max(this.bound, atMost + 1);
    const known = this.best?.least ?? this.request.below ?? null;
    if (this.proved && answer.status === 'none') this.tell({ bound: known ?? this.bound, best: known, made: null });
    if (answer.status === 'none' || !isWhole(offer, answer.values)) return;
    const made = this.madeOf(offer, answer.values);
    const value = Math.round(program.valueOf(first, answer.values));
    // What was of no use is left out, which may save a package that the solver still counted.
    const least = first === 'packages' ? Math.min(value, made.packages.length) : value;
    this.best = { offer, values: answer.values, least };
    if (least <= this.bound) this.proved = true;
    this.tell({ bound: this.bound, best: least, made });
  }

  /** Chains of few gates of two inputs that make all outputs, each a small program of its own and soon settled. */
  private async tryChains(): Promise<void> {
    const { request, functions } = this;
    if (this.first !== 'packages' || request.early || this.netlist.cells.length > 0) return;
    const roots = this.wantedNets.map((net) => functions.ofNet(net));
    const offers = chainsOf(functions, roots, CHAIN_RUNS).map((chain) => {
      const small = functions.madeByChain(chain);
      return this.offer(small, this.waysOver(small, 0));
    });
    // As few as the bound is soon found or soon refused; only when no chain has it is one more allowed.
    const spared = this.left - CHAIN_SHARE * request.limits.effort;
    for (
      let atMost = Math.max(this.bound, this.gatesAtLeast);
      offers.length > 0 && this.left > spared && Date.now() < this.until && !this.proved;
      atMost++
    )
      for (const offer of offers) {
        if (
          this.proved ||
          this.left < spared ||
          Date.now() >= this.until ||
          atMost >= (this.best?.least ?? request.below ?? 1e6)
        )
          return;
        await this.attempt(offer, CHAIN_EFFORT, { atMost });
      }
  }

  /**
   * The best that was found, with the goals after the first made least in their turn: over the ways among which it was
   * found, and over all that are offered, which may have something better in them.
   */
  private async refined(rich: Offer): Promise<Chosen> {
    const { request, proved, best, large } = this;
    const least = best?.least ?? request.below;
    if (least === undefined) return { chosen: null, proved, bound: this.bound };
    if (proved) this.bound = least;
    const own = best && (await this.refinedOver(best.offer, least, best.values));
    const other = best?.offer === rich || (own && large) ? null : await this.refinedOver(rich, least, null);
    const found = other && (!own || isLess(other.reached, own.reached)) ? other : own;
    if (!found) return { chosen: null, proved, bound: this.bound };
    return { chosen: this.madeOf(found.offer, found.values), proved, bound: Math.min(this.bound, least) };
  }

  /** The goals after the first made least over an offer, one after the other; null without a solution. */
  private async refinedOver(offer: Offer, least: number, start: Values | null): Promise<Refined | null> {
    let values = start;
    const limits: Partial<Record<Goal, number>> = { [this.first]: least };
    const rest = this.request.goals.slice(1);
    for (const goal of this.netlist.gates.length > MAX_COUNTED ? rest.slice(0, 2) : rest) {
      const next = await this.solve(offer.program.text(goal, limits), MAX_REFINED);
      if (next.status === 'none' || !isWhole(offer, next.values)) break;
      values = next.values;
      limits[goal] = Math.round(offer.program.valueOf(goal, values));
    }
    const made = values;
    return made && { offer, values: made, reached: rest.map((goal) => Math.round(offer.program.valueOf(goal, made))) };
  }
}

/** A solution with what it reached of the goals after the first, in their order. */
interface Refined {
  readonly offer: Offer;
  readonly values: Values;
  readonly reached: readonly number[];
}

/** Whether some numbers come before others: the first that differs is less. */
function isLess(some: readonly number[], others: readonly number[]): boolean {
  const i = some.findIndex((n, k) => n !== others[k]);
  return i >= 0 && elementAt(some, i) < elementAt(others, i);
}

/** The kind of the unit that a gate is pinned to; -1 when no chip at hand has such units. */
function kindOf({ part, unit }: LockedGate, kinds: readonly UnitKind[]): number {
  return kinds.findIndex((k) => k.part.id === part && k.units.includes(unit));
}

type Values = Readonly<Record<string, number>>;

/** Whether a solution makes all that is wanted: one broken off may not. */
function isWhole({ program, functions, roots }: Offer, values: Values): boolean {
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
