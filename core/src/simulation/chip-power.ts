import { type BoardVolts, LEAST_SUPPLY_V } from '../electrical';
import { elementAt } from '../element-at';
import type { LiveIslands } from './live-islands';

/** Which chips have power, by chip index, and what the volts at their supply pins say of it. */
export class ChipPower {
  private readonly powered: Uint8Array;
  /** For each island the chips whose supply or ground pin is on it. */
  readonly fedBy: readonly (readonly number[])[];

  constructor(
    private readonly board: BoardVolts,
    private readonly islands: LiveIslands,
  ) {
    const fedBy: number[][] = board.islands.map(() => []);
    board.chips.forEach(({ supply, ground }, c) => {
      for (const node of [supply, ground]) fedBy[node < 0 ? -1 : elementAt(board.islandOf, node)]?.push(c);
    });
    this.fedBy = fedBy;
    this.powered = new Uint8Array(board.chips.length);
  }

  has(c: number): boolean {
    return this.powered[c] === 1;
  }

  put(c: number, isPowered: boolean): void {
    this.powered[c] = isPowered ? 1 : 0;
  }

  /** The volts between a chip's supply pins; 0 where one of them is held by nothing. */
  voltsOf(c: number): number {
    const { supply = -1, ground = -1 } = this.board.chips[c] ?? {};
    if (supply < 0 || ground < 0 || supply === ground) return 0;
    const { islands } = this;
    if (islands.floats(supply) || islands.floats(ground)) return 0;
    return islands.middleOf(supply) - islands.middleOf(ground);
  }

  /** Whether a chip's supply pins have enough volts for it to work. */
  isFed(c: number): boolean {
    return this.voltsOf(c) >= LEAST_SUPPLY_V;
  }
}
