import { redLed, SUPPLY_V } from '../electrical';
import { evaluateLevels, HIGH, LOW, MachineRun, type OutputSlots, slotCount, UNKNOWN } from '../logic';
import { type Circuit, type CircuitUnit, NONE } from './circuit';
import { EventQueue } from './queue';
import { FLOATING, RELEASED, WEAK, Wiring } from './wiring';

/** A level with its strength: see `logic` for levels, `wiring` for strengths. */
export interface NetLevel {
  readonly level: number;
  readonly strength: number;
}

/**
 * What an LED does. `dim`: too little current to be seen well. `over`: no resistor limits its current.
 * `unknown`: its level is.
 */
export type LedState = 'dark' | 'lit' | 'dim' | 'over' | 'unknown';

/** How a settling ended: at which time (ns since power up), after how many events, and around which driver if it did not end. */
export interface Settled {
  readonly settled: boolean;
  readonly timeNs: number;
  readonly events: number;
  readonly lastDriver: number;
}

/** Events after which a board counts as never coming to rest. */
export const MAX_EVENTS = 20_000;

/**
 * Simulates a circuit at pin level, event by event: outputs change a gate delay after their inputs,
 * and a pulse shorter than the delay dies out (inertial delay). Knows nothing but the circuit.
 */
export class Simulator {
  private readonly closed: Uint8Array;
  private readonly driverLevel: Uint8Array;
  private readonly pending: Int32Array;
  private readonly pendingLevel: Uint8Array;
  private readonly slots: Uint8Array;
  private readonly queue = new EventQueue();
  private readonly unitStamp: Int32Array;
  private readonly frozen: Uint8Array;
  /** Memory of the units that store something, by unit. */
  private readonly runs: (MachineRun | null)[];
  private wiring: Wiring;
  private moved = false;
  private stamp = 0;
  private round = 0;
  private timeNs = 0;

  constructor(private readonly circuit: Circuit) {
    const drivers = circuit.driverNet.length;
    this.closed = new Uint8Array(circuit.switches.length);
    this.driverLevel = new Uint8Array(drivers).fill(UNKNOWN);
    this.pending = new Int32Array(drivers).fill(NONE);
    this.pendingLevel = new Uint8Array(drivers);
    this.frozen = new Uint8Array(drivers);
    this.slots = new Uint8Array(Math.max(2, ...circuit.units.map((u) => slotCount(u.machine.program))));
    this.runs = circuit.units.map((u) => (u.machine.stored.length > 0 ? new MachineRun(u.machine) : null));
    this.unitStamp = new Int32Array(circuit.units.length);
    this.wiring = this.rewire();
  }

  /** Puts a switch on or off. Levels follow with the next `settle`. */
  setSwitch(index: number, on: boolean): void {
    if (this.closed[index] === Number(on)) return;
    this.closed[index] = Number(on);
    this.moved = true;
  }

  isOn(index: number): boolean {
    return this.closed[index] === 1;
  }

  /** Lets time run until nothing changes any more, or MAX_EVENTS have happened. */
  settle(): Settled {
    if (this.moved) this.rewire();
    const first = this.run();
    if (this.queue.size === 0) {
      this.endPulses();
      if (this.queue.size === 0) return { settled: true, timeNs: this.timeNs, ...first };
    }
    this.giveUp();
    this.run();
    return { settled: false, timeNs: this.timeNs, ...first };
  }

  private run(): { events: number; lastDriver: number } {
    let events = 0;
    let lastDriver: number = NONE;
    while (this.queue.size > 0 && events < MAX_EVENTS) {
      this.timeNs = this.queue.nextTime;
      const changed = new Set<number>();
      while (this.queue.size > 0 && this.queue.nextTime === this.timeNs) {
        this.queue.pop();
        const driver = this.queue.item;
        if (this.pending[driver] !== this.queue.stamp) continue;
        this.pending[driver] = NONE;
        this.driverLevel[driver] = this.pendingLevel[driver] as number;
        events++;
        lastDriver = driver;
        this.touch(driver, changed);
      }
      this.spread(changed);
    }
    return { events, lastDriver };
  }

