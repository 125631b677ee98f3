import { families } from '../catalogue';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { type Circuit, NONE } from './circuit';

/** Strengths of a level, weakest first. */
export const FLOATING = 0;
export const WEAK = 1;
export const DRIVEN = 2;
export const SUPPLIED = 3;

const { inputHighV, inputLowV } = families.HC;
/** Shares of the supply, specified at 4.5 V, from which an input reads high and up to which it reads low. */
const HIGH_SHARE = inputHighV / 4.5;
const LOW_SHARE = inputLowV / 4.5;

/**
 * How a circuit conducts while its switches stand as they do: nets joined by closed switches form
 * groups, and groups that nothing drives hang together through resistors in regions. Built anew when
 * a switch moves. `level` and `strength` are indexed by group, `groupOf` by net.
 */
export class Wiring {
  readonly groupOf: Int32Array;
  readonly groups: number;
  readonly level: Uint8Array;
  readonly strength: Uint8Array;
  /** Ohms behind a weak level. */
  readonly ohms: Float64Array;
  readonly poweredChip: Uint8Array;
  readonly shorted: boolean;
  /** Units that read a group, and live drivers on it. */
  readonly readers: readonly number[][];
  readonly drivers: readonly number[][];
  private readonly resistors: readonly { to: number; ohms: number }[][];
  private readonly regionOf: Int32Array;
  private readonly regions: readonly number[][];

  constructor(
    private readonly circuit: Circuit,
    closed: Uint8Array,
  ) {
    const { root, count } = groupNets(circuit, closed);
    this.groupOf = root;
    this.groups = count;
    this.level = new Uint8Array(count).fill(UNKNOWN);
    this.strength = new Uint8Array(count);
    this.ohms = new Float64Array(count);
    const lists = <T>(): T[][] => Array.from({ length: count }, () => []);
    this.shorted = this.applySupplies();
    this.poweredChip = this.findPower();
    this.drivers = lists<number>();
    circuit.driverNet.forEach((net, d) => {
      if (net !== NONE && this.poweredChip[circuit.driverChip[d] as number]) this.driversAt(net).push(d);
    });
    this.readers = lists<number>();
    circuit.units.forEach((unit, u) => {
      for (const net of unit.inputs) if (net !== NONE) this.readers[this.groupOf[net] as number]?.push(u);
    });
    this.resistors = lists<{ to: number; ohms: number }>();
    this.addResistors();
    this.regionOf = new Int32Array(count).fill(NONE);
    this.regions = this.findRegions();
  }

  private driversAt(net: number): number[] {
    return this.drivers[this.groupOf[net] as number] as number[];
  }

  /** Sets the supplied groups; true when supply meets ground, which leaves nothing known. */
  private applySupplies(): boolean {
    let shorted = false;
    const put = (net: number, level: number): void => {
      if (net === NONE) return;
      const g = this.groupOf[net] as number;
      if (this.strength[g] === SUPPLIED && this.level[g] !== level) shorted = true;
      this.strength[g] = SUPPLIED;
      this.level[g] = level;
    };
    for (const net of this.circuit.positive) put(net, HIGH);
    for (const net of this.circuit.negative) put(net, LOW);
    if (shorted) {
      this.level.fill(UNKNOWN);
      this.strength.fill(FLOATING);
    }
    return shorted;
  }

  private findPower(): Uint8Array {
    const carries = (net: number, level: number): boolean => {
      const g = net === NONE ? NONE : (this.groupOf[net] as number);
      return g !== NONE && this.strength[g] === SUPPLIED && this.level[g] === level;
    };
    return Uint8Array.from(this.circuit.chips, (c) => (carries(c.supply, HIGH) && carries(c.ground, LOW) ? 1 : 0));
  }

  private addResistors(): void {
    const { a, b, ohms } = this.circuit.resistors;
    ohms.forEach((r, i) => {
      if (a[i] === NONE || b[i] === NONE) return;
      const [p, q] = [this.groupOf[a[i] as number] as number, this.groupOf[b[i] as number] as number];
      if (p === q) return;
      this.resistors[p]?.push({ to: q, ohms: r });
      this.resistors[q]?.push({ to: p, ohms: r });
    });
  }

  /** Whether something stronger than a resistor sets a group's level. */
  private isStrong(group: number): boolean {
    return this.strength[group] === SUPPLIED || (this.drivers[group] as number[]).length > 0;
  }

