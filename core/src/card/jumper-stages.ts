import { type Board, byNumber, isRail, parseHole, stripOf } from '../board';

interface Wire {
  readonly id: string;
  readonly to: string;
}

/**
 * The stage, by index, at which each jumper is laid: the first that needs it. `claims[s]` lists the
 * strips that stage s must have joined to what the earlier stages have wired; the shortest way there
 * is laid then. Jumpers between rails come first, those that no stage needs last.
 */
export function jumperStages(
  board: Board,
  claims: readonly (readonly string[] | undefined)[],
  count: number,
): ReadonlyMap<string, number> {
  const wires = new Map<string, Wire[]>();
  const stages = new Map<string, number>();
  const wired = new Set<string>();
  const add = (from: string, wire: Wire): void => {
    wires.set(from, [...(wires.get(from) ?? []), wire]);
  };
  for (const { id, from, to } of Object.values(board.jumpers).sort((a, b) => byNumber(a.id, b.id))) {
    const [a, b] = [parseHole(from), parseHole(to)];
    if (!a || !b) continue;
    if (isRail(a.row) && isRail(b.row)) stages.set(id, 0);
    add(stripOf(a), { id, to: stripOf(b) });
    add(stripOf(b), { id, to: stripOf(a) });
    for (const hole of [a, b]) if (isRail(hole.row)) wired.add(stripOf(hole));
  }
  claims.forEach((strips, stage) => {
    for (const strip of strips ?? []) {
      for (const { id, to } of wayToWired(strip, wires, wired)) {
        if (!stages.has(id)) stages.set(id, stage);
        wired.add(to);
      }
      wired.add(strip);
    }
  });
  for (const id of Object.keys(board.jumpers)) if (!stages.has(id)) stages.set(id, count - 1);
  return stages;
}

/** The jumpers on the shortest way from a strip to one that is wired; none when there is no such way. */
function wayToWired(from: string, wires: ReadonlyMap<string, readonly Wire[]>, wired: ReadonlySet<string>): Wire[] {
  if (wired.has(from)) return [];
  const cameBy = new Map<string, Wire & { readonly from: string }>();
  const reached = [from];
  for (const strip of reached) {
    for (const wire of wires.get(strip) ?? []) {
      if (wire.to === from || cameBy.has(wire.to)) continue;
      cameBy.set(wire.to, { ...wire, from: strip });
      if (wired.has(wire.to)) return wayBack(wire.to, cameBy);
      reached.push(wire.to);
    }
  }
  return [];
}

function wayBack(end: string, cameBy: ReadonlyMap<string, Wire & { readonly from: string }>): Wire[] {
  const strategy: Wire[] = [];
  for (let step = cameBy.get(end); step; step = cameBy.get(step.from)) strategy.push(step);
  return strategy;
}
