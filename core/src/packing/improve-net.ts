import { rarity } from '../catalogue';
import { type Netlist, networkOf } from '../design';
import { compile, sweep } from '../logic';
import { firstKindOf } from './block-kinds';
import { blockNumbers } from './blocks';
import { NetSearch } from './net-search';
import { PackageCount } from './package-count';
import { SignatureRows } from './signature-rows';
import type { NetState } from './unit-net';
import { netOfDesign, networkOfNet } from './unit-network';
import { choosable, unitKindsOf } from './units';

/** Designs of more sources are not searched: what is found could not be checked in all rows. */
const MOST_SOURCES = 20;
/** Units beyond which a net is too large to search. */
const MOST_UNITS = 260;
/** Moves between two looks at the clock and at what was found. */
const ROUND = 200;

/** Moves for each unit of effort, of a design of so many gates; one of fewer gates makes more moves, from more seeds. */
const MOVES = 2000;
const MOVES_AT_GATES = 40;
const MOST_MOVES_MORE = 2;
/** Seeds of searches over the everyday chips alone, and over all that are allowed: so none that is allowed besides makes an answer worse. */
const EVERYDAY_SEEDS: readonly number[] = [1, 2, 3];
const OTHER_SEEDS: readonly number[] = [4, 5, 6];
/** Seeds of searches with larger blocks, each from the best net without. */
const BLOCK_SEEDS: readonly number[] = [7, 8, 9];
const everydayChips = choosable.filter((n) => rarity(n) <= 1 || n === '7451');

/** The searches for a design of so many gates, with so much effort in all. */
export function searchesFor({
  gates,
  chips,
  effort,
}: {
  readonly gates: number;
  readonly chips: readonly string[];
  readonly effort: number;
}): readonly Pick<Improving, 'chips' | 'blocks' | 'moves' | 'seed'>[] {
  const more = Math.min(MOST_MOVES_MORE, Math.max(1, MOVES_AT_GATES / Math.max(1, gates)));
  const seeds = gates > MOVES_AT_GATES ? 1 : EVERYDAY_SEEDS.length;
  const moves = Math.ceil((MOVES * effort * more) / (2 * seeds));
  const gateChips = chips.filter((n) => !blockNumbers.includes(n));
  const blocks = chips.filter((n) => firstKindOf(n) >= 0);
  const common = gateChips.filter((n) => everydayChips.includes(n));
  const others = common.length < gateChips.length ? OTHER_SEEDS : [];
  return [
    ...EVERYDAY_SEEDS.slice(0, seeds).map((seed) => ({ seed, chips: common, moves })),
    ...others.slice(0, seeds).map((seed) => ({ seed, chips: gateChips, moves })),
    ...(blocks.length > 0 ? BLOCK_SEEDS.slice(0, seeds) : []).map((seed) => ({
      seed,
      chips: gateChips,
      blocks,
      moves,
    })),
  ];
}

/** What is wanted of the search: the nets that any part reads, the chips whose units may be used, and how many moves it makes. */
export interface Improving {
  readonly roots: readonly string[];
  readonly chips: readonly string[];
  /** Base numbers of larger blocks that may be used. */
  readonly blocks?: readonly string[];
  /** The net that it begins with; the gates of the design one to one where nothing is said. */
  readonly start?: NetState | undefined;
  readonly moves: number;
  readonly seed?: number;
  /** The moment at which it ends in any case, in ms since 1970. */
  readonly until?: number | undefined;
}

/**
 * Nets of units for a design, each with fewer packages than the one before as they are counted here, or in the end of fewer units; all of them do in every row
 * what the design does. Nothing where the design is too large for that, or its gates cannot be built of the chips.
 */
export function* improvedNets(
  netlist: Netlist,
  { roots, chips, blocks = [], start: known, moves, seed = 1, until }: Improving,
): Generator<NetState> {
  const sources = networkOf(netlist).inputs;
  if (sources.length > MOST_SOURCES || sources.length === 0) return;
  const packages = new PackageCount(unitKindsOf(chips));
  const start = known ?? netOfDesign(netlist, { sources, roots }, packages);
  if (!start || start.nodes.length > MOST_UNITS || start.nodes.length === 0) return;
  const rows = new SignatureRows(sources.length, netlist.unused?.rows ?? []);
  const wanted = sweep(compile(networkOfNet(start, sources))).columns;
  let sound = start;
  let search = new NetSearch({ ...rows, start, packages, blocks }, seed);
  let fewest = Number.POSITIVE_INFINITY;
  for (let done = 0; done < moves; ) {
    const share = done / moves;
    let isBetter = false;
    for (let i = 0; i < ROUND && done < moves; i++, done++) isBetter = search.move(share) || isBetter;
    const isLast = done >= moves || Date.now() >= (until ?? Number.POSITIVE_INFINITY);
    if (isBetter || isLast) {
      const made = sweep(compile(networkOfNet(search.best, sources))).columns;
      const wrong = rows.isAll ? -1 : rows.firstWrong(wanted, made);
      if (wrong >= 0) {
        // A row that was not looked at: it is from now on, and the search goes back to what is known to be right.
        rows.look(wrong);
        search = new NetSearch({ ...rows, start: sound, packages, blocks }, seed + done);
      } else {
        sound = search.best;
        const whole = Math.floor(search.bestCost + 1e-9);
        if (whole < fewest || isLast) yield sound;
        fewest = Math.min(fewest, whole);
      }
    }
    if (isLast) return;
  }
}
