import { type FamilyId, partType } from '../catalogue';
import { type Netlist, networkOf } from '../design';
import { type Finding, finding } from '../finding';
import { type SolveInteger, type SolveLimits, shareOf } from '../logic';
import { type Assembled, assemble } from './assemble';
import { blockNumbers } from './blocks';
import { whatIsWrong } from './check';
import { gateFamily } from './chip-family';
import { choose, chooseNet, type PackRequest, rootsOf } from './choose';
import { everyday } from './everyday';
import { exhaust, MAX_EXHAUSTED } from './exhaust';
import { missingFrom } from './figures';
import { jkChipNumbers } from './flip-flop-forms';
import { classOf, functionsOf } from './functions';
import { improvedNets, searchesFor } from './improve-net';
import {
  againstChips,
  holdsNothing,
  lockedCounts,
  lockedNets,
  lockedPackages,
  locksBroken,
  noLocks,
  stillMeant,
} from './locks';
import { lowered } from './lower';
import { pack, packagesOfParts } from './pack';
import { fingerprint, type Packing, type Proof, type Strategy } from './packing';
import { costFor, EFFORT, requestFor, type Supplies, titleOf } from './strategy-goals';
import type { NetState } from './unit-net';

/** Steps that trying everything may take, some seconds; of less effort than one so much less. */
const TRIES = 160_000_000;
/** The most packages that are settled so. */
const MOST_TRIED = 3;

/** The effort that packages of one net may take. */
const NET_EFFORT = 1;

/** What a way to build came to: a packing checked against the sheet, or why there is none. */
export interface Packed {
  readonly packing: Packing | null;
  readonly findings: readonly Finding[];
}

/** How far a way is: chips that none has fewer than, chips of the best, and the best itself when it is new. */
export interface PackProgress {
  readonly bound: number | null;
  readonly best: number | null;
  readonly packing: Packing | null;
}

/**
 * Packs a design in one of the ways. Every packing that comes out computes the design: it is checked row by
 * row first (`whatIsWrong`), and one that did not would be a fault of ours and is thrown away.
 */
export async function packByStrategy(
  design: Netlist,
  {
    family: wanted,
    strategy,
    supplies,
  }: { readonly family: FamilyId; readonly strategy: Strategy; readonly supplies: Supplies },
  solve: SolveInteger,
  {
    limits = { effort: EFFORT },
    tell = () => {},
  }: { readonly limits?: SolveLimits | undefined; readonly tell?: (progress: PackProgress) => void } = {},
): Promise<Packed> {
  if (strategy === 'written' || strategy === 'own')
    return checked(design, await pack(design, wanted, solve, { rules: supplies, own: strategy === 'own', limits }), {
      ...supplies,
      strategy,
      family: gateFamily(design, wanted),
    });
  const family = gateFamily(design, wanted);
  const netlist = lowered(design, {
    family,
    kept: lockedNets(supplies.locks),
    without: withoutIn(supplies, strategy),
    larger: strategy === 'blocks',
  });
  const { locks, findings: gone } = stillMeant(supplies.locks, netlist);
  const request = requestFor(strategy, { ...supplies, locks }, limits);
  if (request === null) return { packing: null, findings: [finding('pack/no-drawer', [], {})] };
  const against = impossible(netlist, request, strategy);
  if (against.length > 0) return { packing: null, findings: against };
  const best = await new Attempt(design, { netlist, family, strategy, request }, solve, tell).run(supplies);
  if (best) return { packing: best, findings: gone };
  const near =
    strategy === 'drawer'
      ? await nearest(netlist, { family, supplies: { ...supplies, locks } }, solve, shareOf(limits, 1 / 2))
      : null;
  if (near) return { packing: { ...near.packing, design: fingerprint(design) }, findings: near.findings };
  return { packing: null, findings: [unbuildable(netlist, strategy, { ...supplies, locks })] };
}

