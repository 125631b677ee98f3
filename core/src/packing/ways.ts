import { type FamilyId, partType } from '../catalogue';
import type { Netlist } from '../design';
import { type Finding, finding } from '../finding';
import type { SolveInteger } from '../logic';
import { type Assembled, assemble } from './assemble';
import { blockNumbers } from './blocks';
import { whatIsWrong } from './check';
import { type Chosen, choose, type Wish } from './choose';
import { exhaust, MAX_EXHAUSTED } from './exhaust';
import { jumpersOf, missingFrom, pathOf } from './figures';
import { classOf, functionsOf } from './functions';
import { againstChips, heldBroken, heldCounts, holdsNothing, nothingHeld, stillMeant } from './held';
import { lowered } from './lower';
import { noRules, pack, packagesOfParts, type Rules } from './pack';
import { fingerprint, type Package, type Packing, type Sureness, type Way } from './packing';
import { choosable } from './units';

/** The ways to build a design, in the order in which they are shown. */
export const ways = [
  { way: 'written', title: 'As written', says: 'each gate of the sheet kept, wide ones split, spare units used' },
  { way: 'fewest', title: 'Fewest chips', says: 'whatever units compute the same' },
  { way: 'kinds', title: 'Fewest kinds', says: 'as few different chips as can be, then few of them' },
  {
    way: 'jumpers',
    title: 'Fewest jumpers',
    says: 'every input has one, spare ones too, every chip two for its supply',
  },
  { way: 'shortest', title: 'Shortest path', says: 'every signal as early as it can be, then few chips' },
  { way: 'nand', title: 'NANDs alone', says: '7400, 7410, 7420 and 7430' },
  { way: 'nor', title: 'NORs alone', says: '7402, 7427, 4002 and 74260' },
  { way: 'drawer', title: 'From the drawer', says: 'fewest chips of those that the lab has' },
] as const satisfies readonly { way: Way; title: string; says: string }[];

/** What a packing must keep to: what is struck out and decided by hand, and how many packages of each base number the drawer holds (null: no drawer is kept). */
export interface Supplies extends Rules {
  readonly drawer: ReadonlyMap<string, number> | null;
}

export const anySupplies: Supplies = { ...noRules, drawer: null };

