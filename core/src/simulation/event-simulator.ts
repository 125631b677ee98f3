import { type BoardVolts, shareAtLimit } from '../electrical';
import { HIGH, LOW, UNKNOWN } from '../logic';
import { Actuators } from './actuators';
import { ChipPower } from './chip-power';
import type { Circuit } from './circuit';
import { EventHeap } from './event-heap';
import { IndexRing } from './index-ring';
import { InputPins } from './input-pins';
import { IslandWatches } from './island-watches';
import { LiveIslands, type TimedIsland } from './live-islands';
import { LiveUnits } from './live-units';
import { NetReadings } from './net-readings';
import { type Corner, OutputPins } from './output-pins';
import { StilledTimers } from './stilled-timers';
import { TICK_S, TICKS_PER_NS } from './ticks';
import { type TimingFault, TimingWatch } from './timing-watch';
import { Undecided } from './undecided';
import { UnitPulses } from './unit-pulses';
import { NOT_YET } from './unit-states';

/** A chip that gets its supply works after so many ticks; a supply that gives more than it can for so long counts as shorted. */
const WAKE_TICKS = 10_000;
const OVERLOAD_TICKS = 10_000_000;
/** How a simulation is run. */
export interface RunOptions {
  /** Which of a data sheet's delays are taken; `typical` where nothing is said. */
  readonly delays?: Corner;
  /** Whether clock modules run at their value, and timers that give a signal by their parts; otherwise a hand moves them as it does switches. */
  readonly clocksRun?: boolean;
  /** The seed of contacts that bounce; null, and none bounces. */
  readonly bounce?: number | null;
  /** Whether what is stored is unknown after a pulse, set-up or hold time that its data sheet does not allow; otherwise it is only noted. */
  readonly strict?: boolean;
}

/**
 * A board under power, in volts and time, event by event. Outputs change a delay after their inputs, and a pulse shorter than the delay
 * dies out (inertial delay). Every net belongs to an island; inputs read the volts of theirs by their own thresholds. Islands without
 * capacitors follow at once; those with go their way in time, and their passing of a threshold is an event.
 */
export class EventSimulator {
  /** Ticks since the power came on, and how many events there have been. */
  now = 0;
  events = 0;
  isShorted = false;
  /** The volts that the supplies are left with at their limit, as a share of what they are set to. */
  private share = 1;
  private readonly heap: EventHeap;
  /** Numbers of the first event of each kind: of islands, pulses, actuators, chips; and that of the overload. */
  private readonly firstIsland: number;
  private readonly firstPulse: number;
  private readonly firstActuator: number;
  private readonly firstChip: number;
  private readonly overload: number;

  private readonly outputs: OutputPins;
  private readonly units: LiveUnits;
  private readonly isWoken: Uint8Array;
  private readonly woken: Int32Array;
  private wokenCount = 0;

  private readonly inputs: InputPins;
  private readonly timing: TimingWatch;
  private readonly actuators: Actuators;
  /** Null while clocks, and with them timers, run. */
  private readonly timers: StilledTimers | null;
  private readonly islands: LiveIslands;
  private readonly watches: IslandWatches;
  private readonly power: ChipPower;
  private readonly undecided: Undecided;
  /** What the nets show now. */
  readonly nets: NetReadings;
  /** Islands to look at again. */
  private readonly dirty: IndexRing;
  /** For each island whether chips or thresholds depend on its volts. */
  private readonly isDependedOn: Uint8Array;
  /** Of each unit its first output, how many it has, and its chip. */
  private readonly unitDriver: Int32Array;
  private readonly unitOutputs: Int32Array;
  private readonly unitChip: Int32Array;

  /** While the power comes on, outputs that nobody knows yet are at once where their inputs put them. */
  private isStarting = false;
  private readonly pulses: UnitPulses;

  /** Called after each moment in which something changed, with the islands that did. */
  observer: ((islands: readonly number[]) => void) | null = null;