  /** Pulses of one-shots last long beside the delays of gates: they end when all else has come to rest. */
  private endPulses(): void {
    this.circuit.units.forEach((unit, u) => {
      const run = this.runs[u];
      if (!run) return;
      for (const { input, output } of unit.timers) {
        if (run.outputLevel(output) !== HIGH) continue;
        for (const level of [HIGH, LOW]) {
          run.setInput(input, level);
          this.evaluate(unit, u);
          this.run();
        }
      }
    });
  }

  private touch(driver: number, changed: Set<number>): void {
    const net = this.circuit.driverNet[driver] as number;
    if (net !== NONE) changed.add(this.wiring.groupOf[net] as number);
  }

  /** The level and strength of a net, by its index in the extracted nets. */
  levelOf(net: number): NetLevel {
    const g = this.wiring.groupOf[net] as number;
    return { level: this.wiring.level[g] as number, strength: this.wiring.strength[g] as number };
  }

  /** Whether supply and ground are joined as the switches stand. */
  get shorted(): boolean {
    return this.wiring.shorted;
  }

  /** The level that a unit's output pin drives, or null when its chip has no power. */
  outputLevel(driver: number): number | null {
    return this.wiring.poweredChip[this.circuit.driverChip[driver] as number]
      ? (this.driverLevel[driver] as number)
      : null;
  }

  isPowered(chip: number): boolean {
    return this.wiring.poweredChip[chip] === 1;
  }

  /** What an LED does, by its index in the circuit. */
  ledState(index: number): LedState {
    const led = this.circuit.leds[index];
    if (!led || led.a === NONE || led.b === NONE) return 'dark';
    const [a, k] = [this.levelOf(led.a), this.levelOf(led.b)];
    if (a.strength === FLOATING || k.strength === FLOATING) return 'dark';
    if (a.level === LOW || k.level === HIGH) return 'dark';
    if (a.level === UNKNOWN || k.level === UNKNOWN) return 'unknown';
    const ohms = this.ohmsBehind(led.a) + this.ohmsBehind(led.b);
    if (ohms === 0) return 'over';
    return (1000 * (SUPPLY_V - redLed.typicalV)) / ohms < redLed.dimMa ? 'dim' : 'lit';
  }

  private ohmsBehind(net: number): number {
    const g = this.wiring.groupOf[net] as number;
    return this.wiring.strength[g] === WEAK ? (this.wiring.ohms[g] as number) : 0;
  }

  /** Builds the wiring for the switches as they stand and sets every unit to be looked at. */
  private rewire(): Wiring {
    const wiring = new Wiring(this.circuit, this.closed, this.driverLevel);
    wiring.settleAll();
    this.wiring = wiring;
    this.moved = false;
    this.frozen.fill(0);
    this.wakeAll();
    return wiring;
  }

  private wakeAll(): void {
    this.round++;
    this.circuit.units.forEach((unit, u) => {
      this.evaluate(unit, u);
    });
  }

  /** Takes up the new levels of all changed groups first; then each unit that reads one is evaluated once. */
  private spread(changed: ReadonlySet<number>): void {
    this.round++;
    const woken: number[] = [];
    const wake = (group: number): void => {
      for (const u of this.wiring.readers[group] as readonly number[]) {
        if (this.unitStamp[u] === this.round) continue;
        this.unitStamp[u] = this.round;
        woken.push(u);
      }
    };
    for (const group of changed) {
      if (!this.wiring.resolve(group)) continue;
      wake(group);
      for (const weak of this.wiring.settleAround(group)) wake(weak);
    }
    for (const u of woken) this.evaluate(this.circuit.units[u] as CircuitUnit, u);
  }