/** The JK chips that may not be taken: excluded ones, and from the drawer those that are not in it. */
function withoutIn({ excluded, drawer }: Supplies, strategy: Strategy): readonly string[] {
  const isMissing = (n: string): boolean => strategy === 'drawer' && (drawer?.get(n) ?? 0) === 0;
  return [...excluded, ...jkChipNumbers.filter(isMissing)];
}

/** One packing by functions: what was found so far, and what is known of how few packages there can be. */
class Attempt {
  private readonly found: Packing[] = [];
  /** Whether packages are what is made least. */
  private readonly counts: boolean;
  /** Nothing at all has fewer packages than this, as far as every set was tried. */
  private settledTo = 1;
  /** The least packages over the ways offered, and whether nothing offered has fewer than the best. */
  private bound = 1;
  private provedAt: number | null = null;
  /** Whether the person has larger blocks, whatever the strategy makes of them: a claim is then of gate chips. */
  private hasBlocks = true;

  private readonly netlist: Netlist;
  private readonly family: FamilyId;
  private readonly strategy: Exclude<Strategy, 'written' | 'own'>;
  private readonly request: PackRequest;

  constructor(
    private readonly design: Netlist,
    {
      netlist,
      family,
      strategy,
      request,
    }: {
      readonly netlist: Netlist;
      readonly family: FamilyId;
      readonly strategy: Exclude<Strategy, 'written' | 'own'>;
      readonly request: PackRequest;
    },
    private readonly solve: SolveInteger,
    private readonly tell: (progress: PackProgress) => void,
  ) {
    this.netlist = netlist;
    this.family = family;
    this.strategy = strategy;
    this.request = request;
    this.counts = isCounted(strategy);
  }

  async run(supplies: Supplies): Promise<Packing | null> {
    const { strategy, counts, request } = this;
    const tries = TRIES * Math.min(1, request.limits.effort);
    const isThere = (n: string): boolean => strategy !== 'drawer' || (supplies.drawer?.get(n) ?? 0) > 0;
    this.hasBlocks = blockNumbers.some((n) => !supplies.excluded.includes(n) && isThere(n));
    // What is there already may be as good: the gates one to one.
    if (['fewest', 'blocks', 'kinds', 'jumpers', 'shortest'].includes(strategy)) {
      // A quarter of the effort at most: it is only what is to be bettered.
      const quarter = shareOf(request.limits, 1 / 4);
      const plain = (await pack(this.design, this.family, this.solve, { rules: supplies, limits: quarter })).packing;
      if (plain) this.keep({ ...plain, strategy, proof: 'best', proved: false });
    }
    // Every set of few packages is tried first: then the program knows what there cannot be.
    if (counts) this.tryAll(Math.min(MOST_TRIED, this.fewest() - 1), tries);
    // One larger block may be all there is to it: that is sooner found by the program.
    if (strategy !== 'blocks') await this.searchNets();
    if (strategy === 'kinds') {
      // One chip is of one kind; and few chips are of few kinds.
      this.tryAll(MOST_TRIED, tries / 6);
      for (const one of singleKinds(request)) await this.choose(one);
      await this.choose({ ...request, limits: shareOf(request.limits, 1 / 2) });
    } else await this.choose(this.bettering());
    if (strategy === 'blocks') await this.searchNets();
    if (strategy === 'jumpers' || strategy === 'shortest') this.tryAll(MOST_TRIED, tries / 6);
    return this.best();
  }

  /** Takes a packing that does what the design does and keeps to what is held; all others would be faults of ours. */
  private keep(packing: Packing): void {
    this.keepOne(packing);
    // Where packages are what counts, the everyday chip is taken wherever it does the same.
    if (!['fewest', 'blocks', 'kinds', 'nand', 'nor'].includes(this.strategy)) return;
    const stay = new Set(lockedPackages(this.request.locks ?? noLocks).keys());
    const common = everyday(packing, this.request.chips, this.family, stay);
    if (common !== packing) this.keepOne(common);
  }