  constructor(
    private readonly board: BoardVolts,
    private readonly circuit: Circuit,
    options: RunOptions = {},
  ) {
    const { units, chips, driverPin, switches } = circuit;
    const { islands } = board;
    this.pulses = new UnitPulses(board, circuit);
    this.firstIsland = driverPin.length;
    this.firstPulse = this.firstIsland + islands.length;
    this.firstActuator = this.firstPulse + this.pulses.count;
    this.firstChip = this.firstActuator + switches.length;
    this.overload = this.firstChip + chips.length;
    this.heap = new EventHeap(this.overload + 1);

    const corner = options.delays ?? 'typical';
    this.outputs = new OutputPins(board, circuit, corner);
    this.units = new LiveUnits(circuit, corner);
    this.unitDriver = Int32Array.from(units, ({ driver }) => driver);
    this.unitOutputs = Int32Array.from(units, ({ outputs }) => outputs);
    this.unitChip = Int32Array.from(units, ({ chip }) => chip);
    this.isWoken = new Uint8Array(units.length);
    this.woken = new Int32Array(units.length);

    this.islands = new LiveIslands(board);
    this.power = new ChipPower(board, this.islands);
    this.dirty = new IndexRing(islands.length);
    const { clocksRun = false, bounce = null } = options;
    const halfPeriodOf = (hertz: number): number => Math.round(0.5 / hertz / TICK_S);
    this.actuators = new Actuators(board, circuit, { clocksRun, bounce, halfPeriodOf }, (i) => this.dirty.put(i));
    this.timers = clocksRun ? null : new StilledTimers(circuit);
    this.timing = new TimingWatch(circuit, TICKS_PER_NS);
    this.inputs = new InputPins(board, circuit, {
      rangeOf: (node) => this.islands.rangeOf(node),
      isShorted: () => this.isShorted,
      take: (unit, input, level) => {
        const isKept = this.timing.isWatched[unit] === 0 || this.timing.take(unit, input, level, this.now);
        this.units.setInput(unit, input, this.timers?.levelOf(unit, input, level) ?? level);
        if (!isKept && options.strict) this.units.unsettle(unit);
        this.wake(unit);
      },
    });
    this.watches = new IslandWatches(board, this.inputs);
    const { outputs, inputs, actuators, units: live } = this;
    this.undecided = new Undecided(circuit, { outputs, inputs, units: live, hasPower: (c) => this.power.has(c) });
    this.nets = new NetReadings(board, {
      islands: this.islands,
      inputs,
      outputs,
      actuators,
      now: () => this.now,
      shareLeft: () => (this.isShorted ? this.share : null),
    });
    this.isDependedOn = Uint8Array.from(this.power.fedBy, (fed, i) =>
      fed.length > 0 || this.inputs.isReference[i] === 1 ? 1 : 0,
    );
    this.begin();
  }

  private begin(): void {
    const { islands, chips, isMiswired } = this.board;
    this.isStarting = true;
    if (isMiswired) {
      this.isShorted = true;
      this.share = 0;
    }
    chips.forEach((_, c) => {
      this.power.put(c, this.isFed(c));
    });
    this.circuit.switches.forEach((_, a) => {
      this.hold(a, false);
    });
    for (let d = 0; d < this.outputs.level.length; d++) this.putDrive(d);
    islands.forEach((_, i) => {
      this.dirty.put(i);
    });
    for (const r of this.inputs.fixed) this.inputs.readFixed(r);
    this.flush();
    chips.forEach((_, c) => {
      if (!this.power.has(c)) this.lookAtSupply(c);
    });
    this.circuit.units.forEach((_, u) => {
      this.wake(u);
    });
    this.flush();
    this.decideStored((u) => (this.startsHigh(u) ? HIGH : UNKNOWN));
    this.isStarting = false;
    this.circuit.switches.forEach((_, a) => {
      this.heap.put(this.firstActuator + a, this.actuators.periodOf(a));
    });
  }

  private startsHigh(u: number): boolean {
    return this.circuit.chips[this.circuit.units[u]?.chip ?? -1]?.type.chip?.startsHigh === true;
  }

  /** Whether a chip gets what it needs to work. */
  private isFed(c: number): boolean {
    return !this.isShorted && this.power.isFed(c);
  }

  private wake(u: number): void {
    if (this.isWoken[u] === 1) return;
    this.isWoken[u] = 1;
    this.woken[this.wokenCount++] = u;
  }

  private putDrive(d: number): void {
    const isPowered = this.power.has(this.circuit.driverChip[d] as number);
    const island = this.outputs.putDrive(d, isPowered);
    if (island >= 0) this.dirty.put(island);
  }

