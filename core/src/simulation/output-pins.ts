import type { BoardVolts } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import type { Circuit } from './circuit';
import { TICK_S, TICKS_PER_NS } from './ticks';
import { DEAD } from './unit-states';

/** Which of a data sheet's delays are taken. */
export type Corner = 'typical' | 'most';

/** The outputs of all chips by driver index: the level each has and the one it is on its way to, where it acts, and how long it takes. */
export class OutputPins {
  readonly level: Uint8Array;
  readonly pending: Uint8Array;
  /** The island that each drives; -1 where it is tied to a supply, or drives nothing. */
  readonly island: Int32Array;
  private readonly slot: Int32Array;
  /** When each went high last, and how long after the time before, in ticks. */
  private readonly roseAt: Float64Array;
  private readonly period: Float64Array;
  private readonly riseTicks: Float64Array;
  private readonly fallTicks: Float64Array;
  private byIsland: readonly (readonly number[])[] | null = null;

  constructor(
    private readonly board: BoardVolts,
    { driverPin, driverDelays }: Circuit,
    corner: Corner,
  ) {
    const drivers = driverPin.length;
    this.level = new Uint8Array(drivers).fill(UNKNOWN);
    this.pending = new Uint8Array(drivers);
    this.island = new Int32Array(drivers).fill(-1);
    this.slot = new Int32Array(drivers);
    this.roseAt = new Float64Array(drivers).fill(-Infinity);
    this.period = new Float64Array(drivers).fill(Infinity);
    this.riseTicks = Float64Array.from(driverDelays, ({ rise }) => Math.round(rise[corner] * TICKS_PER_NS));
    this.fallTicks = Float64Array.from(driverDelays, ({ fall }) => Math.round(fall[corner] * TICKS_PER_NS));
    const driverOf = new Map(driverPin.map((pin, d) => [pin, d]));
    board.islands.forEach(({ parts }, i) => {
      parts.outputs.forEach(({ pin }, slot) => {
        const d = driverOf.get(pin) ?? -1;
        if (d < 0) return;
        this.island[d] = i;
        this.slot[d] = slot;
      });
    });
  }

  /** Has an output act on its island with its level, or not at all without power. Returns the island that changed by it, or -1. */
  putDrive(d: number, isPowered: boolean): number {
    const i = this.island[d] as number;
    if (i < 0) return -1;
    const drive = isPowered ? (this.level[d] as number) : DEAD;
    return this.board.islands[i]?.setOutput(this.slot[d] as number, drive) ? i : -1;
  }

  /** An output arrives at the level it was on its way to. */
  arrive(d: number, now: number): void {
    const level = this.pending[d] as number;
    if (level === HIGH) {
      this.period[d] = now - (this.roseAt[d] as number);
      this.roseAt[d] = now;
    }
    this.level[d] = level;
  }

  /** How long an output takes to a level, in ticks: to unknown the shorter of its delays, to high impedance the longer. */
  delayTo(d: number, level: number): number {
    const rise = this.riseTicks[d] as number;
    if (level === HIGH) return rise;
    const fall = this.fallTicks[d] as number;
    if (level === LOW) return fall;
    return level === UNKNOWN ? Math.min(rise, fall) : Math.max(rise, fall);
  }

  /** How often a second the outputs on an island have gone high of late; 0 where they rest. */
  hertzOn(island: number, now: number): number {
    this.byIsland ??= this.board.islands.map((_, i) => [...this.island.keys()].filter((d) => this.island[d] === i));
    let most = 0;
    for (const d of this.byIsland[island] ?? []) {
      const period = this.period[d] as number;
      if (now - (this.roseAt[d] as number) < 3 * period) most = Math.max(most, 1 / (period * TICK_S));
    }
    return most;
  }
}