  private findRegions(): number[][] {
    const regions: number[][] = [];
    for (let start = 0; start < this.groups; start++) {
      if (this.regionOf[start] !== NONE || this.isStrong(start) || this.resistors[start]?.length === 0) continue;
      const region = [start];
      this.regionOf[start] = regions.length;
      for (const g of region) {
        for (const { to } of this.resistors[g] ?? []) {
          if (this.regionOf[to] !== NONE || this.isStrong(to)) continue;
          this.regionOf[to] = regions.length;
          region.push(to);
        }
      }
      regions.push(region);
    }
    return regions;
  }

  /** Settles every region; returns nothing, for use when everything is new. */
  settleAllRegions(): void {
    this.regions.forEach((_, region) => {
      this.settleRegion(region);
    });
  }

  /** The groups whose level changed because a strong group's did, through resistors. */
  settleAround(group: number): number[] {
    const changed: number[] = [];
    const done = new Set<number>();
    for (const { to } of this.resistors[group] ?? []) {
      const region = this.regionOf[to] as number;
      if (region === NONE || done.has(region)) continue;
      done.add(region);
      changed.push(...this.settleRegion(region));
    }
    return changed;
  }

  /**
   * Carries levels into a region resistor by resistor: each group takes its level from neighbours
   * nearer to something strong, as a voltage divider does when they disagree.
   */
  private settleRegion(region: number): number[] {
    const groups = this.regions[region] as number[];
    const before = groups.map((g) => this.level[g] as number);
    const known = new Set<number>();
    let waiting = groups;
    while (waiting.length > 0) {
      const next = waiting.filter((g) => this.resistors[g]?.some(({ to }) => known.has(to) || this.isStrong(to)));
      for (const g of next) this.divide(g, known);
      for (const g of next) known.add(g);
      if (next.length === 0) break;
      waiting = waiting.filter((g) => !known.has(g));
    }
    for (const g of waiting) {
      this.level[g] = UNKNOWN;
      this.strength[g] = FLOATING;
    }
    return groups.filter((g, i) => this.level[g] !== before[i]);
  }

  private divide(g: number, known: ReadonlySet<number>): void {
    const conductance = [0, 0, 0];
    for (const { to, ohms } of this.resistors[g] ?? []) {
      if (!known.has(to) && !this.isStrong(to)) continue;
      const through = ohms + (known.has(to) ? (this.ohms[to] as number) : 0);
      (conductance[this.level[to] as number] as number) += 1 / through;
    }
    const [low, high, unknown] = conductance as [number, number, number];
    const total = low + high + unknown;
    this.ohms[g] = 1 / total;
    this.strength[g] = WEAK;
    this.level[g] = high / total >= HIGH_SHARE ? HIGH : (high + unknown) / total <= LOW_SHARE ? LOW : UNKNOWN;
  }

  /** Sets a driven group's level from its drivers' levels; true when it changed. */
  resolve(group: number, driverLevel: Uint8Array): boolean {
    const drivers = this.drivers[group] as number[];
    if (drivers.length === 0) return false;
    let level = driverLevel[drivers[0] as number] as number;
    for (const d of drivers) if (driverLevel[d] !== level) level = UNKNOWN;
    if (this.strength[group] === SUPPLIED) return false;
    const changed = this.level[group] !== level || this.strength[group] !== DRIVEN;
    this.level[group] = level;
    this.strength[group] = DRIVEN;
    return changed;
  }
}

/** Joins nets through closed switches and numbers the groups from 0. */
function groupNets(circuit: Circuit, closed: Uint8Array): { root: Int32Array; count: number } {
  const root = Int32Array.from({ length: circuit.nets }, (_, i) => i);
  const find = (net: number): number => {
    let at = net;
    while (root[at] !== at) at = root[at] = root[root[at] as number] as number;
    return at;
  };
  circuit.switches.forEach(({ a, b }, s) => {
    if (closed[s] && a !== NONE && b !== NONE) root[find(a)] = find(b);
  });
  const number = new Map<number, number>();
  const groups = root.map((_, net) => {
    const r = find(net);
    const g = number.get(r) ?? number.size;
    number.set(r, g);
    return g;
  });
  return { root: groups, count: number.size };
}