  /** Takes up all that has changed: islands, then the units that read them, until nothing changes any more at this moment. */
  private flush(): void {
    const seen = this.observer && this.dirty.size > 0 ? new Set<number>() : null;
    for (;;) {
      while (this.dirty.size > 0) {
        const i = this.dirty.take();
        this.refresh(i);
        seen?.add(i);
      }
      const count = this.wokenCount;
      if (count === 0) break;
      this.wokenCount = 0;
      // A unit that is evaluated wakes none: what it does comes later, but for outputs that take their first level, which soil islands.
      for (let n = 0; n < count; n++) {
        const u = this.woken[n] as number;
        this.isWoken[u] = 0;
        this.evaluate(u);
      }
    }
    const isOver = 1000 * this.islands.restingA > this.board.limitMa && !this.isShorted;
    if (isOver !== this.heap.has(this.overload))
      this.heap.put(this.overload, isOver ? this.now + OVERLOAD_TICKS : Infinity);
    if (seen) this.observer?.([...seen]);
  }

  private refresh(i: number): void {
    const timed = this.islands.timedAt(i);
    if (timed) {
      this.islands.advance(i, timed, this.now);
      timed.turn();
      this.inputs.readMoving(i, timed);
      this.afterChange(i);
      this.schedule(i, timed);
      return;
    }
    const point = this.islands.settle(i);
    if (!point) return;
    this.inputs.readPoint(i, point);
    this.afterChange(i);
  }

  /** Asks all those that depend on the volts of an island. */
  private afterChange(i: number): void {
    if (this.isDependedOn[i] === 0) return;
    this.inputs.forget(i);
    for (const c of this.power.fedBy[i] as readonly number[]) this.lookAtSupply(c);
    for (const r of this.inputs.dependents[i] as readonly number[]) {
      const on = this.inputs.islandOf(r);
      const point = on < 0 ? null : this.islands.pointAt(on);
      if (on < 0) this.inputs.readFixed(r);
      else if (this.islands.timedAt(on)) this.dirty.put(on);
      else if (point) this.inputs.readAt(r, point);
    }
  }

  private schedule(i: number, timed: TimedIsland): void {
    const { isResting } = timed;
    const seconds = isResting ? Infinity : timed.nextCrossing(this.watches.of(i, timed));
    const ticks = seconds === Infinity ? Infinity : Math.floor(seconds / TICK_S) + 1;
    this.heap.put(this.firstIsland + i, ticks > 1e16 ? Infinity : this.now + ticks);
    this.islands.putAmps(i, isResting ? timed.supplyA : 0);
  }

  /** Has the volts of a node told whenever they have moved by some, in steps of so many volts. */
  follow(node: number, stepV = 0.05): void {
    const i = this.board.islandOf[node] as number;
    if (i < 0 || !this.islands.timedAt(i)) return;
    this.watches.follow(i, node, stepV);
    this.dirty.put(i);
    this.flush();
  }

  /** Inputs that did not keep what their data sheets ask, each once. */
  get timingFaults(): readonly TimingFault[] {
    return this.timing.faults();
  }

  private evaluate(u: number): void {
    if (!this.power.has(this.unitChip[u] as number)) return;
    const driver = this.unitDriver[u] as number;
    const known = this.units.known(u);
    if (known !== NOT_YET) {
      this.drive(driver, known);
      return;
    }
    const outputs = this.unitOutputs[u] as number;
    const before = this.units.stateOf(u);
    const step = this.units.step(u);
    const isNew = step.state !== before;
    const clear = step.isForced ? (this.units.clearTicks[u] as number) : 0;
    for (let o = 0; o < outputs; o++) this.drive(driver + o, step.outputs[o] as number, clear);
    const p = this.pulses.of(u);
    if (p >= 0 && step.isTriggered) this.beginPulse(p, isNew);
  }

  private beginPulse(p: number, isNew: boolean): void {
    const { retriggers, ticks } = this.pulses.at(p);
    const item = this.firstPulse + p;
    if (this.heap.has(item) && !retriggers) return;
    if (retriggers || isNew) this.heap.put(item, this.now + ticks);
  }

  /** A pulse ends: the machine's input that ends it goes high for a moment. */
  private endPulse(p: number): void {
    const { unit, input } = this.pulses.at(p);
    for (const level of [HIGH, LOW]) {
      this.units.setInput(unit, input, level);
      this.evaluate(unit);
    }
  }

