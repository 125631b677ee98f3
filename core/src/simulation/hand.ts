import type { Panel } from './panel';
import type { PoweredBoard } from './powered-board';
import { lampsOf } from './walk';

/** Presses the switches of a board, each when it has come to rest. */
export class Hand {
  constructor(
    private readonly live: PoweredBoard,
    private readonly panel: Panel,
  ) {
    live.settle();
  }

  /** Turns an input over, by its place among the panel's switches. */
  press(input: number): void {
    const index = this.panel.switches[input] ?? -1;
    if (index >= 0) this.live.setSwitch(index, !this.live.isOn(index));
    this.live.settle();
  }

  /** LOW, HIGH or UNKNOWN of each output, as its lamp shows it. */
  lamps(): number[] {
    return lampsOf(this.live, this.panel);
  }
}
