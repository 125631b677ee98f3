import { elementAt } from '../element-at';
import type { BoardVolts } from './board-volts';
import { currentFrom, solveIsland } from './operating-point';

/** Looks at the board until the current is within this share of the limit, so many times at the most. */
const NEAR = 2e-4;
const MOST_LOOKS = 24;

/**
 * The volts that a supply is left with at its current limit, as its share of what it is set to: as a bench supply does, it lets its volts fall
 * until what the board takes is no more than the limit. Contacts and outputs stand as they do; of outputs that nobody knows one way is taken.
 * Where several supplies are on the board all fall alike. Found by false position, halving what lags (the Illinois rule: Dowell and Jarratt, BIT
 * 11, 1971).
 */
export function shareAtLimit(board: BoardVolts): number {
  if (board.isMiswired) return 0;
  const volts = new Float64Array(board.nets.nets.length);
  const over = (share: number): number => (1000 * ampsAt(board, share, volts)) / board.limitMa - 1;
  let [least, under] = [0, -1];
  let [most, above] = [1, over(1)];
  if (above <= 0) return 1;
  let side = 0;
  for (let look = 0; look < MOST_LOOKS && most - least > NEAR / 10; look++) {
    const share = least - (under * (most - least)) / (above - under);
    const there = over(share);
    if (Math.abs(there) < NEAR) return share;
    if (there > 0) {
      [most, above] = [share, there];
      if (side === 1) under /= 2;
      side = 1;
    } else {
      [least, under] = [share, there];
      if (side === -1) above /= 2;
      side = -1;
    }
  }
  return least;
}

/** What the supplies give when all of them are at a share of their volts, in amperes; the search begins where `volts` stood. */
function ampsAt({ islands, fixed, positive }: BoardVolts, share: number, volts: Float64Array): number {
  for (const [node, held] of fixed) volts[node] = share * held;
  return islands.reduce((sum, island) => {
    const { elements } = elementAt(island.corners(), 0);
    solveIsland({ free: island.free, elements }, volts, false);
    return sum + currentFrom(positive, elements, volts);
  }, 0);
}