  private keepOne(packing: Packing): void {
    const sound =
      whatIsWrong(this.design, packing) === null && locksBroken(packing, this.request.locks ?? noLocks) === null;
    if (!sound) return;
    this.found.push(packing);
    this.told(packing);
  }

  private told(packing: Packing | null, bound = this.counts ? this.settledTo : null, best: number | null = null): void {
    const whole = packing && { ...packing, design: fingerprint(this.design) };
    const sofar = this.found.length > 0 ? this.fewest() : best;
    this.tell({ bound, best: sofar, packing: whole });
  }

  private fewest(): number {
    return Math.min(...this.found.map((p) => p.packages.length));
  }

  /**
   * The fewest packages by trying everything, up to `most`, for functions of few inputs. What is decided by hand is not
   * tried through: sets are of free units alone.
   */
  private tryAll(most: number, steps: number): void {
    const { netlist, request } = this;
    const functions = functionsOf(netlist);
    if (functions.sources.length > MAX_EXHAUSTED || netlist.cells.length > 0) return;
    if (!holdsNothing(request.locks ?? noLocks)) return;
    const roots = netlist.outputs.map((o) => functions.ofNet(o.net));
    // Where outputs are free in rows that are not left out, every set was tried of less than there may be.
    const isAll = !netlist.unused || (!netlist.unused.more && functions.freeRows === netlist.unused.rows.length);
    // Where a person has set an end, half of the time is for the program.
    const until = request.limits.until && (Date.now() + request.limits.until) / 2;
    for (let packages = 1; packages <= most; packages++) {
      const answer = exhaust(
        functions,
        roots,
        { chips: request.chips, stock: request.stock ?? new Map(), packages },
        { steps, until },
      );
      if (answer.found) {
        this.keep(this.packingOf(assemble(netlist, functions, answer.found, { family: this.family })));
        return;
      }
      if (!answer.none) return;
      if (isAll) this.settledTo = packages + 1;
      if (this.counts) this.told(null, this.settledTo);
    }
  }

  /** A search over nets of units, from the gates of the design: what it finds is bettered by the program, which alone proves something. */
  private async searchNets(): Promise<void> {
    const { netlist, request, strategy, family } = this;
    if (!isLeast(strategy) || !holdsNothing(request.locks ?? noLocks)) return;
    // What the program proves of its own offers with blocks says nothing of nets without.
    const proved = strategy === 'blocks' ? 0 : (this.provedAt ?? 0);
    // Beside parts that are not gates, all gates in one package are as few as there can be.
    const least = Math.max(netlist.cells.length + 1, this.settledTo, proved);
    if (this.found.length > 0 && this.fewest() <= least) return;
    // With so few inputs everything is tried, and chains of few gates are.
    if (networkOf(netlist).inputs.length <= MAX_EXHAUSTED) return;
    const { effort, until } = request.limits;
    const limits = { ...request.limits, effort: Math.min(effort, NET_EFFORT) };
    // Blocks are tried on the best net that does without.
    let best: NetState | undefined;
    let fewest = Number.POSITIVE_INFINITY;
    for (const search of searchesFor({ gates: netlist.gates.length, chips: request.chips, effort })) {
      const start = search.blocks ? best : undefined;
      for (const net of improvedNets(netlist, { ...search, start, roots: rootsOf(netlist), until })) {
        const made = await chooseNet(netlist, net, { family, request: { ...request, limits } }, this.solve);
        if (!made) continue;
        this.keep(this.packingOf(made));
        if (made.packages.length >= fewest) continue;
        [best, fewest] = [net, made.packages.length];
      }
    }
  }