  /** Has an output go to a level after its delay, or after so many ticks where they are not 0. */
  private drive(d: number, level: number, ticks = 0): void {
    const { outputs, heap } = this;
    if (heap.has(d)) {
      if (outputs.pending[d] === level) return;
      heap.remove(d);
    }
    if (outputs.level[d] === level) return;
    if (this.isStarting && outputs.level[d] === UNKNOWN) {
      outputs.level[d] = level;
      this.putDrive(d);
      return;
    }
    outputs.pending[d] = level;
    heap.put(d, this.now + (ticks || outputs.delayTo(d, level)));
  }

  private lookAtSupply(c: number): void {
    const isFed = this.isFed(c);
    const item = this.firstChip + c;
    if (this.power.has(c)) {
      if (!isFed) this.losePower(c);
    } else if (isFed !== this.heap.has(item)) this.heap.put(item, isFed ? this.now + WAKE_TICKS : Infinity);
  }

  private losePower(c: number): void {
    this.power.put(c, false);
    this.circuit.units.forEach(({ chip, driver, outputs }, u) => {
      if (chip !== c) return;
      this.units.forget(u);
      for (let d = driver; d < driver + outputs; d++) {
        this.heap.remove(d);
        this.outputs.level[d] = UNKNOWN;
        this.putDrive(d);
      }
      const p = this.pulses.of(u);
      if (p >= 0) this.heap.remove(this.firstPulse + p);
    });
  }

  private gainPower(c: number): void {
    if (!this.isFed(c)) return;
    this.power.put(c, true);
    this.circuit.units.forEach(({ chip, driver, outputs }, u) => {
      if (chip !== c) return;
      for (let d = driver; d < driver + outputs; d++) this.putDrive(d);
      this.wake(u);
    });
  }

  private setShorted(isShorted: boolean): void {
    this.share = isShorted ? shareAtLimit(this.board) : 1;
    this.isShorted = isShorted;
    this.board.chips.forEach((_, c) => {
      if (isShorted) this.losePower(c);
      else this.gainPower(c);
    });
    this.inputs.lose();
    this.islands.forgetPoints();
    this.board.islands.forEach((_, i) => {
      this.dirty.put(i);
    });
    for (const r of this.inputs.fixed) this.inputs.readFixed(r);
  }

  /** Puts an actuator on or off, by its index in the circuit, at this moment. With a seed for it, its contacts bounce. */
  setSwitch(a: number, isOn: boolean): void {
    if (a < 0 || this.actuators.isOn(a) === isOn) return;
    const next = this.actuators.put(a, isOn, this.now);
    if (this.actuators.periodOf(a) === Infinity) this.heap.put(this.firstActuator + a, next);
    this.hold(a, isOn);
    this.tryAgain();
    this.flush();
  }

  /** Has a timer stand high or low while clocks do not run. */
  private hold(a: number, isHigh: boolean): void {
    for (const { unit, input, level } of this.timers?.hold(a, isHigh) ?? []) {
      this.units.setInput(unit, input, level);
      this.wake(unit);
    }
  }

  /** The potentiometers that can be turned, by reference. */
  get dials(): string[] {
    return this.board.islands.flatMap((island) => island.parts.dials.map((dial) => dial.ref));
  }

  /** Turns a potentiometer, by its reference, to a position. */
  setDial(ref: string, position: number): void {
    this.board.islands.forEach((island, i) => {
      island.parts.dials.forEach((dial, d) => {
        if (dial.ref === ref && island.setDial(d, position)) this.dirty.put(i);
      });
    });
    this.tryAgain();
    this.flush();
  }

  /** A contact has moved: what was shorted may no longer be. */
  private tryAgain(): void {
    if (this.isShorted && !this.board.isMiswired) this.setShorted(false);
  }

  /** Destroys a lamp, by its name: no current passes it any more. */
  burn(lamp: string): void {
    this.actuators.burn(lamp);
    this.flush();
  }

  /** Whether an actuator is on; of a timer that runs, whether its output is high. */
  isOn(a: number): boolean {
    const output = this.timers ? null : (this.circuit.switches[a]?.output ?? null);
    return output === null ? this.actuators.isOn(a) : this.outputs.level[output] === HIGH;
  }

  /** The time of the next event, in ticks; Infinity where nothing is going to happen. */
  get nextTime(): number {
    return this.heap.nextTime;
  }

