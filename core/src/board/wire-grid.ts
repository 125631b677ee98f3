import type { Point } from './hole';

/** Lines that wires run in are so far apart, in tenths of an inch. */
export const STEP = 0.25;

/** Part of the mat, in tenths of an inch. */
export interface Area {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The part of the mat that some places lie on. */
export function areaOf(points: readonly Point[]): Area {
  let [left, top, right, bottom] = [0, 0, 0, 0];
  for (const { x, y } of points) {
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
  }
  return { left, top, right, bottom };
}

/** What a stretch meets on its way: lying on other wires and beside them so near that they touch, both in steps; crossed ones; ends of wires that it lies over. */
export interface Weights {
  readonly on: number;
  readonly beside: number;
  readonly crossed: number;
  readonly ends: number;
}

/** Crossings and nothing else. */
export const CROSSINGS: Weights = { on: 0, beside: 0, crossed: 1, ends: 0 };

/** Points of a line are summed up in blocks of so many, a power of two: a wire changes a point of each line that it crosses, and only what comes after it in its block. */
const BLOCK = 16;

/**
 * Lines of one direction, each a row of points with steps between them, and what there is along each: wires that lie on a step, ends of wires in a point. What all that a line
 * meets costs is kept as a sum from its first point on, so that any stretch costs a difference.
 */
class Lines {
  /** How many points a line has: the least that it must have, made up to whole blocks. */
  readonly length: number;
  private readonly on: Uint16Array;
  private readonly ends: Uint8Array;
  /** What the steps of a line before a point cost. */
  private readonly stepsBefore: Float64Array;
  /** What the points before one in its block cost, and those of all blocks before one. */
  private readonly inBlock: Float64Array;
  private readonly blocksBefore: Float64Array;
  private readonly blocks: number;

  constructor(
    readonly count: number,
    least: number,
    private readonly weights: Weights,
  ) {
    this.blocks = Math.ceil(least / BLOCK);
    this.length = this.blocks * BLOCK;
    const points = count * this.length;
    this.on = new Uint16Array(points);
    this.ends = new Uint8Array(points);
    this.stepsBefore = new Float64Array(points);
    this.inBlock = new Float64Array(points);
    this.blocksBefore = new Float64Array(count * this.blocks);
  }

  addEnd(line: number, point: number): void {
    this.ends[line * this.length + point] = 1;
    this.addPoint(line, point, this.weights.ends);
  }

  /** Lays a wire along a line between two points of it; takes it up where `by` is -1. */
  add(line: number, from: number, to: number, by: 1 | -1): void {
    for (let k = line * this.length + from; k < line * this.length + to; k++) this.on[k] = (this.on[k] as number) + by;
    this.addSteps(line, from, to, by * this.weights.on);
    if (line > 0) this.addSteps(line - 1, from, to, by * this.weights.beside);
    if (line + 1 < this.count) this.addSteps(line + 1, from, to, by * this.weights.beside);
  }

  /** Notes that a wire of the other direction passes over a point of each line between two of them. */
  addAcross(point: number, from: number, to: number, by: 1 | -1): void {
    for (let line = from + 1; line < to; line++) this.addPoint(line, point, by * this.weights.crossed);
  }

  /** What a stretch of a line between two points of it meets, each kind times its weight. */
  cost(line: number, from: number, to: number): number {
    if (to <= from) return 0;
    const [first, last] = [line * this.length + from, line * this.length + to];
    const steps = (this.stepsBefore[last] as number) - (this.stepsBefore[first] as number);
    return steps + this.pointsBefore(last) - this.pointsBefore(first + 1);
  }

  /** What the points of a line before one of them cost. */
  private pointsBefore(k: number): number {
    return (this.inBlock[k] as number) + (this.blocksBefore[Math.floor(k / BLOCK)] as number);
  }

  /** Whether a stretch lies on a wire, or over the end of one. */
  isTaken(line: number, from: number, to: number): boolean {
    const first = line * this.length + from;
    for (let k = first; k < line * this.length + to; k++)
      if (this.on[k] !== 0 || (this.ends[k] !== 0 && k > first)) return true;
    return false;
  }

  private addSteps(line: number, from: number, to: number, cost: number): void {
    if (cost === 0) return;
    const start = line * this.length;
    for (let k = from + 1; k < to; k++)
      this.stepsBefore[start + k] = (this.stepsBefore[start + k] as number) + cost * (k - from);
    for (let k = to; k < this.length; k++)
      this.stepsBefore[start + k] = (this.stepsBefore[start + k] as number) + cost * (to - from);
  }

