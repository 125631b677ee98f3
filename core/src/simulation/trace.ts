import { HIGH, LOW, UNKNOWN } from '../logic';
import type { PoweredBoard } from './powered-board';

/** Changes that a trace keeps of one signal; of more, it forgets the oldest half. */
const MOST_KEPT = 1_000_000;
/** Volts of a net are noted again when they have moved by so much. */
const STEP_V = 0.05;

/** What one signal of a trace did: at each of its times (ns) it went to that level and those volts; volts are NaN where nobody knows them. */
export class TraceRow {
  private times = new Float64Array(64);
  private levels = new Uint8Array(64);
  private voltages = new Float32Array(64);
  /** How many changes there are, the first being what was when the trace began. */
  length = 0;
  /** Whether older changes have been forgotten. */
  hasForgotten = false;
  /** Edges to a known level, the shortest time between two, and the last one's, over the whole run. */
  edges = 0;
  shortestNs = Infinity;
  private lastEdgeNs = -Infinity;
  private lastKnown: number = UNKNOWN;
  private firstRiseNs = 0;
  private lastRiseNs = 0;
  private rises = 0;
  private highNs = 0;
  private highUpToLastRise = 0;
  private lastChangeNs = 0;

  constructor(
    readonly name: string,
    readonly net: number,
  ) {}

  timeAt(i: number): number {
    return this.times[i] as number;
  }

  levelAt(i: number): number {
    return this.levels[i] as number;
  }

  voltsAt(i: number): number {
    return this.voltages[i] as number;
  }

  /** Notes what a signal is from a moment on; the same as before is not noted. */
  note(timeNs: number, level: number, volts: number): void {
    const last = this.length - 1;
    if (last >= 0 && this.levels[last] === level && !hasMoved(this.voltages[last] as number, volts)) return;
    this.count(timeNs, level);
    if (last >= 0 && this.times[last] === timeNs) this.length--;
    else if (this.length === MOST_KEPT) this.forget();
    else if (this.length === this.times.length) this.grow();
    this.times[this.length] = timeNs;
    this.levels[this.length] = level;
    this.voltages[this.length++] = volts;
  }

  private count(timeNs: number, level: number): void {
    const before = this.length > 0 ? this.levels[this.length - 1] : UNKNOWN;
    if (before === HIGH) this.highNs += timeNs - this.lastChangeNs;
    this.lastChangeNs = timeNs;
    if (level === UNKNOWN || level === this.lastKnown) return;
    if (this.lastKnown !== UNKNOWN) {
      this.edges++;
      this.shortestNs = Math.min(this.shortestNs, timeNs - this.lastEdgeNs);
      this.lastEdgeNs = timeNs;
      if (level === HIGH) this.rise(timeNs);
    }
    this.lastKnown = level;
  }

  private rise(timeNs: number): void {
    if (this.rises++ === 0) {
      this.firstRiseNs = timeNs;
      this.highNs = 0;
    }
    this.lastRiseNs = timeNs;
    this.highUpToLastRise = this.highNs;
  }

  /** The mean period over whole periods in ns, null under two of them. */
  get periodNs(): number | null {
    return this.rises > 2 ? (this.lastRiseNs - this.firstRiseNs) / (this.rises - 1) : null;
  }

  /** The share of the time that it is high, over whole periods; null under two of them. */
  get highShare(): number | null {
    return this.rises > 2 ? this.highUpToLastRise / (this.lastRiseNs - this.firstRiseNs) : null;
  }

  private grow(): void {
    const n = 2 * this.length;
    const [times, levels, voltages] = [new Float64Array(n), new Uint8Array(n), new Float32Array(n)];
    times.set(this.times);
    levels.set(this.levels);
    voltages.set(this.voltages);
    [this.times, this.levels, this.voltages] = [times, levels, voltages];
  }

  private forget(): void {
    const half = this.length >> 1;
    for (const column of [this.times, this.levels, this.voltages]) column.copyWithin(0, half, this.length);
    this.length -= half;
    this.hasForgotten = true;
  }

  /** The index of the last change up to a time; -1 where the trace began later, or has forgotten it. */
  indexAt(timeNs: number): number {
    let [low, high] = [0, this.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.timeAt(middle) <= timeNs) low = middle + 1;
      else high = middle;
    }
    return low - 1;
  }
}

const hasMoved = (a: number, b: number): boolean =>
  Number.isNaN(a) ? !Number.isNaN(b) : !(Math.abs(a - b) < STEP_V / 2);

/** The changes of some nets of a board while time runs on it, each at the moment at which it happens. */
export class Trace {
  private all: readonly TraceRow[] = [];
  /** Hears of the same islands, after the rows. */
  alsoTell: ((islands: readonly number[]) => void) | null = null;
  private readonly rowsOn = new Map<number, readonly TraceRow[]>();

  /** Begins to watch; `nets` are named as they are to be told. It ends with `stop`. */
  constructor(
    private readonly live: PoweredBoard,
    nets: readonly { readonly name: string; readonly net: number }[],
  ) {
    for (const { name, net } of nets) this.add(name, net);
    live.observe((islands) => {
      for (const island of islands) for (const row of this.rowsOn.get(island) ?? []) this.note(row);
      this.alsoTell?.(islands);
    });
  }

  get rows(): readonly TraceRow[] {
    return this.all;
  }

  /** Watches a net from now on. */
  add(name: string, net: number): void {
    const row = new TraceRow(name, net);
    const island = this.live.islandOf(net);
    this.all = [...this.all, row];
    this.rowsOn.set(island, [...(this.rowsOn.get(island) ?? []), row]);
    this.live.follow(net, STEP_V);
    this.note(row);
  }

  /** Watches what has this name no more, and forgets what it did. */
  remove(name: string): void {
    this.all = this.all.filter((row) => row.name !== name);
    for (const [island, rows] of this.rowsOn)
      this.rowsOn.set(
        island,
        rows.filter((row) => row.name !== name),
      );
  }

  private note(row: TraceRow): void {
    row.note(this.live.timeNs, this.live.levelOf(row.net), this.live.voltsOf(row.net) ?? Number.NaN);
  }

  /** Watches no more, and notes what everything is now. */
  stop(): void {
    this.live.observe(null);
    for (const row of this.all) this.note(row);
  }
}

/** A level as it is written: `0`, `1` or `x`. */
export const levelLetter = (level: number): '0' | '1' | 'x' => (level === HIGH ? '1' : level === LOW ? '0' : 'x');