  /** Lets time run to `ticks`, with all that happens up to then; ends early after so many events. */
  runUntil(ticks: number, mostEvents = Infinity): void {
    if (!this.happenUntil(ticks, this.events + mostEvents)) return;
    if (ticks !== Infinity) this.now = Math.max(this.now, ticks);
    this.islands.bringUp(this.now);
  }

  /** Has happen what is to happen up to `ticks`, and stays at the last of it; ends early after so many events. */
  runEvents(ticks: number, mostEvents: number): void {
    if (this.happenUntil(ticks, this.events + mostEvents)) this.islands.bringUp(this.now);
  }

  /** Goes from moment to moment; false where it ended at the event that was the last allowed. */
  private happenUntil(ticks: number, last: number): boolean {
    const { heap } = this;
    for (let next = heap.nextTime; next <= ticks; next = heap.nextTime) {
      if (this.events >= last) return false;
      this.now = next;
      do {
        this.events++;
        this.happen(heap.takeFirst());
      } while (heap.nextTime === next);
      this.flush();
    }
    return true;
  }

  private happen(item: number): void {
    if (item < this.firstIsland) {
      this.outputs.arrive(item, this.now);
      this.putDrive(item);
    } else if (item < this.firstPulse) this.dirty.put(item - this.firstIsland);
    else if (item < this.firstActuator) this.endPulse(item - this.firstPulse);
    else if (item < this.firstChip) {
      this.heap.put(item, this.actuators.moveByItself(item - this.firstActuator, this.now));
      this.tryAgain();
    } else if (item < this.overload) this.gainPower(item - this.firstChip);
    else this.setShorted(true);
  }

  /** The islands of the board as they stand now. */
  get standing(): Pick<LiveIslands, 'rangeOf' | 'pointAt' | 'standing' | 'isFloating' | 'supplyA' | 'secondsToRest'> {
    return this.islands;
  }

  isPowered(ref: string): boolean {
    return this.power.has(this.circuit.chips.findIndex((chip) => chip.ref === ref));
  }

  /**
   * Ends what is unknown as silicon does: stored signals that nobody knows become what `choose` says, and then outputs in loops that never
   * leave unknown do, one after the other, each when all has followed from the one before.
   */
  decide(choose: () => 0 | 1): void {
    // What is decided may clock others, which nobody knows then: so again, as deep as they hang on each other.
    for (let round = 0; round < DECIDE_ROUNDS; round++) {
      this.runSoon();
      const isChanged = this.decideStored(choose);
      this.runSoon();
      if (!this.decideLoops(choose) && !isChanged) break;
    }
    this.beginHere();
  }

  /** Gives outputs that hang on themselves a level, each when all has followed from the one before; false where there was none. */
  private decideLoops(choose: () => 0 | 1): boolean {
    let isChanged = false;
    for (let d = this.undecided.nextLoop(0); d >= 0; d = this.undecided.nextLoop(d + 1)) {
      isChanged = true;
      this.outputs.level[d] = choose();
      this.putDrive(d);
      this.flush();
      this.runSoon();
    }
    return isChanged;
  }

  /** Counts time from this moment on: what was before was the power coming on. */
  private beginHere(): void {
    this.islands.bringUp(this.now);
    this.heap.rebase(this.now);
    this.islands.beginHere();
    this.now = 0;
    this.events = 0;
  }

  /** The first output that nobody knows since it hangs on itself; null where there is none. It may rest, or run. */
  unknownLoop(): string | null {
    return this.circuit.driverPin[this.undecided.nextLoop(0)] ?? null;
  }

  /** Lets happen what is about to, within some gate delays. */
  private runSoon(): void {
    const [horizon, last] = [this.now + SETTLE_TICKS, this.events + DECIDE_EVENTS];
    while (this.heap.nextTime <= horizon && this.events < last) this.runUntil(this.heap.nextTime);
  }

  /** Gives stored signals that nobody knows a level; false where there was none to give. */
  private decideStored(choose: (unit: number) => number): boolean {
    const changed = this.undecided.storeBy(choose);
    for (const u of changed) this.wake(u);
    this.flush();
    return changed.length > 0;
  }
}

/** A start is decided step by step, each of so many ticks and events at the most. */
const DECIDE_ROUNDS = 64;
const SETTLE_TICKS = 20_000;
const DECIDE_EVENTS = 20_000;