  private addPoint(line: number, point: number, cost: number): void {
    const k = line * this.length + point;
    const next = Math.floor(k / BLOCK) + 1;
    for (let i = k + 1; i < next * BLOCK; i++) this.inBlock[i] = (this.inBlock[i] as number) + cost;
    for (let b = next; b < (line + 1) * this.blocks; b++)
      this.blocksBefore[b] = (this.blocksBefore[b] as number) + cost;
  }
}

/**
 * The level and upright wires that lie on a part of the mat, on a grid of lines `STEP` apart, and what a stretch costs among them. Places between lines count as the nearest, what lies
 * outside as on the edge; slanting stretches are passed over. To ask costs the same for any stretch.
 */
export class WireGrid {
  private readonly level: Lines;
  private readonly upright: Lines;

  /** `ends` are the holes in which wires end, now or later. */
  constructor(
    private readonly area: Area,
    weights: Weights,
    ends: readonly Point[] = [],
  ) {
    const points = (from: number, to: number): number => Math.ceil((to - from) / STEP) + 1;
    const [width, height] = [points(area.left, area.right), points(area.top, area.bottom)];
    this.level = new Lines(height, width, weights);
    this.upright = new Lines(width, height, weights);
    for (const { x, y } of ends) {
      const [column, row] = [this.columnOf(x), this.rowOf(y)];
      this.level.addEnd(row, column);
      this.upright.addEnd(column, row);
    }
  }

  lay(p: Point, q: Point): void {
    this.add(p, q, 1);
  }

  /** Takes a stretch up that was laid. */
  takeUp(p: Point, q: Point): void {
    this.add(p, q, -1);
  }

  /** What a stretch meets, each kind times its weight; 0 where it slants. Wires that it only touches at its ends do not count, nor do those that end there. */
  cost(p: Point, q: Point): number {
    if (p.y === q.y) return this.levelCost(p.y, p.x, q.x);
    return p.x === q.x ? this.uprightCost(p.x, p.y, q.y) : 0;
  }

  /** What a level stretch meets in a row, from column to column. */
  levelCost(y: number, from: number, to: number): number {
    const row = this.rowOf(y);
    return from < to
      ? this.level.cost(row, this.columnOf(from), this.columnOf(to))
      : this.level.cost(row, this.columnOf(to), this.columnOf(from));
  }

  /** What an upright stretch meets in a column, from row to row. */
  uprightCost(x: number, from: number, to: number): number {
    const column = this.columnOf(x);
    return from < to
      ? this.upright.cost(column, this.rowOf(from), this.rowOf(to))
      : this.upright.cost(column, this.rowOf(to), this.rowOf(from));
  }

  /** Whether a stretch lies on a wire, or over the end of one. */
  isTaken(p: Point, q: Point): boolean {
    const { left, right, top, bottom } = this.boundsOf(p, q);
    if (p.y === q.y) return this.level.isTaken(top, left, right);
    return p.x === q.x && this.upright.isTaken(left, top, bottom);
  }

  private add(p: Point, q: Point, by: 1 | -1): void {
    const { left, right, top, bottom } = this.boundsOf(p, q);
    if (p.y === q.y) {
      this.level.add(top, left, right, by);
      this.upright.addAcross(top, left, right, by);
    } else if (p.x === q.x) {
      this.upright.add(left, top, bottom, by);
      this.level.addAcross(left, top, bottom, by);
    }
  }

  /** The columns and rows of the grid that a stretch lies between. */
  private boundsOf(p: Point, q: Point): Area {
    return {
      left: this.columnOf(Math.min(p.x, q.x)),
      right: this.columnOf(Math.max(p.x, q.x)),
      top: this.rowOf(Math.min(p.y, q.y)),
      bottom: this.rowOf(Math.max(p.y, q.y)),
    };
  }

  /** The column of the grid that is nearest. */
  private columnOf(x: number): number {
    return nearest((x - this.area.left) / STEP, this.upright.count);
  }

  private rowOf(y: number): number {
    return nearest((y - this.area.top) / STEP, this.level.count);
  }
}

/** The line that is nearest to a place, of so many. */
function nearest(place: number, count: number): number {
  const line = Math.round(place);
  return line < 0 ? 0 : line >= count ? count - 1 : line;
}
