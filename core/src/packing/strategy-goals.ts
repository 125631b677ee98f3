import { rarity, typeOf } from '../catalogue';
import type { SolveLimits } from '../logic';
import { blockNumbers } from './blocks';
import type { PackRequest } from './choose';
import { jumpersOf, pathOf } from './figures';
import { noRules, type Rules } from './pack';
import type { Packing, Strategy } from './packing';
import { choosable } from './units';

/** The strategies for a design, in the order in which they are shown. */
export const strategies = [
  { strategy: 'own', title: 'As written', says: 'each gate of the sheet on a unit of its own kind, wide ones split' },
  {
    strategy: 'written',
    title: 'Spare units used',
    says: 'each gate of the sheet kept, on spare units of other kinds too',
  },
  { strategy: 'fewest', title: 'Fewest chips', says: 'whatever units compute the same' },
  {
    strategy: 'blocks',
    title: 'Larger chips too',
    says: 'fewest chips, with selectors, decoders and adders as logic, counters and shift registers for what is one',
  },
  { strategy: 'kinds', title: 'Fewest kinds', says: 'as few different chips as can be, then few of them' },
  {
    strategy: 'jumpers',
    title: 'Fewest jumpers',
    says: 'every input has one, spare ones too, every chip two for its supply',
  },
  { strategy: 'shortest', title: 'Shortest path', says: 'every signal as early as it can be, then few chips' },
  { strategy: 'nand', title: 'NANDs alone', says: '7400, 7410, 7420 and 7430' },
  { strategy: 'nor', title: 'NORs alone', says: '7402, 7427, 4002 and 74260' },
  { strategy: 'drawer', title: 'From the drawer', says: 'fewest chips of those that the lab has' },
] as const satisfies readonly { strategy: Strategy; title: string; says: string }[];

/** What a packing must keep to: what is excluded and decided by hand, and how many packages of each base number the drawer holds (null: no drawer is kept). */
export interface Supplies extends Rules {
  readonly drawer: ReadonlyMap<string, number> | null;
}

/** Every chip of the catalogue allowed, nothing decided by hand, no drawer to keep to. */
export const anySupplies: Supplies = { ...noRules, drawer: null };

/** The effort of a way when none is asked for. */
export const EFFORT = 8;

/** The title of a strategy, as it is shown. */
export const titleOf = (strategy: Strategy): string =>
  strategies.find((w) => w.strategy === strategy)?.title ?? strategy;

/** What is asked of the search for a strategy; null where it wants a drawer and there is none. */
export function requestFor(
  strategy: Exclude<Strategy, 'written' | 'own'>,
  { excluded, drawer, locks }: Supplies,
  limits: SolveLimits = { effort: EFFORT },
): PackRequest | null {
  const only: Partial<Record<Strategy, string>> = { nand: '7400 7410 7420 7430', nor: '7402 7427 4002 74260' };
  // Larger blocks as logic are a choice of their own: a teacher takes them for a trick.
  const all = strategy === 'blocks' ? [...choosable, ...blockNumbers] : choosable;
  const chips = (only[strategy]?.split(' ') ?? all).filter((n) => !excluded.includes(n));
  // Where the person has named the chips, none of them is preferred: a wide gate saves several narrow ones.
  const fewUnits: PackRequest['goals'] = ['packages', 'units', 'pins'];
  const goals: Partial<Record<Strategy, PackRequest['goals']>> = {
    jumpers: ['jumpers', 'units', 'pins'],
    nand: fewUnits,
    nor: fewUnits,
  };
  const request: PackRequest = {
    chips,
    goals: goals[strategy] ?? ['packages', 'rarity', 'units', 'pins'],
    limits,
    early: strategy === 'shortest',
    locks,
  };
  if (strategy !== 'drawer') return request;
  if (!drawer) return null;
  const there = chips.filter((n) => (drawer.get(n) ?? 0) > 0);
  return { ...request, chips: there, stock: new Map(there.map((n) => [n, drawer.get(n) as number])) };
}

/** What a way makes least, as a number. */
export function costFor(strategy: Strategy, packing: Packing): number {
  const { packages } = packing;
  const used = packages.flatMap((p) => p.units.flatMap((u) => u ?? []));
  // Of equal numbers of units those with fewer pins: an inverter before an exclusive or with an input tied.
  const units = used.length + used.reduce((sum, u) => sum + u.inputs.length, 0) / 1000;
  const rare = packages.reduce((sum, p) => sum + rarity(typeOf(p)?.id ?? ''), 0);
  if (strategy === 'kinds')
    return 1e9 * new Set(packages.map((p) => p.part)).size + 1e6 * packages.length + 1e3 * rare + units;
  if (strategy === 'jumpers') return 1000 * jumpersOf(packing) + units;
  if (strategy === 'shortest') return 1000 * pathOf(packing).gates + packages.length;
  if (strategy === 'nand' || strategy === 'nor') return 1e6 * packages.length + units;
  return 1e6 * packages.length + 1e3 * rare + units;
}
