import type { PoweredBoard } from './powered-board';

/** An output of a chip that changed on the way, the new level of its net (LOW, HIGH or UNKNOWN), and when, in ns after the passage began. */
export interface PassageStep {
  readonly pin: string;
  readonly level: number;
  readonly ns: number;
}

/** How a change has gone through the chips: from a touch, or from the first change after a rest. */
export interface Passage {
  /** When it began, in nanoseconds since power up. */
  readonly atNs: number;
  readonly steps: readonly PassageStep[];
  /** Whether more changed than is listed. */
  readonly isCut: boolean;
}

/** Changes of a passage that are listed. */
const MOST_STEPS = 40;
/** After so long without a change, in nanoseconds, the next one begins a passage of its own. */
const REST_NS = 1000;

/** After a touch it is watched for so long, in nanoseconds, however fast time runs. */
const WATCHED_NS = 100_000;

interface Driver {
  readonly pin: string;
  readonly net: number;
  level: number;
}

/** Notes which outputs change one after the other as a change goes through a board: always in slow motion, otherwise for a moment after a touch. */
export class PassageWatch {
  private readonly drivers = new Map<number, Driver[]>();
  private isSlow = false;
  private untilNs = 0;
  private atNs = 0;
  private lastNs = 0;
  private steps: PassageStep[] = [];
  private isCut = false;

  constructor(private readonly live: PoweredBoard) {
    for (const pin of live.circuit.driverPin) {
      const net = live.nets.ofPin.get(pin) ?? -1;
      const island = net < 0 ? -1 : live.islandOf(net);
      if (island >= 0)
        this.drivers.set(island, [...(this.drivers.get(island) ?? []), { pin, net, level: live.levelOf(net) }]);
    }
  }

  /** Whether time runs so slowly, or stands, that all of it is watched. */
  setSlow(isSlow: boolean): void {
    if (isSlow && !this.isSlow) this.refresh();
    this.isSlow = isSlow;
  }

  /** A person touches the board now. */
  begin(): void {
    this.refresh();
    this.untilNs = this.live.timeNs + WATCHED_NS;
    this.beginHere();
  }

  private beginHere(): void {
    this.atNs = this.live.timeNs;
    this.lastNs = this.atNs;
    this.steps = [];
    this.isCut = false;
  }

  private refresh(): void {
    for (const list of this.drivers.values()) for (const driver of list) driver.level = this.live.levelOf(driver.net);
  }

  /** Islands have changed now. */
  take(islands: readonly number[]): void {
    const { live } = this;
    if (!this.isSlow && live.timeNs > this.untilNs) return;
    for (const island of islands)
      for (const driver of this.drivers.get(island) ?? []) {
        const level = live.levelOf(driver.net);
        if (level === driver.level) continue;
        driver.level = level;
        if (live.timeNs - this.lastNs > REST_NS) this.beginHere();
        this.lastNs = live.timeNs;
        if (this.steps.length < MOST_STEPS) this.steps.push({ pin: driver.pin, level, ns: live.timeNs - this.atNs });
        else this.isCut = true;
      }
  }

  get passage(): Passage {
    return { atNs: this.atNs, steps: [...this.steps], isCut: this.isCut };
  }
}
