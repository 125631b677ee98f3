import { type BoardVolts, ChargedIsland, type IslandPoint, SteppedIsland } from '../electrical';
import { TICK_S } from './ticks';

/** An island that moves by itself, since it has capacitors. */
export type TimedIsland = ChargedIsland | SteppedIsland;

/**
 * The islands of a board as they stand: those without capacitors at a point, which follows at once from what drives them; those with on a way in time, each
 * brought up to a moment when something asks for it. Here are the volts of all nodes and what the supplies give; when to look at which is the simulator's say.
 */
export class LiveIslands {
  private readonly points: (IslandPoint | null)[];
  private readonly timed: readonly (TimedIsland | null)[];
  /** For each island that moves the tick it was brought up to. */
  private readonly since: Float64Array;
  /** The islands that have a motion of their own. */
  private readonly moving: readonly number[];
  private readonly amps: Float64Array;
  /** What the supplies give into islands that rest, in amperes. */
  restingA = 0;

  constructor(private readonly board: BoardVolts) {
    const { islands } = board;
    this.points = islands.map(() => null);
    this.timed = islands.map((_, i) => this.timedIsland(i));
    this.moving = [...this.timed.keys()].filter((i) => this.timed[i] !== null);
    this.since = new Float64Array(islands.length);
    this.amps = new Float64Array(islands.length);
  }

  private timedIsland(i: number): TimedIsland | null {
    const { islands, volts, positive, fixed } = this.board;
    const model = islands[i];
    const [first, ...others] = model?.parts.capacitors ?? [];
    if (!model || !first || model.isAdrift) return null;
    const mostV = Math.max(...fixed.values(), 0);
    if (others.length === 0 && !model.remembers) return new ChargedIsland(model, first, { volts, positive, mostV });
    return new SteppedIsland(model, [first, ...others], { volts, positive });
  }

  /** An island that moves by itself; null for others. */
  timedAt(i: number): TimedIsland | null {
    return this.timed[i] as TimedIsland | null;
  }

  /** The point that an island without capacitors stands at, the same object for the same point; null for others, and before it was first looked at. */
  pointAt(i: number): IslandPoint | null {
    return this.points[i] ?? null;
  }

  /** Puts an island without capacitors where its contacts and outputs have it now; the point, or null where it is the one before. */
  settle(i: number): IslandPoint | null {
    const island = this.board.islands[i] as BoardVolts['islands'][number];
    const point = island.point(this.board.volts, this.board.positive);
    if (this.points[i] === point) return null;
    this.points[i] = point;
    this.putAmps(i, point.supplyA);
    return point;
  }

  /** Brings an island that moves up to a moment. */
  advance(i: number, timed: TimedIsland, now: number): void {
    timed.advance((now - (this.since[i] as number)) * TICK_S);
    this.since[i] = now;
  }

  /** Brings all islands that move up to a moment. */
  bringUp(now: number): void {
    for (const i of this.moving) if (this.since[i] !== now) this.advance(i, this.timed[i] as TimedIsland, now);
  }

  /** Counts time anew from this moment, to which all are brought up. */
  beginHere(): void {
    this.since.fill(0);
  }

  /** Forgets the points, since nothing is known any more. */
  forgetPoints(): void {
    this.points.fill(null);
  }

  /** Notes what the supplies give into an island. */
  putAmps(i: number, amps: number): void {
    this.restingA += amps - (this.amps[i] as number);
    this.amps[i] = amps;
  }

  /** The least and the most volts of a node now. */
  rangeOf(node: number): readonly [least: number, most: number] {
    const { islandOf, rowOf, volts } = this.board;
    const i = islandOf[node] as number;
    if (i < 0) return [volts[node] as number, volts[node] as number];
    const row = rowOf[node] as number;
    const timed = this.timed[i];
    if (timed) return timed.nodeV(row);
    const point = this.points[i];
    return point ? [point.least[row] as number, point.most[row] as number] : [0, 0];
  }

  /** The middle of what the volts of a node can be. */
  middleOf(node: number): number {
    const [least, most] = this.rangeOf(node);
    return (least + most) / 2;
  }

  /** Whether nothing holds a node, whatever else is known of it. */
  floats(node: number): boolean {
    const i = this.board.islandOf[node] as number;
    return i >= 0 && this.points[i]?.floats[this.board.rowOf[node] as number] === 1;
  }

  /** Whether something holds a net, and nothing unknown moves it. */
  isKnown(net: number): boolean {
    const i = this.board.islandOf[net] as number;
    if (i < 0) return true;
    const timed = this.timed[i];
    if (timed) return timed.isSure;
    const row = this.board.rowOf[net] as number;
    const point = this.points[i];
    return point !== null && point !== undefined && point.floats[row] === 0 && point.lost[row] === 0;
  }

  /** Whether nothing holds a net at any volts. */
  isFloating(net: number): boolean {
    const i = this.board.islandOf[net] as number;
    const point = i < 0 ? null : this.points[i];
    const row = this.board.rowOf[net] as number;
    return point?.floats[row] === 1 && point.lost[row] === 0;
  }

  /** How an island stands now, moving ones too; null before it was first looked at. */
  standing(i: number): IslandPoint | null {
    const timed = this.timed[i];
    if (!timed) return this.points[i] ?? null;
    const { free } = this.board.islands[i] as BoardVolts['islands'][number];
    const ranges = free.map((_, row) => timed.nodeV(row));
    return {
      least: Float64Array.from(ranges, ([least]) => least),
      most: Float64Array.from(ranges, ([, most]) => most),
      floats: new Uint8Array(free.length),
      lost: new Uint8Array(free.length).fill(timed.isSure ? 0 : 1),
      supplyA: timed.supplyA,
      readings: null,
    };
  }

  /** What the supplies give through the wiring now, in amperes. */
  get supplyA(): number {
    let sum = 0;
    this.amps.forEach((amps, i) => {
      sum += this.timed[i]?.supplyA ?? amps;
    });
    return sum;
  }

  /** Seconds until every island rests, as far as nothing else happens; Infinity where that is not known. */
  get secondsToRest(): number {
    let most = 0;
    for (const i of this.moving) most = Math.max(most, this.timed[i]?.secondsToRest ?? 0);
    return most;
  }
}
