import { readShares } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { type Circuit, NONE, type Resistance } from './circuit';

/** What a driver does that lets its net go, beside LOW, HIGH and UNKNOWN. */
export const RELEASED = 3;

/** Strengths of a level, weakest first. */
export const FLOATING = 0;
/** Strength of a level behind a resistor. */
export const WEAK = 1;
/** Strength of a level that an output drives. */
export const DRIVEN = 2;
/** Strength of a rail that is fed. */
export const SUPPLIED = 3;

/** Voltages count as balanced when none moves by more than this share of the supply; how often they are gone over at the most. */
const BALANCED = 1e-4;
const MAX_SWEEPS = 500;

/**
 * How a circuit conducts while its switches stand as they do: nets joined by closed switches form a group, and groups that nothing drives hang together through resistors in regions. Built anew when a
 * switch moves. A group goes by the index of one of its nets, its root: `groupOf` gives it for each
 * net, and all other arrays are indexed by it. Lists of groups of one net are the circuit's own.
 */
export class Wiring {
  readonly groupOf: Int32Array;
  readonly level: Uint8Array;
  readonly strength: Uint8Array;
  /** Ohms behind a weak level, and the least and the most that it can be, as shares of the supply. */
  readonly ohms: Float64Array;
  private readonly least: Float64Array;
  private readonly most: Float64Array;
  readonly poweredChip: Uint8Array;
  readonly shorted: boolean;
  /** Units that read a group, and live drivers on it. */
  readonly readers: readonly (readonly number[])[];
  readonly drivers: readonly (readonly number[])[];
  private readonly resistors: readonly (readonly Resistance[])[];
  private readonly regionOf: Int32Array;
  private readonly regions: readonly number[][];

  constructor(
    private readonly circuit: Circuit,
    /** 1 for each actuator that is on. */
    closed: Uint8Array,
    /** LOW, HIGH, UNKNOWN or RELEASED for each driver; the simulator's own array, read here. */
    private readonly driverLevel: Uint8Array,
  ) {
    const { nets, readersOf, driversOf, resistorsOf } = circuit;
    this.groupOf = groupNets(circuit, closed);
    this.level = new Uint8Array(nets).fill(UNKNOWN);
    this.strength = new Uint8Array(nets);
    this.ohms = new Float64Array(nets);
    this.least = new Float64Array(nets);
    this.most = new Float64Array(nets);
    this.shorted = this.applySupplies();
    this.poweredChip = this.findPower();
    this.readers = this.merged(readersOf);
    this.drivers = this.merged(this.live(driversOf));
    this.resistors = this.merged(resistorsOf);
    this.regionOf = new Int32Array(nets).fill(NONE);
    this.regions = this.findRegions();
  }

  /** Lists by net as lists by group: those of nets that are not roots are added to their root's. */
  private merged<T>(byNet: readonly (readonly T[])[]): readonly (readonly T[])[] {
    let lists: (readonly T[])[] | null = null;
    for (let net = 0; net < byNet.length; net++) {
      const root = this.groupOf[net] as number;
      const own = byNet[net] as readonly T[];
      if (root === net || own.length === 0) continue;
      lists ??= byNet.slice();
      lists[root] = [...(lists[root] as readonly T[]), ...own];
    }
    return lists ?? byNet;
  }