/** Steps that trying everything may take, some seconds. */
const TRIES = 12_000_000;
const MANY_OUTPUTS = 4;
/** The most packages that are settled so. */
const MOST_TRIED = 3;

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
export async function packWay(
  design: Netlist,
  family: FamilyId,
  way: Way,
  supplies: Supplies,
  solve: SolveInteger,
  seconds = 8,
  tell: (progress: PackProgress) => void = () => {},
): Promise<Packed> {
  if (way === 'written') return checked(design, await pack(design, family, solve, supplies), supplies);
  const netlist = lowered(design);
  const { held, findings: gone } = stillMeant(supplies.held, netlist);
  const wish = wishFor(way, { ...supplies, held }, seconds);
  if (wish === null) return { packing: null, findings: [finding('pack/no-drawer', [], {})] };
  const against = impossible(netlist, wish, way);
  if (against.length > 0) return { packing: null, findings: against };
  const found: Outcome[] = [];
  const sound = (packing: Packing): boolean =>
    whatIsWrong(netlist, packing) === null && heldBroken(packing, held) === null;
  const tellOf = (packing: Packing, bound: number | null): void => {
    if (sound(packing))
      tell({ bound, best: packing.packages.length, packing: { ...packing, design: fingerprint(design) } });
  };
  const counts = way === 'fewest' || way === 'drawer';
  // What is there already may be as good: the gates one to one.
  if (['fewest', 'jumpers', 'shortest'].includes(way)) {
    const plain = (await pack(design, family, solve, supplies)).packing;
    if (plain) {
      const packing: Packing = { ...plain, way, sure: 'best', proved: false, ...(counts && { bound: 1 }) };
      found.push({ packing, sure: 'best' });
      tellOf(packing, null);
    }
  }
  for (const one of way === 'kinds' ? singleKinds(wish) : [bettering(wish, way, found, netlist)]) {
    const parts = netlist.cells.length;
    const chosen = await choose(netlist, family, one, solve, ({ bound, best, made }) => {
      const packages = counts || way === 'nand' || way === 'nor';
      if (made) tellOf(packingOf(netlist, family, made, way, 'best', bound), packages ? bound + parts : null);
      else if (packages) tell({ bound: bound + parts, best: best === null ? null : best + parts, packing: null });
    });
    const plain = found[0];
    if (chosen.chosen) found.push(outcomeOf(netlist, family, way, chosen));
    else if (counts && plain && chosen.proved && one.below !== undefined)
      found[0] = { sure: 'tried', packing: { ...plain.packing, bound: plain.packing.packages.length } };
    else if (counts && plain)
      found[0] = { ...plain, packing: { ...plain.packing, bound: Math.max(1, chosen.bound) + parts } };
  }
  // What is decided by hand is not tried through: every set is tried of free units alone, fewer than were found.
  const trying = (counts || way === 'jumpers' || way === 'shortest') && holdsNothing(held);
  const fewer = Math.min(...found.filter((f) => sound(f.packing)).map((f) => f.packing.packages.length)) - 1;
  const most = counts ? Math.min(MOST_TRIED, fewer) : MOST_TRIED;
  const tried = trying ? byTrying(netlist, family, way, wish, most) : { best: null, least: 1 };
  if (tried.best) found.push(tried.best);
  const kept = found.filter((f) => sound(f.packing));
  const goal = (p: Packing): number => costFor(way, p);
  const [best] = kept.sort((a, b) => goal(a.packing) - goal(b.packing) || certainty(b.sure) - certainty(a.sure));
  if (!best) {
    const near = way === 'drawer' ? await nearest(netlist, family, { ...supplies, held }, solve, seconds / 2) : null;
    if (near) return { packing: { ...near.packing, design: fingerprint(design) }, findings: near.findings };
    return { packing: null, findings: [unbuildable(netlist, way, { ...supplies, held })] };
  }
  const known = best.packing.bound === undefined ? {} : knownOf(best, kept, tried.least, wish);
  return { packing: { ...best.packing, ...known, design: fingerprint(design) }, findings: gone };
}

/** How sure the number of packages is: what is known of one packing's number is known of the number, whoever found it. */
function knownOf(best: Outcome, kept: readonly Outcome[], settledTo: number, { chips }: Wish) {
  const count = best.packing.packages.length;
  const same = kept.filter((f) => f.packing.packages.length === count).map((f) => f.sure);
  const settled = same.includes('all') || count <= settledTo;
  // Every set of gate chips is tried; of larger blocks only what was found to fit.
  const gatesAlone = count > 1 && chips.some((n) => blockNumbers.includes(n));
  const sure: Sureness = settled ? (gatesAlone ? 'gates' : 'all') : same.includes('tried') ? 'tried' : 'best';
  const least = Math.max(...kept.map((f) => f.packing.bound ?? 0));
  return { sure, proved: sure !== 'best', bound: sure === 'best' ? Math.min(least, count) : count };
}

/** The wish with what is to be bettered, where packages are what counts. */
function bettering(wish: Wish, way: Way, [plain]: readonly Outcome[], { cells }: Netlist): Wish {
  if (way !== 'fewest' || !plain) return wish;
  return { ...wish, below: plain.packing.packages.length - cells.length };
}

