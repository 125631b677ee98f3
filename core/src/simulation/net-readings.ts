import { type BoardVolts, type PinReader, thresholdsAt } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import type { Actuators } from './actuators';
import type { InputPins } from './input-pins';
import type { LiveIslands } from './live-islands';
import type { OutputPins } from './output-pins';
import { TICK_S } from './ticks';

/** What the nets of a board under power are read from. */
interface Sources {
  readonly islands: LiveIslands;
  readonly inputs: InputPins;
  readonly outputs: OutputPins;
  readonly actuators: Actuators;
  /** Ticks since the power came on. */
  readonly now: () => number;
  /** The volts that the supplies are left with at their limit, as a share of what they are set to; null where they are not at it. */
  readonly shareLeft: () => number | null;
}

/** What the nets of a board under power show now: levels, volts that supplies hold, and how fast they swing. */
export class NetReadings {
  /** For each island the clocks that run and have contacts on it. */
  private readonly clocksOn: readonly (readonly number[])[];

  constructor(
    private readonly board: BoardVolts,
    private readonly from: Sources,
  ) {
    const { actuators } = from;
    this.clocksOn = board.islands.map((_, i) => actuators.onIsland(i).filter((a) => actuators.periodOf(a) < Infinity));
  }

  /** What an input reads, by its place in the board's readers. */
  levelRead(reader: PinReader): number {
    return this.from.inputs.levelOf(reader);
  }

  /** What a net shows: what its inputs read where they agree, or what one of the family that drives it would read there. */
  levelOf(net: number): number {
    const readers = this.board.readersOf.get(net);
    if (readers) {
      const level = this.levelRead(readers[0] as PinReader);
      return readers.every((reader) => this.levelRead(reader) === level) ? level : UNKNOWN;
    }
    if (!this.isKnown(net)) return UNKNOWN;
    const { low, high } = thresholdsAt(this.board.judgeOf(net), this.board.supplyV);
    const [least, most] = this.from.islands.rangeOf(net);
    return most <= low ? LOW : least >= high ? HIGH : UNKNOWN;
  }

  /** How often a second the outputs on a net have gone high of late; 0 where they rest. Clocks on it count too. */
  hertzOf(net: number): number {
    const { outputs, actuators, now } = this.from;
    const i = this.board.islandOf[net] as number;
    let most = outputs.hertzOn(i, now());
    for (const a of this.clocksOn[i] ?? []) most = Math.max(most, 0.5 / (actuators.periodOf(a) * TICK_S));
    return most;
  }

  /** The volts of a net that a supply holds, at its limit too; null of others. */
  heldV(net: number): number | null {
    const held = this.board.fixed.get(net);
    return held === undefined ? null : held * (this.from.shareLeft() ?? 1);
  }

  /** Whether something holds a net, and nothing unknown moves it. */
  isKnown(net: number): boolean {
    return this.from.shareLeft() === null && this.from.islands.isKnown(net);
  }
}
