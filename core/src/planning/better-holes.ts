import {
  type Board,
  type Hole,
  holesOfStrip,
  holeXY,
  isRail,
  laidJumpers,
  parseHole,
  printHole,
  unusableHoles,
} from '../board';

/** Wires that cost so much more than their length are looked at: two crossings, or as much touching. */
const WORTH = 6;
/** What a hole beside a pin costs, and how much cheaper a way in other holes must be. */
const BESIDE_A_PIN = 3;
const LEAST_GAIN = 0.5;
/** Ways in other holes are compared with one corner alone, and so many of the best then in full; plain ways may cost so much more. */
const LOOKED_AT = 3;
const SLACK = 10;
/** How many wires are looked at, so that large boards take a few seconds too. */
const MOST_WIRES = 600;

interface End {
  readonly hole: Hole;
  readonly beside: number;
}

/**
 * A board whose jumpers stand in other holes of the same strips where they then cross and touch fewer others: each that crosses some is taken up, and laid again by
 * the cheapest way from any free hole of one of its strips to any of the other, in the order in which they were laid. What is joined stays as it is.
 */
export function inBetterHoles(board: Board, tell: (share: number) => void = () => {}): Board {
  const { router, paths } = laidJumpers(board);
  const jumpers = { ...board.jumpers };
  const taken = new Set(unusableHoles(board).keys());
  const freeHoles = (strip: Hole): End[] =>
    holesOfStrip(strip).flatMap((hole) =>
      taken.has(printHole(hole)) ? [] : [{ hole, beside: hole.row === 'e' || hole.row === 'f' ? BESIDE_A_PIN : 0 }],
    );
  const wires = Object.values(jumpers).flatMap(({ id, from, to }) => {
    const [a, b, path] = [parseHole(from), parseHole(to), paths.get(id)];
    if (!a || !b || !path || isRail(a.row) || isRail(b.row)) return [];
    const most = apart(a, b) + WORTH;
    return router.costAmongOthers(path, most) < most ? [] : [{ id, a, b, path }];
  });
  const wanting = wires.slice(0, MOST_WIRES);
  for (const [i, { id, a, b, path }] of wanting.entries()) {
    tell(i / wanting.length);
    router.drop(path);
    for (const end of [a, b]) taken.delete(printHole(end));
    let best = { from: a, to: b, ...router.find(holeXY(a), holeXY(b)) };
    const pairs = freeHoles(a).flatMap((from) =>
      freeHoles(b).flatMap((to) => {
        const beside = from.beside + to.beside;
        if (apart(from.hole, to.hole) + beside >= best.cost - LEAST_GAIN) return [];
        const way = router.find(holeXY(from.hole), holeXY(to.hole), { most: best.cost + SLACK, isPlain: true });
        return [{ from: from.hole, to: to.hole, beside, cost: way.cost + beside }];
      }),
    );
    for (const { from, to, beside } of pairs.sort((p, q) => p.cost - q.cost).slice(0, LOOKED_AT)) {
      const most = best.cost - LEAST_GAIN - beside;
      const way = router.find(holeXY(from), holeXY(to), { most });
      if (way.cost < most) best = { from, to, path: way.path, cost: way.cost + beside };
    }
    router.take(best.path);
    const [from, to] = [printHole(best.from), printHole(best.to)];
    for (const end of [from, to]) taken.add(end);
    jumpers[id] = { ...board.jumpers[id], id, from, to };
  }
  tell(1);
  return { ...board, jumpers };
}

/** How far two holes are apart along rows and columns, in tenths of an inch. */
function apart(p: Hole, q: Hole): number {
  const [a, b] = [holeXY(p), holeXY(q)];
  return Math.abs(a.x - b.x) + Math.abs(a.y - b.y);
}