/** What decided by hand cannot be, each told by itself: a chip that the way does not use, more than the drawer holds, a net that no gate drives. */
function impossible(netlist: Netlist, { chips, stock, held = nothingHeld }: Wish, way: Way): Finding[] {
  const title = titleOf(way).toLowerCase();
  const found = againstChips(held, chips, title);
  for (const [part, need] of heldCounts(held)) {
    const have = stock ? (stock.get(part) ?? 0) : Number.POSITIVE_INFINITY;
    if (need > have) found.push(finding('pack/held-short', [], { part, need, have }));
  }
  if (held.pins.length === 0) return found;
  const functions = functionsOf(netlist);
  const made = new Map<number, string>();
  for (const { net, ref } of held.pins) {
    const l = functions.ofNet(net);
    const given = classOf(l) === 0 || (functions.isSource(classOf(l)) && (l & 1) === 0);
    const other = made.get(l);
    if (given) found.push(finding('pack/pin-idle', [], { net, ref }));
    else if (other !== undefined) found.push(finding('pack/pin-same', [], { net, other, way: title }));
    made.set(l, net);
  }
  return found;
}

const titleOf = (way: Way): string => ways.find((w) => w.way === way)?.title ?? way;

interface Outcome {
  readonly packing: Packing;
  readonly sure: Sureness;
}

const certainty = (s: Sureness): number => ['best', 'tried', 'gates', 'all'].indexOf(s);

function checked(netlist: Netlist, { packing, findings }: Packed, { held }: Supplies): Packed {
  if (!packing) return { packing, findings };
  const wrong = whatIsWrong(netlist, packing) ?? heldBroken(packing, stillMeant(held, lowered(netlist)).held);
  if (wrong !== null) return { packing: null, findings: [finding('pack/wrong', [], { wrong })] };
  return { packing: { ...packing, way: 'written', sure: packing.proved ? 'tried' : 'best' }, findings };
}

function wishFor(way: Exclude<Way, 'written'>, { struck, drawer, held }: Supplies, seconds: number): Wish | null {
  const only: Partial<Record<Way, string>> = { nand: '7400 7410 7420 7430', nor: '7402 7427 4002 74260' };
  const all = way === 'kinds' ? choosable : [...choosable, ...blockNumbers];
  const chips = (only[way]?.split(' ') ?? all).filter((n) => !struck.includes(n));
  const goals: Partial<Record<Way, Wish['goals']>> = {
    jumpers: ['jumpers', 'units', 'pins'],
  };
  const wish: Wish = {
    chips,
    goals: goals[way] ?? ['packages', 'units', 'pins'],
    seconds,
    early: way === 'shortest',
    held,
  };
  if (way !== 'drawer') return wish;
  if (!drawer) return null;
  const there = chips.filter((n) => (drawer.get(n) ?? 0) > 0);
  return { ...wish, chips: there, stock: new Map(there.map((n) => [n, drawer.get(n) as number])) };
}

/** The nearest that can be built when the drawer does not do: the fewest packages that it lacks, then the fewest. */
async function nearest(netlist: Netlist, family: FamilyId, supplies: Supplies, solve: SolveInteger, seconds: number) {
  const { drawer, held } = supplies;
  const wish = wishFor('fewest', supplies, seconds);
  if (!drawer || !wish) return null;
  const { chosen } = await choose(
    netlist,
    family,
    { ...wish, goals: ['lacking', 'packages', 'units'], stock: drawer, soft: true },
    solve,
  );
  const packing = chosen && packingOf(netlist, family, chosen, 'drawer', 'best', 1);
  if (!packing || whatIsWrong(netlist, packing) !== null || heldBroken(packing, held) !== null) return null;
  const lacks = missingFrom(packing, drawer).map((m) => `${m.need - m.have} × ${m.part}`);
  return { packing, findings: [finding('pack/drawer-lacks', [], { parts: lacks.join(', ') })] };
}

/** Chips of which one alone makes anything, or with luck this design: the fewest kinds are one. */
const alone = '7400 7402 7410 7427 7451 7408 7432 7486'.split(' ');

function singleKinds(wish: Wish): Wish[] {
  const chips = alone.filter((n) => wish.chips.includes(n));
  const held = [...heldCounts(wish.held ?? nothingHeld).keys()];
  return chips.map((n) => ({
    ...wish,
    chips: [...new Set([n, ...held.filter((h) => wish.chips.includes(h))])],
    goals: ['packages', 'units'],
    seconds: wish.seconds / chips.length,
  }));
}