  private evaluate(unit: CircuitUnit, u: number): void {
    const powered = this.wiring.poweredChip[unit.chip] === 1;
    const slots = this.runs[u] ? this.runStored(unit, u, powered) : this.runPlain(unit);
    unit.machine.outputs.forEach((output, o) => {
      this.schedule(unit.driver + o, powered ? driven(output, slots) : UNKNOWN, unit.chip);
    });
  }

  private runPlain(unit: CircuitUnit): Uint8Array {
    for (let i = 0; i < unit.inputs.length; i++) this.slots[2 + i] = this.inputLevel(unit, i);
    evaluateLevels(unit.machine.program, this.slots);
    return this.slots;
  }

  /** A unit that stores something forgets it without power. */
  private runStored(unit: CircuitUnit, u: number, powered: boolean): Uint8Array {
    let run = this.runs[u] as MachineRun;
    if (!powered) {
      run = new MachineRun(unit.machine);
      this.runs[u] = run;
    }
    for (let i = 0; i < unit.inputs.length; i++) run.setInput(i, this.inputLevel(unit, i));
    for (const { input } of unit.timers) if (run.slots[2 + input] === UNKNOWN) run.setInput(input, LOW);
    run.settle();
    return run.slots;
  }

  /**
   * Says what input pins read in place of what their nets say, by name; null ends that. For who knows the volts. Levels follow with
   * the next `settle`.
   */
  readAs(levels: ReadonlyMap<string, number> | null): void {
    this.readings = levels;
    this.moved = true;
  }

  /** What an input of a unit reads by its net, whatever `readAs` says. */
  readingByNet(u: number, i: number): number {
    const unit = this.circuit.units[u];
    return unit ? this.levelByNet(unit, i) : UNKNOWN;
  }

  /** What a driver of a chip does: LOW, HIGH, UNKNOWN or RELEASED; UNKNOWN without power. */
  driveOf(driver: number): number {
    return this.outputLevel(driver) ?? UNKNOWN;
  }

  private readings: ReadonlyMap<string, number> | null = null;

  private inputLevel(unit: CircuitUnit, i: number): number {
    return this.readings?.get(unit.inputPins[i] ?? '') ?? this.levelByNet(unit, i);
  }

  private levelByNet(unit: CircuitUnit, i: number): number {
    const net = unit.inputs[i] as number;
    const group = net === NONE ? NONE : (this.wiring.groupOf[net] as number);
    if (unit.pulledUp[i] === 1 && (group === NONE || this.wiring.strength[group] === FLOATING)) return HIGH;
    return group === NONE ? UNKNOWN : (this.wiring.level[group] as number);
  }

  private schedule(driver: number, level: number, chip: number): void {
    if (this.frozen[driver] === 1) return;
    if (this.pending[driver] !== NONE) {
      if (this.pendingLevel[driver] === level) return;
      this.pending[driver] = NONE;
    }
    if (this.driverLevel[driver] === level) return;
    this.pending[driver] = ++this.stamp;
    this.pendingLevel[driver] = level;
    const delay = (this.circuit.chips[chip] as Circuit['chips'][number]).delayNs;
    this.queue.push(this.timeNs + delay, driver, this.stamp);
  }

  /** A board that does not come to rest has no levels to show: what still changes is unknown from here on. */
  private giveUp(): void {
    const changed = new Set<number>();
    this.pending.forEach((stamp, driver) => {
      if (stamp === NONE) return;
      this.driverLevel[driver] = UNKNOWN;
      this.frozen[driver] = 1;
      this.pending[driver] = NONE;
      this.touch(driver, changed);
    });
    this.queue.clear();
    this.spread(changed);
  }
}

/** What an output does to its net: a level, or letting it go. */
function driven({ value, floats, open }: OutputSlots, slots: Uint8Array): number {
  const level = slots[value] as number;
  if (open) return level === HIGH ? RELEASED : level;
  const free = slots[floats] as number;
  return free === HIGH ? RELEASED : free === LOW ? level : UNKNOWN;
}