  /** The wish with what is known and what is to be bettered, where packages are what counts. */
  private bettering(): PackRequest {
    const { request, counts, netlist } = this;
    if (!counts) return request;
    const below = this.fewest() - netlist.cells.length;
    return { ...request, gatesAtLeast: this.settledTo, ...(Number.isFinite(below) && { below }) };
  }

  /** The best choice of units over the ways offered, by the program. */
  private async choose(request: PackRequest): Promise<void> {
    const { netlist, strategy } = this;
    const parts = netlist.cells.length;
    const tellsBound = isLeast(strategy);
    const chosen = await choose(netlist, { family: this.family, request }, this.solve, ({ bound, best, made }) => {
      if (made) this.keep(this.packingOf(made));
      else if (tellsBound) this.told(null, bound + parts, best === null ? null : best + parts);
    });
    if (chosen.chosen) this.keep({ ...this.packingOf(chosen.chosen), proof: chosen.proved ? 'tried' : 'best' });
    if (!tellsBound) return;
    this.bound = Math.max(1, chosen.bound + parts);
    if (chosen.proved) this.provedAt = this.fewest();
  }

  private packingOf(made: Assembled): Packing {
    return packingFrom(this.netlist, this.family, this.strategy, made);
  }

  /** The best that was found, with how sure it is. */
  private best(): Packing | null {
    const goal = (p: Packing): number => costFor(this.strategy, p);
    const [best] = this.found.sort(
      (a, b) => goal(a) - goal(b) || Number(b.proof === 'tried') - Number(a.proof === 'tried'),
    );
    if (!best) return null;
    const design = fingerprint(this.design);
    if (!isLeast(this.strategy)) return { ...best, proved: best.proof !== 'best', design };
    const count = best.packages.length;
    const proof = this.proofText(count);
    const bound = proof === 'best' ? Math.min(Math.max(this.bound, this.known()), count) : count;
    return { ...best, proof, proved: proof !== 'best', bound, design };
  }

  /** How sure a number of packages is: what is known of the number, whoever found it. */
  private proofText(count: number): Proof {
    // Every set of gate chips is tried; of larger blocks only what was found to fit, or none at all.
    const gatesAlone = count > 1 && this.hasBlocks;
    if (count <= this.settledTo) return gatesAlone ? 'gates' : 'all';
    return this.provedAt !== null && count <= this.provedAt ? 'tried' : 'best';
  }

  private mayUseBlocks(): boolean {
    return this.request.chips.some((n) => blockNumbers.includes(n));
  }

  /** What is known to be the least with larger blocks as well. */
  private known(): number {
    return this.mayUseBlocks() ? 1 : this.settledTo;
  }
}

/** Whether a strategy makes packages least of whatever there is, and tells how few there can be. */
const isCounted = (strategy: Strategy): boolean =>
  strategy === 'fewest' || strategy === 'blocks' || strategy === 'drawer';

/** Whether packages are what it makes least. */
const isLeast = (strategy: Strategy): boolean => isCounted(strategy) || strategy === 'nand' || strategy === 'nor';

/** What decided by hand cannot be, each told by itself: a chip that the way does not use, more than the drawer holds, a net that no gate drives. */
function impossible(netlist: Netlist, { chips, stock, locks = noLocks }: PackRequest, strategy: Strategy): Finding[] {
  const title = titleOf(strategy).toLowerCase();
  const found = againstChips(locks, chips, title);
  for (const [part, need] of lockedCounts(locks)) {
    const have = stock ? (stock.get(part) ?? 0) : Number.POSITIVE_INFINITY;
    if (need > have) found.push(finding('pack/held-short', [], { part, need, have }));
  }
  if (locks.pins.length === 0) return found;
  const functions = functionsOf(netlist);
  const made = new Map<number, string>();
  for (const { net, ref } of locks.pins) {
    const l = functions.ofNet(net);
    const given = classOf(l) === 0 || (functions.isSource(classOf(l)) && (l & 1) === 0);
    const other = made.get(l);
    if (given) found.push(finding('pack/pin-idle', [], { net, ref }));
    else if (other !== undefined) found.push(finding('pack/pin-same', [], { net, other, strategy: title }));
    made.set(l, net);
  }
  return found;
}