  /** The drivers whose chips have power, and those that are of no chip. */
  private live(driversOf: readonly (readonly number[])[]): readonly (readonly number[])[] {
    if (this.poweredChip.every((powered) => powered === 1)) return driversOf;
    const { driverChip } = this.circuit;
    return driversOf.map((list) =>
      list.filter((d) => driverChip[d] === NONE || this.poweredChip[driverChip[d] as number] === 1),
    );
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

  /** The groups at the other ends of the resistors on a group. */
  private *neighbours(group: number): Generator<Resistance> {
    for (const { to, ohms } of this.resistors[group] as readonly Resistance[]) {
      const other = this.groupOf[to] as number;
      if (other !== group) yield { to: other, ohms };
    }
  }

  /** Takes up the levels of all driven groups, then of all regions: for use when everything is new. */
  settleAll(): void {
    for (const net of this.circuit.driverNet) if (net !== NONE) this.resolve(this.groupOf[net] as number);
    for (let region = 0; region < this.regions.length; region++) this.settleRegion(region);
  }

  /** Whether something stronger than a resistor sets a group's level now. */
  private isStrong(group: number): boolean {
    if (this.strength[group] === SUPPLIED) return true;
    return (this.drivers[group] as readonly number[]).some((d) => this.driverLevel[d] !== RELEASED);
  }

  /** Whether it always does. */
  private isAlwaysStrong(group: number): boolean {
    const { driverFloats } = this.circuit;
    return (
      this.strength[group] === SUPPLIED || (this.drivers[group] as readonly number[]).some((d) => driverFloats[d] === 0)
    );
  }

  private findRegions(): number[][] {
    const regions: number[][] = [];
    for (const net of this.circuit.resistive) {
      const start = this.groupOf[net] as number;
      if (this.regionOf[start] !== NONE || this.isAlwaysStrong(start)) continue;
      const region = [start];
      this.regionOf[start] = regions.length;
      for (const g of region) {
        for (const { to } of this.neighbours(g)) {
          if (this.regionOf[to] !== NONE || this.isAlwaysStrong(to)) continue;
          this.regionOf[to] = regions.length;
          region.push(to);
        }
      }
      regions.push(region);
    }
    return regions;
  }

  /** The groups whose level changed because a strong group's did, through resistors. */
  settleAround(group: number): readonly number[] {
    if (this.resistors[group]?.length === 0) return nothing;
    const changed: number[] = [];
    const done = new Set<number>();
    const settle = (region: number): void => {
      if (region === NONE || done.has(region)) return;
      done.add(region);
      changed.push(...this.settleRegion(region));
    };
    settle(this.regionOf[group] as number);
    for (const { to } of this.neighbours(group)) settle(this.regionOf[to] as number);
    return changed;
  }

  /**
   * Carries voltages into a region resistor by resistor: each group takes its own from neighbours nearer to
   * something strong, as a voltage divider does when they disagree. Where several hang together the dividers load each
   * other, until all currents balance (Gauss and Seidel's relaxation of Kirchhoff's current law).
   */
  private settleRegion(region: number): number[] {
    const groups = this.regions[region] as number[];
    const before = groups.map((g) => this.level[g] as number);
    const known = new Set<number>();
    let waiting = groups.filter((g) => !this.isStrong(g));
    while (waiting.length > 0) {
      const next = waiting.filter((g) => [...this.neighbours(g)].some(({ to }) => known.has(to) || this.isStrong(to)));
      for (const g of next) this.divide(g, known);
      for (const g of next) known.add(g);
      for (const g of next) this.strength[g] = WEAK;
      if (next.length === 0) break;
      waiting = waiting.filter((g) => !known.has(g));
    }
    for (const g of waiting) {
      this.level[g] = UNKNOWN;
      this.strength[g] = FLOATING;
    }
    if (known.size > 1) this.balance(known);
    for (const g of known) this.level[g] = this.levelAt(g);
    return groups.filter((g, i) => this.level[g] !== before[i]);
  }

  private balance(known: ReadonlySet<number>): void {
    for (let sweep = 0; sweep < MAX_SWEEPS; sweep++) {
      let moved = 0;
      for (const g of known) {
        const [least, most] = this.sharesOf(g);
        this.share(g, known);
        const [low, high] = this.sharesOf(g);
        moved = Math.max(moved, Math.abs(low - least), Math.abs(high - most));
      }
      if (moved < BALANCED) return;
    }
  }

  /** The voltage of a group from those of its neighbours. */
  private share(g: number, known: ReadonlySet<number>): void {
    let [least, most, total] = [0, 0, 0];
    for (const { to, ohms } of this.neighbours(g)) {
      if (!known.has(to) && !this.isStrong(to)) continue;
      const [low, high] = this.sharesOf(to);
      least += low / ohms;
      most += high / ohms;
      total += 1 / ohms;
    }
    this.put(g, least / total, most / total);
  }

  private put(g: number, least: number, most: number): void {
    this.least[g] = least;
    this.most[g] = most;
  }

  private levelAt(group: number): number {
    const [least, most] = this.sharesOf(group);
    return least >= readShares.high ? HIGH : most <= readShares.low ? LOW : UNKNOWN;
  }

  private divide(g: number, known: ReadonlySet<number>): void {
    let [least, most, total] = [0, 0, 0];
    for (const { to, ohms } of this.neighbours(g)) {
      if (!known.has(to) && !this.isStrong(to)) continue;
      const conductance = 1 / (ohms + (known.has(to) ? (this.ohms[to] as number) : 0));
      const [low, high] = this.sharesOf(to);
      least += conductance * low;
      most += conductance * high;
      total += conductance;
    }
    this.put(g, least / total, most / total);
    this.ohms[g] = 1 / total;
  }

  /** The least and the most that a group's voltage can be, as shares of the supply; it must not float. */
  sharesOf(group: number): readonly [least: number, most: number] {
    if (this.strength[group] === WEAK) return [this.least[group] as number, this.most[group] as number];
    const level = this.level[group];
    return [level === HIGH ? 1 : 0, level === LOW ? 0 : 1];
  }

  /**
   * Sets a driven group's level from what its drivers do; true when it changed. One that all of them
   * have let go floats until its resistors are asked.
   */
  resolve(group: number): boolean {
    const drivers = this.drivers[group] as readonly number[];
    if (drivers.length === 0 || this.strength[group] === SUPPLIED) return false;
    let level = RELEASED;
    for (const d of drivers) {
      const own = this.driverLevel[d] as number;
      if (own !== RELEASED) level = level === RELEASED || level === own ? own : UNKNOWN;
    }
    const strength = level === RELEASED ? FLOATING : DRIVEN;
    if (level === RELEASED) level = UNKNOWN;
    const changed = this.level[group] !== level || this.strength[group] !== strength;
    this.level[group] = level;
    this.strength[group] = strength;
    return changed;
  }
}

const nothing: readonly number[] = [];

/** Joins nets through closed switches: for each net the root of its group. */
function groupNets(circuit: Circuit, closed: Uint8Array): Int32Array {
  const root = Int32Array.from({ length: circuit.nets }, (_, i) => i);
  const find = (net: number): number => {
    let at = net;
    while (root[at] !== at) at = root[at] = root[root[at] as number] as number;
    return at;
  };
  circuit.switches.forEach(({ contacts }, s) => {
    for (const { a, b, on } of contacts)
      if (on === (closed[s] === 1) && a !== NONE && b !== NONE) root[find(b)] = find(a);
  });
  for (let net = 0; net < root.length; net++) root[net] = find(net);
  return root;
}
