import { delaysOf, type EdgeDelays, type FamilyId, typeOf } from '../catalogue';
import type { Netlist } from '../design';
import { elementAt } from '../element-at';
import { levelsOf } from './blocks';
import { gatesOf } from './check';
import { drivenBy, type Packing, type Strategy, type UnitUse } from './packing';

/**
 * Jumpers that a board of it takes, but for those of a board's own rails: one to every input pin, those of spare units
 * too, since they are tied; two for the supply of each package; one for each input and output.
 */
export function jumpersOf({ packages, inputs, outputs }: Packing): number {
  const pins = packages.map((p) => 2 + (typeOf(p)?.pins.filter((pin) => pin.role === 'input').length ?? 0));
  return pins.reduce((sum, n) => sum + n, inputs.length + outputs.length);
}

/** The longest way from a source, or what is stored, to an output or what stores: units on it, and their delay in ns, typical and at most, by the chips' data sheets. */
export function pathOf(packing: Packing): { gates: number; typicalNs: number; mostNs: number } {
  const reach = new Map<string, { gates: number; typicalNs: number; mostNs: number }>();
  const none = { gates: 0, typicalNs: 0, mostNs: 0 };
  const uses = packing.packages.flatMap(({ units, ...named }) => {
    const type = typeOf(named);
    const family = familyOf(named.part);
    return units.flatMap((use, u) => {
      const unit = type?.units[u];
      if (!type || !use || !unit || unit.behaviour.stored.length > 0) return [];
      const delays = unit.behaviour.outputs.map(({ name }) => slowerEdge(delaysOf(type, family, name)));
      return [{ use, levels: levelsOf(type), delays }];
    });
  });
  const storing = packing.packages.flatMap(({ units, ...named }) =>
    units.filter((use, u) => use && (typeOf(named)?.units[u]?.behaviour.stored.length ?? 0) > 0),
  ) as UnitUse[];
  const sorted = gatesOf(packing, new Set([...packing.inputs, ...storing.flatMap(drivenBy)]));
  if (typeof sorted === 'string') return none;
  for (let round = 0; round < uses.length; round++) {
    let changed = false;
    for (const { use, levels, delays } of uses) {
      const before = use.inputs.map((n) => reach.get(n) ?? none);
      const top = before.reduce((a, b) => (b.typicalNs > a.typicalNs ? b : a), none);
      const gates = levels + Math.max(...before.map((b) => b.gates));
      const mostNs = Math.max(...before.map((b) => b.mostNs));
      for (const [o, net] of drivenBy(use).entries()) {
        const { typical, most } = elementAt(delays, o);
        const next = { gates, typicalNs: top.typicalNs + typical, mostNs: mostNs + most };
        const old = reach.get(net);
        if (old && old.gates >= next.gates && old.typicalNs >= next.typicalNs) continue;
        reach.set(net, next);
        changed = true;
      }
    }
    if (!changed) break;
  }
  const ends = [...packing.outputs.map((o) => o.net), ...storing.flatMap((use) => use.inputs)].map(
    (net) => reach.get(net) ?? none,
  );
  return ends.reduce((a, b) => (b.typicalNs > a.typicalNs ? b : a), none);
}

/** The slower of an output's edges, as the longest path counts it. */
function slowerEdge({ rise, fall }: EdgeDelays): EdgeDelays['rise'] {
  return { typical: Math.max(rise.typical, fall.typical), most: Math.max(rise.most, fall.most) };
}

function familyOf(part: string): FamilyId {
  const letters = /^74(ALS|AS|LS|S|F|HCT|HC|ACT|AC|)/.exec(part)?.[1];
  return (letters === undefined ? 'HC' : letters === '' ? '74' : letters) as FamilyId;
}

/** Parts that a packing takes and the drawer has not, with how many are there. */
export function missingFrom(
  packing: Packing,
  drawer: ReadonlyMap<string, number>,
): { part: string; need: number; have: number }[] {
  const need = new Map<string, { part: string; need: number }>();
  for (const p of packing.packages) {
    const base = typeOf(p)?.id ?? p.part;
    need.set(base, { part: p.part, need: (need.get(base)?.need ?? 0) + 1 });
  }
  return [...need].flatMap(([base, { part, need: n }]) => {
    const have = drawer.get(base) ?? 0;
    return have < n ? [{ part, need: n, have }] : [];
  });
}

/** Whether a way keeps the gates of the sheet one to one. */
export const isOneToOne = (strategy: Strategy = 'written'): boolean => strategy === 'written' || strategy === 'own';

/** What a packing by functions may do otherwise than the sheet's gates; null where nothing. */
export function freedom({ unused }: Netlist, { strategy = 'written' }: Packing): string | null {
  const n = unused?.rows.length ?? 0;
  if (n === 0 || isOneToOne(strategy)) return null;
  return `In the ${n === 1 ? 'row' : `${n} rows`} that are don’t-care the board may differ from the sheet’s gates.`;
}

/** How sure a packing is, claiming no more than is known. */
export function proofText({ proof, bound, strategy = 'written', packages }: Packing): string {
  const n = packages.length;
  if (proof === 'all') return `No fewer than ${n} will do: every set was tried.`;
  if (proof === 'gates') {
    const others = strategy === 'blocks' ? 'matched as far as they fit' : 'left out';
    return `No fewer than ${n} gate chips will do: every set was tried. Larger chips were ${others}.`;
  }
  if (proof === 'tried' && isOneToOne(strategy)) return 'Fewest for these gates one to one: proved.';
  if (proof === 'tried') return 'Least of the forms tried: proved by the program. Another form may do with less.';
  return bound !== undefined && bound > 1 && bound < n
    ? `The best so far; of the forms tried none has fewer than ${bound}.`
    : 'The best found; a smaller one may exist.';
}