function checked(
  netlist: Netlist,
  { packing, findings }: Packed,
  { locks, strategy, family }: Pick<Supplies, 'locks'> & { readonly strategy: Strategy; readonly family: FamilyId },
): Packed {
  if (!packing) return { packing, findings };
  const meant = stillMeant(locks, lowered(netlist, { family, kept: lockedNets(locks) })).locks;
  const wrong = whatIsWrong(netlist, packing) ?? locksBroken(packing, meant);
  if (wrong !== null) return { packing: null, findings: [finding('pack/wrong', [], { wrong })] };
  return { packing: { ...packing, strategy, proof: packing.proved ? 'tried' : 'best' }, findings };
}

/** The nearest that can be built when the drawer does not do: the fewest packages that it lacks, then the fewest. */
async function nearest(
  netlist: Netlist,
  { family, supplies }: { readonly family: FamilyId; readonly supplies: Supplies },
  solve: SolveInteger,
  limits: SolveLimits,
) {
  const { drawer, locks } = supplies;
  const request = requestFor('fewest', supplies, limits);
  if (!drawer || !request) return null;
  const { chosen } = await choose(
    netlist,
    { family, request: { ...request, goals: ['lacking', 'packages', 'units'], stock: drawer, soft: true } },
    solve,
  );
  const packing = chosen && packingFrom(netlist, family, 'drawer', chosen);
  if (!packing || whatIsWrong(netlist, packing) !== null || locksBroken(packing, locks) !== null) return null;
  const lacks = missingFrom(packing, drawer).map((m) => `${m.need - m.have} × ${m.part}`);
  return { packing, findings: [finding('pack/drawer-lacks', [], { parts: lacks.join(', ') })] };
}

/** Chips of which one alone makes anything, or with luck this design: the fewest kinds are one. */
const alone = '7400 7402 7410 7427 7451 7408 7432 7486'.split(' ');

function singleKinds(request: PackRequest): PackRequest[] {
  const chips = alone.filter((n) => request.chips.includes(n));
  const locks = [...lockedCounts(request.locks ?? noLocks).keys()];
  return chips.map((n) => ({
    ...request,
    chips: [...new Set([n, ...locks.filter((h) => request.chips.includes(h))])],
    goals: ['packages', 'units'],
    limits: shareOf(request.limits, 1 / (2 * chips.length)),
  }));
}

/** What was chosen, with the parts used by number, as a packing of which nothing is claimed. */
export function packingFrom(
  netlist: Netlist,
  family: FamilyId,
  strategy: Strategy,
  { packages, netOf }: Assembled,
): Packing {
  return {
    packages: [...packages, ...packagesOfParts(netlist, family, packages, netOf)],
    inputs: netlist.inputs,
    outputs: netlist.outputs.map(({ name, net }) => ({ name, net: netOf(net) })),
    proved: false,
    design: fingerprint(netlist),
    strategy,
    proof: 'best',
  };
}

function unbuildable(netlist: Netlist, strategy: Strategy, { excluded, drawer, locks }: Supplies): Finding {
  const title = titleOf(strategy);
  const [pin] = locks.pins;
  if (pin && locks.pins.length === 1)
    return finding('pack/pin-cannot', [], { ...pin, title: partType(pin.part)?.title ?? pin.part });
  if (pin) return finding('pack/pins-together', [], { nets: locks.pins.map((p) => p.net).join(', ') });
  if (strategy === 'drawer') return finding('pack/drawer-short', [], { chips: [...(drawer?.keys() ?? [])].length });
  return finding('pack/no-way', [], {
    strategy: title.toLowerCase(),
    gates: netlist.gates.length,
    excluded: excluded.join(', ') || 'none',
  });
}