/** The fewest packages by trying everything, up to `most`, for functions of few inputs, and the number below which nothing is. */
function byTrying(
  netlist: Netlist,
  family: FamilyId,
  way: Way,
  wish: Wish,
  most: number,
): { best: Outcome | null; least: number } {
  const functions = functionsOf(netlist);
  if (functions.sources.length > MAX_EXHAUSTED || netlist.cells.length > 0) return { best: null, least: 1 };
  const roots = netlist.outputs.map((o) => functions.ofNet(o.net));
  // Where outputs are free in rows that are not left out, every set was tried of less than there may be.
  const isAll = !netlist.unused || (!netlist.unused.more && functions.freeRows === netlist.unused.rows.length);
  // Where packages are not what counts, a packing of few is but one to compare with.
  const counts = way === 'fewest' || way === 'drawer';
  for (let packages = 1; packages <= most; packages++) {
    // Of many outputs fewer sets are tried: their searches are wide and seldom come to an end.
    const tries = counts ? TRIES / (roots.length > MANY_OUTPUTS ? 8 : 1) : TRIES / 6;
    const answer = exhaust(functions, roots, wish.chips, wish.stock ?? new Map(), packages, tries);
    if (answer.found) {
      const made = assemble(netlist, functions, answer.found, family);
      const sure = counts ? (isAll ? 'all' : 'tried') : 'best';
      const packing = packingOf(netlist, family, made, way, sure, packages);
      return { best: { packing, sure }, least: isAll ? packages : 1 };
    }
    if (!answer.none) return { best: null, least: isAll ? packages : 1 };
  }
  return { best: null, least: isAll ? Math.max(1, most + 1) : 1 };
}

function outcomeOf(netlist: Netlist, family: FamilyId, way: Way, chosen: Chosen): Outcome {
  const sure = chosen.proved ? 'tried' : 'best';
  return { packing: packingOf(netlist, family, chosen.chosen as Assembled, way, sure, chosen.bound), sure };
}

function packingOf(
  netlist: Netlist,
  family: FamilyId,
  { packages, netOf }: Assembled,
  way: Way,
  sure: Sureness,
  bound: number,
): Packing {
  const parts: Package[] = packagesOfParts(netlist, family, packages, netOf);
  const counted =
    way === 'kinds' || way === 'jumpers' || way === 'shortest' ? {} : { bound: Math.max(1, bound) + parts.length };
  return {
    packages: [...packages, ...parts],
    inputs: netlist.inputs,
    outputs: netlist.outputs.map(({ name, net }) => ({ name, net: netOf(net) })),
    proved: sure !== 'best',
    design: fingerprint(netlist),
    way,
    sure,
    ...counted,
  };
}

/** What a way makes least, as a number. */
function costFor(way: Way, packing: Packing): number {
  const { packages } = packing;
  const units = packages.flatMap((p) => p.units).filter((u) => u !== null).length;
  if (way === 'kinds') return 1000 * new Set(packages.map((p) => p.part)).size + packages.length;
  if (way === 'jumpers') return 1000 * jumpersOf(packing) + units;
  if (way === 'shortest') return 1000 * pathOf(packing).gates + packages.length;
  return 1000 * packages.length + units;
}

function unbuildable(netlist: Netlist, way: Way, { struck, drawer, held }: Supplies): Finding {
  const title = titleOf(way);
  const [pin] = held.pins;
  if (pin && held.pins.length === 1)
    return finding('pack/pin-cannot', [], { ...pin, title: partType(pin.part)?.title ?? pin.part });
  if (pin) return finding('pack/pins-together', [], { nets: held.pins.map((p) => p.net).join(', ') });
  if (way === 'drawer') return finding('pack/drawer-short', [], { chips: [...(drawer?.keys() ?? [])].length });
  return finding('pack/no-way', [], {
    way: title.toLowerCase(),
    gates: netlist.gates.length,
    struck: struck.join(', ') || 'none',
  });
}
