import { elementAt } from '../element-at';
import type { BoardVolts } from './board-volts';
import { currentFrom, solveIsland } from './operating-point';

/** Halvings of the range in which the volts lie: to a thousandth of a volt and less. */
const HALVINGS = 14;

/**
 * The volts that a supply is left with at its current limit, as its share of what it is set to: as a bench supply does, it lets its volts fall
 * until what the board takes is no more than the limit. Contacts and outputs stand as they do; of outputs that nobody knows one way is taken.
 * Where several supplies are on the board all fall alike.
 */
export function shareAtLimit(board: BoardVolts): number {
  if (board.isMiswired) return 0;
  let [least, most] = [0, 1];
  for (let i = 0; i < HALVINGS; i++) {
    const share = (least + most) / 2;
    if (1000 * ampsAt(board, share) > board.limitMa) most = share;
    else least = share;
  }
  return least;
}

/** What the supplies give when all of them are at a share of their volts, in amperes. */
function ampsAt({ islands, fixed, positive, nets }: BoardVolts, share: number): number {
  const volts = new Float64Array(nets.nets.length);
  for (const [node, held] of fixed) volts[node] = share * held;
  return islands.reduce((sum, island) => {
    const { elements } = elementAt(island.corners(), 0);
    solveIsland({ free: island.free, elements }, volts, false);
    return sum + currentFrom(positive, elements, volts);
  }, 0);
}
