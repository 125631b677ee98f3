import { isClearOrPreset, plainPinName, timingRequirementsOf } from '../catalogue';
import { HIGH, LOW, UNKNOWN } from '../logic';
import type { Circuit, CircuitUnit } from './circuit';

/** What was not kept: the least width of a pulse, the least period of a clock, or how long an input must stand before or after the clock's edge. */
export type Requirement = 'pulse' | 'period' | 'set-up' | 'hold';

/** An input that did not keep what its chip's data sheet asks; the worst time it did not, and how often. */
export interface TimingFault {
  readonly pin: string;
  readonly requirement: Requirement;
  /** The level of the pulse; of the others the level that the input went to. */
  readonly level: number;
  /** How long it was, and how long it should be at least, in nanoseconds. */
  readonly ns: number;
  readonly leastNs: number;
  /** When it happened first, in nanoseconds since power up. */
  readonly atNs: number;
  readonly count: number;
}

/** What is watched of one input of a unit. Times are in ticks; 0 where nothing is asked. */
interface Watched {
  readonly pin: string;
  /** The least width of each level, by LOW and HIGH. */
  readonly least: readonly [low: number, high: number];
  /** Of a clock the level after its active edge; null of other inputs. */
  readonly active: number | null;
  /** The least time from one active edge of a clock to the next: one over its greatest rate. */
  readonly leastPeriod: number;
  readonly isData: boolean;
  level: number;
  since: number;
  /** When it had its active edge last. */
  edgeAt: number;
}

interface WatchedUnit {
  readonly inputs: readonly Watched[];
  readonly setUp: number;
  readonly hold: number;
  /** When its clock had its active edge last. */
  edgeAt: number;
}

/**
 * Watches the inputs of chips that store something and notes where they do not keep the least pulses, the set-up and the hold times of the data
 * sheet. Only units with one clock are watched for set-up and hold.
 */
export class TimingWatch {
  private readonly units: readonly (WatchedUnit | null)[];
  private readonly found = new Map<string, TimingFault>();
  /** For each unit whether anything is asked of its inputs. */
  readonly isWatched: Uint8Array;

  /** `ticksPerNs`: how time is counted in `take`. */
  constructor(
    { units, chips }: Circuit,
    private readonly ticksPerNs: number,
  ) {
    this.units = units.map((unit) => this.watched(unit, chips));
    this.isWatched = Uint8Array.from(this.units, (unit) => (unit ? 1 : 0));
  }

  private watched({ inputPins, behaviour, chip }: CircuitUnit, chips: Circuit['chips']): WatchedUnit | null {
    const { type, family } = chips[chip] ?? {};
    const needs = type?.chip && family ? timingRequirementsOf(type.chip.base, family) : null;
    const { inputs: names, stored, gates } = behaviour;
    if (!type || !needs || stored.length === 0) return null;
    const ticks = (ns: number | null): number => (ns === null ? 0 : Math.round(ns * this.ticksPerNs));
    // Through the gates of the unit to the inputs themselves.
    const behind = new Map<string, readonly string[]>(gates.map((gate) => [gate.output, gate.inputs]));
    const inputsOf = (net: string): string[] => {
      const more = behind.get(net);
      return more ? more.flatMap(inputsOf) : [net];
    };
    const clocks = new Set(stored.filter((s) => s.edge !== 'while').flatMap((s) => inputsOf(s.control)));
    const forcing = new Set(stored.flatMap((s) => s.forces.flatMap((f) => inputsOf(f.net))));
    const pinOfClock = names.filter((name) => clocks.has(name));
    const falls = stored.filter((s) => s.edge === 'fall').length * 2 > stored.length;
    const inputs = inputPins.map((pin, i): Watched => {
      const name = names[i] ?? '';
      const plain = plainPinName(name);
      const isClock = clocks.has(name);
      const clock = isClock ? (needs.clocks[plain] ?? needs.clocks['*']) : undefined;
      const clear = ticks(needs.clearNs);
      const isForce = !isClock && forcing.has(name);
      const least: readonly [number, number] = clock
        ? [ticks(clock.lowNs), ticks(clock.highNs)]
        : isForce && (isClearOrPreset(plain) || plain === 'LDn')
          ? plain.endsWith('n')
            ? [clear, 0]
            : [0, clear]
          : [0, 0];
      const active = isClock ? (falls ? LOW : HIGH) : null;
      const leastPeriod = clock?.mostMhz ? ticks(1000 / clock.mostMhz) : 0;
      const isData = !isClock && !isForce;
      return { pin, least, active, leastPeriod, isData, level: UNKNOWN, since: -Infinity, edgeAt: -Infinity };
    });
    const single = pinOfClock.length === 1;
    return {
      inputs,
      setUp: single ? ticks(needs.setUpNs) : 0,
      hold: single ? ticks(needs.holdNs) : 0,
      edgeAt: -Infinity,
    };
  }

  /** An input of a unit reads another level now; whether that keeps all that is asked of it. */
  take(u: number, input: number, level: number, now: number): boolean {
    const unit = this.units[u];
    const seen = unit?.inputs[input];
    if (!unit || !seen || seen.level === level) return true;
    const [before, since] = [seen.level, seen.since];
    seen.level = level;
    // What stands when the power comes on has stood.
    seen.since = now === 0 ? -Infinity : now;
    let isKept = true;
    const fault = (at: Watched, requirement: Requirement, [width, least]: readonly [number, number]): void => {
      isKept = false;
      const of = requirement === 'pulse' ? before : at.level;
      this.note(at.pin, { requirement, level: of, ns: width, leastNs: least }, now);
    };
    if (before !== UNKNOWN && level !== UNKNOWN) {
      const least = seen.least[before] ?? 0;
      if (now - since < least) fault(seen, 'pulse', [now - since, least]);
    }
    if (seen.active === level && before === 1 - level) {
      const period = now - seen.edgeAt;
      if (period < seen.leastPeriod) fault(seen, 'period', [period, seen.leastPeriod]);
      seen.edgeAt = now;
      unit.edgeAt = now;
      for (const other of unit.inputs)
        if (other.isData && now - other.since < unit.setUp) fault(other, 'set-up', [now - other.since, unit.setUp]);
    } else if (seen.isData && now - unit.edgeAt < unit.hold) fault(seen, 'hold', [now - unit.edgeAt, unit.hold]);
    return isKept;
  }

  private note(
    pin: string,
    { requirement, level, ns, leastNs }: Pick<TimingFault, 'requirement' | 'level' | 'ns' | 'leastNs'>,
    now: number,
  ): void {
    const key = `${pin} ${requirement} ${level}`;
    const before = this.found.get(key);
    const width = ns / this.ticksPerNs;
    this.found.set(key, {
      pin,
      requirement,
      level,
      ns: Math.min(width, before?.ns ?? Infinity),
      leastNs: leastNs / this.ticksPerNs,
      atNs: before?.atNs ?? now / this.ticksPerNs,
      count: (before?.count ?? 0) + 1,
    });
  }

  /** What was not kept so far, each once, in the order in which it came up. */
  faults(): TimingFault[] {
    return [...this.found.values()];
  }
}
